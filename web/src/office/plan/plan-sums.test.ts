import type { Dto } from '../../api/client';
import { madeOf, methodSays, pointOf } from './plan-sums';
import { aheadSays } from './stock-ahead';

const plan = (more: Partial<Dto['ItemPlanDto']> = {}): Dto['ItemPlanDto'] =>
  ({
    unit: 'jar',
    unitPlural: 'jars',
    method: 'level',
    weekMean: 31.62,
    weekSd: 9,
    service: 0.97,
    leadDays: 28,
    leadSd: 7,
    reviewDays: 7,
    safety: 40,
    point: 140,
    size: 200,
    onHand: 400,
    held: 12,
    reserved: 50,
    owed: 0,
    onOrder: 192,
    drafts: 0,
    within: 0,
    position: 530,
    history: Array.from({ length: 62 }, (_, i) => ({ week: `W${i}`, monday: '2026-01-05', units: 1 })),
    arrivals: [{ document: 'P-1180', units: 192, due: '2026-12-01', who: 'Quillon' }],
    promised: [],
    ...more,
  }) as unknown as Dto['ItemPlanDto'];

/** What the terms of a sum come to. */
const sum = (terms: ReturnType<typeof madeOf>) =>
  terms.filter((t) => t.sign !== '=').reduce((n, t) => n + (t.sign === '−' ? -1 : 1) * Number(t.units), 0);

it('what is free and coming is the sum of its terms, with the documents behind them', () => {
  const terms = madeOf(plan());
  expect(sum(terms)).toBe(530);
  expect(terms.at(-1)).toMatchObject({ sign: '=', units: 530 });
  expect(terms.find((t) => t.term === 'on its way')!.documents).toEqual(['P-1180']);
  // What is nothing is not listed.
  expect(terms.map((t) => t.term)).not.toContain('on drafts that are not placed');
});

it('the point to order at is what is expected meanwhile and the safety stock', () => {
  const [expected, safety, point, upTo] = pointOf(plan());
  expect(Number(expected!.units) + Number(safety!.units)).toBe(140);
  expect(safety!.term).toContain('97 % are to be met');
  expect(point).toMatchObject({ sign: '=', units: 140 });
  expect(upTo!.units).toBe(340);
});

it('says in words why it is expected', () => {
  expect(methodSays(plan())).toBe(
    'Weeks keep to one level: some 31.6 jars a week are expected, by what would have been nearest in 61 weeks',
  );
  expect(methodSays(plan({ method: 'discontinued', weekMean: 0 }))).toBe(
    'Nobody has asked for it for longer than chance explains; nothing is expected, by 61 weeks',
  );
});

it('says what happens: promised before what is lost, and nothing where it lasts', () => {
  const ahead = { days: [], runsOutOn: '2026-12-14', missed: 714, broken: 3 };
  expect(aheadSays(ahead, 'jars')).toBe(
    'It runs out on Mon 14 Dec; 3 that are promised would be late; in half a year 714 jars would be asked for in vain',
  );
  expect(aheadSays({ ...ahead, runsOutOn: null }, 'jars')).toBe('It lasts for half a year with what is coming');
});
