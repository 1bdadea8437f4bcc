import { seeded } from '../random/index.js';

/** Metres between places: places 0 to `size` − 3 are stops, the last two are where the walk begins and ends. */
export interface Distances {
  size: number;
  metres: Float64Array;
}

export const metresOfOrder = ({ size, metres }: Distances, order: readonly number[]): number => {
  let sum = 0;
  let at = size - 2;
  for (const stop of order) {
    sum += metres[at * size + stop] ?? 0;
    at = stop;
  }
  return sum + (metres[at * size + size - 1] ?? 0);
};

/** So many of the nearest places are tried as neighbours of a place. */
const NEAR = 10;
/** So many places that follow each other are moved together. */
const MOVED = 3;
const EPSILON = 1e-9;
/** How much longer a shaken order may be than the one before at first, as a share of the metres between two stops. */
const WARM = 0.25;

/** Always to the nearest stop. */
function nearestFirst({ size, metres }: Distances): number[] {
  const left = new Set(Array.from({ length: size - 2 }, (_, i) => i));
  const order: number[] = [];
  let at = size - 2;
  while (left.size > 0) {
    let best = -1;
    for (const stop of left) if (best < 0 || (metres[at * size + stop] ?? 0) < (metres[at * size + best] ?? 0)) best = stop;
    left.delete(best);
    order.push(best);
    at = best;
  }
  return order;
}

/**
 * A round through all places, closed by a way from the end to the start that is never given up. Improved by turning stretches round
 * (2-opt, Croes 1958) and moving up to three places elsewhere (Or 1976), looking only where something has changed (Bentley 1992).
 */
class Tour {
  readonly at: Int32Array;
  private readonly position: Int32Array;
  private readonly taken: Int32Array;
  private readonly near: Int32Array;
  private readonly todo: number[] = [];
  private readonly waiting: Uint8Array;
  private readonly size: number;
  private readonly metres: Float64Array;

  constructor({ size, metres }: Distances, order: readonly number[]) {
    this.size = size;
    this.metres = metres.slice();
    const closed = -1e7;
    this.metres[(size - 1) * size + size - 2] = closed;
    this.metres[(size - 2) * size + size - 1] = closed;
    this.at = Int32Array.from([size - 2, ...order, size - 1]);
    this.position = new Int32Array(size);
    this.taken = new Int32Array(size);
    this.waiting = new Uint8Array(size);
    for (let i = 0; i < size; i++) this.position[this.at[i] ?? 0] = i;
    const many = Math.min(NEAR, size - 1);
    this.near = new Int32Array(size * NEAR).fill(-1);
    for (let i = 0; i < size; i++) {
      const others = Array.from({ length: size }, (_, j) => j).filter((j) => j !== i);
      others.sort((j, k) => (this.metres[i * size + j] ?? 0) - (this.metres[i * size + k] ?? 0) || j - k);
      for (let n = 0; n < many; n++) this.near[i * NEAR + n] = others[n] ?? -1;
    }
    for (let i = 0; i < size; i++) this.lookAt(i);
  }

  /** Goes back to a round that it was before. */
  become(round: Int32Array): void {
    this.at.set(round);
    for (let i = 0; i < this.size; i++) this.position[round[i] ?? 0] = i;
  }

  /**
   * Changes two stretches over that follow each other: the first begins at a position, and both end before the second and the third,
   * counted on from it. Returns the metres that this makes it longer.
   */
  shake(from: number, middle: number, end: number): number {
    const { size, at, position, taken } = this;
    const place = (n: number) => at[(from + n + size) % size] ?? 0;
    const [before, first, last, second, until, after] = [place(-1), place(0), place(middle - 1), place(middle), place(end - 1), place(end)];
    for (let n = 0; n < end; n++) taken[n] = place(n);
    for (let n = 0; n < end; n++) {
      const moved = taken[n < end - middle ? n + middle : n - (end - middle)] ?? 0;
      const to = (from + n) % size;
      at[to] = moved;
      position[moved] = to;
    }
    for (const p of [before, first, last, second, until, after]) this.lookAt(p);
    return (
      this.m(before, second) +
      this.m(until, first) +
      this.m(last, after) -
      this.m(before, first) -
      this.m(last, second) -
      this.m(until, after)
    );
  }

  private lookAt(place: number): void {
    if (this.waiting[place]) return;
    this.waiting[place] = 1;
    this.todo.push(place);
  }

  /** Improves until nothing that was to be looked at helps. Returns the metres that it has become shorter. */
  improve(): number {
    let saved = 0;
    while (this.todo.length > 0) {
      const place = this.todo.pop() ?? 0;
      this.waiting[place] = 0;
      for (let by = this.turnRound(place) || this.move(place); by > 0; by = this.turnRound(place) || this.move(place)) saved += by;
    }
    return saved;
  }

  private m(a: number, b: number): number {
    return this.metres[a * this.size + b] ?? 0;
  }
  private step(place: number, by: number): number {
    return this.at[((this.position[place] ?? 0) + by + this.size) % this.size] ?? 0;
  }

  /** Turns what lies between two positions round, going forward from the first over the end of the array if need be. */
  private reverse(from: number, to: number): void {
    const { size, at, position } = this;
    let many = (((to - from + size) % size) + 1) >> 1;
    for (let [i, j] = [from, to]; many > 0; many--) {
      const [a, b] = [at[i] ?? 0, at[j] ?? 0];
      at[i] = b;
      at[j] = a;
      position[b] = i;
      position[a] = j;
      i = i + 1 === size ? 0 : i + 1;
      j = j === 0 ? size - 1 : j - 1;
    }
  }

  private turnRound(a: number): number {
    for (const way of [1, -1]) {
      const b = this.step(a, way);
      const ab = this.m(a, b);
      for (let n = 0; n < NEAR; n++) {
        const c = this.near[a * NEAR + n] ?? -1;
        if (c < 0 || this.m(a, c) >= ab - EPSILON) break;
        const d = this.step(c, way);
        const saved = ab + this.m(c, d) - this.m(a, c) - this.m(b, d);
        if (saved <= EPSILON) continue;
        // a b … c d becomes a c … b d; the other way round it is d c … b a.
        const [first, last] = way === 1 ? [b, c] : [c, b];
        const [from, to] = [this.position[first] ?? 0, this.position[last] ?? 0];
        if (from <= to) this.reverse(from, to);
        else this.reverse((to + 1) % this.size, (from - 1 + this.size) % this.size);
        for (const place of [a, b, c, d]) this.lookAt(place);
        return saved;
      }
    }
    return 0;
  }

  private move(a: number): number {
    const { size } = this;
    for (const way of [1, -1]) {
      let e = a;
      for (let many = 1; many <= MOVED && many < size - 2; many++) {
        if (many > 1) e = this.step(e, way);
        const [p, next] = [this.step(a, -way), this.step(e, way)];
        const gap = this.m(p, a) + this.m(e, next) - this.m(p, next);
        if (gap <= EPSILON) continue;
        for (let n = 0; n < NEAR; n++) {
          const c = this.near[a * NEAR + n] ?? -1;
          if (c < 0 || this.m(a, c) >= gap - EPSILON) break;
          if (this.isWithin(c, a, many, way)) continue;
          for (const side of [way, -way]) {
            const d = this.step(c, side);
            if (this.isWithin(d, a, many, way)) continue;
            const saved = gap + this.m(c, d) - this.m(c, a) - this.m(e, d);
            if (saved <= EPSILON) continue;
            this.put(a, e, way, c, side);
            for (const place of [a, e, p, next, c, d]) this.lookAt(place);
            return saved;
          }
        }
      }
    }
    return 0;
  }

  private isWithin(place: number, a: number, many: number, way: number): boolean {
    const ahead = (((this.position[place] ?? 0) - (this.position[a] ?? 0)) * way + this.size) % this.size;
    return ahead < many;
  }

  /** Puts the run from a to e, which goes `way`, beside c: between c and its neighbour on `side`, with a next to c. */
  private put(a: number, e: number, way: number, c: number, side: number): void {
    const { size, position } = this;
    const [first, last] = way === 1 ? [a, e] : [e, a];
    const from = position[first] ?? 0;
    const many = (((position[last] ?? 0) - from + size) % size) + 1;
    // Everything from the run on to where it goes: the run, then what comes before its new place.
    const before = side === 1 ? c : this.step(c, -1);
    const to = position[before] ?? 0;
    const rest = (to - from + size) % size;
    this.reverse(from, to);
    const split = (from + rest - many + size) % size;
    if (rest >= many) this.reverse(from, split);
    // Now what came after the run stands first as it was, and the run behind it, turned round.
    const begin = (split + 1) % size;
    const nextToC = side === 1 ? begin : to;
    if (this.at[nextToC] !== a) this.reverse(begin, to);
  }
}

/**
 * A good order of all stops: the nearest first, then improved, then shaken `tries` times by changing over two neighbouring stretches and
 * improved again (iterated local search, Lourenço, Martin and Stützle 2003). The same input and seed give the same answer.
 */
export function goodWalk(distances: Distances, tries: number, seed = 0): number[] {
  const { size } = distances;
  if (size <= 3) return size === 3 ? [0] : [];
  const tour = new Tour(distances, nearestFirst(distances));
  tour.improve();
  const best = tour.at.slice();
  // Where it stands now; at first that may be a little longer than the best, so that it gets out of a valley.
  const now = best.slice();
  // By how much each is longer than the first.
  let [fewest, metres] = [0, 0];
  const heat = (WARM * roundOf(best, distances)) / size;
  const random = seeded(size + 1000 * seed);
  for (let t = 0; t < tries && size >= 8; t++) {
    // Near each other, so that what was good elsewhere stays.
    const span = Math.min(size, 4 + Math.floor(random() * 24));
    const from = Math.floor(random() * size);
    const cut = () => 1 + Math.floor(random() * (span - 1));
    const [p = 0, q = 0, r = 0] = [cut(), cut(), cut()].sort((x, y) => x - y);
    if (p === q || q === r) continue;
    const become = metres + tour.shake((from + p) % size, q - p, r - p) - tour.improve();
    if (become > metres + heat * (1 - t / tries) * random() + EPSILON) {
      tour.become(now);
      continue;
    }
    now.set(tour.at);
    metres = become;
    if (become >= fewest - EPSILON) continue;
    best.set(now);
    fewest = become;
  }
  return opened(best, size);
}

/** Metres of a round; what closes it counts as far as it is. */
function roundOf(round: Int32Array, { size, metres }: Distances): number {
  let sum = 0;
  let from = round[size - 1] ?? 0;
  for (const to of round) {
    if (from < size - 2 || to < size - 2) sum += metres[from * size + to] ?? 0;
    from = to;
  }
  return sum;
}

/** The stops of a round in the order in which they come after the start. */
function opened(round: Int32Array, size: number): number[] {
  const start = round.indexOf(size - 2);
  const forward = Array.from({ length: size }, (_, i) => round[(start + i) % size] ?? 0);
  const order = forward.at(-1) === size - 1 ? forward : [size - 2, ...forward.slice(1).reverse()];
  return order.slice(1, -1);
}
