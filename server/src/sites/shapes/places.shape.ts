import { cell, fault, type ImportRow, textOf, type RefIds, tableShape } from '../../exchange/index.js';
import { kindsFor, MOST_SLOTS, PLACE_KINDS, ZONE_RULES } from '@vectrum/core/places';
import { rows } from '../../platform/index.js';

const site = {
  key: 'site',
  label: 'Site',
  also: ['warehouse'],
  required: true,
  read: cell.text(12),
  column: 'site_id',
  empty: null,
  ref: { table: 'site', by: 'code', says: (c: string) => `There is no site ${c}` },
  select: 's.code',
};
const code = (label: string, also: string[]) => ({
  key: 'code',
  label,
  also,
  required: true,
  read: cell.code(/^[A-Za-z0-9][A-Za-z0-9-]{0,30}$/, 'A place code is letters, digits and hyphens, such as C-07-2'),
  column: 'code',
  empty: '',
});

/** Zones, with the rule that each keeps: one row a zone. */
export const zonesShape = tableShape({
  kind: 'zones',
  says: 'Zones',
  right: 'set-up',
  table: 'place',
  key: ['code'],
  changeBy: 'code',
  versioned: true,
  joins: 'JOIN site s ON s.id = t.site_id',
  where: `t.kind = 'zone'`,
  order: 's.code, t.code',
  fixed: { kind: 'zone' },
  columns: [
    site,
    code('Zone', ['zone code']),
    { key: 'name', label: 'Zone name', also: ['name'], required: true, read: cell.text(60), column: 'name', empty: '' },
    { key: 'rule', label: 'Rule of the zone', also: ['rule'], read: cell.oneOf(ZONE_RULES), column: 'rule', empty: 'none' },
  ],
});

/** Sorting walls: one row a wall. Their slots are places, which name their wall. */
export const wallsShape = tableShape({
  kind: 'walls',
  says: 'Sorting walls',
  right: 'set-up',
  table: 'place',
  key: ['code'],
  changeBy: 'code',
  versioned: true,
  joins: 'JOIN site s ON s.id = t.site_id',
  where: `t.kind = 'sorting-wall'`,
  order: 's.code, t.walk_order, t.code',
  fixed: { kind: 'sorting-wall' },
  columns: [
    site,
    code('Wall', ['wall code']),
    {
      key: 'slotColumns',
      label: 'Slots in a row',
      also: ['columns'],
      required: true,
      read: cell.whole(1, MOST_SLOTS),
      column: 'wall_columns',
      empty: null,
    },
    { key: 'blocked', label: 'Blocked', read: cell.yesNo, column: 'blocked', empty: 0, as: 'yes-no' },
    { key: 'x', label: 'X, m', read: cell.metres, column: 'x_m', empty: null, as: 'decimal' },
    { key: 'y', label: 'Y, m', read: cell.metres, column: 'y_m', empty: null, as: 'decimal' },
    { key: 'order', label: 'Walking order', also: ['order', 'sequence'], read: cell.whole(0, 10_000_000), column: 'walk_order', empty: 0 },
    { key: 'fixedOrder', label: 'Order fixed by hand', read: cell.yesNo, column: 'fixed_order', empty: 0, as: 'yes-no' },
  ],
});

/** Bins, docks, tables and containers: one row a place. */
export const placesShape = tableShape({
  kind: 'places',
  says: 'Bins and places',
  right: 'set-up',
  table: 'place',
  key: ['code'],
  changeBy: 'code',
  versioned: true,
  joins: `JOIN site s ON s.id = t.site_id LEFT JOIN place z ON z.id = t.parent_id AND z.kind IN ('zone','sorting-wall') LEFT JOIN plan_shape a ON a.id = t.aisle_id`,
  where: `t.kind NOT IN ('site','zone','parcel','sorting-wall')`,
  order: 's.code, t.walk_order, t.code',
  columns: [
    site,
    code('Place', ['bin', 'code', 'location', 'place code']),
    {
      key: 'kind',
      label: 'Kind',
      also: ['type'],
      read: cell.oneOf(PLACE_KINDS.filter((kind) => kind !== 'sorting-wall')),
      column: 'kind',
      empty: 'pick-face',
    },
    {
      key: 'zone',
      label: 'Zone',
      also: ['wall'],
      read: cell.text(40),
      column: 'parent_id',
      empty: null,
      ref: { table: 'place', by: 'code', says: (c) => `There is no zone or wall ${c}. Take it in first, or make it` },
      select: 'z.code',
      value: (r, ids) =>
        ids.get('zone')?.get(textOf(r, 'zone').toUpperCase()) ?? ids.get('stands')?.get(textOf(r, 'code').toUpperCase()) ?? null,
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
      select: 'a.label',
      value: (r, ids) => aisleOf(r, ids) ?? null,
    },
    { key: 'along', label: 'Along the aisle, m', read: cell.metres, column: 'along_m', empty: null, as: 'decimal' },
    { key: 'x', label: 'X, m', read: cell.metres, column: 'x_m', empty: null, as: 'decimal' },
    { key: 'y', label: 'Y, m', read: cell.metres, column: 'y_m', empty: null, as: 'decimal' },
    { key: 'order', label: 'Walking order', also: ['order', 'sequence'], read: cell.whole(0, 10_000_000), column: 'walk_order', empty: 0 },
    { key: 'fixedOrder', label: 'Order fixed by hand', read: cell.yesNo, column: 'fixed_order', empty: 0, as: 'yes-no' },
  ],
  more: async (tx) => {
    const aisles = await rows<{ id: number; name: string }>(
      tx,
      `SELECT a.id, CONCAT(s.code, '/', a.label) AS name FROM plan_shape a JOIN site s ON s.id = a.site_id WHERE a.kind = 'aisle'`,
    );
    // A tote stands on its cart or at its table whatever a file of places says: files name zones and walls.
    const standing = await rows<{ code: string; at: number }>(
      tx,
      'SELECT p.code, p.parent_id AS at FROM place p JOIN place q ON q.id = p.parent_id AND q.kind NOT IN (?) WHERE p.kind IN (?)',
      [
        ['zone', 'sorting-wall'],
        ['', ...kindsFor('container')],
      ],
    );
    return new Map([
      ['aisle', new Map(aisles.map((a) => [a.name.toUpperCase(), a.id]))],
      ['stands', new Map(standing.map((p) => [p.code.toUpperCase(), p.at]))],
    ]);
  },
  check: (_tx, batch, ids) =>
    batch.flatMap((r) => {
      const label = textOf(r, 'aisle');
      return label !== '' && aisleOf(r, ids) === undefined
        ? [fault(r, 'aisle', label, `There is no aisle ${label} on the plan of that site. Take the plan in first`)]
        : [];
    }),
});

/** The aisle that a row names: sites may have aisles of one name. */
const aisleOf = (r: ImportRow, ids: RefIds) => ids.get('aisle')?.get(`${textOf(r, 'site')}/${textOf(r, 'aisle')}`.toUpperCase());
