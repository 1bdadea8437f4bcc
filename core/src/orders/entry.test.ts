import fc from 'fast-check';
import { micro } from '../money/index.js';
import { keptLine } from './entry.js';

describe('a line as it is keyed', () => {
  it('is kept in the pack that it was ordered in, and parts of a pack in base units at the price of one', () => {
    expect(keptLine({ quantity: '3', factor: 12, price: '10.80' })).toEqual({ quantity: 3, factor: 12, price: '10.80' });
    expect(keptLine({ quantity: '2.0', factor: 12, price: '10.80' })).toEqual({ quantity: 2, factor: 12, price: '10.80' });
    expect(keptLine({ quantity: '1.5', factor: 12, price: '10.80' })).toMatchObject({ quantity: 18, factor: 1 });
    expect(micro(keptLine({ quantity: '0.5', factor: 3 * 2, price: '10.00' })!.price)).toBe(1_666_667n);
  });

  it.each([
    ['nothing', '0'],
    ['half a piece', '0.5'],
    ['less than nothing', '-1'],
    ['words', 'two'],
    ['more than anybody sells', '99999999'],
    ['no number', ''],
  ])('is refused where it is %s', (_, quantity) => {
    expect(keptLine({ quantity, factor: 1, price: '1' })).toBeNull();
  });

  it('never loses or makes a unit', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99_999 }), fc.integer({ min: 1, max: 500 }), (hundredths, factor) => {
        const kept = keptLine({ quantity: (hundredths / 100).toFixed(2), factor, price: '7.35' });
        const exact = (hundredths * factor) / 100;
        expect(kept === null).toBe(!Number.isInteger(exact));
        if (kept) expect(kept.quantity * kept.factor).toBe(exact);
      }),
    );
  });
});
