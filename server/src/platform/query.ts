import { badForm } from './problem.js';

/** The largest number that the database takes as an id or as rows to pass over. */
const MOST = 4_294_967_295;

/**
 * A whole number of a query, kept within bounds. What is no number, or comes twice, counts as not given; so do `1e99` and
 * `Infinity`, which are none that anybody meant.
 */
export function wholeOf<T extends number | null>(text: unknown, otherwise: T, least = 0, most = MOST): number | T {
  if (typeof text !== 'string' || !/^\d{1,15}$/.test(text)) return otherwise;
  return Math.min(most, Math.max(least, Number(text)));
}

/** A text of a query; '' where it is absent or comes twice. */
export const textOf = (value: unknown, most = 200): string => (typeof value === 'string' ? value.slice(0, most) : '');

/** Whether a text is a day that the calendar has, as an ISO date of this century. */
export function isDay(text: string): boolean {
  if (!/^20\d\d-\d\d-\d\d$/.test(text)) return false;
  const at = new Date(`${text}T00:00:00Z`);
  return !Number.isNaN(at.getTime()) && at.toISOString().startsWith(text);
}

/** A day of a query; '' where it is absent or comes twice. What is no day is refused under its name. */
export function dayOf(query: Readonly<Record<string, unknown>>, name: string): string {
  const text = textOf(query[name]).trim();
  if (text !== '' && !isDay(text)) throw badForm({ [name]: 'A day, such as 2026-05-14' });
  return text;
}
