import fc from 'fast-check';
import { dividedBy } from '../money/index.js';
import { eachOf } from './index.js';

describe('parts of the cost of one unit', () => {
  it('add up to the cost of one unit, each within a millionth of its own', () => {
    const amount = fc.bigInt({ min: -(10n ** 12n), max: 10n ** 12n });
    fc.assert(
      fc.property(fc.array(amount, { minLength: 1, maxLength: 12 }), fc.integer({ min: 1, max: 100_000 }), (amounts, units) => {
        const each = eachOf(amounts, units);
        const total = amounts.reduce((sum, a) => sum + a, 0n);
        expect(each.reduce((sum, e) => sum + e, 0n)).toBe(dividedBy(total, units));
        each.forEach((e, i) => {
          const own = dividedBy(amounts[i]!, units);
          expect(e - own >= -1n && e - own <= 1n).toBe(true);
        });
      }),
    );
  });

  it('shares a third three ways without losing a millionth', () => {
    expect(eachOf([1_000_000n, 1_000_000n, 1_000_000n], 9)).toEqual([111_111n, 111_111n, 111_111n]);
    expect(eachOf([5n, 5n], 10)).toEqual([1n, 0n]);
  });
});
