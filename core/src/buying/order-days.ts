const DAY_MS = 86_400_000;
const DAYS_IN_WEEK = 7;

/** Any day will do. */
export const ANY_DAY = 'YYYYYYY';

const at = (day: string): number => Date.parse(`${day}T00:00:00Z`);
const takes = (ms: number, days: string): boolean => days[(new Date(ms).getUTCDay() + 6) % DAYS_IN_WEEK] !== 'N';

/**
 * The first day from `today` on, itself among them, on which a supplier takes orders. Days are ISO dates; `days` says for Monday to
 * Sunday "Y" or "N". Where there is no such day, it is today.
 */
export function orderDay(today: string, days: string): string {
  for (let i = 0; i < DAYS_IN_WEEK; i++) {
    const ms = at(today) + i * DAY_MS;
    if (takes(ms, days)) return new Date(ms).toISOString().slice(0, 10);
  }
  return today;
}

/** The longest that somebody waits from one chance to order to the next, in days: what a supplier who takes orders on Tuesdays and Thursdays sends must last from Thursday to Tuesday. */
export function longestWait(days: string): number {
  const open = [...days].flatMap((d, i) => (d === 'N' ? [] : [i]));
  const [first] = open;
  if (first === undefined) return DAYS_IN_WEEK;
  return Math.max(...open.map((d, i) => (open[i + 1] ?? first + DAYS_IN_WEEK) - d));
}
