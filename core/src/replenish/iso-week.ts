const DAY_MS = 86_400_000;
const WEEK = /^(\d{4})-W(\d{2})$/;

/** A week as a whole number, one more for each week: 1970-W01 is nought. Weeks begin on Mondays (ISO 8601). */
export type WeekNumber = number;

const dayNumber = (date: string): number => Math.round(Date.parse(`${date}T00:00:00Z`) / DAY_MS);

/** The week that an ISO date is in. Throws RangeError on what is no date. */
export function weekOfDate(date: string): WeekNumber {
  const day = dayNumber(date);
  if (!/^\d{4}-\d{2}-\d{2}$/.test(date) || !Number.isFinite(day)) throw new RangeError(`"${date}" is not a date such as 2027-03-01`);
  // The first of January 1970 was a Thursday, of the week that began three days before it.
  return Math.floor((day + 3) / 7);
}

/** How far into its week a date is: nought on Mondays, six on Sundays. */
export const dayOfWeek = (date: string): number => (((dayNumber(date) + 3) % 7) + 7) % 7;

/** Days from one ISO date to another. */
export const daysBetween = (from: string, to: string): number => dayNumber(to) - dayNumber(from);

/** Weeks are read over and over again, and there are few of them. */
const READ = new Map<string, WeekNumber>();
const WRITTEN = new Map<WeekNumber, string>();
/** More are never kept: whoever sends weeks of ten thousand years must not fill the memory. */
const MOST_KEPT = 4_000;

/** Reads "2026-W05". Throws RangeError on a week that its year does not have. */
export function readWeek(text: string): WeekNumber {
  const known = READ.get(text);
  if (known !== undefined) return known;
  const week = weekIn(text);
  if (READ.size < MOST_KEPT) READ.set(text, week);
  return week;
}

function weekIn(text: string): WeekNumber {
  const parts = WEEK.exec(text);
  const [year, number] = [Number(parts?.[1]), Number(parts?.[2])];
  // The fourth of January is always in the first week.
  const week = parts ? weekOfDate(`${parts[1] ?? ''}-01-04`) + number - 1 : NaN;
  if (!parts || number < 1 || weekText(week) !== text || year < 1) throw new RangeError(`"${text}" is not a week such as 2026-W05`);
  return week;
}

/** "2026-W05". */
export function weekText(week: WeekNumber): string {
  const known = WRITTEN.get(week);
  if (known !== undefined) return known;
  const text = textOf(week);
  if (WRITTEN.size < MOST_KEPT) WRITTEN.set(week, text);
  return text;
}

function textOf(week: WeekNumber): string {
  // The year of a week is that of its Thursday.
  const thursday = new Date(week * 7 * DAY_MS);
  const year = thursday.getUTCFullYear();
  const first = weekOfDate(`${String(year).padStart(4, '0')}-01-04`);
  return `${String(year).padStart(4, '0')}-W${String(week - first + 1).padStart(2, '0')}`;
}
