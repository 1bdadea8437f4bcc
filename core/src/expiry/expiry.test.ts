import fc from 'fast-check';
import { leftAtExpiry } from './index.js';

describe('what is left of lots when they pass their dates', () => {
  it('is what nobody asks for until then, those that date first being sold first', () => {
    expect(leftAtExpiry([{ units: 10, days: 5 }], 1)).toEqual([5]);
    // Two lots of one date share the days; the later has what comes after.
    expect(
      leftAtExpiry(
        [
          { units: 30, days: 20 },
          { units: 10, days: 5 },
        ],
        2,
      ),
    ).toEqual([0, 0]);
    expect(
      leftAtExpiry(
        [
          { units: 30, days: 10 },
          { units: 10, days: 5 },
        ],
        1,
      ),
    ).toEqual([25, 5]);
  });

  it('is all of what has passed its date, and of what nobody asks for', () => {
    expect(
      leftAtExpiry(
        [
          { units: 4, days: -3 },
          { units: 4, days: 90 },
        ],
        1,
      ),
    ).toEqual([4, 0]);
    expect(leftAtExpiry([{ units: 4, days: 90 }], 0)).toEqual([4]);
  });

  it('is never more than there is, nor less with fewer sales', () => {
    const lots = fc.array(fc.record({ units: fc.integer({ min: 0, max: 500 }), days: fc.integer({ min: -30, max: 400 }) }), {
      maxLength: 8,
    });
    fc.assert(
      fc.property(lots, fc.double({ min: 0.01, max: 20, noNaN: true }), fc.double({ min: 1, max: 5, noNaN: true }), (given, few, times) => {
        const [slow, fast] = [leftAtExpiry(given, few), leftAtExpiry(given, few * times)];
        given.forEach((l, i) => expect(slow[i]).toBeLessThanOrEqual(l.units));
        const sum = (list: number[]) => list.reduce((a, b) => a + b, 0);
        expect(sum(fast)).toBeLessThanOrEqual(sum(slow));
      }),
    );
  });
});
