import { DateTime } from 'luxon';

const iso = (at: DateTime): string => at.toISODate() ?? '';

/** The day that it is in a time zone at an instant, as an ISO date. */
export const dayIn = (timeZone: string, at: Date): string => iso(DateTime.fromJSDate(at, { zone: timeZone }));

/** The instants at which a day begins and ends in a time zone; 23 or 25 hours apart where the clocks change. */
export function daySpan(timeZone: string, day: string): { from: Date; to: Date } {
  const from = DateTime.fromISO(day, { zone: timeZone }).startOf('day');
  return { from: from.toJSDate(), to: from.plus({ days: 1 }).toJSDate() };
}

/** "Thu 14 May". */
export const dayText = (date: string): string => DateTime.fromISO(date, { locale: 'en-GB' }).toFormat('ccc d LLL');

export const addDays = (date: string, days: number): string => iso(DateTime.fromISO(date, { zone: 'utc' }).plus({ days }));

/** "2027-03-01 14:30:00.000", as the database takes an instant. */
export const sqlInstant = (at: Date): string => at.toISOString().replace('T', ' ').replace('Z', '');
