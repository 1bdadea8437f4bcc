/** Up to so many stops the shortest order is found for certain. */
const EXACT = 9;

type Between = (from: number, to: number) => number;

/** Held and Karp (1962): the shortest way from `start` through all stops, ending anywhere. O(2ⁿ·n²). */
function exact(n: number, first: (stop: number) => number, between: Between): number[] {
  const full = 1 << n;
  const best = Array.from({ length: full }, () => new Array<number>(n).fill(Infinity));
  const back = Array.from({ length: full }, () => new Array<number>(n).fill(-1));
  for (let i = 0; i < n; i++) (best[1 << i] as number[])[i] = first(i);
  for (let set = 1; set < full; set++) {
    for (let last = 0; last < n; last++) {
      const so = best[set]?.[last] ?? Infinity;
      if (so === Infinity) continue;
      for (let next = 0; next < n; next++) {
        if (set & (1 << next)) continue;
        const metres = so + between(last, next);
        const wider = set | (1 << next);
        if (metres < (best[wider]?.[next] ?? Infinity)) {
          (best[wider] as number[])[next] = metres;
          (back[wider] as number[])[next] = last;
        }
      }
    }
  }
  const ends = best[full - 1] ?? [];
  let last = ends.reduce((b, m, i) => (m < (ends[b] ?? Infinity) ? i : b), 0);
  const order: number[] = [];
  for (let set = full - 1; last >= 0;) {
    order.unshift(last);
    const before = back[set]?.[last] ?? -1;
    set &= ~(1 << last);
    last = before;
  }
  return order;
}

/** Always to the nearest, then stretches turned round while that is shorter (2-opt, Croes 1958). */
function good(n: number, first: (stop: number) => number, between: Between): number[] {
  const left = new Set(Array.from({ length: n }, (_, i) => i));
  const order: number[] = [];
  while (left.size > 0) {
    const here = order.at(-1);
    const metres = (i: number) => (here === undefined ? first(i) : between(here, i));
    const next = [...left].reduce((b, i) => (metres(i) < metres(b) ? i : b));
    left.delete(next);
    order.push(next);
  }
  const leg = (a: number | undefined, b: number | undefined) => (b === undefined ? 0 : a === undefined ? first(b) : between(a, b));
  for (let better = true; better;) {
    better = false;
    for (let i = 0; i < n - 1; i++) {
      for (let j = i + 1; j < n; j++) {
        const now = leg(order[i - 1], order[i]) + leg(order[j], order[j + 1]);
        if (leg(order[i - 1], order[j]) + leg(order[i], order[j + 1]) < now - 1e-9) {
          order.splice(i, j - i + 1, ...order.slice(i, j + 1).reverse());
          better = true;
        }
      }
    }
  }
  return order;
}

/**
 * A short order of stops for a walk that begins somewhere and ends wherever the last one is: the shortest for up to nine
 * stops, a good one beyond. `first` and `between` give metres and are the same both ways; stops are named by their index.
 */
export function shortWalk(stops: number, first: (stop: number) => number, between: Between): number[] {
  if (stops <= 1) return stops === 1 ? [0] : [];
  return stops <= EXACT ? exact(stops, first, between) : good(stops, first, between);
}
