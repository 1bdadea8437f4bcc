import fc from 'fast-check';
import {
  atBreaks,
  backTest,
  type BasketLine,
  coverOf,
  evennessOf,
  excessOf,
  filledUp,
  goesInto,
  gradesOf,
  type Mark,
  planFor,
  projected,
  proposalBy,
  seasonOfClass,
  seriesOf,
  type ToPlan,
  weekOfDate,
  weekText,
  withinBudget,
} from './index.js';

const TODAY = '2026-11-30';
const NOW = weekOfDate(TODAY);
const history = (weeks: number, units: (k: number) => number) =>
  Array.from({ length: weeks }, (_, i) => ({ week: weekText(NOW - weeks + i), units: Math.max(0, Math.round(units(NOW - weeks + i))) }));
const item = (more: Partial<ToPlan> = {}): ToPlan => ({
  history: history(104, () => 100),
  leadTimeDays: { mean: 14, sd: 3 },
  reviewDays: 7,
  serviceLevel: 0.97,
  minimumUnits: 12,
  multipleUnits: 12,
  unitCost: 2,
  orderCost: 10,
  holdingRate: 0.22,
  ...more,
});
/** Twice as much in summer as in winter, and nothing else. */
const SUMMER = (week: number) => 1 + 0.8 * Math.sin((2 * Math.PI * (week - 13)) / 52);

describe('weeks that a person has marked', () => {
  const sale = (from: number, to: number, lift: number | null = null): Mark => ({
    from: weekText(NOW + from),
    to: weekText(NOW + to),
    lift,
    name: 'Sale',
  });
  const withSale = history(104, (week) => (week === NOW - 20 || week === NOW - 19 ? 400 : 100));

  it('teach nothing about other weeks', () => {
    const plain = planFor(item({ history: withSale }), TODAY);
    const marked = planFor(item({ history: withSale, marks: [sale(-20, -19)] }), TODAY);
    expect(marked.weekMean).toBeCloseTo(100, 0);
    expect(marked.point!).toBeLessThan(plain.point!);
  });

  it('are expected to bring what the last of their name did, or what somebody says', () => {
    const learned = planFor(item({ history: withSale, marks: [sale(-20, -19), sale(3, 3)] }), TODAY).forecast.weeks;
    expect(learned[3]!.mean).toBeCloseTo(400, 0);
    expect(learned[4]!.mean).toBeCloseTo(100, 0);
    const said = planFor(item({ marks: [sale(2, 2, -1)] }), TODAY).forecast.weeks;
    expect(said[2]!.mean).toBe(0);
  });
});

describe('an item that is new', () => {
  const goods = [80, 200, 40].map((size) =>
    seriesOf(
      history(130, (w) => size * SUMMER(w)),
      TODAY,
    ),
  );

  it('has the seasons of its class, whatever the size of the others', () => {
    const season = seasonOfClass(goods)!;
    const peak = season.indexOf(Math.max(...season));
    expect(Math.abs(peak - 26)).toBeLessThan(4);
    const young = item({ history: history(12, (w) => 50 * SUMMER(w)), classSeason: season });
    const { forecast } = planFor(young, TODAY);
    expect(forecast.method).toBe('season of its class');
    const mean = (k: number) => forecast.weeks[k]!.mean;
    // Half a year on it is summer.
    expect(mean(25)).toBeGreaterThan(1.5 * mean(1));
  });

  it('has none of a class that is not known for a year, or is even', () => {
    expect(
      seasonOfClass([
        seriesOf(
          history(40, (w) => 100 * SUMMER(w)),
          TODAY,
        ),
      ]),
    ).toBeNull();
    expect(
      seasonOfClass([
        seriesOf(
          history(130, () => 100),
          TODAY,
        ),
      ]),
    ).toBeNull();
    expect(seasonOfClass([])).toBeNull();
  });
});

describe('an order that is to reach the least of its supplier', () => {
  const line = (id: number, more: Partial<BasketLine>): BasketLine => ({ id, units: 0, weekMean: 10, daysLeft: 30, multiple: 10, minimum: 10, unitPrice: 1, most: 1_000, palletUnits: null, ...more }); // prettier-ignore

  it('takes along what is wanted soonest, and no more than is needed', () => {
    const { lines, isEnough } = filledUp([line(1, { units: 40, daysLeft: -2 }), line(2, { daysLeft: 4 }), line(3, { daysLeft: 90 })], { value: 65, units: null, pallets: null }); // prettier-ignore
    expect(isEnough).toBe(true);
    expect(lines.map((l) => l.units)).toEqual([40, 30, 0]);
  });

  it('is left as it was where the least cannot be reached without buying for more than half a year', () => {
    const lines = [line(1, { units: 10, most: 20 }), line(2, { daysLeft: 300 })];
    const filled = filledUp(lines, { value: 500, units: null, pallets: null });
    expect(filled).toEqual({ lines, isEnough: false });
    expect(filledUp([line(1, {})], { value: 500, units: null, pallets: null }).isEnough).toBe(true);
  });

  it('never orders less than was proposed, more than may be, or a part of a multiple', () => {
    const lines = fc.array(
      fc.record({ units: fc.integer({ min: 0, max: 9 }), weekMean: fc.integer({ min: 0, max: 50 }), daysLeft: fc.integer({ min: -20, max: 300 }), multiple: fc.constantFrom(1, 6, 48), unitPrice: fc.integer({ min: 0, max: 9 }), most: fc.integer({ min: 0, max: 40 }) }), // prettier-ignore
      { maxLength: 8 },
    );
    fc.assert(
      fc.property(lines, fc.integer({ min: 0, max: 2_000 }), (drawn, value) => {
        const asked = drawn.map((d, id) => line(id, { ...d, units: d.units * d.multiple, minimum: d.multiple, most: d.most * d.multiple }));
        const { lines: got, isEnough } = filledUp(asked, { value, units: null, pallets: null });
        for (const [i, l] of got.entries()) {
          expect(l.units).toBeGreaterThanOrEqual(asked[i]!.units);
          expect(l.units % l.multiple).toBe(0);
          if (l.units > asked[i]!.units) expect(l.units).toBeLessThanOrEqual(l.most);
        }
        const worth = got.reduce((n, l) => n + l.units * l.unitPrice, 0);
        if (isEnough && asked.some((a) => a.units > 0)) expect(worth).toBeGreaterThanOrEqual(value);
      }),
    );
  });
});

it('a budget buys the most urgent, and is never overdrawn', () => {
  const lines = fc.array(fc.record({ daysLeft: fc.integer({ min: -30, max: 60 }), worth: fc.integer({ min: 1, max: 500 }) }));
  fc.assert(
    fc.property(lines, fc.integer({ min: 0, max: 1_500 }), (list, budget) => {
      const bought = withinBudget(list, budget);
      expect(bought.reduce((n, l) => n + l.worth, 0)).toBeLessThanOrEqual(budget);
      const left = budget - bought.reduce((n, l) => n + l.worth, 0);
      // What is left out does not fit, or what is more urgent took its room.
      for (const l of list.filter((x) => !bought.includes(x))) expect(l.worth > left).toBe(true);
    }),
  );
});

describe('a lower price for more', () => {
  const shop = { price: 10, packUnits: 1, weekMean: 10, orderCost: 10, holdingRate: 0.22, mostPacks: 1_000 };
  it('is taken where it saves more than keeping the goods costs, and never beyond what may be bought', () => {
    expect(atBreaks(20, [{ from: 30, price: 9 }], shop)).toBe(30);
    expect(atBreaks(20, [{ from: 900, price: 9.9 }], shop)).toBe(20);
    expect(atBreaks(20, [{ from: 30, price: 9 }], { ...shop, mostPacks: 25 })).toBe(20);
    expect(atBreaks(0, [{ from: 30, price: 1 }], shop)).toBe(0);
  });
});

describe('stock ahead', () => {
  const flat = { weeks: Array.from({ length: 30 }, (_, k) => ({ week: weekText(NOW + k), mean: 70, sd: 10 })) };
  const ahead = { today: TODAY, onHand: 100, promised: [], arrivals: [], forecast: flat };

  it('is what the ledger says today, and what the documents say tomorrow', () => {
    const tomorrow = { ...ahead, arrivals: [{ units: 500, due: '2026-12-01' }], promised: [{ units: 30, due: '2026-11-30' }] };
    const { days } = projected(tomorrow, 14);
    expect(days[0]!.stock).toBe(100);
    // 30 leave today, 500 come tomorrow; what is promised today is part of what this week was to bring.
    expect(days[1]!.stock).toBeCloseTo(100 - 30 + 500 - 10, 0);
  });

  it('runs out when it is used up, later with an order, sooner with more demand or a late delivery', () => {
    const usual = projected(ahead, 60).runsOut!;
    expect(usual).toBeGreaterThanOrEqual(9);
    expect(usual).toBeLessThanOrEqual(11);
    expect(projected(ahead, 60, { demand: 2 }).runsOut!).toBeLessThan(usual);
    expect(projected(ahead, 60, { order: { units: 1_000, inDays: 5 } }).runsOut).toBeNull();
    const due = { ...ahead, arrivals: [{ units: 1_000, due: '2026-12-06' }] };
    expect(projected(due, 60).runsOut).toBeNull();
    expect(projected(due, 60, { lateDays: 7 }).runsOut).toBe(usual);
    expect(projected(due, 60, { noArrivals: true }).missed).toBeGreaterThan(200);
  });

  it('owes what is promised until it is there, and counts on what is late for tomorrow', () => {
    const short = { ...ahead, onHand: 10, promised: [{ units: 60, due: '2026-12-02' }], arrivals: [{ units: 200, due: '2026-11-20' }] };
    const { broken, days } = projected({ ...short, arrivals: [{ units: 200, due: '2026-12-07' }] }, 14);
    expect(broken).toBeGreaterThan(45);
    expect(days[7]!.stock).toBeLessThan(200 - 45);
    expect(projected(short, 14).broken).toBe(0);
  });

  it('never goes below nothing, and its band holds it', () => {
    const documents = fc.array(fc.record({ units: fc.integer({ min: 1, max: 300 }), in: fc.integer({ min: -5, max: 40 }) }), {
      maxLength: 6,
    });
    const dated = (list: { units: number; in: number }[]) =>
      list.map((d) => ({ units: d.units, due: new Date(Date.parse(TODAY) + d.in * 86_400_000).toISOString().slice(0, 10) }));
    fc.assert(
      fc.property(documents, documents, fc.integer({ min: 0, max: 400 }), (promised, arrivals, onHand) => {
        const { days } = projected({ ...ahead, onHand, promised: dated(promised), arrivals: dated(arrivals) }, 40);
        for (const d of days) {
          expect(d.stock).toBeGreaterThanOrEqual(0);
          expect(d.low).toBeLessThanOrEqual(d.stock);
          expect(d.high).toBeGreaterThanOrEqual(d.stock);
        }
      }),
    );
  });
});

describe('parts', () => {
  it('are found in what they go into over all levels, and a list that holds itself is cut', () => {
    const uses = [
      { itemId: 1, partId: 2, units: 3 },
      { itemId: 2, partId: 4, units: 2 },
      { itemId: 1, partId: 4, units: 1 },
      { itemId: 4, partId: 1, units: 1 },
    ];
    expect([...goesInto(uses).get(4)!].sort()).toEqual([
      [1, 7],
      [2, 2],
    ]);
  });
});

describe('what there is too much of', () => {
  it('is beyond half a year and beyond what an order brings it up to', () => {
    const plan = planFor(item(), TODAY);
    expect(excessOf(plan, 1_000, TODAY).units).toBe(0);
    const { units, coverDays } = excessOf(plan, 5_000, TODAY);
    expect(units).toBeGreaterThan(2_300);
    expect(coverDays!).toBeGreaterThan(340);
    expect(coverDays!).toBeLessThan(360);
    const dead = planFor(item({ history: history(104, (w) => (w < NOW - 60 ? 20 : 0)) }), TODAY);
    expect(excessOf(dead, 40, TODAY)).toEqual({ units: 40, coverDays: null });
    expect(coverOf(dead.forecast, 0, TODAY)).toBe(0);
  });
});

it('grades the few that make four fifths A, and weeks by their spread', () => {
  const items = [{ yearValue: 800 }, { yearValue: 150 }, { yearValue: 50 }, { yearValue: 0 }];
  expect([...gradesOf(items).values()]).toEqual(['A', 'B', 'C', 'C']);
  expect([evennessOf(10, 4), evennessOf(10, 9), evennessOf(10, 30), evennessOf(0, 0)]).toEqual(['X', 'Y', 'Z', 'Z']);
});

describe('the last year lived through again', () => {
  it('meets what was asked at less cost than a plain cover, knowing only what was known', () => {
    const noisy = history(110, (w) => 60 * SUMMER(w) + ((w * 7919) % 41) - 20);
    const { planned, cover, fixed } = backTest({ ...item({ history: noisy }), fixed: { point: 1, upTo: 2 } }, TODAY)!;
    expect(planned.asked).toBe(cover.asked);
    expect(planned.met / planned.asked).toBeGreaterThan(0.93);
    expect(fixed!.met).toBeLessThan(planned.met);
  });
  it('is not tried where half a year is not known', () => {
    expect(backTest({ ...item({ history: history(28, () => 9) }), fixed: null }, TODAY)).toBeNull();
  });
});

it('proposes by a plan what it would by planning anew', () => {
  const plan = planFor(item(), TODAY);
  const steps = { minimumUnits: 12, multipleUnits: 12 };
  const low = proposalBy(plan, { onHand: 0, allocated: 0, onOrder: [] }, steps, TODAY);
  expect(low.proposedUnits % 12).toBe(0);
  expect(low.proposedUnits).toBeGreaterThanOrEqual(plan.point!);
  expect(proposalBy(plan, { onHand: 9_999, allocated: 0, onOrder: [] }, steps, TODAY).proposedUnits).toBe(0);
});
