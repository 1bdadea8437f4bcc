import { type CartonProblem, type Placement, type Size, turnsOf, volumeOf } from './problem.js';
import { Spaces } from './spaces.js';

/** A pile of one good: where it begins, how it is turned, how many along each axis. */
export interface Pile {
  good: number;
  at: Size;
  turn: Size;
  times: Size;
}

/** What a box of a kind was filled with. */
export interface Load {
  box: number;
  piles: Pile[];
  /** Cubic millimetres and grams of the goods. */
  volume: number;
  weightG: number;
  units: number;
}

/** How a box is filled. What differs between the ways finds what one way alone misses. */
export interface FillWay {
  /** The goods in the order in which they are tried. */
  order: readonly number[];
  /** Goods look for a place one after the other, or places one after the other for goods. */
  first: 'goods' | 'places';
  /** Which place is best: low and behind by these axes, near the far corner last, or where least is left over. */
  place: 'low' | 'far' | 'tight';
  axes: readonly [number, number, number];
  /** Like goods are laid as piles, not one by one. */
  piles: boolean;
  /** How much what a place is given may differ from the best, 0 to 1. */
  noise: number;
}

interface Facts {
  turns: Size[];
  volume: number;
  weightG: number;
  least: number;
  fragile: boolean;
}

interface BoxFacts {
  size: Size;
  capacityG: number;
}

/** One filling: the box, what may go into it, and how far it has come. */
interface Job extends BoxFacts {
  load: Load;
  left: Int32Array;
  way: FillWay;
  goods: readonly number[];
  /** The shortest side of what is still to come. */
  least: number;
}

/** What fills a side of a place leaves no gap there that could be of no use. */
const EXACT = 1.3;

/** Fills one box at a time. Keeps room for its work: one for each search. */
export class Filler {
  private readonly goods: Facts[];
  private readonly boxes: readonly BoxFacts[];
  private readonly spaces = new Spaces();

  constructor(
    problem: CartonProblem,
    private readonly random: () => number,
  ) {
    this.goods = problem.goods.map((g) => ({
      turns: turnsOf(g),
      volume: volumeOf(g.sizeMm),
      weightG: g.weightG,
      least: Math.min(...g.sizeMm),
      fragile: g.fragile === true,
    }));
    this.boxes = problem.boxes.map((b) => ({ size: b.innerMm, capacityG: b.maxWeightG - b.tareG }));
  }

  /** Fills an empty box from what is left of each good, and takes it from there. O(piles × spaces × goods). */
  fill(box: number, left: Int32Array, way: FillWay): Load {
    const { size, capacityG } = this.boxes[box] as BoxFacts;
    const load: Load = { box, piles: [], volume: 0, weightG: 0, units: 0 };
    this.spaces.begin(...size);
    // What is fragile is laid last: it closes the room above it.
    const order = way.order.filter((g) => (left[g] ?? 0) > 0);
    const fragile = order.filter((g) => this.facts(g).fragile);
    const sturdy = order.filter((g) => !this.facts(g).fragile);
    for (const goods of [sturdy, fragile]) {
      if (goods.length === 0) continue;
      const least = Math.min(...[...goods, ...fragile].map((g) => this.facts(g).least));
      const job: Job = { size, capacityG, load, left, way, goods, least };
      if (way.first === 'goods') this.byGoods(job);
      else if (goods === sturdy && fragile.length > 0) this.keepingRoom(job);
      else this.byPlaces(job);
    }
    return load;
  }

  private facts(good: number): Facts {
    return this.goods[good] as Facts;
  }

  /** Goods look for places, one after the other. */
  private byGoods(job: Job): void {
    for (const good of job.goods)
      while ((job.left[good] as number) > 0) {
        const most = this.most(job, good);
        const place = most < 1 ? null : this.bestPlace(job, good);
        if (!place) break;
        this.put(job, good, place.turn, place.space, most);
      }
  }

  private bestPlace({ size, way }: Job, good: number): { space: number; turn: Size } | null {
    const { spaces } = this;
    const { at } = spaces;
    const { turns, fragile } = this.facts(good);
    const [ax, ay, az] = way.axes;
    let best = Infinity;
    let [space, turn] = [-1, -1];
    for (let s = 0; s < spaces.count; s++) {
      const o = s * 6;
      if (fragile && (at[o + 5] as number) < size[2]) continue;
      for (let t = 0; t < turns.length; t++) {
        const [l, w, h] = turns[t] as Size;
        const restX = (at[o + 3] as number) - (at[o] as number) - l;
        const restY = (at[o + 4] as number) - (at[o + 1] as number) - w;
        const restZ = (at[o + 5] as number) - (at[o + 2] as number) - h;
        if (restX < 0 || restY < 0 || restZ < 0) continue;
        const tightest = Math.min(restX, restY, restZ);
        let score: number;
        if (way.place === 'low') {
          score = (at[o + az] as number) * 1e8 + (at[o + ay] as number) * 1e4 + (at[o + ax] as number) + tightest * 1e-4;
        } else if (way.place === 'far') {
          const x = size[0] - (at[o] as number) - l;
          const y = size[1] - (at[o + 1] as number) - w;
          const z = size[2] - (at[o + 2] as number) - h;
          score = -(x * x + y * y + z * z);
        } else {
          score = tightest * 1e6 + restX * restY * restZ * 1e-6 + (at[o + az] as number);
        }
        if (score < best) [best, space, turn] = [score, s, t];
      }
    }
    return space < 0 ? null : { space, turn: turns[turn] as Size };
  }

  /** Places look for goods, the lowest first. Those that nothing fits are let go, and `onPassed` hears of each. */
  private byPlaces(job: Job, onPassed?: (space: number) => void): void {
    const { spaces } = this;
    const [ax, ay, az] = job.way.axes;
    while (spaces.count > 0) {
      let [next, lowest] = [-1, Infinity];
      for (let s = 0; s < spaces.count; s++) {
        const o = s * 6;
        const score = (spaces.at[o + az] as number) * 1e8 + (spaces.at[o + ay] as number) * 1e4 + (spaces.at[o + ax] as number);
        if (score < lowest) [next, lowest] = [s, score];
      }
      const chosen = this.bestGood(job, next);
      if (chosen) this.put(job, chosen.good, chosen.turn, next, chosen.most);
      else {
        onPassed?.(next);
        spaces.drop(next);
      }
    }
  }

  /** The same, and room that sturdy goods had no use for is kept: it may hold fragile ones. */
  private keepingRoom(job: Job): void {
    const { spaces } = this;
    const passed: number[] = [];
    this.byPlaces(job, (space) => passed.push(...spaces.at.subarray(space * 6, space * 6 + 6)));
    spaces.reset(passed);
    for (const { at, turn, times } of job.load.piles)
      spaces.take(at[0], at[1], at[2], at[0] + turn[0] * times[0], at[1] + turn[1] * times[1], at[2] + turn[2] * times[2], job.least);
  }

  private bestGood(job: Job, space: number): { good: number; turn: Size; most: number } | null {
    const { at } = this.spaces;
    const o = space * 6;
    const [roomX, roomY, roomZ] = [
      (at[o + 3] as number) - (at[o] as number),
      (at[o + 4] as number) - (at[o + 1] as number),
      (at[o + 5] as number) - (at[o + 2] as number),
    ];
    let best = 0;
    let found: { good: number; turn: Size; most: number } | null = null;
    for (const good of job.goods) {
      if ((job.left[good] as number) < 1) continue;
      const { fragile, turns, volume } = this.facts(good);
      if (fragile && (at[o + 5] as number) < job.size[2]) continue;
      const most = this.most(job, good);
      if (most < 1) continue;
      const chance = 1 - job.way.noise * this.random();
      for (const turn of turns) {
        const [l, w, h] = turn;
        if (l > roomX || w > roomY || h > roomZ) continue;
        const nx = Math.min(most, Math.floor(roomX / l));
        const ny = Math.min(Math.floor(most / nx), Math.floor(roomY / w));
        const nz = fragile ? 1 : Math.min(Math.floor(most / nx / ny), Math.floor(roomZ / h));
        const exact = (nx * l === roomX ? EXACT : 1) * (ny * w === roomY ? EXACT : 1) * (nz * h === roomZ ? EXACT : 1);
        const score = volume * nx * ny * nz * exact * chance;
        if (score > best) [best, found] = [score, { good, turn, most }];
      }
    }
    return found;
  }

  /** How many of a good may be put down at once. */
  private most({ left, way, capacityG, load }: Job, good: number): number {
    const { weightG } = this.facts(good);
    const carried = weightG > 0 ? Math.floor((capacityG - load.weightG) / weightG + 1e-9) : Infinity;
    return Math.min(way.piles ? (left[good] as number) : 1, carried);
  }

  private put({ size, load, left, least }: Job, good: number, turn: Size, space: number, most: number): void {
    const { at } = this.spaces;
    const o = space * 6;
    const { fragile, volume, weightG } = this.facts(good);
    const [x, y, z] = [at[o] as number, at[o + 1] as number, at[o + 2] as number];
    const nx = Math.min(most, Math.floor(((at[o + 3] as number) - x) / turn[0]));
    const ny = Math.min(Math.floor(most / nx), Math.floor(((at[o + 4] as number) - y) / turn[1]));
    const nz = fragile ? 1 : Math.min(Math.floor(most / nx / ny), Math.floor(((at[o + 5] as number) - z) / turn[2]));
    const units = nx * ny * nz;
    left[good] = (left[good] as number) - units;
    load.piles.push({ good, at: [x, y, z], turn, times: [nx, ny, nz] });
    load.units += units;
    load.volume += units * volume;
    load.weightG += units * weightG;
    this.spaces.take(x, y, z, x + nx * turn[0], y + ny * turn[1], fragile ? size[2] : z + nz * turn[2], least);
  }
}

/** The units of a load one by one, those that lie low first. */
export function placementsOf(load: Load): Placement[] {
  const all = load.piles.flatMap(({ good, at, turn, times }) => {
    const list: Placement[] = [];
    for (let k = 0; k < times[2]; k++)
      for (let j = 0; j < times[1]; j++)
        for (let i = 0; i < times[0]; i++)
          list.push({ good, atMm: [at[0] + i * turn[0], at[1] + j * turn[1], at[2] + k * turn[2]], sizeMm: turn });
    return list;
  });
  return all.sort((a, b) => a.atMm[2] - b.atMm[2] || a.atMm[1] - b.atMm[1] || a.atMm[0] - b.atMm[0]);
}
