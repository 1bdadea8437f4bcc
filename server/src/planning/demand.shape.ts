import { readWeek, weekOfDate, weekText } from '@vectrum/core/replenish';
import { cell, fault, type ImportRow, type RefIds, skuColumn, tableShape, textOf, Wrong } from '../exchange/index.js';
import { rows, type Tx } from '../platform/index.js';
import { planSoon } from './demand-reading.service.js';

const WEEK_SAYS = 'A week such as 2026-W05, or a day in it such as 2026-01-28';

/** A week by its name or by a day in it, as its name. */
function readAsked(text: string): string | Wrong {
  try {
    return weekText(/^\d{4}-W\d{2}$/.test(text) ? readWeek(text) : weekOfDate(text));
  } catch {
    return new Wrong(WEEK_SAYS);
  }
}

/** Weeks as ISO names them, of their number in the table. */
const WEEK_SQL = "DATE_FORMAT(DATE_ADD('1969-12-29', INTERVAL t.week * 7 + 3 DAY), '%x-W%v')";

/** The site that a row names; in a house with one site, that one where it names none. */
const siteOf = (row: ImportRow, ids: RefIds): number | undefined => {
  const code = textOf(row, 'site');
  return code === '' ? ids.get('only')?.get('') : ids.get('site')?.get(code.toUpperCase());
};

async function plannedAnew(tx: Tx, batch: readonly ImportRow[], ids: RefIds): Promise<void> {
  const items = [...(ids.get('sku')?.values() ?? [])];
  for (const site of new Set(batch.flatMap((row) => siteOf(row, ids) ?? []))) await planSoon(tx, site, items);
}

/**
 * What was asked for before the house began here, or was written down elsewhere: units of an item at a site in a week. It stands
 * instead of what was ordered here in that week.
 */
export const demandShape = (taken: () => void) =>
  tableShape({
    kind: 'demand',
    says: 'Past demand by week',
    right: 'buy',
    table: 'demand_week',
    rowKey: ['site_id', 'item_id', 'week'],
    key: ['sku', 'site', 'week'],
    changeBy: 'item_id',
    joins: 'JOIN item i ON i.id = t.item_id JOIN site s ON s.id = t.site_id',
    order: 'i.sku, s.code, t.week',
    where: 't.given_units IS NOT NULL',
    columns: [
      {
        ...skuColumn(),
        column: 'item_id',
        empty: null,
        ref: { table: 'item', by: 'sku', says: (c) => `There is no item ${c}. Take items in first` },
        select: 'i.sku',
      },
      {
        key: 'site',
        label: 'Site',
        also: ['warehouse', 'location'],
        read: cell.text(12),
        column: 'site_id',
        empty: null,
        ref: { table: 'site', by: 'code', says: (c) => `There is no site ${c}` },
        select: 's.code',
        value: (row, ids) => siteOf(row, ids) ?? null,
      },
      {
        key: 'week',
        label: 'Week',
        also: ['date', 'day', 'week beginning'],
        required: true,
        read: readAsked,
        column: 'week',
        empty: null,
        select: WEEK_SQL,
        value: (row) => readWeek(textOf(row, 'week')),
      },
      {
        key: 'units',
        label: 'Units asked for',
        also: ['units', 'quantity', 'demand', 'sold'],
        required: true,
        read: cell.whole(0),
        column: 'given_units',
        empty: null,
      },
    ],
    more: async (tx) => {
      const sites = await rows<{ id: number }>(tx, 'SELECT id FROM site ORDER BY id LIMIT 2');
      return new Map([['only', new Map(sites.length === 1 ? [['', sites[0]?.id ?? 0]] : [])]]);
    },
    check: (_tx, batch, ids, _memory, person) =>
      batch.flatMap((row) => {
        const site = siteOf(row, ids);
        if (textOf(row, 'site') !== '' || (site !== undefined && person.siteIds.includes(site))) return [];
        return [fault(row, 'site', '', 'Say at which site it was asked for')];
      }),
    after: async (tx, _act, batch, ids) => {
      await plannedAnew(tx, batch, ids);
      taken();
    },
    undone: async (tx) => {
      await tx.query('UPDATE item_plan SET due_at = UTC_TIMESTAMP(3) WHERE due_at IS NULL');
      taken();
    },
  });
