import { cell, fault, type ImportRow, numberOf, skuColumn, textOf, type RefIds, tableShape } from '../exchange/index.js';
import { packIds } from '../catalogue/index.js';
import { marks, rows, type Tx } from '../platform/index.js';

const code = cell.code(/^[A-Za-z0-9-]{2,20}$/, 'A code is 2 to 20 letters, digits and hyphens');

export const suppliersShape = tableShape({
  kind: 'suppliers',
  says: 'Suppliers',
  right: 'buy',
  table: 'supplier',
  key: ['code'],
  changeBy: 'code',
  versioned: true,
  order: 't.code',
  columns: [
    { key: 'code', label: 'Supplier', also: ['supplier code', 'vendor', 'code'], required: true, read: code, column: 'code', empty: '' },
    { key: 'name', label: 'Name', also: ['supplier name', 'company'], required: true, read: cell.text(120), column: 'name', empty: '' },
    { key: 'email', label: 'E-mail', also: ['email', 'mail'], read: cell.mail, column: 'email', empty: '' },
    { key: 'phone', label: 'Telephone', also: ['phone', 'tel'], read: cell.text(40), column: 'phone', empty: '' },
    {
      key: 'currency',
      label: 'Currency',
      read: cell.code(/^[A-Za-z]{3}$/, 'A currency is three letters, such as GBP'),
      column: 'currency',
      empty: 'GBP',
    },
    {
      key: 'leadDays',
      label: 'Lead time, days',
      also: ['lead time', 'lead days'],
      read: cell.whole(0, 365),
      column: 'lead_days',
      empty: 14,
    },
    { key: 'terms', label: 'Terms', also: ['payment terms'], read: cell.text(80), column: 'terms', empty: '' },
    {
      key: 'workingDays',
      label: 'Works on',
      also: ['working days'],
      read: cell.code(/^(?=.*[Yy])[YNyn]{7}$/, 'Seven letters from Monday on, Y for a working day'),
      column: 'working_days',
      empty: 'YYYYYNN',
    },
    {
      key: 'orderDays',
      label: 'Takes orders on',
      also: ['order days'],
      read: cell.code(/^(?=.*[Yy])[YNyn]{7}$/, 'Seven letters from Monday on, Y for a day on which they take orders'),
      column: 'order_days',
      empty: 'YYYYYYY',
    },
    {
      key: 'leastValue',
      label: 'Least order, value',
      also: ['minimum order value'],
      read: cell.decimal,
      column: 'least_value',
      empty: null,
      as: 'decimal',
    },
    {
      key: 'leastUnits',
      label: 'Least order, units',
      also: ['minimum order quantity'],
      read: cell.whole(1, 1_000_000_000),
      column: 'least_units',
      empty: null,
    },
    {
      key: 'leastPallets',
      label: 'Least order, pallets',
      read: cell.whole(1, 10_000),
      column: 'least_pallets',
      empty: null,
    },
  ],
});

const supplierColumn = {
  key: 'supplier',
  label: 'Supplier',
  also: ['supplier code', 'vendor'],
  required: true,
  read: code,
  column: 'supplier_id',
  empty: null,
  ref: { table: 'supplier', by: 'code', says: (c: string) => `There is no supplier ${c}. Take suppliers in first` },
  select: 's.code',
} as const;
const itemColumn = {
  ...skuColumn(),
  column: 'item_id',
  empty: null,
  ref: { table: 'item', by: 'sku', says: (c: string) => `There is no item ${c}. Take items in first` },
  select: 'i.sku',
} as const;

const priceColumn = {
  key: 'price',
  label: 'Price of a pack',
  also: ['price', 'cost'] as string[],
  required: true,
  read: cell.decimal,
  column: 'price',
  empty: '0',
  as: 'decimal',
  cost: true,
} as const;

/** Whoever has a supplier's form open is told that it changed. */
async function touch(tx: Tx, ids: RefIds): Promise<void> {
  const suppliers = [...(ids.get('supplier')?.values() ?? [])];
  if (suppliers.length > 0) await tx.query(`UPDATE supplier SET version = version + 1 WHERE id IN (${marks(suppliers)})`, suppliers);
}

/** The people of suppliers: one row a person. */
export const contactsShape = tableShape({
  kind: 'contacts',
  says: 'Suppliers’ people',
  right: 'buy',
  table: 'supplier_contact',
  key: ['supplier', 'name'],
  changeBy: 'name',
  joins: 'JOIN supplier s ON s.id = t.supplier_id',
  order: 's.code, t.position, t.id',
  fixed: { position: 100 },
  columns: [
    supplierColumn,
    { key: 'name', label: 'Person', also: ['contact', 'contact person'], required: true, read: cell.text(80), column: 'name', empty: '' },
    { key: 'role', label: 'Does', also: ['role', 'department'], read: cell.text(60), column: 'role', empty: '' },
    { key: 'email', label: 'E-mail', also: ['email', 'mail'], read: cell.mail, column: 'email', empty: '' },
    { key: 'phone', label: 'Telephone', also: ['phone', 'tel'], read: cell.text(40), column: 'phone', empty: '' },
  ],
  after: (tx, _act, _batch, ids) => touch(tx, ids),
});

/** Lower prices for more packs: one row a step. */
export const breaksShape = tableShape({
  kind: 'breaks',
  says: 'Suppliers’ price breaks',
  right: 'buy',
  table: 'supplier_price_break',
  rowKey: ['supplier_id', 'item_id', 'from_packs'],
  key: ['supplier', 'sku', 'from'],
  changeBy: 'item_id',
  joins: 'JOIN supplier s ON s.id = t.supplier_id JOIN item i ON i.id = t.item_id',
  order: 's.code, i.sku, t.from_packs',
  columns: [
    supplierColumn,
    itemColumn,
    {
      key: 'from',
      label: 'From packs',
      also: ['from quantity', 'break quantity'],
      required: true,
      read: cell.whole(2, 1_000_000),
      column: 'from_packs',
      empty: null,
    },
    priceColumn,
  ],
  check: async (tx, batch, ids, _memory, person) => {
    if (!person.seesCosts) return batch.map((r) => fault(r, 'price', '', 'Prices are taken in by those who may see costs'));
    const pair = (r: ImportRow) =>
      `${ids.get('supplier')?.get(textOf(r, 'supplier').toUpperCase()) ?? 0}/${ids.get('sku')?.get(textOf(r, 'sku')) ?? 0}`;
    const items = [...(ids.get('sku')?.values() ?? [])];
    const priced = items.length
      ? await rows<{ s: number; i: number }>(
          tx,
          `SELECT supplier_id AS s, item_id AS i FROM supplier_item WHERE item_id IN (${marks(items)})`,
          items,
        )
      : [];
    const known = new Set(priced.map((p) => `${p.s}/${p.i}`));
    return batch.flatMap((r) =>
      known.has(pair(r)) || pair(r).startsWith('0/') || pair(r).endsWith('/0')
        ? []
        : [fault(r, 'sku', textOf(r, 'sku'), `${textOf(r, 'supplier')} has no price for ${textOf(r, 'sku')} yet. Take prices in first`)],
    );
  },
  after: (tx, _act, _batch, ids) => touch(tx, ids),
});

export const pricesShape = tableShape({
  kind: 'prices',
  says: 'Suppliers’ codes and prices',
  right: 'buy',
  table: 'supplier_item',
  rowKey: ['supplier_id', 'item_id'],
  key: ['supplier', 'sku'],
  changeBy: 'item_id',
  joins: 'JOIN supplier s ON s.id = t.supplier_id JOIN item i ON i.id = t.item_id JOIN pack_unit u ON u.id = t.pack_unit_id',
  order: 's.code, i.sku',
  columns: [
    supplierColumn,
    itemColumn,
    {
      key: 'holds',
      label: 'Holds',
      also: ['pack size', 'units per pack'],
      read: cell.whole(1, 1_000_000),
      column: 'pack_unit_id',
      empty: 1,
      select: 'u.factor',
      value: (r, ids) => packOf(r, ids) ?? null,
    },
    {
      key: 'supplierSku',
      label: 'Their code',
      also: ['supplier sku', 'supplier item', 'vendor code'],
      read: cell.text(40),
      column: 'supplier_sku',
      empty: '',
    },
    priceColumn,
  ],
  more: async (tx, ids) => new Map([['pack', await packIds(tx, ids.get('sku')?.values() ?? [])]]),
  check: (_tx, batch, ids, _memory, person) =>
    batch.flatMap((r) => {
      if (!person.seesCosts) return [fault(r, 'price', '', 'Prices are taken in by those who may see costs')];
      const known = ids.get('sku')?.has(textOf(r, 'sku')) === true;
      const holds = numberOf(r, 'holds') ?? 1;
      return known && packOf(r, ids) === undefined
        ? [fault(r, 'holds', holds, `${textOf(r, 'sku')} has no pack of ${holds}. Take pack units in first`)]
        : [];
    }),
});

/** The pack unit that a row's price is for. */
function packOf(row: ImportRow, ids: RefIds): number | undefined {
  return ids.get('pack')?.get(`${ids.get('sku')?.get(textOf(row, 'sku')) ?? 0}/${numberOf(row, 'holds') ?? 1}`);
}
