/** How far a weighed parcel may be from what its goods and box should weigh, in grams: a share of it, but at least so much. */
export function weightTolerance(expectedG: number, percent: number, leastG: number): number {
  return Math.max(leastG, Math.round((expectedG * percent) / 100));
}
