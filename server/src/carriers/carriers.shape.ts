import { cell, fault, skuColumn, tableShape, type TableColumn, textOf } from '../exchange/index.js';
import { rows } from '../platform/index.js';

const code = (says: string) => cell.code(/^[A-Za-z0-9-]{2,20}$/, says);
const carrier: TableColumn = {
  key: 'carrier',
  label: 'Carrier',
  required: true,
  read: code('A carrier code is 2 to 20 letters, digits and hyphens'),
  column: 'carrier_id',
  empty: null,
  ref: { table: 'carrier', by: 'code', says: (c) => `There is no carrier ${c}. Take carriers in first` },
  select: 'c.code',
};

/** Carriers; the keys of their systems are typed, never in a file. */
export const carriersShape = tableShape({
  kind: 'carriers',
  says: 'Carriers',
  right: 'set-up',
  table: 'carrier',
  key: ['code'],
  changeBy: 'code',
  versioned: true,
  order: 't.code',
  columns: [
    {
      key: 'code',
      label: 'Carrier',
      also: ['carrier code', 'code'],
      required: true,
      read: code('A carrier code is 2 to 20 letters, digits and hyphens'),
      column: 'code',
      empty: '',
    },
    { key: 'name', label: 'Name', required: true, read: cell.text(80), column: 'name', empty: '' },
  ],
});

export const lanesShape = tableShape({
  kind: 'lanes',
  says: 'Lanes of carriers',
  right: 'set-up',
  table: 'carrier_lane',
  key: ['carrier', 'site'],
  changeBy: 'carrier_id',
  rowKey: ['carrier_id', 'site_id'],
  joins: 'JOIN carrier c ON c.id = t.carrier_id JOIN site s ON s.id = t.site_id JOIN place p ON p.id = t.place_id',
  order: 'c.code, s.code',
  columns: [
    carrier,
    {
      key: 'site',
      label: 'Site',
      required: true,
      read: cell.text(12),
      column: 'site_id',
      empty: null,
      ref: { table: 'site', by: 'code', says: (c) => `There is no site ${c}` },
      select: 's.code',
    },
    {
      key: 'place',
      label: 'Lane',
      also: ['place', 'dispatch lane'],
      required: true,
      read: cell.text(20),
      column: 'place_id',
      empty: null,
      ref: { table: 'place', by: 'code', says: (c) => `There is no place ${c}. Take places in first` },
      select: 'p.code',
    },
  ],
  check: async (tx, batch, ids) => {
    const lanes = [...(ids.get('place')?.values() ?? [])];
    const found = await rows<{ id: number; site_id: number; kind: string }>(tx, 'SELECT id, site_id, kind FROM place WHERE id IN (?)', [
      [0, ...lanes],
    ]);
    return batch.flatMap((r) => {
      const siteId = ids.get('site')?.get(textOf(r, 'site').toUpperCase());
      const place = found.find((p) => p.id === ids.get('place')?.get(textOf(r, 'place').toUpperCase()));
      if (place && (place.kind !== 'dispatch-lane' || place.site_id !== siteId))
        return [fault(r, 'place', textOf(r, 'place'), 'This is not a dispatch lane of the site')];
      return [];
    });
  },
});

export const servicesShape = tableShape({
  kind: 'services',
  says: 'Services of carriers without a system',
  right: 'set-up',
  table: 'carrier_service',
  key: ['carrier', 'code'],
  changeBy: 'carrier_id',
  rowKey: ['carrier_id', 'code'],
  joins: 'JOIN carrier c ON c.id = t.carrier_id',
  order: 'c.code, t.code',
  columns: [
    carrier,
    {
      key: 'code',
      label: 'Service',
      also: ['service code'],
      required: true,
      read: (t) => {
        const read = code('A service code is 2 to 20 letters, digits and hyphens')(t);
        return typeof read === 'string' ? read.toLowerCase() : read;
      },
      column: 'code',
      empty: '',
    },
    { key: 'name', label: 'Name', required: true, read: cell.text(60), column: 'name', empty: '' },
    { key: 'days', label: 'Days', required: true, read: cell.whole(0, 90), column: 'days', empty: 0 },
    { key: 'price', label: 'Price', required: true, read: cell.decimal, column: 'price', empty: '0', as: 'decimal' },
    {
      key: 'mostG',
      measure: 'g',
      label: 'Carries, g',
      also: ['most weight', 'limit'],
      required: true,
      read: cell.whole(1, 5_000_000),
      column: 'most_g',
      empty: 0,
    },
  ],
});

const mm = (key: string, label: string, column: string, also: string[]): TableColumn => ({
  key,
  label,
  also,
  required: true,
  measure: 'mm',
  read: cell.whole(10, 10_000),
  column,
  empty: 0,
});

export const boxesShape = tableShape({
  kind: 'boxes',
  says: 'Boxes',
  right: 'set-up',
  table: 'carton',
  key: ['code'],
  changeBy: 'code',
  rowKey: ['code'],
  versioned: true,
  joins: 'LEFT JOIN item i ON i.id = t.item_id',
  order: 't.code',
  columns: [
    {
      key: 'code',
      label: 'Box',
      also: ['box code', 'code'],
      required: true,
      read: cell.code(/^[A-Za-z0-9-]{1,12}$/, 'A box code is 1 to 12 letters, digits and hyphens'),
      column: 'code',
      empty: '',
    },
    mm('lengthMm', 'Length, mm', 'length_mm', ['length']),
    mm('widthMm', 'Width, mm', 'width_mm', ['width']),
    mm('heightMm', 'Height, mm', 'height_mm', ['height']),
    {
      key: 'tareG',
      measure: 'g',
      label: 'Weighs, g',
      also: ['tare', 'weight'],
      required: true,
      read: cell.whole(0, 1_000_000),
      column: 'tare_g',
      empty: 0,
    },
    {
      key: 'mostG',
      measure: 'g',
      label: 'Carries, g',
      also: ['limit', 'most weight'],
      required: true,
      read: cell.whole(1, 5_000_000),
      column: 'most_g',
      empty: 0,
    },
    { key: 'cost', label: 'Cost', read: cell.decimal, column: 'cost', empty: '0', as: 'decimal', cost: true },
    { key: 'lowAt', label: 'Low at', also: ['low'], read: cell.whole(0, 1_000_000), column: 'low_at', empty: 0 },
    {
      ...skuColumn(),
      label: 'Kept as item',
      required: false,
      ref: { table: 'item', by: 'sku', says: (c) => `There is no item ${c}. Take items in first` },
      select: 'i.sku',
      column: 'item_id',
      empty: null,
    },
  ],
});
