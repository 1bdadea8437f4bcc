import fc from 'fast-check';
import { available, balanceKey, changesOf, faultOf, isOurs, opposite, post, whyAvailable, type Movement } from './index.js';

const OUTSIDE = 0;
const unbounded = new Set([OUTSIDE]);
const move = (fromPlaceId: number, toPlaceId: number, units: number, itemId = 1, lotId = 0): Movement => ({
  itemId,
  lotId,
  condition: 'good',
  fromPlaceId,
  toPlaceId,
  units,
});

const movement: fc.Arbitrary<Movement> = fc.record({
  itemId: fc.integer({ min: 1, max: 3 }),
  lotId: fc.integer({ min: 0, max: 2 }),
  condition: fc.constantFrom('good' as const, 'held' as const),
  fromPlaceId: fc.integer({ min: 0, max: 4 }),
  toPlaceId: fc.integer({ min: 0, max: 4 }),
  units: fc.integer({ min: 1, max: 50 }),
  ...{ toCondition: fc.constantFrom('good' as const, 'held' as const, 'apart' as const) },
});

/** Posts what can be posted, one after another. */
function run(movements: readonly Movement[]) {
  let balances = new Map<string, number>();
  const posted: Movement[] = [];
  for (const m of movements) {
    const result = post(balances, [m], unbounded);
    if ('fault' in result) continue;
    balances = result.balances;
    posted.push(m);
  }
  return { balances, posted };
}

describe('the ledger', () => {
  it('takes from one place and gives to another', () => {
    const result = post(new Map(), [move(OUTSIDE, 1, 10), move(1, 2, 4)], unbounded);
    expect('balances' in result && Object.fromEntries(result.balances)).toEqual({
      [balanceKey({ itemId: 1, placeId: 0, lotId: 0, condition: 'good' })]: -10,
      [balanceKey({ itemId: 1, placeId: 1, lotId: 0, condition: 'good' })]: 6,
      [balanceKey({ itemId: 1, placeId: 2, lotId: 0, condition: 'good' })]: 4,
    });
  });

  it('refuses to take what is not there and leaves the balances alone', () => {
    const before = new Map([[balanceKey({ itemId: 1, placeId: 1, lotId: 0, condition: 'good' }), 3]]);
    const result = post(before, [move(1, 2, 2), move(1, 3, 2)], unbounded);
    expect(result).toMatchObject({ fault: { kind: 'below-zero', units: -1 } });
    expect([...before.values()]).toEqual([3]);
  });

  it('finds goods to be in another condition where they stand, and as they were when taken back', () => {
    const found: Movement = { ...move(1, 1, 4), toCondition: 'held' };
    const stood = post(new Map(), [move(OUTSIDE, 1, 10)], unbounded);
    const held = 'balances' in stood ? post(stood.balances, [found], unbounded) : stood;
    const key = { itemId: 1, placeId: 1, lotId: 0 };
    expect('balances' in held && held.balances.get(balanceKey({ ...key, condition: 'held' }))).toBe(4);
    expect('balances' in held && held.balances.get(balanceKey({ ...key, condition: 'good' }))).toBe(6);
    expect(opposite(found)).toEqual({ ...move(1, 1, 4), condition: 'held', toCondition: 'good' });
    expect(faultOf({ ...move(1, 1, 4), toCondition: 'good' })).toMatchObject({ kind: 'same-place' });
    expect([isOurs('held'), isOurs('apart')]).toEqual([true, false]);
  });

  it('keeps lots and conditions apart', () => {
    const one = post(new Map(), [move(OUTSIDE, 1, 5, 1, 7)], unbounded);
    const result = 'balances' in one ? post(one.balances, [move(1, 2, 5, 1, 8)], unbounded) : one;
    expect(result).toMatchObject({ fault: { kind: 'below-zero' } });
  });

  it.each([
    [move(1, 2, 0), 'not-whole'],
    [move(1, 2, -1), 'not-whole'],
    [move(1, 2, 1.5), 'not-whole'],
    [move(1, 1, 1), 'same-place'],
  ])('finds the fault in %p', (m, kind) => {
    expect(faultOf(m)).toMatchObject({ kind });
  });

  it('touches balances in one order, whatever the order of the movements', () => {
    fc.assert(
      fc.property(fc.array(movement, { maxLength: 12 }), (list) => {
        const keys = changesOf(list).map(balanceKey);
        expect(keys).toEqual([...keys].sort());
        expect(changesOf([...list].reverse()).map(balanceKey)).toEqual(keys);
      }),
    );
  });

  it('sums to nought over all places, for each item', () => {
    fc.assert(
      fc.property(fc.array(movement, { maxLength: 40 }), (list) => {
        const { balances } = run(list);
        for (const item of [1, 2, 3]) {
          const sum = [...balances].filter(([key]) => Number(key.split(':')[0]) === item).reduce((n, [, units]) => n + units, 0);
          expect(sum).toBe(0);
        }
      }),
    );
  });

  it('never goes below nought inside the house', () => {
    fc.assert(
      fc.property(fc.array(movement, { maxLength: 40 }), (list) => {
        for (const [key, units] of run(list).balances) if (Number(key.split(':')[1]) !== OUTSIDE) expect(units).toBeGreaterThan(0);
      }),
    );
  });

  it('is restored by the opposite movements, newest first', () => {
    fc.assert(
      fc.property(fc.array(movement, { maxLength: 20 }), (list) => {
        const { balances, posted } = run(list);
        const back = [...posted].reverse().reduce((b, m) => {
          const result = post(b, [opposite(m)], unbounded);
          if ('fault' in result) throw new Error(JSON.stringify(result.fault));
          return result.balances;
        }, balances);
        expect(back.size).toBe(0);
      }),
    );
  });
});

describe('what is available', () => {
  it('is on hand − held − reserved, and explains itself', () => {
    const figures = { onHand: 412, held: 16, reserved: 96 };
    expect(available(figures)).toBe(300);
    const terms = whyAvailable(figures, { onHand: ['P-1187'], reserved: ['S-20406 48'] });
    expect(terms.map((t) => `${t.sign}${t.term} ${t.units}`)).toEqual(['On hand 412', '−Reserved 96', '−Held 16', '=Available 300']);
    expect(terms[0]?.documents).toEqual(['P-1187']);
  });
});
