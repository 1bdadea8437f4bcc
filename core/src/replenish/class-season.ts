import { seasonOf, YEAR } from './methods.js';
import type { Series } from './series.js';

/** Weeks that a class must be known for before its seasons are believed. */
const LEAST_WEEKS = 60;

/**
 * The seasons that goods of one class share: each counts alike, however much of it is sold, so that one great seller does not make
 * the year of all. Indexed by the week's number modulo 52. Null where they are not known for long enough, or the year is even.
 * O(goods × weeks).
 */
export function seasonOfClass(all: readonly Series[]): number[] | null {
  const known = all.filter((s) => s.units.some((u) => u > 0));
  if (known.length === 0) return null;
  const first = Math.min(...known.map((s) => s.first));
  const end = Math.max(...known.map((s) => s.first + s.units.length));
  if (end - first < LEAST_WEEKS) return null;
  const sum = new Float64Array(end - first);
  const count = new Float64Array(end - first);
  for (const { first: from, units } of known) {
    const usual = units.reduce((a, b) => a + b, 0) / units.length;
    for (let i = 0; i < units.length; i += 1) {
      const at = from - first + i;
      sum[at] = (sum[at] ?? 0) + (units[i] ?? 0) / usual;
      count[at] = (count[at] ?? 0) + 1;
    }
  }
  const shared = sum.map((s, i) => s / Math.max(1, count[i] ?? 1));
  const season = seasonOf(shared, ((first % YEAR) + YEAR) % YEAR);
  return season.some((s) => Math.abs(s - 1) > 0.05) ? season : null;
}
