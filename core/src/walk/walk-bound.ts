import type { Distances } from './good-walk.js';

/** So many rounds without a better bound before prices change by smaller steps. */
const PATIENCE = 25;

/**
 * Metres that no walk through all stops can do without: a spanning tree of all places, with a price on each that draws its degree to what
 * a walk gives it, two at a stop and one at each end (Held and Karp 1970). `upper` is the length of a walk that is known. O(rounds · size²).
 */
export function walkBound({ size, metres }: Distances, upper: number, rounds = 1_000): number {
  const price = new Float64Array(size);
  const bestCost = new Float64Array(size);
  const bestFrom = new Int32Array(size);
  const inTree = new Uint8Array(size);
  const degree = new Int32Array(size);
  const wanted = (i: number) => (i >= size - 2 ? 1 : 2);
  let bound = 0;
  let step = 1;
  let idle = 0;
  for (let round = 0; round < rounds; round++) {
    degree.fill(0);
    inTree.fill(0);
    bestCost.fill(Infinity);
    // Prim (1957).
    let sum = 0;
    let at = 0;
    inTree[0] = 1;
    for (let n = 1; n < size; n++) {
      let next = -1;
      for (let i = 0; i < size; i++) {
        if (inTree[i]) continue;
        const cost = (metres[at * size + i] ?? 0) + (price[at] ?? 0) + (price[i] ?? 0);
        if (cost < (bestCost[i] ?? 0)) {
          bestCost[i] = cost;
          bestFrom[i] = at;
        }
        if (next < 0 || (bestCost[i] ?? 0) < (bestCost[next] ?? 0)) next = i;
      }
      inTree[next] = 1;
      sum += bestCost[next] ?? 0;
      degree[next] = (degree[next] ?? 0) + 1;
      const from = bestFrom[next] ?? 0;
      degree[from] = (degree[from] ?? 0) + 1;
      at = next;
    }
    let spread = 0;
    for (let i = 0; i < size; i++) {
      sum -= (price[i] ?? 0) * wanted(i);
      spread += ((degree[i] ?? 0) - wanted(i)) ** 2;
    }
    if (sum > bound + 1e-9) {
      bound = sum;
      idle = 0;
    } else if (++idle >= PATIENCE) {
      step /= 2;
      idle = 0;
    }
    if (spread === 0 || step < 1e-4 || bound >= upper) break;
    const change = (step * (upper - sum)) / spread;
    for (let i = 0; i < size; i++) price[i] = (price[i] ?? 0) + change * ((degree[i] ?? 0) - wanted(i));
  }
  return Math.min(bound, upper);
}
