import fc from 'fast-check';
import { hitBy, metBy, type Promised } from './index.js';

const promise = (id: number, units: number, due: number, more: Partial<Promised> = {}): Promised => ({
  id,
  priority: 0,
  placed: 0,
  units,
  due,
  ...more,
});

describe('goods that are waited for', () => {
  it('are given to whoever is due first, and whoever was promised later waits for the next', () => {
    const met = metBy(0, 5, [{ at: 7, units: 6 }], [promise(1, 4, 9), promise(2, 5, 3), promise(3, 9, 20)]);
    expect([met.get(2), met.get(1), met.get(3)]).toEqual([0, 7, null]);
  });

  it('go to a higher priority before what is due earlier', () => {
    const met = metBy(0, 5, [], [promise(1, 5, 3), promise(2, 5, 9, { priority: 1 })]);
    expect([met.get(1), met.get(2)]).toEqual([null, 0]);
  });

  it('that come late hit those who would have had them in time, and nobody else', () => {
    const promises = [promise(1, 5, 3), promise(2, 4, 10), promise(3, 4, 30), promise(4, 50, 12)];
    const [coming, later] = [[{ at: 8, units: 9 }], [{ at: 20, units: 9 }]];
    expect(hitBy(0, 5, coming, later, promises)).toEqual([{ id: 2, due: 10, freeAt: 20 }]);
    expect(hitBy(0, 5, coming, coming, promises)).toEqual([]);
    expect(hitBy(0, 5, coming, [], promises)).toEqual([{ id: 2, due: 10, freeAt: null }]);
  });

  const some = fc.array(fc.record({ at: fc.integer({ min: -2, max: 9 }), units: fc.integer({ min: 0, max: 6 }) }), { maxLength: 6 });
  const promises = fc
    .array(fc.tuple(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 0, max: 9 }), fc.integer({ min: 0, max: 1 })), { maxLength: 8 })
    .map((list) => list.map(([units, due, priority], id) => promise(id, units, due, { priority })));
  it('are never given out twice, and to nobody while one before him waits', () => {
    fc.assert(
      fc.property(fc.nat(9), some, promises, (stock, coming, list) => {
        const met = metBy(0, stock, coming, list);
        const turn = [...list].sort((a, b) => b.priority - a.priority || a.due - b.due || a.id - b.id);
        for (let t = 0; t <= 9; t++) {
          const there = stock + coming.filter((c) => c.at <= t).reduce((n, c) => n + c.units, 0);
          const has = turn.filter((p) => (met.get(p.id) ?? Infinity) <= t);
          expect(has).toEqual(turn.slice(0, has.length));
          const given = has.reduce((n, p) => n + p.units, 0);
          expect(given).toBeLessThanOrEqual(there);
          const next = turn[has.length];
          if (next) expect(given + next.units).toBeGreaterThan(there);
        }
      }),
      { numRuns: 500 },
    );
  });
});
