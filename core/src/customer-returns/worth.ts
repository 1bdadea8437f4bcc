import { dividedBy, times, type Micro } from '../money/index.js';

/**
 * What `units` that come back are worth: their part of what all `left` units of such goods cost when they left, `before` of
 * which came back earlier. The parts of all sum to the whole, whatever the steps.
 */
export function worthBack(value: Micro, left: number, before: number, units: number): Micro {
  if (left <= 0) return 0n;
  const upTo = (n: number) => (n >= left ? value : dividedBy(times(value, n), left));
  return upTo(before + units) - upTo(before);
}
