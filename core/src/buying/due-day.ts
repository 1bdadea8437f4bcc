const DAY_MS = 86_400_000;
/** A week without a working day cannot be; looked at no further than this. */
const DAYS_IN_WEEK = 7;

/**
 * The day on which goods ordered on a day can be here: so many days later, or the first day after it on which the supplier
 * works. Days are ISO dates; `works` says for Monday to Sunday "Y" or "N".
 */
export function dueDay(orderedOn: string, leadDays: number, works: string): string {
  const from = Date.parse(`${orderedOn}T00:00:00Z`) + leadDays * DAY_MS;
  for (let i = 0; i < DAYS_IN_WEEK; i++) {
    const day = new Date(from + i * DAY_MS);
    if (works[(day.getUTCDay() + 6) % DAYS_IN_WEEK] !== 'N') return day.toISOString().slice(0, 10);
  }
  return new Date(from).toISOString().slice(0, 10);
}
