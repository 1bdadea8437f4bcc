import fc from 'fast-check';
import { earliestFor, type Flow, type Projection, projectionOf, promisableAt, withOwn } from './index.js';

describe('what may be promised over time', () => {
  it('is what no promise will ever need, though it lies there for now', () => {
    // Ten are here, eight go on day 2; twenty come on day 5, and fifteen go on day 6.
    const p = projectionOf(
      0,
      10,
      [{ at: 5, units: 20 }],
      [
        { at: 2, units: 8 },
        { at: 6, units: 15 },
      ],
    );
    expect(p.steps).toEqual([
      { at: 0, units: 2 },
      { at: 5, units: 7 },
    ]);
    expect([promisableAt(p, 0), promisableAt(p, 4), promisableAt(p, 5)]).toEqual([2, 2, 7]);
    expect([earliestFor(p, 2), earliestFor(p, 3), earliestFor(p, 8)]).toEqual([0, 5, null]);
  });

  it('counts what is overdue as of now, and lets goods go as they come', () => {
    expect(projectionOf(10, 0, [{ at: 3, units: 4 }], []).steps).toEqual([{ at: 10, units: 4 }]);
    expect(projectionOf(10, 5, [], [{ at: 3, units: 4 }]).steps).toEqual([{ at: 10, units: 1 }]);
    expect(projectionOf(0, 0, [{ at: 7, units: 4 }], [{ at: 7, units: 4 }]).steps).toEqual([{ at: 0, units: 0 }]);
  });

  it('is more for an order by what it holds itself and what is on its way for it alone, also where others lack', () => {
    const p = projectionOf(0, 0, [{ at: 9, units: 12 }], [{ at: 2, units: 10 }]);
    const own = withOwn(p, 1, [{ at: 4, units: 3 }]);
    expect([0, 3, 4, 8, 9].map((at) => promisableAt(own, at))).toEqual([1, 1, 4, 4, 6]);
    // What should have come for it counts as of now, as everything does.
    expect(promisableAt(withOwn(p, 0, [{ at: -5, units: 3 }]), 0)).toBe(3);
  });

  it('promises nothing where more is promised than there will be', () => {
    const p = projectionOf(0, 3, [], [{ at: 2, units: 5 }]);
    expect(p.steps).toEqual([{ at: 0, units: -2 }]);
    expect([promisableAt(p, 9), earliestFor(p, 1), earliestFor(p, 0)]).toEqual([0, null, 0]);
  });

  const flows = fc.array(fc.record({ at: fc.integer({ min: -3, max: 12 }), units: fc.integer({ min: 0, max: 9 }) }), { maxLength: 8 });
  const least = (stock: number, coming: readonly Flow[], going: readonly Flow[]) =>
    Math.min(...Array.from({ length: 14 }, (_, t) => levelAt(t, stock, coming, going)));
  const levelAt = (t: number, stock: number, coming: readonly Flow[], going: readonly Flow[]) => stock + sum(coming, t) - sum(going, t);
  const sum = (list: readonly Flow[], t: number) => list.filter((f) => f.at <= t).reduce((n, f) => n + f.units, 0);

  it('never eats an older promise, and gives the first instant at which it would not', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 20 }), flows, flows, fc.integer({ min: 1, max: 12 }), (stock, coming, going, units) => {
        const at = earliestFor(projectionOf(0, stock, coming, going), units);
        const eats = (t: number) => least(stock, coming, [...going, { at: t, units }]) < Math.min(0, least(stock, coming, going));
        const firsts = Array.from({ length: 14 }, (_, t) => t).find((t) => !wouldLack(t));
        function wouldLack(t: number): boolean {
          return Array.from({ length: 14 - t }, (_, i) => levelAt(t + i, stock, coming, going)).some((level) => level < units);
        }
        expect(at).toBe(firsts ?? null);
        if (at !== null) expect(eats(at)).toBe(false);
      }),
      { numRuns: 1_000 },
    );
  });

  it('grows with time', () => {
    fc.assert(
      fc.property(fc.nat(20), flows, flows, (stock, coming, going) => {
        const { steps }: Projection = projectionOf(0, stock, coming, going);
        expect([...steps].sort((a, b) => a.at - b.at || a.units - b.units)).toEqual([...steps]);
        expect(steps[0]?.at).toBe(0);
      }),
    );
  });
});
