import fc from 'fast-check';
import { fractionOf, fractionText, ratio, whole } from '../money/index.js';
import { atRate, goodsWorth, lateShares, shareOfUnits, sumOf, type LateLine } from './index.js';

const line = (units: number, left: number, value: string, weight = 1): LateLine => ({
  units,
  left,
  value: fractionOf(value),
  weight: whole(weight),
});

describe('a charge that comes late', () => {
  it('is split between the goods still there and those that have gone', () => {
    expect(lateShares(fractionOf('120.00'), 'value', [line(192, 48, '80.64'), line(1000, 1000, '48')])).toEqual([
      { share: '75.22', toStock: '18.81', toGone: '56.41' },
      { share: '44.78', toStock: '44.78', toGone: '0.00' },
    ]);
  });

  it('goes wholly to cost where all are sold, wholly to stock where none is', () => {
    expect(lateShares(fractionOf('10'), 'units', [line(5, 0, '1')])).toEqual([{ share: '10.00', toStock: '0.00', toGone: '10.00' }]);
    expect(lateShares(fractionOf('10'), 'units', [line(5, 5, '1')])).toEqual([{ share: '10.00', toStock: '10.00', toGone: '0.00' }]);
  });

  it('can also come back: a credit is split the same way', () => {
    expect(lateShares(fractionOf('-10'), 'units', [line(4, 1, '1')])).toEqual([{ share: '-10.00', toStock: '-2.50', toGone: '-7.50' }]);
  });

  it('is not shared by what no line has', () => {
    expect(lateShares(fractionOf('10'), 'weight', [line(4, 1, '1', 0)])).toBeNull();
  });

  it('adds up to the last penny, whatever is left of what', () => {
    const lines = fc.array(
      fc.record({
        units: fc.integer({ min: 1, max: 5000 }),
        part: fc.float({ min: 0, max: 1, noNaN: true }),
        pence: fc.integer({ min: 1, max: 99_999 }),
      }),
      { minLength: 1, maxLength: 10 },
    );
    fc.assert(
      fc.property(lines, fc.integer({ min: -500_000, max: 500_000 }), (rows, pence) => {
        const of = rows.map((r) => line(r.units, Math.floor(r.units * r.part), (r.pence / 100).toFixed(2)));
        const parts = lateShares(ratio(BigInt(pence), 100n), 'value', of)!;
        const pennies = (t: string) => Math.round(Number(t) * 100);
        expect(parts.reduce((n, p) => n + pennies(p.toStock) + pennies(p.toGone), 0)).toBe(pence);
        parts.forEach((p) => expect(pennies(p.toStock) + pennies(p.toGone)).toBe(pennies(p.share)));
      }),
    );
  });
});

describe('what goods are worth as they come', () => {
  it('is their price by the pack, in the house’s money', () => {
    expect(fractionText(goodsWorth('20.16', 96, 48))).toBe('40.320000');
    expect(fractionText(atRate(goodsWorth('20.16', 1, 48), '0.86'))).toBe('0.361200');
    expect(fractionText(goodsWorth('10', 1, 3))).toBe('3.333333');
  });

  it('with what falls on them of the charges, never more than the whole share', () => {
    expect(fractionText(shareOfUnits('75.22', 48, 192))).toBe('18.805000');
    expect(fractionText(shareOfUnits('75.22', 300, 192))).toBe('75.220000');
    expect(fractionText(sumOf([shareOfUnits('10', 1, 3), shareOfUnits('10', 2, 3)]))).toBe('10.000000');
    expect(fractionText(shareOfUnits('10', 1, 0))).toBe('0.000000');
  });
});
