import { ANY_DAY, longestWait, orderDay } from './index.js';

describe('days on which a supplier takes orders', () => {
  it('are today, or the next that there is, over the end of a week and a year', () => {
    // The 1st of December 2026 is a Tuesday.
    expect(orderDay('2026-12-01', 'NYNYNNN')).toBe('2026-12-01');
    expect(orderDay('2026-12-02', 'NYNYNNN')).toBe('2026-12-03');
    expect(orderDay('2026-12-04', 'NYNYNNN')).toBe('2026-12-08');
    expect(orderDay('2026-12-31', 'YNNNNNN')).toBe('2027-01-04');
    expect(orderDay('2026-12-06', ANY_DAY)).toBe('2026-12-06');
    expect(orderDay('2026-12-06', 'NNNNNNN')).toBe('2026-12-06');
  });

  it('leave so long a wait between two chances', () => {
    expect(longestWait('NYNYNNN')).toBe(5);
    expect(longestWait('YNNNNNN')).toBe(7);
    expect(longestWait('YYYYYNN')).toBe(3);
    expect(longestWait(ANY_DAY)).toBe(1);
    expect(longestWait('NNNNNNN')).toBe(7);
  });
});
