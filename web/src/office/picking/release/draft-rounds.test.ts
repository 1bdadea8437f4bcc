import { floorOf } from '@vectrum/core/walk';
import type { Dto } from '../../../api/client';
import { filtered, filterOf, NO_FILTER } from './board-filter';
import { type Draft, figuresOf, groundOf, metresOf, moved, roundKey, stillThere, walkersOf, walkLine } from './draft-rounds';

const NOW = new Date('2026-11-30T10:00:00Z').getTime();
const order = (code: string, placeIds: number[], more: Partial<Dto['BoardOrderDto']> = {}): Dto['BoardOrderDto'] => ({
  code,
  version: 1,
  customer: `Customer of ${code}`,
  channel: 'Web shop',
  promisedAt: '2026-11-30T15:30:00Z',
  leavesAt: '2026-11-30T15:30:00Z',
  urgent: false,
  units: 2,
  weightG: 1000,
  volumeMl: 2000,
  stops: placeIds.map((placeId) => ({ placeId, itemId: placeId, units: 1 })),
  lacks: [],
  ...more,
});
const picker = (id: number, more: Partial<Dto['BoardPickerDto']> = {}): Dto['BoardPickerDto'] => ({
  id,
  name: `P${id}`,
  here: true,
  stops: 0,
  units: 0,
  secondsAStop: null,
  ...more,
});
const board: Dto['ReleaseBoardDto'] = {
  siteId: 1,
  table: { x: 0, y: 0 },
  total: 3,
  orders: [
    order('S-1', [1]),
    order('S-2', [2], { channel: 'Phone', leavesAt: '2026-11-30T17:00:00Z', promisedAt: '2026-11-30T17:00:00Z' }),
    order('S-3', [1, 3]),
  ],
  places: [
    { id: 1, code: 'A-01-1', zone: 'SHELF', x: 10, y: 0 },
    { id: 2, code: 'A-09-1', zone: 'CAGE', x: 50, y: 0 },
    { id: 3, code: 'B-01-1', zone: 'SHELF', x: null, y: null },
  ],
  items: [
    { id: 1, sku: 'JAR', name: 'Jar 454 g' },
    { id: 2, sku: 'MTS', name: 'Mite strips' },
    { id: 3, sku: 'LID', name: 'Lid, gold' },
  ],
  vans: [{ at: '2026-11-30T17:00:00Z', name: 'Evening', carrier: 'HARRIER' }],
  pickers: [picker(7), picker(8)],
  roundOrders: 6,
  roundKilos: 80,
  wallSlots: 12,
  picks: true,
  roundLitres: 300,
};
const ground = groundOf(board, floorOf([{ id: 1, x: 0, y: 0, toX: 60, toY: 0 }]));
const limits = { orders: 2, units: Infinity, weightG: 5000, volumeMl: Infinity };
const [first, second, third] = board.orders as [Dto['BoardOrderDto'], Dto['BoardOrderDto'], Dto['BoardOrderDto']];

describe('what waits', () => {
  const codes = (more: object) => filtered(board, { ...NO_FILTER, ...more }, NOW).map((o) => o.code);

  it('is narrowed by van, carrier, channel, zone, item and stops', () => {
    expect(codes({})).toEqual(['S-1', 'S-2', 'S-3']);
    expect(codes({ van: '2026-11-30T15:30:00.000Z' })).toEqual(['S-1', 'S-3']);
    expect(codes({ carrier: 'HARRIER' })).toEqual(['S-2']);
    expect(codes({ channel: 'Phone' })).toEqual(['S-2']);
    expect(codes({ zone: 'CAGE' })).toEqual(['S-2']);
    expect(codes({ item: ' LID' })).toEqual(['S-3']);
    expect(codes({ stops: 1 })).toEqual(['S-1', 'S-2']);
    expect(codes({ stops: 1, channel: 'Web shop' })).toEqual(['S-1']);
  });

  it('reads its filter from the address, whatever stands there', () => {
    expect(filterOf(new URLSearchParams('van=late&stops=3'))).toMatchObject({ van: 'late', stops: 3 });
    for (const stops of ['-1', '2.5', 'x', '']) expect(filterOf(new URLSearchParams({ stops })).stops).toBe(0);
  });
});

describe('rounds while they are put together', () => {
  const draft: Draft = [['S-1', 'S-2'], ['S-3']];

  it('take an order from one and give it to another, and go when nothing is left of them', () => {
    expect(moved(draft, 'S-3', { round: 0 })).toEqual([['S-1', 'S-2', 'S-3']]);
    expect(moved(draft, 'S-1', { round: 0 })).toEqual([['S-2', 'S-1'], ['S-3']]);
    expect(moved(draft, 'S-2', 'new')).toEqual([['S-1'], ['S-3'], ['S-2']]);
    expect(moved(draft, 'S-3', 'waiting')).toEqual([['S-1', 'S-2']]);
    expect(moved(draft, 'S-9', { round: 1 })).toEqual([
      ['S-1', 'S-2'],
      ['S-3', 'S-9'],
    ]);
  });

  it('let go of orders that are not on the board any more', () => {
    expect(stillThere(draft, [first])).toEqual([['S-1']]);
  });

  it('come to the metres of their walk, the work at their stops and the first of their vans', () => {
    const [both] = figuresOf([[first, second]], ground, limits);
    expect(both).toMatchObject({ metres: 100, stops: 2, units: 4, weightG: 2000, leavesAt: first.leavesAt, fits: true });
    expect(both!.minutes).toBeGreaterThan(100 / 60);
    // A bin that is not drawn is walked to, and not measured.
    expect(metresOf([[third], [order('S-4', [3])]], ground)).toEqual([20, 0]);
    expect(walkLine([second], ground)).toMatchObject({ stops: [{ x: 50, y: 0 }] });
    expect(walkLine([order('S-4', [3])], ground).line).toEqual([]);
  });

  it('say when they hold too much, but for an order that is too much by itself', () => {
    const heavy = order('S-5', [1], { weightG: 9000 });
    expect(figuresOf([[first, heavy], [heavy], [first, second, third]], ground, limits).map((f) => f.fits)).toEqual([false, true, false]);
  });

  it('are shared out, those that somebody has decided first', () => {
    const rounds = figuresOf([[first], [second], [third]], ground, limits);
    const free = walkersOf(rounds, [picker(7), picker(8)], new Map(), NOW);
    expect(new Set(free.map((w) => w.person))).toEqual(new Set([7, 8]));
    const decided = new Map<string, number | null>([
      [roundKey(['S-1']), 8],
      [roundKey(['S-3']), 8],
      [roundKey(['S-2']), null],
    ]);
    const walkers = walkersOf(rounds, [picker(7), picker(8, { stops: 4, units: 40 })], decided, NOW);
    expect(walkers.map((w) => w.person)).toEqual([8, null, 8]);
    // What they have in hand comes first, then one after the other.
    expect(walkers[0]!.from).toBeGreaterThan(0);
    expect(walkers[2]!.from).toBeCloseTo(walkers[0]!.to);
    expect(walkersOf(rounds, [], new Map(), NOW).every((w) => w.person === null)).toBe(true);
  });
});
