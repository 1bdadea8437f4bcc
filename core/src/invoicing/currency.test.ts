import fc from 'fast-check';
import { fractionOf } from '../money/index.js';
import { inOther } from './currency.js';
import { documentInOther, openInOther, priceInOther } from './index.js';

describe('a document in another currency', () => {
  it('takes each line over at the rate, and reckons its sums anew', () => {
    const lines = [
      { amount: 1_000n, taxCode: 'STD', percent: '20' },
      { amount: 333n, taxCode: 'STD', percent: '20' },
    ];
    const { amounts, sums } = documentInOther(lines, false, fractionOf('0.85'));
    expect(amounts).toEqual([1_176n, 392n]);
    expect(sums).toMatchObject({ net: 1_568n, tax: 314n, gross: 1_882n });
    expect(priceInOther('13.50', fractionOf('0.85'))).toBe('15.8824');
  });

  it('adds up to the penny whatever the rate, prices with or without tax', () => {
    const line = fc.record({
      amount: fc.bigInt(-10_000_000n, 10_000_000n),
      taxCode: fc.constantFrom('A', 'B'),
      percent: fc.constantFrom('0', '5.5', '20'),
    });
    fc.assert(
      fc.property(
        fc.array(line, { minLength: 1, maxLength: 12 }),
        fc.boolean(),
        fc.integer({ min: 1, max: 99_999_999 }),
        (lines, hold, parts) => {
          const same = lines.map((l) => ({ ...l, percent: l.taxCode === 'A' ? '20' : '5.5' }));
          const { amounts, sums } = documentInOther(same, hold, fractionOf((parts / 10_000).toFixed(4)));
          const all = amounts.reduce((a, b) => a + b, 0n);
          expect(hold ? sums.gross : sums.net).toBe(all);
          expect(sums.net + sums.tax).toBe(sums.gross);
          expect(sums.lines.reduce((a, b) => a + b, 0n)).toBe(sums.net);
        },
      ),
    );
  });

  it('has all of what it says open while nothing is paid, and nothing when all is', () => {
    // 149.80, 6.50 and 1.30 of tax at 0.86 are 183.25 line by line, and would be 183.26 as a sum.
    expect(openInOther(15_760n, 15_760n, 18_325n)).toBe(18_325n);
    expect(openInOther(7_880n, 15_760n, 18_325n)).toBe(9_163n);
    expect(openInOther(0n, 15_760n, 18_325n)).toBe(0n);
    expect(openInOther(-1_200n, -1_200n, -1_411n)).toBe(-1_411n);
    expect(openInOther(0n, 0n, 0n)).toBe(0n);
  });

  it('knows no rate of nought', () => {
    expect(() => inOther(1n, fractionOf('0'))).toThrow(RangeError);
  });
});
