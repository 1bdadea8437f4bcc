import fc from 'fast-check';
import { reserveFor, splitWorth } from './index.js';

const STEPS = [
  { days: 365, percent: 75 },
  { days: 180, percent: 25 },
];

describe('a reserve for slow goods', () => {
  it('is nought until the first step, and what the furthest step says from then on', () => {
    expect(reserveFor(100_000_000n, 179, STEPS)).toEqual({ percent: 0, reserve: 0n });
    expect(reserveFor(100_000_000n, 180, STEPS)).toEqual({ percent: 25, reserve: 25_000_000n });
    expect(reserveFor(100_000_000n, 364, STEPS)).toEqual({ percent: 25, reserve: 25_000_000n });
    expect(reserveFor(100_000_000n, 9_000, STEPS)).toEqual({ percent: 75, reserve: 75_000_000n });
  });

  it('is never more than the goods are worth, whatever a house has set', () => {
    expect(reserveFor(10n, 400, [{ days: 1, percent: 250 }])).toEqual({ percent: 100, reserve: 10n });
    expect(reserveFor(10n, 400, [])).toEqual({ percent: 0, reserve: 0n });
  });
});

describe('worth that is split over units', () => {
  it('is the whole again, to the last digit', () => {
    fc.assert(
      fc.property(fc.bigInt(0n, 10n ** 15n), fc.array(fc.nat(5_000), { minLength: 1, maxLength: 20 }), (value, units) => {
        const parts = splitWorth(value, units);
        const sum = parts.reduce((a, b) => a + b, 0n);
        expect(sum).toBe(units.some((n) => n > 0) ? value : 0n);
        expect(parts.every((p) => p >= 0n)).toBe(true);
        for (const [i, n] of units.entries()) if (n === 0) expect(parts[i]).toBe(0n);
      }),
    );
  });
});
