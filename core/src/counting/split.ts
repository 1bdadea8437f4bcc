/** A bin that is to be counted, in walking order among its like. */
export interface AreaBin {
  placeId: number;
  /** The aisle or zone that it stands in; bins of one area stand together. */
  area: string;
  /** What there is to count in it; at least 1 for the way to it. */
  work: number;
}

/**
 * Bins shared out among so many people, in walking order, so that each has one stretch and nobody crosses another: whole areas
 * where there are at least as many as people, single bins otherwise. The largest share is as small as it can be. Some shares are
 * empty where there are fewer bins than people. O(bins log(all work)).
 */
export function splitByArea(bins: readonly AreaBin[], people: number): AreaBin[][] {
  if (!Number.isSafeInteger(people) || people < 1) throw new RangeError('Share the bins out among at least one person');
  const areas = stretches(bins);
  const parts = areas.length >= people ? areas : bins.map((b) => [b]);
  const works = parts.map((part) => part.reduce((n, b) => n + Math.max(1, b.work), 0));
  let low = Math.max(0, ...works);
  let high = works.reduce((a, b) => a + b, 0);
  while (low < high) {
    const most = Math.floor((low + high) / 2);
    if (sharesFor(works, most) <= people) high = most;
    else low = most + 1;
  }
  const shares: AreaBin[][] = Array.from({ length: people }, () => []);
  let share = 0;
  let sum = 0;
  parts.forEach((part, i) => {
    const work = works[i] ?? 0;
    if (sum > 0 && sum + work > low && share < people - 1) {
      share += 1;
      sum = 0;
    }
    sum += work;
    shares[share]?.push(...part);
  });
  return shares;
}

/** Neighbouring bins of one area together. */
function stretches(bins: readonly AreaBin[]): AreaBin[][] {
  const areas: AreaBin[][] = [];
  for (const bin of bins) {
    const last = areas.at(-1);
    if (last?.[0]?.area === bin.area) last.push(bin);
    else areas.push([bin]);
  }
  return areas;
}

function sharesFor(works: readonly number[], most: number): number {
  let shares = 1;
  let sum = 0;
  for (const work of works) {
    if (sum + work > most && sum > 0) {
      shares += 1;
      sum = 0;
    }
    sum += work;
  }
  return shares;
}
