/** How far a weighed parcel may be from what its goods and box should weigh, in grams: a share of it, but at least so much. */
export const weightSlackG = (expectedG: number, percent: number, leastG: number): number =>
  Math.max(leastG, Math.round((expectedG * percent) / 100));
