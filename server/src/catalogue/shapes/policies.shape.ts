import { cell, fault, numberOf, skuColumn, tableShape } from '../../exchange/index.js';

/** What an item is at a site: its home, when to buy, what it costs there. One row an item and site. */
export const policiesShape = tableShape({
  kind: 'policies',
  says: 'Homes, reorder points and refills by site',
  right: 'items',
  table: 'item_site',
  rowKey: ['item_id', 'site_id'],
  key: ['sku', 'site'],
  changeBy: 'item_id',
  joins: 'JOIN item i ON i.id = t.item_id JOIN site s ON s.id = t.site_id LEFT JOIN place h ON h.id = t.home_place_id',
  order: 'i.sku, s.code',
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
      required: true,
      read: cell.text(12),
      column: 'site_id',
      empty: null,
      ref: { table: 'site', by: 'code', says: (c) => `There is no site ${c}` },
      select: 's.code',
    },
    {
      key: 'home',
      label: 'Home bin',
      also: ['home', 'pick face', 'bin'],
      read: cell.text(40),
      column: 'home_place_id',
      empty: null,
      ref: { table: 'place', by: 'code', says: (c) => `There is no place ${c}. Take places in first` },
      select: 'h.code',
    },
    { key: 'reorderPoint', label: 'Reorder point', also: ['minimum', 'min'], read: cell.whole(0), column: 'reorder_point', empty: null },
    {
      key: 'orderUpTo',
      label: 'Order up to',
      also: ['maximum', 'max', 'order level'],
      read: cell.whole(0),
      column: 'order_up_to',
      empty: null,
    },
    { key: 'refillBelow', label: 'Refill below', also: ['pick face minimum'], read: cell.whole(0), column: 'refill_below', empty: null },
    { key: 'refillUpTo', label: 'Refill up to', also: ['pick face maximum'], read: cell.whole(0), column: 'refill_up_to', empty: null },
    { key: 'cost', label: 'Cost', also: ['unit cost'], read: cell.decimal, column: 'cost', empty: null, as: 'decimal', cost: true },
  ],
  check: (_tx, batch) =>
    batch.flatMap((r) => {
      const isBelow = (low: number | null, high: number | null): high is number => low !== null && high !== null && high < low;
      const orderUpTo = numberOf(r, 'orderUpTo');
      const refillUpTo = numberOf(r, 'refillUpTo');
      return [
        ...(isBelow(numberOf(r, 'reorderPoint'), orderUpTo)
          ? [fault(r, 'orderUpTo', orderUpTo, 'Order up to at least the reorder point')]
          : []),
        ...(isBelow(numberOf(r, 'refillBelow'), refillUpTo)
          ? [fault(r, 'refillUpTo', refillUpTo, 'Fill up to at least what it is refilled below')]
          : []),
      ];
    }),
});
