import { DateTime } from 'luxon';

const iso = (at: DateTime): string => at.toISODate() ?? '';

interface Day {
  day: string;
  from: Date;
  to: Date;
}

/** The day last asked for in each time zone: every list asks for today, and what a calendar costs is paid once a day. */
const latest = new Map<string, Day>();

function dayOf(timeZone: string, start: DateTime): Day {
  const day = { day: iso(start), from: start.toJSDate(), to: start.plus({ days: 1 }).toJSDate() };
  latest.set(timeZone, day);
  return day;
}

/** The day that it is in a time zone at an instant, as an ISO date. */
export function dayIn(timeZone: string, at: Date): string {
  if (timeZone === 'UTC') return at.toISOString().slice(0, 10);
  const known = latest.get(timeZone);
  if (known && known.from <= at && at < known.to) return known.day;
  return dayOf(timeZone, DateTime.fromJSDate(at, { zone: timeZone }).startOf('day')).day;
}

/** The instants at which a day begins and ends in a time zone; 23 or 25 hours apart where the clocks change. */
export function daySpan(timeZone: string, day: string): { from: Date; to: Date } {
  const known = latest.get(timeZone);
  const { from, to } = known?.day === day ? known : dayOf(timeZone, DateTime.fromISO(day, { zone: timeZone }).startOf('day'));
  return { from, to };
}

/** "Thu 14 May". */
export const dayText = (date: string): string => DateTime.fromISO(date, { locale: 'en-GB' }).toFormat('ccc d LLL');

/** "Thu 14 May 15:30", as the wall of a time zone has it. */
export const timeText = (at: Date, timeZone: string): string =>
  DateTime.fromJSDate(at, { zone: timeZone }).setLocale('en-GB').toFormat('ccc d LLL HH:mm');

export const addDays = (date: string, days: number): string => iso(DateTime.fromISO(date, { zone: 'utc' }).plus({ days }));

/** "2027-03-01 14:30:00.000", as the database takes an instant. */
export const sqlInstant = (at: Date): string => at.toISOString().replace('T', ' ').replace('Z', '');
