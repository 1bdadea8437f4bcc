import { YEAR } from './methods.js';
import type { Series } from './series.js';

/** Less likely than that, silence is no chance. */
const NEVER = 1e-4;
const LEAST_WEEKS = 3;

/**
 * Whether nobody asks for an item any more: its last weeks are so silent that chance cannot explain it, by how often it was asked for
 * in the year before the silence. Weeks that were silent a year ago as well are its season, and prove nothing. O(n).
 */
export function isSilent({ units }: Series): boolean {
  let silent = 0;
  while (silent < units.length && units[units.length - 1 - silent] === 0) silent += 1;
  const before = units.slice(0, units.length - silent);
  if (silent < LEAST_WEEKS || before.length === 0) return false;
  const year = before.slice(-YEAR);
  const busy = year.filter((u) => u > 0).length;
  // With nothing else known, a week is as likely busy as not (Jeffreys).
  const chance = (busy + 0.5) / (year.length + 1);
  let proving = 0;
  for (let i = units.length - silent; i < units.length; i += 1) {
    const around = i - YEAR >= 0 ? units.slice(Math.max(0, i - YEAR - 1), i - YEAR + 2) : null;
    if (around === null || around.some((u) => u > 0)) proving += 1;
  }
  return (1 - chance) ** proving < NEVER;
}
