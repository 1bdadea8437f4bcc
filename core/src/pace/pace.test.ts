import { paceOf } from './index.js';

const day = (n: number, seconds: number, done: number) => ({ day: `2026-05-${String(n).padStart(2, '0')}`, seconds, done });
const TODAY = { day: '2026-05-14', share: 0.25 };

describe('the pace of a stage', () => {
  it('is not known before anything was done', () => {
    expect(paceOf([], TODAY)).toBeNull();
    expect(paceOf([day(13, 0, 0)], TODAY)).toBeNull();
    expect(paceOf([day(13, 0, 5)], TODAY)).toBeNull();
  });

  it('is the work behind one of them, and what a day gives', () => {
    expect(paceOf([day(12, 7200, 40), day(13, 10_800, 20)], TODAY)).toEqual({ minutesEach: 5, hoursADay: 2.5 });
  });

  it('does not take the morning of today for a whole day', () => {
    const pace = paceOf([day(13, 7200, 30), day(14, 600, 10)], TODAY);
    expect(pace?.hoursADay).toBe(2);
    expect(pace?.minutesEach).toBeCloseTo(3.25);
  });

  it('goes by today where there is no other day, as far as it will have come by its end', () => {
    expect(paceOf([day(14, 3600, 12)], TODAY)).toEqual({ minutesEach: 5, hoursADay: 4 });
    expect(paceOf([day(14, 3600, 12)], { ...TODAY, share: 1 })).toEqual({ minutesEach: 5, hoursADay: 1 });
  });
});
