import { Injectable } from '@nestjs/common';
import { splitWorth } from '@vectrum/core/costing';
import { decimalText, dividedBy, micro, type Micro, priceText } from '@vectrum/core/money';
import { spell } from '@vectrum/core/quantity';
import { DataSource } from 'typeorm';
import { ItemQueries } from '../catalogue/index.js';
import { dayOf, houseSpan, likeAny, num, rows, type Window } from '../platform/index.js';
import type { AgeDto, ValuePageDto, ValueRowDto } from './value.dto.js';

export const VALUE_BY = ['item', 'class', 'site', 'lot'] as const;
export type ValueBy = (typeof VALUE_BY)[number];
export interface ValueAsked {
  /** ISO date; empty for now. */
  on: string;
  by: ValueBy;
  search: string;
}

interface Row {
  id: number;
  sku: string;
  name: string;
  className: string;
  units: string | number;
  value: string;
}

/** Whether goods in a place and condition are ours: what is set apart is not, and what is outside is not here. */
const ours = (place: string, condition: string) => `(${place}.site_id IS NOT NULL AND ${condition} <> 'apart')`;
const AGES = [30, 90, 180, 365] as const;

export function valueAsked(query: Readonly<Record<string, unknown>>): ValueAsked {
  const text = (name: string) => (typeof query[name] === 'string' ? query[name].trim().slice(0, 80) : '');
  return { on: dayOf(query, 'on'), by: VALUE_BY.find((b) => b === text('by')) ?? 'item', search: text('search') };
}

/** What stock was worth on a day. */
@Injectable()
export class ValueQueries {
  constructor(
    private readonly source: DataSource,
    private readonly items: ItemQueries,
  ) {}

  /**
   * The stock at the end of a day: what there is now, without what has moved since. O(items + what was posted since that day), so
   * that the last months are quick however long the history is.
   */
  async list(asked: ValueAsked, window: Window): Promise<ValuePageDto> {
    const found = await this.stockOn(asked);
    const total = found.reduce((sum, r) => sum + micro(r.value), 0n);
    const sorted = (await this.grouped(asked, found)).sort((a, b) =>
      b.value > a.value ? 1 : b.value < a.value ? -1 : a.name.localeCompare(b.name),
    );
    const page = sorted.slice(window.from, window.from + window.limit);
    const packs = await this.items.packs(page.flatMap((r) => r.itemId ?? []));
    return {
      total: sorted.length,
      value: decimalText(total),
      ages: asked.on === '' ? await this.ages() : [],
      rows: page.map((r): ValueRowDto => ({
        key: r.key,
        name: r.name,
        lot: r.lot,
        units: r.units,
        words: r.itemId === null ? '' : spell(r.units, packs.get(r.itemId) ?? []),
        value: decimalText(r.value),
        each: r.itemId === null || r.units === 0 ? '' : priceText(dividedBy(r.value, r.units)),
        share: total === 0n ? 0 : Number((r.value * 10_000n) / total),
      })),
    };
  }

  /** What there was of each item, put together as it is asked for; the parts of an item sum to what it was worth. */
  private async grouped(asked: ValueAsked, found: readonly Row[]): Promise<Group[]> {
    switch (asked.by) {
      case 'item':
        return found.map((r) => ({ key: r.sku, name: r.name, lot: null, itemId: r.id, units: num(r.units), value: micro(r.value) }));
      case 'class':
        return together(found.map((r) => ({ ...sum(r.className || 'without a class'), value: micro(r.value) })));
      case 'site':
        return together((await this.parted(asked.on, found, 'site')).map(({ label, value }) => ({ ...sum(label), value })));
      case 'lot':
        return (await this.parted(asked.on, found, 'lot')).map(({ item, label, units, value }) => ({
          key: item.sku,
          name: item.name,
          lot: label,
          itemId: item.id,
          units,
          value,
        }));
    }
  }

  /** The units of each item by site or lot at the end of a day, and what each part of them was worth. */
  private async parted(on: string, found: readonly Row[], by: 'site' | 'lot') {
    const since = on === '' ? null : (await houseSpan(this.source, on, on)).ends;
    const column = { site: (place: string) => `${place}.site_id`, lot: (_: string, row: string) => `${row}.lot_id` }[by];
    const back = since
      ? `UNION ALL SELECT m.item_id, ${column('t', 'm')}, -CAST(m.units AS SIGNED) FROM movement m JOIN place t ON t.id = m.to_place_id WHERE m.server_at >= ${since} AND ${ours('t', 'COALESCE(m.to_condition, m.stock_condition)')}
         UNION ALL SELECT m.item_id, ${column('f', 'm')}, CAST(m.units AS SIGNED) FROM movement m JOIN place f ON f.id = m.from_place_id WHERE m.server_at >= ${since} AND ${ours('f', 'm.stock_condition')}`
      : '';
    const label =
      by === 'site'
        ? 'COALESCE(s.name, ?)'
        : `COALESCE(CONCAT(l.code, IF(l.expires_on IS NULL, '', CONCAT(', best before ', l.expires_on))), ?)`;
    const parts = await rows<{ itemId: number; label: string; units: string }>(
      this.source,
      `SELECT x.item_id AS itemId, ${label} AS label, SUM(x.units) AS units FROM
         (SELECT b.item_id, ${column('p', 'b')} AS part, CAST(b.units AS SIGNED) AS units FROM balance b JOIN place p ON p.id = b.place_id WHERE b.units > 0 AND ${ours('p', 'b.stock_condition')} ${back}) x
         ${by === 'site' ? 'LEFT JOIN site s ON s.id = x.part' : 'LEFT JOIN lot l ON l.id = x.part'} GROUP BY x.item_id, x.part HAVING SUM(x.units) > 0 ORDER BY x.item_id, x.part`,
      [by === 'site' ? 'nowhere' : 'no lot'],
    );
    const ofItem = new Map<number, typeof parts>();
    for (const p of parts) ofItem.set(p.itemId, [...(ofItem.get(p.itemId) ?? []), p]);
    return found.flatMap((item) => {
      const own = ofItem.get(item.id) ?? [{ label: by === 'site' ? 'nowhere' : 'no lot', units: String(item.units), itemId: item.id }];
      const values = splitWorth(
        micro(item.value),
        own.map((p) => num(p.units)),
      );
      return own.map((p, i) => ({ item, label: p.label, units: num(p.units), value: values[i] ?? 0n }));
    });
  }

  private async stockOn({ on, search }: ValueAsked): Promise<Row[]> {
    const words = search.split(/\s+/).filter(Boolean).slice(0, 4);
    const since = on === '' ? null : (await houseSpan(this.source, on, on)).ends;
    const moved = since
      ? `LEFT JOIN (SELECT m.item_id, SUM(CAST(m.units AS SIGNED) * (${ours('t', 'COALESCE(m.to_condition, m.stock_condition)')} - ${ours('f', 'm.stock_condition')})) AS units
           FROM movement m JOIN place f ON f.id = m.from_place_id JOIN place t ON t.id = m.to_place_id WHERE m.server_at >= ${since} GROUP BY m.item_id) x ON x.item_id = c.item_id
         LEFT JOIN (SELECT item_id, SUM(IF(debit = 'stock', amount, -amount)) AS value FROM value_entry WHERE at >= ${since} AND (debit = 'stock' OR credit = 'stock') GROUP BY item_id) e ON e.item_id = c.item_id`
      : '';
    const [units, value] = since
      ? ['CAST(c.units AS SIGNED) - COALESCE(x.units, 0)', 'c.value - COALESCE(e.value, 0)']
      : ['c.units', 'c.value'];
    return rows<Row>(
      this.source,
      `SELECT i.id, i.sku, i.name, i.class AS className, ${units} AS units, ${value} AS value FROM cost_pool c JOIN item i ON i.id = c.item_id ${moved}
       WHERE (${units} <> 0 OR ${value} <> 0)${words.map(() => ` AND CONCAT_WS(' ', i.name, i.sku, i.class) LIKE ?`).join('')}`,
      words.map(likeAny),
    );
  }

  /** What the layers that are left are worth, by how long they have been there. */
  private async ages(): Promise<AgeDto[]> {
    const bands = AGES.map(
      (days, i) =>
        `SUM(IF(DATEDIFF(UTC_TIMESTAMP(), at) <= ${days} AND DATEDIFF(UTC_TIMESTAMP(), at) > ${AGES[i - 1] ?? -1}, value_left, 0)) AS a${i}`,
    );
    const [sums = {}] = await rows<Record<string, string | null>>(
      this.source,
      `SELECT ${bands.join(', ')}, SUM(IF(DATEDIFF(UTC_TIMESTAMP(), at) > ${AGES[AGES.length - 1] ?? 0}, value_left, 0)) AS a${AGES.length} FROM cost_layer WHERE units_left > 0`,
    );
    const says = ['up to 30 days', '31 to 90 days', '91 to 180 days', '181 to 365 days', 'longer than a year'];
    return says.map((words, i) => ({ says: words, value: sums[`a${i}`] ?? '0.000000' }));
  }
}

interface Group {
  key: string;
  name: string;
  lot: string | null;
  /** Null where items are put together, whose units are their own. */
  itemId: number | null;
  units: number;
  value: Micro;
}
const sum = (name: string): Omit<Group, 'value'> => ({ key: name, name, lot: null, itemId: null, units: 0 });

function together(all: readonly Group[]): Group[] {
  const groups = new Map<string, Group>();
  for (const g of all) groups.set(g.key, { ...g, value: (groups.get(g.key)?.value ?? 0n) + g.value });
  return [...groups.values()];
}
