/** The time zone of the person's site; the browser's until somebody is signed in. */
let zone: string | undefined;

/** From now on days are those of this time zone. */
export const liveIn = (timeZone: string): void => {
  zone = timeZone;
};

/** The day that it is in a time zone at an instant, as an ISO date. */
export function dayIn(timeZone: string | undefined, at: Date): string {
  const parts = new Intl.DateTimeFormat('en-GB', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' }).formatToParts(at);
  const part = (type: string) => parts.find((p) => p.type === type)?.value ?? '';
  return `${part('year').padStart(4, '0')}-${part('month')}-${part('day')}`;
}

/** Today at the person's site, and the day there at any other instant. */
export const dayAt = (at: Date | string): string => dayIn(zone, new Date(at));
export const today = (now = new Date()): string => dayAt(now);
