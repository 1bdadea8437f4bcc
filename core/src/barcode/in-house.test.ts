import fc from 'fast-check';
import { hasCheckDigit, IN_HOUSE_PREFIXES, readGs1, restrictedNumber } from './index.js';

describe('in-house numbers', () => {
  it('are 13 digits of the restricted range with a right check digit, and read back as themselves', () => {
    fc.assert(
      fc.property(fc.constantFrom(...IN_HOUSE_PREFIXES), fc.integer({ min: 1, max: 9_999_999_999 }), (prefix, n) => {
        const code = restrictedNumber(prefix, n);
        const read = readGs1(code, { today: '2026-05-14' });
        return code.length === 13 && code.startsWith(prefix) && hasCheckDigit(code) && read.ok && read.gtin14 === `0${code}`;
      }),
    );
  });
  it('differ for different numbers of the series', () => {
    expect(restrictedNumber('20', 7)).toBe('2000000000077');
    expect(restrictedNumber('20', 8)).not.toBe(restrictedNumber('20', 7));
  });
  it('end with their series', () => {
    expect(() => restrictedNumber('20', 0)).toThrow(RangeError);
    expect(() => restrictedNumber('20', 10_000_000_000)).toThrow(RangeError);
  });
});
