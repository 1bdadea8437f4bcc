import fc from 'fast-check';
import { alongOf, floorOf, pointOn, segmentLength, walkingOrder, type AisleBin, type PlanPoint, type Segment } from './index.js';

const whole = (max: number) => fc.integer({ min: 0, max });
const point = fc.record({ x: whole(30), y: whole(30) });
const segment = fc.record({ x: whole(30), y: whole(30), toX: whole(30), toY: whole(30) }).map((s): Segment => ({ id: 1, ...s }));

describe('a stretch of floor', () => {
  it('has every point that is said to be on it between its ends', () => {
    fc.assert(
      fc.property(segment, fc.integer({ min: -50, max: 90 }), (s, along) => {
        const p = pointOn(s, along);
        const viaP = Math.hypot(p.x - s.x, p.y - s.y) + Math.hypot(s.toX - p.x, s.toY - p.y);
        expect(viaP).toBeCloseTo(segmentLength(s), 6);
      }),
    );
  });

  it('has metres along it that lead back to the point', () => {
    fc.assert(
      fc.property(segment, fc.double({ min: 0, max: 1, noNaN: true }), (s, share) => {
        const along = share * segmentLength(s);
        expect(alongOf(s, pointOn(s, along))).toBeCloseTo(along, 6);
      }),
    );
  });

  it('is nearest to a point where it says, and nowhere nearer', () => {
    fc.assert(
      fc.property(segment, point, fc.double({ min: 0, max: 1, noNaN: true }), (s, p, share) => {
        const away = (q: PlanPoint) => Math.hypot(q.x - p.x, q.y - p.y);
        expect(away(pointOn(s, alongOf(s, p)))).toBeLessThanOrEqual(away(pointOn(s, share * segmentLength(s))) + 1e-9);
      }),
    );
  });

  it('of no length is a place to stand', () => {
    const dot: Segment = { id: 1, x: 3, y: 4, toX: 3, toY: 4 };
    expect(pointOn(dot, 7)).toEqual({ x: 3, y: 4 });
    expect(alongOf(dot, { x: 9, y: 9 })).toBe(0);
  });
});

/** A floor of aisles and cross aisles on whole metres, and its distances worked out another way: by every square metre of it. */
const streets = fc
  .record({
    columns: fc.uniqueArray(whole(12), { minLength: 1, maxLength: 4 }),
    rows: fc.uniqueArray(whole(12), { minLength: 1, maxLength: 4 }),
  })
  .map(({ columns, rows }) => {
    const down = columns.map((x, i): Segment => ({ id: i + 1, x, y: 0, toX: x, toY: 12 }));
    const across = rows.map((y, i): Segment => ({ id: 100 + i, x: 0, y, toX: 12, toY: y }));
    return { columns, rows, segments: [...down, ...across] };
  });

function floodMetres(columns: readonly number[], rows: readonly number[], a: PlanPoint, b: PlanPoint): number {
  const open = (x: number, y: number) => x >= 0 && y >= 0 && x <= 12 && y <= 12 && (columns.includes(x) || rows.includes(y));
  const steps = new Map([[`${a.x}/${a.y}`, 0]]);
  const queue = [a];
  for (let at = queue.shift(); at; at = queue.shift()) {
    const n = steps.get(`${at.x}/${at.y}`) ?? 0;
    for (const [dx, dy] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ] as const) {
      const [x, y] = [at.x + dx, at.y + dy];
      // Two parallel ways a metre apart are not joined by standing side by side.
      const joined = dx === 0 ? columns.includes(x) : rows.includes(y);
      if (!open(x, y) || !joined || steps.has(`${x}/${y}`)) continue;
      steps.set(`${x}/${y}`, n + 1);
      queue.push({ x, y });
    }
  }
  return steps.get(`${b.x}/${b.y}`) ?? Infinity;
}

describe('the shortest walk', () => {
  it('is what flooding the floor metre by metre finds', () => {
    fc.assert(
      fc.property(
        streets,
        fc.array(whole(12), { minLength: 4, maxLength: 4 }),
        fc.array(whole(3), { minLength: 2, maxLength: 2 }),
        ({ columns, rows, segments }, at, on) => {
          const floor = floorOf(segments);
          const pick = (i: number, m: number): PlanPoint => {
            const s = segments[i % segments.length]!;
            return s.x === s.toX ? { x: s.x, y: m } : { x: m, y: s.y };
          };
          const [a, b] = [pick(on[0]!, at[0]!), pick(on[1]!, at[1]!)];
          expect(floor.metresBetween(a, b)).toBeCloseTo(floodMetres(columns, rows, a, b), 2);
          const way = floor.wayBetween(a, b);
          const length = way.reduce((sum, p, i) => sum + (i === 0 ? 0 : Math.hypot(p.x - way[i - 1]!.x, p.y - way[i - 1]!.y)), 0);
          expect(length).toBeCloseTo(floor.metresBetween(a, b), 2);
          expect([way[0], way.at(-1)]).toEqual([a, b]);
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe('the walking order', () => {
  it('has every bin once, whatever the floor, and goes along each aisle one way', () => {
    const bins = fc.array(fc.tuple(whole(3), whole(12)), { minLength: 1, maxLength: 30 });
    fc.assert(
      fc.property(streets, bins, point, ({ segments }, stops, begin) => {
        const aisles = segments.filter((s) => s.id < 100);
        const all = stops.map(([aisle, along], id): AisleBin => ({
          id,
          aisleId: aisles[aisle % aisles.length]!.id,
          along,
          code: `B-${id}`,
        }));
        const order = walkingOrder(aisles, floorOf(segments), begin, all);
        expect([...order].sort((x, y) => x - y)).toEqual(all.map((b) => b.id));
        for (const aisle of aisles) {
          const walked = order
            .map((id) => all[id]!)
            .filter((b) => b.aisleId === aisle.id)
            .map((b) => b.along);
          const [up, down] = [[...walked].sort((x, y) => x - y), [...walked].sort((x, y) => y - x)];
          expect([JSON.stringify(up), JSON.stringify(down)]).toContain(JSON.stringify(walked));
        }
      }),
      { numRuns: 200 },
    );
  });
});
