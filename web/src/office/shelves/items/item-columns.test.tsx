import { renderToStaticMarkup as render } from 'react-dom/server';
import { columnsOf, ITEM_COLUMNS, type ItemRow, NARROW_COLUMNS, ownColumns, USUAL_COLUMNS } from './item-columns';

const row = (more: Partial<ItemRow> = {}) =>
  ({
    sku: 'JAR-454-RD',
    name: 'Jar 454 g, round',
    className: 'Jars and lids',
    tags: ['glass', 'spring'],
    suppliers: 'Quillon Glassware',
    home: 'C-07-2',
    unit: 'jar',
    tracking: 'lot-expiry',
    onHand: 12_480,
    held: 0,
    reserved: 48,
    available: 12_432,
    incoming: 0,
    isStocked: true,
    extra: { Origin: 'Ulm', Made: '2026-05-14' },
    cost: '0.410000',
    lacks: [],
    ...more,
  }) as ItemRow;
const shows = (key: string, r = row()) => render(<>{ITEM_COLUMNS.find((c) => c.key === key)?.cell(r)}</>);

describe('columns of the list of items', () => {
  it('come in the order asked for; what is unknown is passed over', () => {
    expect(columnsOf(['sku', 'gone-by-now', 'name'], true).map((c) => c.key)).toEqual(['sku', 'name']);
    expect(columnsOf([], true)).toEqual([]);
  });

  it('have no cost for those who may not see it, even when they kept it once', () => {
    expect(columnsOf(['name', 'cost'], false).map((c) => c.key)).toEqual(['name']);
    expect(columnsOf(['name', 'cost'], true).map((c) => c.key)).toEqual(['name', 'cost']);
  });

  it('each have a name of their own, and the usual ones are among them', () => {
    const keys = ITEM_COLUMNS.map((c) => c.key);
    expect(new Set(keys).size).toBe(keys.length);
    expect(new Set(ITEM_COLUMNS.map((c) => c.head)).size).toBe(keys.length);
    for (const key of [...USUAL_COLUMNS, ...NARROW_COLUMNS]) expect(keys).toContain(key);
  });

  it('are edited where they stand only where a value goes back in', () => {
    for (const c of ITEM_COLUMNS.filter((x) => x.edit)) expect(typeof c.edit?.value(row())).toBe('string');
    expect(ITEM_COLUMNS.find((c) => c.key === 'onHand')?.edit).toBeUndefined();
    expect(ITEM_COLUMNS.find((c) => c.key === 'cost')?.edit?.value(row())).toBe('0.41');
    expect(ITEM_COLUMNS.find((c) => c.key === 'home')?.edit?.value(row({ home: null }))).toBe('');
  });

  it('stay empty rather than full of noughts, except where nothing is the news', () => {
    expect(shows('held')).toBe('');
    expect(shows('incoming')).toBe('');
    expect(shows('onHand', row({ onHand: 0 }))).toBe('0');
    expect(shows('available', row({ available: 0 }))).toContain('stamped');
    expect(shows('available', row({ available: -3 }))).toContain('stamped');
    expect(shows('available')).not.toContain('stamped');
  });

  it('are quiet about what never had any stock', () => {
    const never = row({ isStocked: false, onHand: 0, available: 0 });
    for (const key of ['onHand', 'available']) expect(shows(key, never)).toMatch(/soft.*–/);
    expect(shows('available', never)).not.toContain('stamped');
  });

  it('are made of the company’s own fields too, in their places among the others', () => {
    const own = ownColumns([
      { name: 'Origin', kind: 'text', choices: [] },
      { name: 'Made', kind: 'date', choices: [] },
      { name: 'Pieces', kind: 'number', choices: [] },
    ]);
    const all = [...ITEM_COLUMNS, ...own];
    expect(columnsOf(['own:Made', 'sku', 'own:Gone'], false, all).map((c) => c.head)).toEqual(['Made', 'SKU']);
    expect(own.map((c) => render(<>{c.cell(row())}</>))).toEqual(['Ulm', 'Thu 14 May', '']);
    expect(own[2]?.num).toBe(true);
  });

  it('say tracking and what is lacking in words', () => {
    expect(shows('tracking')).toBe('lot and date');
    expect(shows('tracking', row({ tracking: 'none' }))).toBe('');
    expect(shows('tracking', row({ tracking: 'serial' }))).toBe('serial');
    expect(shows('lacks')).toBe('');
    expect(shows('lacks', row({ lacks: ['barcode', 'cost'] }))).toContain('barcode, cost');
    expect(shows('cost', row({ cost: null }))).toBe('');
  });
});
