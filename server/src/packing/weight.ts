const LEAST_TOLERANCE_G = 40;
const TOLERANCE_PER_CENT = 6;

/** How far a weighed parcel may be from what its goods and box should weigh, in grams. */
export function weightTolerance(expectedG: number): number {
  return Math.max(LEAST_TOLERANCE_G, Math.round((expectedG * TOLERANCE_PER_CENT) / 100));
}
