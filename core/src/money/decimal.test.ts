import fc from 'fast-check';
import { decimalText, dividedBy, micro, moneyText, priceText, times } from './index.js';

describe('money', () => {
  it.each(['0', '0.42', '20.16', '-3.5', '123456789012345.123456'])('reads and writes %s exactly', (text) => {
    expect(Number(decimalText(micro(text)))).toBeCloseTo(Number(text), 6);
    expect(micro(decimalText(micro(text)))).toBe(micro(text));
  });

  it.each(['', 'x', '1,5', '1.1234567', '1e3', '--1', '1.', 'Infinity'])('refuses "%s"', (text) => {
    expect(() => micro(text)).toThrow(RangeError);
  });

  it('divides a pack’s price to the base unit: 20.16 over 48 is 0.42', () => {
    expect(decimalText(dividedBy(micro('20.16'), 48))).toBe('0.420000');
    expect(decimalText(dividedBy(micro('10'), 3))).toBe('3.333333');
    expect(decimalText(dividedBy(micro('-0.000005'), 2))).toBe('-0.000003');
    expect(() => dividedBy(micro('1'), 0)).toThrow(RangeError);
  });

  it.each([
    ['1739.52', '£1,739.52'],
    ['-143.6', '−£143.60'],
    ['0.005', '£0.01'],
    ['1000000', '£1,000,000.00'],
  ])('writes %s as %s', (amount, words) => {
    expect(moneyText(micro(amount))).toBe(words);
  });

  it('writes other currencies, and small prices with four places', () => {
    expect(moneyText(micro('12'), 'EUR')).toBe('€12.00');
    expect(moneyText(micro('12'), 'SEK')).toBe('SEK 12.00');
    expect(priceText(micro('0.42'))).toBe('0.42');
    expect(priceText(micro('0.048'))).toBe('0.0480');
  });

  it('multiplies and divides back', () => {
    fc.assert(
      fc.property(
        fc.bigInt({ min: -(10n ** 12n), max: 10n ** 12n }),
        fc.integer({ min: 1, max: 5000 }),
        (m, n) => dividedBy(times(m, n), n) === m,
      ),
    );
  });
});
