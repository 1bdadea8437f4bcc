import fc from 'fast-check';
import { floorOf, metresOfWalks, type PlanPoint, type Segment, walkOn } from './index.js';

const AISLES: Segment[] = [4, 8, 12].map((x, i) => ({ id: i + 1, x, y: 0, toX: x, toY: 24 }));
const CROSS: Segment[] = [0, 12, 24].map((y, i) => ({ id: 10 + i, x: 0, y, toX: 14, toY: y }));
const floor = floorOf([...AISLES, ...CROSS]);

/** The shortest of all orders, by the floor's own metres between two places. */
function bestOf(on: typeof floor, stops: readonly PlanPoint[], start: PlanPoint, end: PlanPoint): number {
  if (stops.length === 0) return on.metresBetween(start, end);
  return Math.min(...stops.map((s, i) => on.metresBetween(start, s) + bestOf(on, [...stops.slice(0, i), ...stops.slice(i + 1)], s, end)));
}
const metres = fc.integer({ min: 0, max: 48 }).map((n) => n / 2);
/** Beside an aisle, or at a place of a cross aisle. */
const place = fc.oneof(
  fc.record({ x: fc.constantFrom(4, 8, 12, 3.5, 8.5), y: metres.map((m) => Math.min(m, 24)) }),
  fc.record({ x: fc.integer({ min: 0, max: 14 }), y: fc.constantFrom(0, 12, 24) }),
);

describe('a walk over a plan', () => {
  it('is the shortest of all orders, with the steps aside to each place', () => {
    fc.assert(
      fc.property(fc.array(place, { maxLength: 5 }), place, place, (stops, start, end) => {
        const walk = walkOn(floor, stops, start, end);
        expect([...walk.order].sort((a, b) => a - b)).toEqual([...stops.keys()]);
        // Steps aside are counted there and back, also between two places by each other.
        expect(walk.metres).toBeCloseTo(bestOf(floor, stops, start, end), 2);
        expect(metresOfWalks(floor, [stops, []], start, end)[0]).toBeCloseTo(walk.metres, 2);
      }),
      { numRuns: 200 },
    );
  });

  it('goes straight across where nothing is drawn, and where no way joins two places', () => {
    expect(walkOn(floorOf([]), [{ x: 3, y: 4 }], { x: 0, y: 0 }, { x: 0, y: 0 })).toMatchObject({ order: [0], metres: 10 });
    const apart = floorOf([AISLES[0]!, AISLES[2]!]);
    expect(walkOn(apart, [{ x: 12, y: 0 }], { x: 4, y: 0 }, { x: 4, y: 0 }).metres).toBeCloseTo(16);
    const both = metresOfWalks(apart, [[{ x: 12, y: 0 }], [{ x: 4, y: 5 }]], { x: 4, y: 0 }, { x: 4, y: 0 });
    expect(both.map((m) => Math.round(m * 100) / 100)).toEqual([16, 10]);
  });

  it('is measured alike whether it was asked for before or not, from anywhere and on any floor', () => {
    const walks = [
      [
        { x: 4, y: 6 },
        { x: 12, y: 18 },
      ],
      [{ x: 12, y: 18 }],
      [],
      [{ x: 12, y: 18 }],
    ];
    const table = { x: 0, y: 0 };
    const first = metresOfWalks(floor, walks, table, table);
    expect(metresOfWalks(floor, [...walks, [{ x: 8, y: 1 }]], table, table)).toEqual([
      ...first,
      ...metresOfWalks(floor, [[{ x: 8, y: 1 }]], table, table),
    ]);
    expect(first[1]).toBe(first[3]);
    expect(metresOfWalks(floor, [walks[1]!], { x: 4, y: 1 }, table)[0]).not.toBeCloseTo(first[1]!);
    expect(metresOfWalks(floorOf([]), [walks[1]!], table, table)[0]).not.toBeCloseTo(first[1]!);
    expect(walkOn(floor, walks[0]!, table, table)).toBe(walkOn(floor, walks[0]!, table, table));
  });

  it('is never nothing where there is somewhere to go', () => {
    expect(walkOn(floor, [{ x: 8, y: 6 }], { x: 0, y: 0 }, { x: 0, y: 0 }).metres).toBeCloseTo(28);
  });
});
