import { seeded } from '../random/index.js';
import { courseLike, lived, type Policy, policyFor, proposalFor, type Supply, weekOfDate, weekText } from './index.js';
import { above, deviateAt, deviateOfLoss } from './normal.js';

const TODAY = '2027-03-01';
const SUPPLY: Supply = {
  weekMean: 4,
  weekSd: 12.6,
  busy: 0.18,
  leadDays: 14,
  leadSd: 3,
  reviewDays: 7,
  fill: 0.95,
  minimum: 1,
  multiple: 1,
  unitCost: 2,
  orderCost: 25,
  holdingRate: 0.22,
};

/** What is asked for on a day: one customer in five weeks, for about twenty, seldom for a hundred. */
const lump = (random: () => number) => (random() < 0.2 / 7 ? Math.max(1, Math.round(-20 * Math.log(1 - random()))) : 0);

/** Lives through days of such demand, deciding each week, from the first week on; what is measured begins after a quarter. */
function livedThrough(
  days: number,
  seed: number,
  decide: (day: number, stock: number, coming: { due: number; units: number }[], weeks: number[]) => number,
) {
  const [random, luck] = [seeded(seed), seeded(seed + 1)];
  let coming: { due: number; units: number }[] = [];
  const weeks: number[] = [];
  let [stock, week, orders, held, asked, met] = [60, 0, 0, 0, 0, 0];
  for (let day = 0; day < days; day += 1) {
    stock += coming.filter((c) => c.due <= day).reduce((n, c) => n + c.units, 0);
    coming = coming.filter((c) => c.due > day);
    if (day % 7 === 0) {
      if (day > 0) weeks.push(week);
      week = 0;
      const units = decide(day, stock, coming, weeks);
      if (units > 0) coming.push({ due: day + 11 + Math.floor(luck() * 7), units });
      if (units > 0 && day >= 91) orders += 1;
    }
    const wanted = lump(random);
    week += wanted;
    const sold = Math.min(stock, wanted);
    stock -= sold;
    if (day < 91) continue;
    asked += wanted;
    met += sold;
    held += stock;
  }
  const years = (days - 91) / 364;
  return { fill: met / asked, cost: (orders * SUPPLY.orderCost + (held / 364) * SUPPLY.unitCost * SUPPLY.holdingRate) / years };
}
const byPolicy =
  ({ point, lot }: Policy) =>
  (_: number, stock: number, coming: readonly { units: number }[]) => {
    const position = stock + coming.reduce((n, c) => n + c.units, 0);
    return position <= point ? Math.ceil(point + lot - position) : 0;
  };

describe('goods that are seldom asked for, and then for many', () => {
  it('are lived through with demand of the mean, spread and silence that was asked for', () => {
    for (const [weekMean, weekSd, busy] of [
      [4, 12.6, 0.18],
      [4, 19.6, 0.1],
      [1.2, 2.4, 0.3],
      [30, 25, 0.8],
    ] as const) {
      const { long, wants, days } = courseLike({ weekMean, weekSd, busy }, 16);
      const weeks = new Float64Array(days / 7);
      let [day, brought] = [0, 0];
      for (const [i, length] of long.entries()) {
        weeks[Math.floor(day / 7)]! += wants[i]! * length;
        if (wants[i]! > 0) brought += busy < 0.5 ? 1 : length / 7;
        day += length;
      }
      const mean = weeks.reduce((a, b) => a + b, 0) / weeks.length;
      const sd = Math.sqrt(weeks.reduce((a, b) => a + (b - mean) ** 2, 0) / weeks.length);
      expect(day).toBe(days);
      expect(mean).toBeCloseTo(weekMean, 6);
      expect(Math.abs(sd / weekSd - 1)).toBeLessThan(0.05);
      expect(Math.abs(brought / weeks.length - busy)).toBeLessThan(0.02);
    }
  });

  it('are kept by a policy that meets what it promises of real lumps', () => {
    for (const fill of [0.9, 0.95, 0.98]) {
      const real = livedThrough(364 * 400, 9, byPolicy(policyFor({ ...SUPPLY, fill })));
      expect(Math.abs(real.fill - fill)).toBeLessThan(0.02);
    }
  });

  it('are bought by two years of history nearly as well as by whoever knows the truth', () => {
    let [low, high] = [0, 120];
    while (high - low > 1) {
      const point = (low + high) / 2;
      if (livedThrough(364 * 200, 5, byPolicy({ point, lot: 154 })).fill >= SUPPLY.fill) high = point;
      else low = point;
    }
    const best = livedThrough(364 * 200, 5, byPolicy({ point: high, lot: 154 }));
    const now = weekOfDate(TODAY);
    const dayOf = (day: number) => new Date(Date.parse(TODAY) + day * 86_400_000).toISOString().slice(0, 10);
    const MANY = 16;
    const sum = { fill: 0, cost: 0 };
    for (let n = 0; n < MANY; n += 1) {
      const random = seeded(500 + n);
      const before = Array.from({ length: 104 }, () => Array.from({ length: 7 }, () => lump(random)).reduce((a, b) => a + b, 0));
      const { fill, cost } = livedThrough(364 * 2 + 91, 900 + n, (day, stock, coming, since) => {
        const weeks = [...before, ...since];
        const first = now + day / 7 - weeks.length;
        return proposalFor(
          {
            history: weeks.map((units, i) => ({ week: weekText(first + i), units })),
            onHand: stock,
            allocated: 0,
            onOrder: coming.map((c) => ({ units: c.units, due: dayOf(c.due) })),
            leadTimeDays: { mean: SUPPLY.leadDays, sd: SUPPLY.leadSd },
            serviceLevel: SUPPLY.fill,
            minimumUnits: 1,
            multipleUnits: 1,
            reviewDays: SUPPLY.reviewDays,
            unitCost: SUPPLY.unitCost,
            orderCost: SUPPLY.orderCost,
            holdingRate: SUPPLY.holdingRate,
          },
          dayOf(day),
        ).proposedUnits;
      });
      sum.fill += fill / MANY;
      sum.cost += cost / MANY;
    }
    expect(Math.abs(sum.fill - SUPPLY.fill)).toBeLessThan(0.025);
    expect(sum.cost / best.cost).toBeLessThan(1.25);
  });

  it('are ordered when nothing is left where little is to be met', () => {
    const { point, lot } = policyFor({ ...SUPPLY, fill: 0.01 });
    expect(point).toBe(0);
    expect(lived(courseLike(SUPPLY, 1), [14], SUPPLY, { point: 10_000, lot }).fill).toBe(1);
  });
});

describe('the normal distribution', () => {
  it('agrees with its tables, forwards and back', () => {
    for (const [z, share] of [
      [0, 0.5],
      [1, 0.1586553],
      [-1.96, 0.9750021],
      [3, 0.0013499],
    ] as const) {
      expect(above(z)).toBeCloseTo(share, 6);
      expect(deviateAt(1 - share)).toBeCloseTo(z, 2);
    }
    // The unit normal loss at one is 0.0833; far below, it is the distance itself.
    expect(deviateOfLoss(0.08331547)).toBeCloseTo(1, 4);
    expect(deviateOfLoss(0.39894228)).toBeCloseTo(0, 4);
    expect(deviateOfLoss(25)).toBeCloseTo(-25, 4);
  });
});
