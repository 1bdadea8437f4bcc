import { seeded } from '../random/index.js';
import { leastCost } from './bound.js';
import { Filler, type FillWay, type Load, placementsOf } from './fill.js';
import { Merger, MOST_MERGED } from './merge.js';
import { type CartonProblem, holds, type Packing, volumeOf } from './problem.js';

/** What a well filled box is worth beside what it costs: a search that leaves one box nearly empty comes to leave it out. */
const FULL = 0.6;
/** How much worse a change may be, as a share of the dearest box: at first, and at the end. */
const WARM = 0.03;
const COLD = 0.0005;
/** Units that are packed anew at once. */
const MOST_ANEW = 60;
/** More units than this are laid in piles only. */
const MOST_SINGLY = 200;
/** Ways in which each box is tried. */
const WAYS = 8;
const AXES = [
  [0, 1, 2],
  [1, 0, 2],
  [0, 2, 1],
  [2, 0, 1],
  [1, 2, 0],
  [2, 1, 0],
] as const;

/** How large a good is, in several ways of looking at it. */
interface Sizes {
  volume: number;
  longest: number;
  face: number;
}
interface Found {
  loads: Load[];
  left: Int32Array;
}

/**
 * Chooses boxes for goods and places them: all that fits first, then the least cost, then the least room. Boxes are filled by
 * several ways of placing; then some are emptied and what was in them is packed anew, at first also where that is a little worse
 * (ruin and recreate, Schrimpf et al. 2000). Goods that fill a box to its last corner are also put together face by face.
 */
export class CartonSearch {
  private readonly random: () => number;
  private readonly filler: Filler;
  private readonly merger: Merger;
  private readonly counts: Int32Array;
  private readonly unplaceable: number[];
  private readonly holding: boolean[][];
  private readonly volumes: number[];
  private readonly sizes: Sizes[];
  private readonly price: number[];
  private readonly dearest: number;
  private readonly least: number;
  private best: Found;

  constructor(
    private readonly problem: CartonProblem,
    seed = 1,
  ) {
    this.random = seeded(seed);
    this.filler = new Filler(problem, this.random);
    this.merger = new Merger(problem, this.random);
    this.holding = problem.boxes.map((b) => problem.goods.map((g) => (b.stock ?? 1) > 0 && holds(b, g)));
    this.counts = Int32Array.from(problem.goods.map((g, i) => (this.holding.some((h) => h[i]) ? g.quantity : 0)));
    this.unplaceable = problem.goods.map((g, i) => g.quantity - (this.counts[i] as number));
    this.volumes = problem.goods.map((g) => volumeOf(g.sizeMm));
    this.sizes = problem.goods.map(({ sizeMm: [l, w, h] }) => ({
      volume: l * w * h,
      longest: Math.max(l, w, h) ** 3,
      face: Math.max(l * w, l * h, w * h) ** 1.5,
    }));
    const [cost, room] = [Math.max(...problem.boxes.map((b) => b.cost), 0), Math.max(...problem.boxes.map((b) => volumeOf(b.innerMm)), 1)];
    // Room counts only between what costs the same.
    this.price = problem.boxes.map((b) => (cost > 0 ? b.cost / cost : 0) + ((cost > 0 ? 1e-6 : 1) * volumeOf(b.innerMm)) / room);
    this.dearest = Math.max(...this.price, 1e-9);
    this.least = leastCost(problem, this.counts);
    this.best = this.first();
  }

  get found(): Packing {
    const { boxes } = this.problem;
    const { loads, left } = this.best;
    return {
      boxes: loads.map((l) => ({
        box: l.box,
        placements: placementsOf(l),
        weightG: l.weightG + (boxes[l.box]?.tareG ?? 0),
        fill: l.volume / this.room(l.box),
      })),
      cost: loads.reduce((sum, l) => sum + (boxes[l.box]?.cost ?? 0), 0),
      volume: loads.reduce((sum, l) => sum + this.room(l.box), 0),
      unplaced: this.unplaceable.map((n, i) => n + (left[i] as number)),
    };
  }

  /** Whether nothing better can be: the cost is the least possible, by one box that no smaller one of that cost could replace. */
  get isProved(): boolean {
    const { loads, left } = this.best;
    if (loads.length === 0) return true;
    if (left.some((n) => n > 0)) return false;
    const [cost, room] = [loads.reduce((s, l) => s + this.cost(l.box), 0), loads.reduce((s, l) => s + this.room(l.box), 0)];
    if (cost > this.least + 1e-9) return false;
    const volume = this.counts.reduce((sum, n, i) => sum + n * (this.volumes[i] as number), 0);
    const cheaper = this.problem.boxes.some(
      (b) => (b.stock ?? 1) > 0 && b.cost <= cost + 1e-9 && volumeOf(b.innerMm) < room && volumeOf(b.innerMm) >= volume,
    );
    return !cheaper && (loads.length === 1 || this.problem.boxes.length === 1);
  }

  /** Improves until it is told to stop or nothing better can be. `progress` says how much of the time is gone, 0 to 1. */
  improve(progress: () => number, onBetter?: (found: Packing) => void): Packing {
    let now = this.best;
    let energy = this.energy(now);
    this.tryWholes(progress, onBetter);
    if (this.worth(this.best) < this.worth(now) - 1e-12) [now, energy] = [this.best, this.energy(this.best)];
    for (let spent = progress(); spent < 1 && !this.isProved; spent = progress()) {
      const next = this.changed(now);
      const e = this.energy(next);
      const heat = WARM * (COLD / WARM) ** spent * this.dearest;
      if (e > energy - heat * Math.log(1 - this.random())) continue;
      [now, energy] = [next, e];
      if (this.worth(now) >= this.worth(this.best) - 1e-12) continue;
      this.best = now;
      onBetter?.(this.found);
    }
    return this.found;
  }

  private cost = (box: number) => this.problem.boxes[box]?.cost ?? 0;
  private room = (box: number) => volumeOf(this.problem.boxes[box]?.innerMm ?? [0, 0, 0]);

  /** What is worth less is better: units left over first, then cost, then room. */
  private worth({ loads, left }: Found): number {
    return left.reduce((sum, n) => sum + n, 0) * 1e6 + loads.reduce((sum, l) => sum + (this.price[l.box] as number), 0);
  }

  private energy(found: Found): number {
    return this.worth(found) - loadsSum(found, (l) => FULL * (this.price[l.box] as number) * this.fullness(l) ** 2);
  }

  private fullness(load: Load): number {
    const box = this.problem.boxes[load.box];
    return Math.max(load.volume / this.room(load.box), box ? load.weightG / Math.max(1, box.maxWeightG - box.tareG) : 0);
  }

  private first(): Found {
    let best: Found | null = null;
    for (let n = 0; n < 4; n++) {
      const left = this.counts.slice();
      const found = { loads: this.packed(left, []), left };
      if (!best || this.worth(found) < this.worth(best)) best = found;
    }
    return best as Found;
  }

  /** Empties some boxes and packs what was in them anew. */
  private changed({ loads, left: over }: Found): Found {
    const left = over.slice();
    const kept = [...loads];
    const wanted = 1 + Math.floor(this.random() * 3.2);
    let units = 0;
    for (let n = 0; n < wanted && kept.length > 0 && (n < 2 || units < MOST_ANEW); n++) {
      let at = Math.floor(this.random() * kept.length);
      // The emptiest of a few goes first.
      if (n === 0)
        for (let k = 0; k < 2; k++) {
          const other = Math.floor(this.random() * kept.length);
          if (this.fullness(kept[other] as Load) < this.fullness(kept[at] as Load)) at = other;
        }
      const load = kept[at] as Load;
      kept[at] = kept.at(-1) as Load;
      kept.pop();
      for (const p of load.piles) left[p.good] = (left[p.good] as number) + p.times[0] * p.times[1] * p.times[2];
      units += load.units;
    }
    return { loads: [...kept, ...this.packed(left, kept)], left };
  }

  /** Fills boxes from what is left until nothing is, or no box is. Those in use are not to be had again. */
  private packed(left: Int32Array, kept: readonly Load[]): Load[] {
    const stock = this.problem.boxes.map((b, i) => (b.stock ?? Infinity) - kept.filter((l) => l.box === i).length);
    const loads: Load[] = [];
    while (left.some((n) => n > 0)) {
      const load = this.nextLoad(left, stock);
      if (!load) break;
      for (const p of load.piles) left[p.good] = (left[p.good] as number) - p.times[0] * p.times[1] * p.times[2];
      stock[load.box] = (stock[load.box] as number) - 1;
      loads.push(load);
    }
    return loads;
  }

  /** The box that is cheapest for what it takes, more or less. */
  private nextLoad(left: Int32Array, stock: readonly number[]): Load | null {
    const usable = this.problem.boxes.flatMap((_, i) =>
      (stock[i] as number) > 0 && left.some((n, g) => n > 0 && this.holding[i]?.[g]) ? [i] : [],
    );
    if (usable.length === 0) return null;
    const tried = usable.length > 1 && this.random() < 0.15 ? [usable[Math.floor(this.random() * usable.length)] as number] : usable;
    let best: Load | null = null;
    let most = -Infinity;
    const total = left.reduce((sum, n) => sum + n, 0);
    for (const box of tried) {
      for (let n = 0; n < WAYS; n++) {
        const rest = left.slice();
        const load = this.filler.fill(box, rest, this.way(left, box, total));
        if (load.units === 0) continue;
        const value = (load.volume / (this.price[box] as number)) * (1 + 0.1 * this.random()) * (load.units === total ? 1.5 : 1);
        if (value > most) [most, best] = [value, load];
        if (load.units === total) break;
      }
    }
    return best;
  }

  /** A way of filling a box, by chance. */
  private way(left: Int32Array, box: number, total: number): FillWay {
    const { random } = this;
    const noise = random() < 0.3 ? 0 : random() * 0.6;
    const by = random();
    const order: number[] = [];
    const keys: number[] = [];
    for (let g = 0; g < left.length; g++) {
      if ((left[g] as number) === 0 || !this.holding[box]?.[g]) continue;
      const size = this.sizes[g] as Sizes;
      keys[g] = (by < 0.6 ? size.volume : by < 0.85 ? size.longest : size.face) * (1 - noise * random());
      order.push(g);
    }
    order.sort((a, b) => (keys[b] as number) - (keys[a] as number));
    const place = random();
    return {
      order,
      first: random() < 0.5 ? 'goods' : 'places',
      place: place < 0.34 ? 'low' : place < 0.67 ? 'far' : 'tight',
      axes: AXES[Math.floor(random() * AXES.length)] as FillWay['axes'],
      piles: random() < 0.7 || total > MOST_SINGLY,
      noise,
    };
  }

  /** Where the goods fill one box to its last corner: puts them together face by face for a share of the time. */
  private tryWholes(progress: () => number, onBetter?: (found: Packing) => void): void {
    const units = this.counts.reduce((sum, n) => sum + n, 0);
    if (units < 2 || units > MOST_MERGED) return;
    const volume = this.counts.reduce((sum, n, i) => sum + n * (this.volumes[i] as number), 0);
    const weightG = this.counts.reduce((sum, n, i) => sum + n * (this.problem.goods[i]?.weightG ?? 0), 0);
    const boxes = this.problem.boxes.flatMap((b, i) =>
      volumeOf(b.innerMm) === volume && weightG + b.tareG <= b.maxWeightG && (b.stock ?? 1) > 0 ? [i] : [],
    );
    if (boxes.length === 0 || this.problem.goods.some((g) => g.fragile)) return;
    for (let spent = progress(), n = 0; spent < 0.7; spent = progress(), n++) {
      const box = boxes[n % boxes.length] as number;
      const piles = this.merger.attempt(box, this.counts);
      if (!piles) continue;
      const found: Found = { loads: [{ box, piles, volume, weightG, units }], left: new Int32Array(this.counts.length) };
      if (this.worth(found) < this.worth(this.best)) {
        this.best = found;
        onBetter?.(this.found);
      }
      return;
    }
  }
}

const loadsSum = ({ loads }: Found, of: (load: Load) => number) => loads.reduce((sum, l) => sum + of(l), 0);
