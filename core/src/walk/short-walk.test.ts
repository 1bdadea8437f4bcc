import fc from 'fast-check';
import { shortWalk } from './index.js';

type P = readonly [number, number];
const metres = (a: P, b: P) => Math.abs(a[0] - b[0]) + Math.abs(a[1] - b[1]);
const START: P = [0, 0];
const walk = (points: readonly P[]) =>
  shortWalk(
    points.length,
    (i) => metres(START, points[i]!),
    (a, b) => metres(points[a]!, points[b]!),
  );
const length = (points: readonly P[], order: readonly number[]) =>
  order.reduce((sum, i, n) => sum + metres(n === 0 ? START : points[order[n - 1]!]!, points[i]!), 0);
const points = (most: number) => fc.array(fc.tuple(fc.integer({ min: 0, max: 40 }), fc.integer({ min: 0, max: 40 })), { maxLength: most });

function shortest(list: readonly P[]): number {
  let best = Infinity;
  const visit = (at: P, left: readonly P[], so: number) => {
    if (left.length === 0) best = Math.min(best, so);
    for (const next of left)
      visit(
        next,
        left.filter((p) => p !== next),
        so + metres(at, next),
      );
  };
  visit(START, list, 0);
  return best;
}

describe('a short walk', () => {
  it('is nothing with no stop, and the stop with one', () => {
    expect(walk([])).toEqual([]);
    expect(walk([[3, 4]])).toEqual([0]);
  });

  it('is the shortest there is for a few stops', () => {
    fc.assert(
      fc.property(points(6), (list) => {
        expect(length(list, walk(list))).toBe(shortest(list));
      }),
    );
  });

  it('has every stop once, and is no longer than going from each to the nearest', () => {
    fc.assert(
      fc.property(points(40), (list) => {
        const order = walk(list);
        expect([...order].sort((a, b) => a - b)).toEqual(list.map((_, i) => i));
        const left = new Set(list.keys());
        let [at, greedy] = [START, 0];
        while (left.size > 0) {
          const next = [...left].reduce((b, i) => (metres(at, list[i]!) < metres(at, list[b]!) ? i : b));
          greedy += metres(at, list[next]!);
          at = list[next]!;
          left.delete(next);
        }
        expect(length(list, order)).toBeLessThanOrEqual(greedy);
      }),
    );
  });
});
