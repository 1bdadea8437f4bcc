import fc from 'fast-check';
import {
  atBreaks,
  coverOf,
  demandBetween,
  goesInto,
  gradesOf,
  liftOf,
  type Mark,
  planFor,
  proposalBy,
  readWeek,
  seriesOf,
  type ToPlan,
  weekOfDate,
  weekText,
} from './index.js';

const TODAY = '2026-12-02';
const NOW = weekOfDate(TODAY);
const flat = (mean: number, weeks = 30) => ({ weeks: Array.from({ length: weeks }, (_, k) => ({ week: weekText(NOW + k), mean, sd: 1 })) });

describe('weeks', () => {
  it('are the same number and name however often they are read, over all turns of years', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 6_000 }), (week) => {
        expect(readWeek(weekText(week))).toBe(week);
        expect(readWeek(weekText(week))).toBe(week);
      }),
    );
    expect(weekText(weekOfDate('2027-01-03'))).toBe('2026-W53');
    expect(weekText(weekOfDate('2027-01-04'))).toBe('2027-W01');
    // What is no week is refused each time, and not kept as one.
    for (let i = 0; i < 3; i += 1)
      for (const none of ['2026-W54', '2025-W53', '2026-W00', '2026-W5', 'W05', '']) expect(() => readWeek(none)).toThrow(RangeError);
  });
});

describe('what is expected between two days', () => {
  it('adds up, however it is cut, also beyond the last week that is forecast', () => {
    const cuts = fc.tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 400 }));
    fc.assert(
      fc.property(cuts, (days) => {
        const [a, b, c] = [...days].sort((x, y) => x - y) as [number, number, number];
        const whole = demandBetween(flat(21), TODAY, a, c);
        expect(demandBetween(flat(21), TODAY, a, b) + demandBetween(flat(21), TODAY, b, c)).toBeCloseTo(whole, 6);
        expect(whole).toBeCloseTo((c - a) * 3, 6);
      }),
    );
  });

  it('is gone through by what there is: cover is the first day by which it is', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 2_000 }), (units) => {
        const days = coverOf({ ...flat(21), method: 'level', sd: 1, busy: 1 }, units, TODAY)!;
        expect(days).toBeGreaterThanOrEqual(Math.floor(units / 3));
        expect(days).toBeLessThanOrEqual(Math.ceil(units / 3) + 1);
      }),
    );
    expect(coverOf({ ...flat(0), method: 'discontinued', sd: 0, busy: 0 }, 5, TODAY)).toBeNull();
  });
});

describe('marks', () => {
  const series = seriesOf(
    Array.from({ length: 40 }, (_, i) => ({ week: weekText(NOW - 40 + i), units: i === 20 ? 300 : i === 30 ? 20 : 100 })),
    TODAY,
  );
  const mark = (name: string, at: number, lift: number | null = null): Mark => ({
    name,
    from: weekText(NOW - 40 + at),
    to: weekText(NOW - 40 + at),
    lift,
  });
  const marks = [mark('Sale', 20), mark('Strike', 30)];

  it('are learned by their name, whatever its case, and each by itself', () => {
    expect(liftOf(mark('sale ', 45), series, marks)).toBeCloseTo(2, 5);
    expect(liftOf(mark('Strike', 45), series, marks)).toBeCloseTo(-0.8, 5);
    expect(liftOf(mark('Fair', 45), series, marks)).toBe(0);
    expect(liftOf(mark('Fair', 45, 0.25), series, marks)).toBe(0.25);
  });
});

describe('lower prices for more', () => {
  it('are taken only where a unit then costs less in all, and within what may be bought', () => {
    const steps = fc.uniqueArray(fc.record({ from: fc.integer({ min: 2, max: 300 }), price: fc.integer({ min: 1, max: 20 }) }), {
      selector: (s) => s.from,
      maxLength: 4,
    });
    fc.assert(
      fc.property(steps, fc.integer({ min: 1, max: 200 }), fc.integer({ min: 1, max: 300 }), (breaks, packs, most) => {
        const item = { price: 20, packUnits: 6, weekMean: 30, orderCost: 15, holdingRate: 0.25, mostPacks: most };
        const got = atBreaks(packs, breaks, item);
        expect(got).toBeGreaterThanOrEqual(packs);
        if (got === packs) return;
        expect(got).toBeLessThanOrEqual(most);
        expect(breaks.some((b) => b.from === got)).toBe(true);
        const priceAt = (n: number) => Math.min(20, ...breaks.filter((b) => n >= b.from).map((b) => b.price));
        const each = (n: number) => priceAt(n) + 15 / n + (priceAt(n) * 0.25 * n) / (2 * 260);
        expect(each(got)).toBeLessThan(each(packs));
      }),
    );
  });
});

it('parts count once for each way into an assembly, and nothing is above what is in nothing', () => {
  const uses = [
    { itemId: 10, partId: 1, units: 2 },
    { itemId: 20, partId: 10, units: 3 },
    { itemId: 20, partId: 1, units: 5 },
  ];
  expect(Object.fromEntries(goesInto(uses).get(1)!)).toEqual({ 10: 2, 20: 11 });
  expect(goesInto(uses).get(20)).toBeUndefined();
  expect(goesInto([])).toEqual(new Map());
});

it('grades add up to all of what there is, and the dearest is never below another', () => {
  fc.assert(
    fc.property(fc.array(fc.record({ yearValue: fc.integer({ min: 0, max: 1_000 }) })), (items) => {
      const grades = gradesOf(items);
      expect(grades.size).toBe(items.length);
      for (const a of items) for (const b of items) if (a.yearValue > b.yearValue) expect(grades.get(a)! <= grades.get(b)!).toBe(true);
    }),
  );
});

describe('a proposal', () => {
  const item: ToPlan = {
    history: Array.from({ length: 60 }, (_, i) => ({ week: weekText(NOW - 60 + i), units: 40 + ((i * 13) % 17) })),
    leadTimeDays: { mean: 10, sd: 2 },
    reviewDays: 7,
    serviceLevel: 0.95,
    minimumUnits: 24,
    multipleUnits: 12,
    unitCost: 1,
    orderCost: 9,
    holdingRate: 0.2,
  };
  const plan = planFor(item, TODAY);

  it('is nothing, or at least the least in whole multiples; less is proposed the more there is', () => {
    const stock = fc.integer({ min: -200, max: 800 });
    fc.assert(
      fc.property(stock, stock, (a, b) => {
        const of = (onHand: number) => proposalBy(plan, { onHand, allocated: 0, onOrder: [] }, item, TODAY).proposedUnits;
        for (const units of [of(a), of(b)]) {
          expect(units % 12).toBe(0);
          if (units > 0) expect(units).toBeGreaterThanOrEqual(24);
        }
        if (a < b) expect(of(a)).toBeGreaterThanOrEqual(of(b));
      }),
    );
  });

  it('counts what is late as coming, and says so', () => {
    const late = proposalBy(plan, { onHand: 0, allocated: 0, onOrder: [{ units: 900, due: '2026-11-20' }] }, item, TODAY);
    expect(late.proposedUnits).toBe(0);
    expect(late.reason).toMatch(/One order is overdue and counted as coming/);
  });
});
