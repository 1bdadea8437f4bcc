const CUT_OFF_HOUR_UTC = 14;
const DEPARTURE = { hour: 15, minute: 30 };

/**
 * When an order that comes in now is promised to leave: today's afternoon van before the cut-off, otherwise the next
 * working day's. Until sites have departures of their own, all share one.
 */
export function promisedFor(now: Date): Date {
  const at = new Date(Date.UTC(now.getUTCFullYear(), now.getUTCMonth(), now.getUTCDate(), DEPARTURE.hour, DEPARTURE.minute));
  if (now.getUTCHours() >= CUT_OFF_HOUR_UTC) at.setUTCDate(at.getUTCDate() + 1);
  while (at.getUTCDay() === 0 || at.getUTCDay() === 6) at.setUTCDate(at.getUTCDate() + 1);
  return at;
}
