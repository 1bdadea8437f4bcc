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

/** Fills one box at a time. Keeps room for its work: one for each search. */
export class Filler {
  private readonly goods: Facts[];
  private readonly boxes: readonly { size: Size; capacityG: number }[];
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
    const kind = this.boxes[box] as { size: Size; capacityG: number };
    const load: Load = { box, piles: [], volume: 0, weightG: 0, units: 0 };
    this.spaces.begin(...kind.size);
    // What is fragile is laid last: it closes the room above it.
    const order = way.order.filter((g) => (left[g] ?? 0) > 0);
    const sturdy = order.filter((g) => !this.facts(g).fragile);
    const fragile = order.filter((g) => this.facts(g).fragile);
    for (const goods of [sturdy, fragile]) {
      if (goods.length === 0) continue;
      const least = Math.min(...goods.map((g) => this.facts(g).least), ...fragile.map((g) => this.facts(g).least));
      if (way.first === 'goods') this.byGoods(kind.size, kind.capacityG, load, goods, left, way, least);
      else this.byPlaces(kind.size, kind.capacityG, load, goods, left, way, least, goods === sturdy && fragile.length > 0);
    }
    return load;
  }

  private facts(good: number): Facts {
    return this.goods[good] as Facts;
  }

  private byGoods(box: Size, capacityG: number, load: Load, goods: number[], left: Int32Array, way: FillWay, least: number): void {
    const { spaces } = this;
    const [ax, ay, az] = way.axes;
    for (const good of goods) {
      const facts = this.facts(good);
      while ((left[good] as number) > 0) {
        const most = this.most(good, left, capacityG - load.weightG, way);
        if (most < 1) break;
        let best = Infinity;
        let [bestSpace, bestTurn] = [-1, -1];
        for (let s = 0; s < spaces.count; s++) {
          const o = s * 6;
          const at = spaces.at;
          if (facts.fragile && (at[o + 5] as number) < box[2]) continue;
          for (let t = 0; t < facts.turns.length; t++) {
            const turn = facts.turns[t] as Size;
            const restX = (at[o + 3] as number) - (at[o] as number) - turn[0];
            const restY = (at[o + 4] as number) - (at[o + 1] as number) - turn[1];
            const restZ = (at[o + 5] as number) - (at[o + 2] as number) - turn[2];
            if (restX < 0 || restY < 0 || restZ < 0) continue;
            let score: number;
            if (way.place === 'low') {
              score =
                (at[o + az] as number) * 1e8 + (at[o + ay] as number) * 1e4 + (at[o + ax] as number) + Math.min(restX, restY, restZ) * 1e-4;
            } else if (way.place === 'far') {
              const x = box[0] - (at[o] as number) - turn[0];
              const y = box[1] - (at[o + 1] as number) - turn[1];
              const z = box[2] - (at[o + 2] as number) - turn[2];
              score = -(x * x + y * y + z * z);
            } else {
              score = Math.min(restX, restY, restZ) * 1e6 + restX * restY * restZ * 1e-6 + (at[o + az] as number);
            }
            if (score < best) {
              best = score;
              bestSpace = s;
              bestTurn = t;
            }
          }
        }
        if (bestSpace < 0) break;
        this.put(box, load, good, facts.turns[bestTurn] as Size, bestSpace, most, left, least);
      }
    }
  }

  private byPlaces(
    box: Size,
    capacityG: number,
    load: Load,
    goods: number[],
    left: Int32Array,
    way: FillWay,
    least: number,
    keepSpaces: boolean,
  ): void {
    const { spaces } = this;
    const [ax, ay, az] = way.axes;
    const passed: number[] = [];
    while (spaces.count > 0) {
      let [next, lowest] = [-1, Infinity];
      for (let s = 0; s < spaces.count; s++) {
        const o = s * 6;
        const score = (spaces.at[o + az] as number) * 1e8 + (spaces.at[o + ay] as number) * 1e4 + (spaces.at[o + ax] as number);
        if (score < lowest) [next, lowest] = [s, score];
      }
      const chosen = this.bestFor(next, box, goods, left, capacityG - load.weightG, way);
      if (chosen) this.put(box, load, chosen.good, chosen.turn, next, chosen.most, left, least);
      else {
        if (keepSpaces) for (let i = 0; i < 6; i++) passed.push(spaces.at[next * 6 + i] as number);
        spaces.drop(next);
      }
    }
    if (passed.length === 0) return;
    // Room that sturdy goods had no use for may hold fragile ones.
    if (passed.length > spaces.at.length) spaces.at = new Float64Array(2 * passed.length);
    spaces.at.set(passed);
    spaces.count = passed.length / 6;
    for (const p of load.piles) {
      const to = p.at.map((v, i) => v + (p.turn[i] as number) * (p.times[i] as number));
      spaces.take(p.at[0], p.at[1], p.at[2], to[0] as number, to[1] as number, to[2] as number, least);
    }
  }

  private bestFor(space: number, box: Size, goods: number[], left: Int32Array, capacityG: number, way: FillWay) {
    const at = this.spaces.at;
    const o = space * 6;
    const room = [
      (at[o + 3] as number) - (at[o] as number),
      (at[o + 4] as number) - (at[o + 1] as number),
      (at[o + 5] as number) - (at[o + 2] as number),
    ] as const;
    let best = 0;
    let found: { good: number; turn: Size; most: number } | null = null;
    for (const good of goods) {
      if ((left[good] as number) < 1) continue;
      const facts = this.facts(good);
      if (facts.fragile && (at[o + 5] as number) < box[2]) continue;
      const most = this.most(good, left, capacityG, way);
      if (most < 1) continue;
      const chance = 1 - way.noise * this.random();
      for (const turn of facts.turns) {
        const [l, w, h] = turn;
        if (l > room[0] || w > room[1] || h > room[2]) continue;
        const nx = Math.min(most, Math.floor(room[0] / l));
        const ny = Math.min(Math.floor(most / nx), Math.floor(room[1] / w));
        const nz = facts.fragile ? 1 : Math.min(Math.floor(most / nx / ny), Math.floor(room[2] / h));
        const exact = (nx * l === room[0] ? 1.3 : 1) * (ny * w === room[1] ? 1.3 : 1) * (nz * h === room[2] ? 1.3 : 1);
        const score = facts.volume * nx * ny * nz * exact * chance;
        if (score > best) {
          best = score;
          found = { good, turn, most };
        }
      }
    }
    return found;
  }

  /** How many of a good may be put down at once. */
  private most(good: number, left: Int32Array, capacityG: number, way: FillWay): number {
    const { weightG } = this.facts(good);
    const carried = weightG > 0 ? Math.floor(capacityG / weightG + 1e-9) : Infinity;
    return Math.min(way.piles ? (left[good] as number) : 1, carried);
  }

  private put(box: Size, load: Load, good: number, turn: Size, space: number, most: number, left: Int32Array, least: number): void {
    const at = this.spaces.at;
    const o = space * 6;
    const facts = this.facts(good);
    const [x, y, z] = [at[o] as number, at[o + 1] as number, at[o + 2] as number];
    const nx = Math.min(most, Math.floor(((at[o + 3] as number) - x) / turn[0]));
    const ny = Math.min(Math.floor(most / nx), Math.floor(((at[o + 4] as number) - y) / turn[1]));
    const nz = facts.fragile ? 1 : Math.min(Math.floor(most / nx / ny), Math.floor(((at[o + 5] as number) - z) / turn[2]));
    const units = nx * ny * nz;
    left[good] = (left[good] as number) - units;
    load.piles.push({ good, at: [x, y, z], turn, times: [nx, ny, nz] });
    load.units += units;
    load.volume += units * facts.volume;
    load.weightG += units * facts.weightG;
    this.spaces.take(x, y, z, x + nx * turn[0], y + ny * turn[1], facts.fragile ? box[2] : z + nz * turn[2], least);
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
