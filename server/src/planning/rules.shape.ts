import { cell, type Cells, type Column, fault, has, idsBy, type ImportRow, type MadeLog, numberOf, repeated, type RowFault, type Shape, skuColumn, textOf, trimmed, unknown, Wrong, yes } from '../exchange/index.js'; // prettier-ignore
import { isEverywhere } from '../identity/index.js';
import { type Act, insert, one, type Person, rows, type Tx } from '../platform/index.js';
import { type About, planAnew } from './plan-anew.js';

const LEAST_SERVICE = 50;
const MOST_SERVICE = 99.9;

const percent = (text: string) => {
  const read = cell.decimal(text);
  if (typeof read !== 'string') return read;
  const n = Number(read);
  return n < LEAST_SERVICE || n > MOST_SERVICE ? new Wrong('Per cent from 50 to 99.9, such as 97 or 98.5') : trimmed(n.toFixed(2));
};

/** As the list of rules is headed, so that what was given out is taken in again. */
const COLUMNS: readonly Column[] = [
  { key: 'className', label: 'Class', also: ['category'], read: cell.text(40) },
  { ...skuColumn(), required: false },
  { key: 'site', label: 'Site', also: ['warehouse', 'location'], read: cell.text(12) },
  { key: 'servicePercent', label: 'Met from the shelf, per cent', also: ['service level', 'fill rate'], read: percent },
  { key: 'reviewDays', label: 'Ordered every, days', also: ['review days'], read: cell.whole(1, 90) },
  { key: 'supplier', label: 'Supplier', read: cell.text(20) },
  { key: 'likeSku', label: 'Sells like', read: cell.text(40) },
  { key: 'likePercent', label: 'Per cent of it', read: cell.whole(1, 1_000) },
  { key: 'roomUnits', label: 'Room for, units', also: ['max stock', 'maximum'], read: cell.whole(1, 100_000_000) },
  { key: 'isFixed', label: 'At its own point', read: cell.yesNo },
  { key: 'isDropped', label: 'Bought no more', read: cell.yesNo },
];
/** What a rule says; the other columns say of what it is. */
const SAYS = ['servicePercent', 'reviewDays', 'supplier', 'likeSku', 'roomUnits', 'isFixed', 'isDropped'] as const;
const OF_ONE_ITEM = ['supplier', 'likeSku', 'roomUnits', 'isDropped'] as const;

interface Ids {
  items: ReadonlyMap<string, number>;
  suppliers: ReadonlyMap<string, number>;
  sites: ReadonlyMap<string, number>;
}

async function idsOf(tx: Tx, batch: readonly ImportRow[], person: Person): Promise<Ids> {
  const words = (...keys: string[]) => batch.flatMap((r) => keys.map((k) => textOf(r, k)));
  return {
    items: await idsBy(tx, 'item', 'sku', words('sku', 'likeSku'), person),
    suppliers: await idsBy(tx, 'supplier', 'code', words('supplier'), person),
    sites: await idsBy(tx, 'site', 'code', words('site'), person),
  };
}

const isSaid = (row: ImportRow, key: string) => has(row, key) && row.values[key] !== null && row.values[key] !== false;
const nameOf = (row: ImportRow) => [textOf(row, 'className'), textOf(row, 'sku'), textOf(row, 'site')].join('/').toUpperCase();

async function check(tx: Tx, batch: readonly ImportRow[], memory: Parameters<Shape['check']>[2], person: Person): Promise<RowFault[]> {
  const { items, suppliers, sites } = await idsOf(tx, batch, person);
  const mayAll = await memory.once('everywhere', () => isEverywhere(tx, person));
  return [
    ...unknown(batch, 'sku', items, (c) => `There is no item ${c}. Take items in first`),
    ...unknown(batch, 'likeSku', items, (c) => `There is no item ${c}. Take items in first`),
    ...unknown(batch, 'supplier', suppliers, (c) => `There is no supplier ${c}. Take suppliers in first`),
    ...unknown(batch, 'site', sites, (c) => `There is no site ${c}`),
    ...repeated(batch, memory, 'sku', nameOf),
    ...batch.flatMap((r): RowFault[] => {
      const sku = textOf(r, 'sku');
      if (sku !== '' && textOf(r, 'className') !== '')
        return [fault(r, 'className', textOf(r, 'className'), 'Say a class or an item, not both')];
      if (textOf(r, 'site') === '' && !mayAll)
        return [fault(r, 'site', '', 'Say at which site it holds: for all of them, you would have to be at all of them')];
      const alone = OF_ONE_ITEM.find((key) => sku === '' && isSaid(r, key));
      if (alone) return [fault(r, alone, textOf(r, alone), 'That is said of one item. Name the item')];
      if (sku !== '' && textOf(r, 'likeSku').toUpperCase() === sku.toUpperCase())
        return [fault(r, 'likeSku', sku, 'Choose another item than this one')];
      if (isSaid(r, 'likePercent') && textOf(r, 'likeSku') === '')
        return [fault(r, 'likeSku', '', 'Say which item it sells like, so many per cent of it')];
      return SAYS.some((key) => isSaid(r, key)) ? [] : [fault(r, 'servicePercent', '', 'Say one thing at least that is not as usual')];
    }),
  ];
}

async function write(tx: Tx, act: Act, batch: readonly ImportRow[], log: MadeLog): Promise<void> {
  const ids = await idsOf(tx, batch, act.person);
  const idOf = (from: ReadonlyMap<string, number>, r: ImportRow, key: string) => from.get(textOf(r, key).toUpperCase()) ?? null;
  for (const r of batch) {
    const className = textOf(r, 'className').trim();
    const of: About = {
      item_id: idOf(ids.items, r, 'sku'),
      class: className === '' ? null : className,
      site_id: idOf(ids.sites, r, 'site'),
    };
    const likeItemId = idOf(ids.items, r, 'likeSku');
    const all = {
      service_percent: ['servicePercent', textOf(r, 'servicePercent') || null],
      review_days: ['reviewDays', numberOf(r, 'reviewDays')],
      supplier_id: ['supplier', idOf(ids.suppliers, r, 'supplier')],
      like_item_id: ['likeSku', likeItemId],
      like_percent: ['likeSku', likeItemId === null ? null : (numberOf(r, 'likePercent') ?? 100)],
      room_units: ['roomUnits', numberOf(r, 'roomUnits')],
      is_fixed: ['isFixed', r.values['isFixed'] === true ? 1 : 0],
      is_dropped: ['isDropped', r.values['isDropped'] === true ? 1 : 0],
    } as const;
    // A column that the file has not changes nothing.
    const given = Object.fromEntries(Object.entries(all).flatMap(([column, [key, value]]) => (has(r, key) ? [[column, value]] : [])));
    const known = await one<{ id: number }>(
      tx,
      'SELECT id FROM buying_rule WHERE item_id <=> ? AND class <=> ? AND site_id <=> ? FOR UPDATE',
      [of.item_id, of.class, of.site_id],
    );
    if (known)
      await log.change(
        'buying_rule',
        'id',
        [known.id],
        async () => {
          const sets = [...Object.keys(given).map((c) => `\`${c}\` = ?`), 'version = version + 1'];
          await tx.query(`UPDATE buying_rule SET ${sets.join(', ')} WHERE id = ?`, [...Object.values(given), known.id]);
        },
        true,
      );
    else await log.created('buying_rule', 'id', [await insert(tx, 'buying_rule', { ...of, ...given })], true);
    await planAnew(tx, of);
  }
}

interface RuleRow {
  className: string | null;
  sku: string | null;
  site: string | null;
  servicePercent: string | null;
  reviewDays: number | null;
  supplier: string | null;
  likeSku: string | null;
  likePercent: number | null;
  roomUnits: number | null;
  isFixed: number;
  isDropped: number;
}

async function* read(tx: Pick<Tx, 'query'>, person: Person): AsyncIterable<Cells> {
  const found = await rows<RuleRow>(
    tx,
    `SELECT r.class AS className, i.sku, t.code AS site, r.service_percent AS servicePercent, r.review_days AS reviewDays, s.code AS supplier, k.sku AS likeSku, r.like_percent AS likePercent, r.room_units AS roomUnits, r.is_fixed AS isFixed, r.is_dropped AS isDropped
     FROM buying_rule r LEFT JOIN item i ON i.id = r.item_id LEFT JOIN site t ON t.id = r.site_id LEFT JOIN supplier s ON s.id = r.supplier_id LEFT JOIN item k ON k.id = r.like_item_id
     WHERE r.site_id IS NULL OR r.site_id IN (?) ORDER BY r.class, i.sku, t.code`,
    [[0, ...person.siteIds]],
  );
  const said = (n: number | null) => (n === null ? '' : String(n));
  for (const r of found)
    yield {
      className: r.className ?? '',
      sku: r.sku ?? '',
      site: r.site ?? '',
      servicePercent: trimmed(r.servicePercent),
      reviewDays: said(r.reviewDays),
      supplier: r.supplier ?? '',
      likeSku: r.likeSku ?? '',
      likePercent: said(r.likePercent),
      roomUnits: said(r.roomUnits),
      isFixed: yes(r.isFixed),
      isDropped: yes(r.isDropped),
    };
}

/** How goods are bought: a row for the company, a class or an item, at a site or at all. */
export const buyingRulesShape: Shape = {
  kind: 'buying-rules',
  says: 'Rules for buying',
  right: 'buy',
  tables: { buying_rule: ['id'] },
  undone: async (tx) => {
    await tx.query('UPDATE item_plan SET due_at = UTC_TIMESTAMP(3) WHERE due_at IS NULL');
  },
  columns: () => [...COLUMNS],
  check,
  write,
  read,
};
