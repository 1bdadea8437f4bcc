import fc from 'fast-check';
import { micro } from '../money/index.js';
import {
  accuracyOf,
  alreadySeen,
  type AreaBin,
  causesOf,
  dueFor,
  expectedAt,
  judge,
  type OffLine,
  splitByArea,
  type Tolerance,
  varianceOf,
} from './index.js';

const packs = [
  { id: 2, name: 'tray', plural: 'trays', factor: 48 },
  { id: 1, name: 'jar', plural: 'jars', factor: 1 },
];
const none: Tolerance = { units: null, value: null, unitsPercent: null, valuePercent: null };

describe('what should have been there', () => {
  /** One thing that happens to a bin: goods are moved at `at`, and told `late` later; or somebody looks; or the look is posted. */
  const event = fc.oneof(
    {
      weight: 6,
      arbitrary: fc.record({
        kind: fc.constant('move' as const),
        change: fc.integer({ min: -9, max: 9 }),
        late: fc.integer({ min: 0, max: 12 }),
      }),
    },
    { weight: 2, arbitrary: fc.record({ kind: fc.constant('stray' as const), change: fc.integer({ min: -5, max: 5 }) }) },
    { weight: 2, arbitrary: fc.constant({ kind: 'look' as const }) },
    { weight: 2, arbitrary: fc.constant({ kind: 'accept' as const }) },
  );

  it('leads to exactly what lies there, however moves, looks, postings and late phones mix', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 200 }), fc.array(event, { maxLength: 40 }), (begin, events) => {
        let there = begin;
        let booked = begin;
        const told: { at: number; toldAt: number; change: number }[] = [];
        const waiting: { at: number; toldAt: number; change: number }[] = [];
        let look: { at: number; counted: number } | null = null;
        let posted: { at: number } | null = null;
        const tell = (now: number, all = false) => {
          for (const m of waiting.filter((w) => all || w.toldAt <= now).sort((a, b) => a.toldAt - b.toldAt)) {
            waiting.splice(waiting.indexOf(m), 1);
            if (posted) booked += alreadySeen({ change: m.change, movedAt: m.at, lookedAt: posted.at });
            booked += m.change;
            told.push({ ...m, toldAt: now });
          }
        };
        const accept = () => {
          if (!look) return;
          const since = told.filter((m) => m.at > look!.at);
          const cameIn = since.filter((m) => m.change > 0).reduce((n, m) => n + m.change, 0);
          const wentOut = since.filter((m) => m.change < 0).reduce((n, m) => n - m.change, 0);
          booked += varianceOf(look.counted, expectedAt({ balance: booked, cameIn, wentOut }));
          posted = { at: look.at };
          look = null;
        };
        events.forEach((e, i) => {
          const now = (i + 1) * 3;
          tell(now);
          if (e.kind === 'move' && e.change !== 0) {
            there += e.change;
            waiting.push({ at: now, toldAt: now + e.late, change: e.change });
          } else if (e.kind === 'stray') there += e.change;
          else if (e.kind === 'look') look = { at: now, counted: there };
          else if (e.kind === 'accept') accept();
        });
        // In the end somebody looks once more, the count is posted, and the last phones find a network, in either order.
        look = { at: 10_000, counted: there };
        accept();
        tell(0, true);
        expect(booked).toBe(there);
      }),
      { numRuns: 2000 },
    );
  });
});

describe('how far off is too far', () => {
  const line = (counted: number, expected: number, unitCost: string | null = '0.42') => ({
    counted,
    expected,
    unitCost,
    packs,
    className: 'Jars',
  });
  const whole = micro('1000');

  it('asks the nearest level that says anything, and names the limit', () => {
    const levels = { item: none, class: { ...none, units: 5 }, company: { ...none, units: 100 } };
    expect(judge(line(44, 48), levels, whole)).toEqual({
      isWithin: true,
      level: 'class',
      says: '4 jars fewer, worth £1.68: within the 5 jars that the class Jars allows',
    });
    expect(judge(line(42, 48), levels, whole)).toMatchObject({
      isWithin: false,
      level: 'class',
      says: expect.stringContaining('beyond the 5 jars'),
    });
    expect(judge(line(48, 48), levels, whole)).toEqual({ isWithin: true, level: null, says: 'As the books say' });
  });

  it('holds only within every limit that is set', () => {
    const company = { units: 10, value: '2.00', unitsPercent: 10, valuePercent: 1 };
    const levels = { item: null, class: null, company };
    expect(judge(line(44, 48), levels, whole).isWithin).toBe(true);
    expect(judge(line(43, 48), levels, whole)).toMatchObject({
      isWithin: false,
      says: expect.stringContaining('beyond the £2.00 and the 10 per cent of 1 tray that'),
    });
    expect(judge(line(44, 48), levels, micro('100')).says).toContain('1 per cent of £100.00 counted');
  });

  it('wants somebody to look where no limit is set, or nobody knows the cost', () => {
    expect(judge(line(47, 48), { item: null, class: null, company: null }, whole)).toMatchObject({ isWithin: false, level: null });
    expect(judge(line(47, 48, null), { item: { ...none, value: '5' }, class: null, company: null }, whole).isWithin).toBe(false);
    expect(judge(line(1, 0), { item: { ...none, unitsPercent: 50 }, class: null, company: null }, whole).isWithin).toBe(false);
  });

  it('never calls a larger difference right where a smaller one is wrong', () => {
    fc.assert(
      fc.property(fc.nat(500), fc.nat(60), fc.nat(60), fc.nat(20), fc.nat(50), (expected, a, b, units, percent) => {
        const [near, far] = [Math.min(a, b), Math.max(a, b)];
        const levels = { item: null, class: null, company: { ...none, units, unitsPercent: percent } };
        const of = (n: number) => judge(line(expected + n, expected), levels, whole).isWithin;
        expect(of(far) && !of(near)).toBe(false);
      }),
    );
  });

  it('counts what was right', () => {
    expect([accuracyOf(0, 0), accuracyOf(2, 3), accuracyOf(5, 5)]).toEqual([null, 66.7, 100]);
  });
});

describe('sharing bins out', () => {
  const bins = (areas: readonly string[]): AreaBin[] => areas.map((area, i) => ({ placeId: i + 1, area, work: 1 }));

  it('gives each person whole aisles, in walking order', () => {
    const shares = splitByArea(bins(['A', 'A', 'A', 'B', 'B', 'C', 'C', 'C', 'C']), 2);
    expect(shares.map((s) => [...new Set(s.map((b) => b.area))])).toEqual([['A', 'B'], ['C']]);
  });

  it('cuts an aisle only where there are fewer aisles than people', () => {
    expect(splitByArea(bins(['A', 'A', 'A', 'A']), 2).map((s) => s.length)).toEqual([2, 2]);
    expect(splitByArea([], 3)).toEqual([[], [], []]);
    expect(() => splitByArea(bins(['A']), 0)).toThrow(RangeError);
  });

  it('loses no bin, keeps the order, and shares no worse than the best of all cuts', () => {
    const work = fc.array(fc.record({ area: fc.constantFrom('A', 'B', 'C'), work: fc.integer({ min: 1, max: 9 }) }), {
      minLength: 1,
      maxLength: 9,
    });
    fc.assert(
      fc.property(work, fc.integer({ min: 1, max: 4 }), (given, people) => {
        const all = given.map((b, i) => ({ ...b, placeId: i }));
        const shares = splitByArea(all, people);
        expect(shares.flat()).toEqual(all);
        const load = (s: readonly AreaBin[]) => s.reduce((n, b) => n + b.work, 0);
        const areas = all.reduce((n, b, i) => n + (i > 0 && all[i - 1]!.area === b.area ? 0 : 1), 0);
        if (areas >= people) return;
        const best = (from: number, left: number): number => {
          if (left === 1 || from >= all.length) return load(all.slice(from));
          let least = Infinity;
          for (let to = from; to <= all.length; to += 1) least = Math.min(least, Math.max(load(all.slice(from, to)), best(to, left - 1)));
          return least;
        };
        expect(Math.max(...shares.map(load))).toBe(best(0, people));
      }),
      { numRuns: 300 },
    );
  });
});

describe('what is due', () => {
  const at = (placeId: number, intervalDays: number | null, daysSince: number | null, accuracy: number | null = null) => ({
    placeId,
    itemId: 1,
    intervalDays,
    daysSince,
    accuracy,
  });

  it('is what was never counted, then what is longest over its time', () => {
    expect(dueFor([at(1, 30, 29), at(2, 30, 40), at(3, 30, null), at(4, null, null), at(5, 90, 200)]).map((d) => d.placeId)).toEqual([
      3, 5, 2,
    ]);
    expect(dueFor([at(1, 30, 29)], 7)).toHaveLength(1);
  });

  it('is due sooner where counts were often off', () => {
    expect(dueFor([at(1, 30, 20, 0), at(2, 30, 20, 1)]).map((d) => d.placeId)).toEqual([1]);
  });
});

describe('why a line may be off', () => {
  const line = (id: number, placeId: number, counted: number, expected: number, itemId = 1): OffLine => ({
    id,
    placeId,
    place: `A-0${placeId}`,
    itemId,
    item: `Item ${itemId}`,
    lotId: 0,
    counted,
    expected,
    packs,
  });

  it('finds the neighbour that has as much more, with the move that puts both right', () => {
    const [under, over] = [line(1, 1, 36, 48), line(2, 2, 12, 0)];
    expect(causesOf(under, [under, over], [])).toEqual([
      {
        kind: 'neighbour',
        says: 'A-02 has 12 jars more of the same: they may lie in the wrong bin',
        move: { fromPlaceId: 1, toPlaceId: 2, units: 12 },
        otherId: 2,
      },
    ]);
    expect(causesOf(over, [under, over], [])[0]).toMatchObject({ move: { fromPlaceId: 1, toPlaceId: 2, units: 12 }, otherId: 1 });
  });

  it('finds goods that the books still have at the dock, packs taken for pieces, and two goods taken for each other', () => {
    expect(causesOf(line(1, 1, 60, 48), [], [{ placeId: 9, place: 'DOCK-1', itemId: 1, lotId: 0, units: 12 }])[0]).toMatchObject({
      kind: 'not-put-away',
      move: { fromPlaceId: 9, toPlaceId: 1, units: 12 },
    });
    expect(causesOf(line(1, 1, 2, 96), [], [])[0]).toMatchObject({
      kind: 'pack',
      says: expect.stringContaining('2 trays of 48 would be as the books say'),
    });
    expect(causesOf(line(1, 1, 96, 2), [], [])[0]?.kind).toBe('pack');
    expect(causesOf(line(1, 1, 53, 100), [], [])[0]).toMatchObject({
      kind: 'pack',
      says: 'One tray of 48 may have been counted as one jar',
    });
    const mixed = [line(1, 1, 10, 12), line(2, 1, 7, 5, 2)];
    expect(causesOf(mixed[0]!, mixed, [])).toMatchObject([{ kind: 'mixed-up', otherId: 2, move: null }]);
    expect(causesOf(line(1, 1, 5, 5), [], [])).toEqual([]);
  });
});
