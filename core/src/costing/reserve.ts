import { dividedBy, times, type Micro } from '../money/index.js';

/** From so many days without a sale on, so much of what goods are worth is set aside. */
export interface ReserveStep {
  days: number;
  percent: number;
}

/** What is set aside for goods that have not been sold for so many days: the step with most days that they have reached; nought before the first. */
export function reserveFor(value: Micro, days: number, steps: readonly ReserveStep[]): { percent: number; reserve: Micro } {
  const reached = steps
    .filter((s) => days >= s.days)
    .reduce<ReserveStep | null>((most, s) => (most && most.days >= s.days ? most : s), null);
  const percent = reached ? Math.min(100, Math.max(0, reached.percent)) : 0;
  return { percent, reserve: dividedBy(times(value, percent), 100) };
}

/**
 * Splits what something is worth over its units, so that the parts are the whole to the last digit: each takes what falls on all up to it,
 * less what falls on those before.
 */
export function splitWorth(value: Micro, units: readonly number[]): Micro[] {
  const all = units.reduce((sum, n) => sum + n, 0);
  if (all === 0) return units.map(() => 0n);
  let before = 0;
  return units.map((n) => {
    const upTo = (count: number) => (count === all ? value : dividedBy(times(value, count), all));
    const part = upTo(before + n) - upTo(before);
    before += n;
    return part;
  });
}
