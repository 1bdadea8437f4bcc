import { dividedBy, type Micro } from '../money/index.js';

/**
 * What each amount comes to for one of so many units, in millionths, so that the parts add up to what their sum comes to:
 * each is rounded with those before it, not by itself. O(amounts).
 */
export function eachOf(amounts: readonly Micro[], units: number): Micro[] {
  let sum = 0n;
  let told = 0n;
  return amounts.map((amount) => {
    sum += amount;
    const each = dividedBy(sum, units) - told;
    told += each;
    return each;
  });
}
