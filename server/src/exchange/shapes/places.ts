import { PLACE_KINDS } from '../../sites/place.entity.js';
import { cell, fault, textOf } from '../shape.js';
import { tableShape } from './table.js';

const KINDS = ['zone', ...PLACE_KINDS];

/** Zones, bins, docks, tables and containers: one row a place. A zone stands before the places in it. */
export const placesShape = tableShape({
  kind: 'places',
  says: 'Bins and places',
  right: 'set-up',
  table: 'place',
  key: ['code'],
  changeBy: 'code',
  versioned: true,
  joins: `JOIN site s ON s.id = t.site_id LEFT JOIN place z ON z.id = t.parent_id AND z.kind = 'zone' LEFT JOIN plan_shape a ON a.id = t.aisle_id`,
  where: `t.kind NOT IN ('site','parcel')`,
  order: `t.kind <> 'zone', s.code, t.walk_order, t.code`,
  columns: [
    {
      key: 'site',
      label: 'Site',
      also: ['warehouse'],
      required: true,
      read: cell.text(12),
      column: 'site_id',
      empty: null,
      ref: { table: 'site', by: 'code', says: (c) => `There is no site ${c}` },
      select: 's.code',
    },
    {
      key: 'code',
      label: 'Place',
      also: ['bin', 'code', 'location', 'place code'],
      required: true,
      read: cell.code(/^[A-Za-z0-9][A-Za-z0-9-]{0,30}$/, 'A place code is letters, digits and hyphens, such as C-07-2'),
      column: 'code',
      empty: '',
    },
    { key: 'kind', label: 'Kind', also: ['type'], read: cell.oneOf(KINDS), column: 'kind', empty: 'pick-face' },
    { key: 'name', label: 'Name', read: cell.text(60), column: 'name', empty: '' },
    {
      key: 'rule',
      label: 'Rule of the zone',
      also: ['rule'],
      read: cell.oneOf(['none', 'cold', 'restricted']),
      column: 'rule',
      empty: 'none',
    },
    {
      key: 'zone',
      label: 'Zone',
      read: cell.text(40),
      column: 'parent_id',
      empty: null,
      ref: { table: 'place', by: 'code', says: (c) => `There is no zone ${c}. Put it into an earlier file or make it first` },
      select: 'z.code',
    },
    {
      key: 'pickable',
      label: 'Open to picking',
      also: ['picking', 'pickable'],
      read: cell.yesNo,
      column: 'pickable',
      empty: 0,
      as: 'yes-no',
    },
    { key: 'blocked', label: 'Blocked', read: cell.yesNo, column: 'blocked', empty: 0, as: 'yes-no' },
    { key: 'holdsMl', label: 'Holds, ml', also: ['volume'], read: cell.whole(1, 2_000_000_000), column: 'holds_ml', empty: null },
    { key: 'holdsG', label: 'Holds, g', also: ['weight limit'], read: cell.whole(1, 2_000_000_000), column: 'holds_g', empty: null },
    {
      key: 'aisle',
      label: 'Aisle',
      read: cell.text(40),
      column: 'aisle_id',
      empty: null,
      ref: { table: 'plan_shape', by: 'label', says: (c) => `There is no aisle ${c} on the plan. Take the plan in first` },
      select: 'a.label',
    },
    { key: 'along', label: 'Along the aisle, m', read: cell.metres, column: 'along_m', empty: null, as: 'decimal' },
    { key: 'x', label: 'X, m', read: cell.metres, column: 'x_m', empty: null, as: 'decimal' },
    { key: 'y', label: 'Y, m', read: cell.metres, column: 'y_m', empty: null, as: 'decimal' },
    { key: 'order', label: 'Walking order', also: ['order', 'sequence'], read: cell.whole(0, 10_000_000), column: 'walk_order', empty: 0 },
    { key: 'fixedOrder', label: 'Order fixed by hand', read: cell.yesNo, column: 'fixed_order', empty: 0, as: 'yes-no' },
  ],
  check: (_tx, batch) =>
    batch.flatMap((r) =>
      textOf(r, 'kind') === 'zone' && textOf(r, 'zone') !== ''
        ? [fault(r, 'zone', textOf(r, 'zone'), 'A zone does not stand in another zone')]
        : [],
    ),
});
