/** What was done at one stage on one day. */
export interface DayOfWork {
  /** ISO date. */
  day: string;
  /** Time that people spent on it. */
  seconds: number;
  /** How many orders, rounds or goods they were done with. */
  done: number;
}

/** How fast a stage is worked off in this house, as measured. */
export interface Pace {
  /** Minutes of work behind one order, round or parcel. */
  minutesEach: number;
  /** Hours of work that a usual day gives the stage. */
  hoursADay: number;
}

/**
 * The pace of a stage over some days; null where nothing was done on any of them. A day that is not over says how long a thing takes, but
 * how much a day gives only where there is no other: then as much as it will have come to when it ends, if it goes on as it began.
 * `share` is how much of today is over, above 0 and up to 1. O(days).
 */
export function paceOf(days: readonly DayOfWork[], today: { day: string; share: number }): Pace | null {
  const worked = days.filter((d) => d.done > 0 && d.seconds > 0);
  if (worked.length === 0) return null;
  const whole = worked.filter((d) => d.day !== today.day);
  const counted = whole.length > 0 ? whole : worked;
  const sum = (list: readonly DayOfWork[], of: 'seconds' | 'done') => list.reduce((total, d) => total + d[of], 0);
  return {
    minutesEach: sum(worked, 'seconds') / sum(worked, 'done') / 60,
    hoursADay: sum(counted, 'seconds') / (whole.length > 0 ? whole.length : today.share) / 3600,
  };
}
