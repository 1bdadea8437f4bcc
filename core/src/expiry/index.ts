/** Goods of one lot at a site, and in how many days they pass their date; below nought where they have. */
export interface DatedLot {
  units: number;
  days: number;
}

/**
 * How many of each lot will be left when it passes its date, where so many are asked for a day and what dates first is sold first.
 * In the order given. O(n log n).
 */
export function leftAtExpiry(lots: readonly DatedLot[], aDay: number): number[] {
  const left = lots.map((l) => l.units);
  let day = 0;
  const order = [...lots.keys()].sort((a, b) => (lots[a]?.days ?? 0) - (lots[b]?.days ?? 0));
  for (const i of order) {
    const lot = lots[i];
    if (!lot || aDay <= 0) continue;
    const sold = Math.min(lot.units, Math.max(0, lot.days - day) * aDay);
    left[i] = Math.max(0, Math.ceil(lot.units - sold - 1e-9));
    day += sold / aDay;
  }
  return left;
}
