import fc from 'fast-check';
import { isSum, padValue, pressed, type PadKey } from './calculator.js';

const keys = (...list: PadKey[]) => list.reduce(pressed, '');

describe('the pad reckons', () => {
  it('layers times boxes, and what stands beside', () => {
    expect(keys('4', '×', '1', '2', '+', '5')).toBe('4×12+5');
    expect(padValue('4×12+5')).toBe(53);
    expect(padValue('5+4×12')).toBe(53);
    expect(padValue('2×3×4')).toBe(24);
  });

  it('with a sign at the end as if it were not there yet', () => {
    expect([padValue('4×'), padValue('4×12+'), padValue('')]).toEqual([4, 48, 0]);
  });

  it('lets a sign follow only a figure, the last sign pressed', () => {
    expect(keys('+', '7')).toBe('7');
    expect(keys('7', '+', '×', '2')).toBe('7×2');
  });

  it('keeps figures short, and no nought before them', () => {
    expect(keys('0', '0', '7')).toBe('7');
    expect(keys('1', '2', '3', '4', '5', '6')).toBe('12345');
    expect(isSum('12')).toBe(false);
    expect(isSum('12+')).toBe(true);
  });

  it('and always comes to a whole number, as arithmetic has it', () => {
    const any = fc.array(fc.constantFrom<PadKey>('0', '1', '2', '3', '7', '9', '×', '+'), { maxLength: 14 });
    fc.assert(
      fc.property(any, (list) => {
        const text = list.reduce(pressed, '');
        const plain = text.replace(/[×+]$/, '');
        const expected = plain
          .split('+')
          .map((t) => t.split('×').map((n) => BigInt(n === '' ? 0 : n)))
          .reduce((sum, t) => sum + t.reduce((a, b) => a * b, 1n), 0n);
        fc.pre(expected < 2n ** 53n);
        expect(BigInt(padValue(text))).toBe(expected);
      }),
    );
  });
});
