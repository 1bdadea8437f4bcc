import { cell, tableShape } from '../../exchange/index.js';

/** What is drawn on the plans: aisles, walkways, walls. */
export const planShape = tableShape({
  kind: 'plan',
  says: 'Plan of the sites',
  right: 'set-up',
  table: 'plan_shape',
  key: ['site', 'kind', 'label', 'x', 'y', 'toX', 'toY'],
  changeBy: 'site_id',
  joins: 'JOIN site s ON s.id = t.site_id',
  order: 's.code, t.kind, t.label, t.x_m, t.y_m, t.to_x_m, t.to_y_m',
  columns: [
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
      key: 'kind',
      label: 'Drawn',
      also: ['shape'],
      required: true,
      read: cell.oneOf(['aisle', 'walkway', 'wall']),
      column: 'kind',
      empty: 'walkway',
    },
    { key: 'label', label: 'Label', read: cell.text(40), column: 'label', empty: '' },
    { key: 'x', label: 'From x, m', required: true, read: cell.metres, column: 'x_m', empty: 0, as: 'decimal' },
    { key: 'y', label: 'From y, m', required: true, read: cell.metres, column: 'y_m', empty: 0, as: 'decimal' },
    { key: 'toX', label: 'To x, m', required: true, read: cell.metres, column: 'to_x_m', empty: 0, as: 'decimal' },
    { key: 'toY', label: 'To y, m', required: true, read: cell.metres, column: 'to_y_m', empty: 0, as: 'decimal' },
  ],
});
