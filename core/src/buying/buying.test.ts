import fc from 'fast-check';
import { dueDay, moreForNothing, palletsOf, priceFor, shortOfMinimum } from './index.js';

const jars = {
  price: '20.16',
  breaks: [
    { from: 32, price: '18.40' },
    { from: 10, price: '19.20' },
  ],
};

describe('the price of so many packs', () => {
  it('is that of the highest step that is reached', () => {
    expect([1, 9, 10, 31, 32, 500].map((n) => priceFor(jars, n).price)).toEqual(['20.16', '20.16', '19.20', '19.20', '18.40', '18.40']);
    expect(priceFor(jars, 12)).toEqual({ price: '19.20', from: 10, next: { from: 32, price: '18.40', more: 20 } });
    expect(priceFor(jars, 40).next).toBeNull();
  });

  it('says how many more bring a lower one, never a dearer one', () => {
    expect(
      priceFor(
        {
          price: '5',
          breaks: [
            { from: 4, price: '6' },
            { from: 8, price: '4' },
          ],
        },
        2,
      ).next,
    ).toEqual({ from: 8, price: '4', more: 6 });
    expect(priceFor({ price: '5', breaks: [] }, 0)).toEqual({ price: '5', from: 1, next: null });
  });

  it('shows where more costs no more', () => {
    expect(moreForNothing(priceFor(jars, 9), 9)).toBe(false);
    expect(moreForNothing(priceFor({ price: '20', breaks: [{ from: 10, price: '17' }] }, 9), 9)).toBe(true);
    expect(moreForNothing(priceFor({ price: '20', breaks: [{ from: 10, price: '18' }] }, 9), 9)).toBe(true);
  });

  it('never rises with the number, where steps fall', () => {
    const falling = fc.uniqueArray(fc.integer({ min: 2, max: 500 }), { maxLength: 6 }).map((froms) => ({
      price: '100',
      breaks: [...froms].sort((a, b) => a - b).map((from, i) => ({ from, price: String(90 - i * 10) })),
    }));
    fc.assert(
      fc.property(falling, fc.integer({ min: 1, max: 600 }), (list, n) => {
        expect(Number(priceFor(list, n + 1).price)).toBeLessThanOrEqual(Number(priceFor(list, n).price));
      }),
    );
  });
});

describe('what a supplier asks for at the least', () => {
  const packs = [
    { id: 1, name: 'pallet', plural: 'pallets', factor: 1536 },
    { id: 2, name: 'tray', plural: 'trays', factor: 48 },
  ];

  it('is told by value, units and pallets, with what is missing', () => {
    const size = { value: '400.00', units: 96, pallets: palletsOf(96, packs) };
    expect(shortOfMinimum(size, { value: '500', units: 100, pallets: 2 })).toEqual([
      { of: 'value', least: '500', has: '400.00', missing: '100.000000' },
      { of: 'units', least: '100', has: '96', missing: '4' },
      { of: 'pallets', least: '2', has: '0', missing: '2' },
    ]);
  });

  it('is enough where it is met exactly, or not asked for', () => {
    expect(shortOfMinimum({ value: '500', units: 100, pallets: 2 }, { value: '500.00', units: 100, pallets: 2 })).toEqual([]);
    expect(shortOfMinimum({ value: '0', units: 0, pallets: 0 }, { value: null, units: null, pallets: null })).toEqual([]);
  });

  it('counts pallets in part, and rounds what is missing up', () => {
    expect(palletsOf(1536 * 1.5, packs)).toBe(1.5);
    expect(palletsOf(10, packs.slice(1))).toBe(0);
    expect(shortOfMinimum({ value: '0', units: 0, pallets: 1.55 }, { value: null, units: null, pallets: 2 })).toEqual([
      { of: 'pallets', least: '2', has: '1.5', missing: '0.5' },
    ]);
  });
});

describe('the day on which goods can be here', () => {
  // 2026-11-26 is a Thursday.
  it.each([
    [0, 'YYYYYNN', '2026-11-26'],
    [1, 'YYYYYNN', '2026-11-27'],
    [2, 'YYYYYNN', '2026-11-30'],
    [3, 'YYYYYNN', '2026-11-30'],
    [2, 'YYYYYYN', '2026-11-28'],
    [28, 'NNNNNNY', '2026-12-27'],
    [5, 'NNNNNNN', '2026-12-01'],
  ])('is %i days later, or the next that the supplier works (%s): %s', (days, works, due) => {
    expect(dueDay('2026-11-26', days, works)).toBe(due);
  });
});
