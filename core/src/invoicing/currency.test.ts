import fc from 'fast-check';
import { fractionOf } from '../money/index.js';
import { documentInOther, inOther, priceInOther } from './index.js';

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

  it('knows no rate of nought', () => {
    expect(() => inOther(1n, fractionOf('0'))).toThrow(RangeError);
  });
});
