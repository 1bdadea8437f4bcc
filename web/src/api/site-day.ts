import { DateTime } from 'luxon';

/** The time zone of the person's site; the browser's until somebody is signed in. */
let zone = 'local';

/** From now on days are those of this time zone. */
export const liveIn = (timeZone: string): void => {
  zone = timeZone;
};

/** The day that it is in a time zone at an instant, as an ISO date. */
export const dayIn = (timeZone: string, at: Date): string => DateTime.fromJSDate(at, { zone: timeZone }).toISODate() ?? '';

/** Today at the person's site, and the day there at any other instant. */
export const dayAt = (at: Date | string): string => dayIn(zone, new Date(at));
export const today = (now = new Date()): string => dayAt(now);
