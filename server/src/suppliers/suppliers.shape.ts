import { cell, fault, type ImportRow, numberOf, skuColumn, textOf, type RefIds, tableShape } from '../exchange/index.js';
import { packIds } from '../catalogue/index.js';

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
  ],
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
    {
      key: 'supplier',
      label: 'Supplier',
      also: ['supplier code', 'vendor'],
      required: true,
      read: code,
      column: 'supplier_id',
      empty: null,
      ref: { table: 'supplier', by: 'code', says: (c) => `There is no supplier ${c}. Take suppliers in first` },
      select: 's.code',
    },
    {
      ...skuColumn(),
      column: 'item_id',
      empty: null,
      ref: { table: 'item', by: 'sku', says: (c) => `There is no item ${c}. Take items in first` },
      select: 'i.sku',
    },
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
    {
      key: 'price',
      label: 'Price of a pack',
      also: ['price', 'cost'],
      required: true,
      read: cell.decimal,
      column: 'price',
      empty: '0',
      as: 'decimal',
      cost: true,
    },
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
