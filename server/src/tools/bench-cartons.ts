import { type BoxKind, CartonSearch, type Good, type Size, volumeOf } from '@vectrum/core/cartons';
import { seeded } from '@vectrum/core/random';

const SECONDS = 1;

const percent = (share: number) => `${(100 * share).toFixed(1)} %`;
const mean = (list: readonly number[]) => list.reduce((sum, n) => sum + n, 0) / Math.max(1, list.length);
const turned = ([l, w, h]: Size, n: number): Size => (n === 0 ? [l, w, h] : n === 1 ? [w, h, l] : [h, l, w]);

function packed(boxes: readonly BoxKind[], goods: readonly Good[], seconds = SECONDS, seed = 1) {
  const begun = performance.now();
  const search = new CartonSearch({ boxes, goods }, seed);
  const firstMs = performance.now() - begun;
  const found = search.improve(() => (performance.now() - begun) / (seconds * 1000));
  return { found, firstMs };
}

/** A box cut into pieces by straight cuts right through, each piece turned somehow. */
function cut(box: Size, pieces: number, step: number, random: () => number): Good[] {
  const parts = [box];
  for (let tries = 0; parts.length < pieces && tries < 10_000; tries++) {
    parts.sort((a, b) => volumeOf(b) - volumeOf(a));
    const at = Math.floor(random() * Math.min(parts.length, 4));
    const [part, axis] = [parts[at] ?? box, Math.floor(random() * 3)];
    const side = part[axis] ?? 0;
    const where = Math.round((side * (0.2 + 0.6 * random())) / step) * step;
    if (where < 2 * step || side - where < 2 * step) continue;
    const [one, other] = [where, side - where].map((length) => part.map((s, k) => (k === axis ? length : s)) as unknown as Size);
    parts.splice(at, 1, one as Size, other as Size);
  }
  return parts.map((p) => ({ sizeMm: turned(p, Math.floor(random() * 3)), weightG: 1, quantity: 1 }));
}

/** How goods of the hard classes (Martello, Pisinger and Vigo 2000) are drawn: sides of the box, and least and most of each side. */
const CLASSES: readonly (readonly [number, number, readonly (readonly [number, number])[]])[] = [
  [
    1,
    100,
    [
      [1, 50],
      [67, 100],
      [67, 100],
    ],
  ],
  [
    4,
    100,
    [
      [50, 100],
      [50, 100],
      [50, 100],
    ],
  ],
  [
    5,
    100,
    [
      [1, 50],
      [1, 50],
      [1, 50],
    ],
  ],
  [
    6,
    10,
    [
      [1, 10],
      [1, 10],
      [1, 10],
    ],
  ],
  [
    7,
    40,
    [
      [1, 35],
      [1, 35],
      [1, 35],
    ],
  ],
  [
    8,
    100,
    [
      [1, 100],
      [1, 100],
      [1, 100],
    ],
  ],
];

function drawn(sort: number, pieces: number, random: () => number): { side: number; goods: Good[] } {
  const own = CLASSES.find(([n]) => n === sort);
  const goods = Array.from({ length: pieces }, () => {
    const other = CLASSES[Math.floor(random() * 3)];
    const ranges = (sort <= 5 && random() > 0.6 ? other : own)?.[2] ?? [];
    return {
      sizeMm: ranges.map(([from, to]) => from + Math.floor(random() * (to - from + 1))) as unknown as Size,
      weightG: 1,
      quantity: 1,
    };
  });
  return { side: own?.[1] ?? 100, goods };
}

/** Cubes that goods need at least: by dual feasible functions of their sides (Fekete and Schepers 2004), the same for each side. */
function leastBoxes(side: number, goods: readonly Good[]): number {
  const ways: ((x: number) => number)[] = [(x) => x];
  for (const k of new Set(goods.flatMap((g) => g.sizeMm.filter((x) => 2 * x <= side))))
    ways.push((x) => (x > side - k ? side : x < k ? 0 : x));
  for (let k = 1; k <= 12; k++)
    ways.push((x) => (Number.isInteger(((k + 1) * x) / side) ? x : (Math.floor(((k + 1) * x) / side) * side) / k));
  const sums = ways.map((f) => goods.reduce((sum, { sizeMm: [a, b, c] }) => sum + f(a) * f(b) * f(c), 0));
  return Math.max(...sums.map((sum) => Math.ceil(sum / side ** 3 - 1e-9)));
}

const SHELF: readonly BoxKind[] = (
  [
    [150, 100, 80, 0.25, 60],
    [220, 160, 100, 0.4, 108],
    [250, 170, 120, 0.48, 120],
    [300, 220, 160, 0.7, 210],
    [350, 250, 200, 0.95, 280],
    [400, 300, 250, 1.3, 380],
    [500, 400, 300, 2, 560],
    [600, 400, 400, 2.6, 760],
  ] as const
).map(([l, w, h, cost, tareG]) => ({ innerMm: [l, w, h], cost, tareG, maxWeightG: l < 300 ? 10_000 : 25_000 }));

function ordered(random: () => number): Good[] {
  return Array.from({ length: 1 + Math.floor(random() * 8) }, () => {
    const side = () => Math.round(20 + 180 * random() * random() + (random() < 0.1 ? 150 : 0));
    const sizeMm = [side(), side(), side()] as const;
    const weightG = Math.round((volumeOf(sizeMm) / 1000) * (0.3 + random()));
    return { sizeMm, weightG, quantity: 1 + Math.floor(random() ** 3 * 12), keepUpright: random() < 0.3 };
  });
}

/** Boxes chosen and filled: cut boxes put together again, the hard classes, and the orders of a shop, as lines to print. */
export function* cartons(): Generator<string> {
  let [whole, later, cases] = [0, 0, 0];
  for (const [box, pieces, step] of [
    [[400, 300, 250], 15, 1],
    [[400, 300, 250], 40, 1],
    [[400, 300, 200], 25, 10],
    [[100, 100, 100], 25, 5],
  ] as const) {
    const random = seeded(pieces + step);
    for (let n = 0; n < 15; n++, cases++) {
      const large = box.map((s) => 1.3 * s) as unknown as Size;
      const boxes = [box, large].map((innerMm, i) => ({ innerMm, maxWeightG: 1e6, tareG: 0, cost: 1 + i }));
      const goods = cut(box, pieces, step, random);
      if (packed(boxes, goods).found.cost === 1) whole++;
      else if (packed(boxes, goods, 3 * SECONDS).found.cost === 1) later++;
    }
  }
  yield `boxes cut into 15 to 40 pieces by straight cuts: ${whole} of ${cases} (${percent(whole / cases)}) filled to the last corner again within ${SECONDS} s each, ${whole + later} (${percent((whole + later) / cases)}) within ${3 * SECONDS} s`;
  const gaps: number[] = [];
  let [used, least] = [0, 0];
  for (const [sort] of CLASSES)
    for (const pieces of [50, 100]) {
      const random = seeded(100 * sort + pieces);
      for (let n = 0; n < 3; n++) {
        const { side, goods } = drawn(sort, pieces, random);
        const boxes = [{ innerMm: [side, side, side] as const, maxWeightG: 1e9, tareG: 0, cost: 1 }];
        const [count, bound] = [packed(boxes, goods, 2 * SECONDS).found.cost, leastBoxes(side, goods)];
        gaps.push(count / bound - 1);
        used += count;
        least += bound;
      }
    }
  yield `the hard classes, 50 and 100 pieces: ${used} boxes where no packing can do with fewer than ${least}, ${percent(used / least - 1)} more (${percent(mean(gaps))} on average, ${percent(Math.max(...gaps))} at most)`;
  const random = seeded(5);
  let [cost, best, slowest] = [0, 0, 0];
  for (let n = 0; n < 30; n++) {
    const goods = ordered(random);
    const { found, firstMs } = packed(SHELF, goods, 0.5);
    const longer = packed(SHELF, goods, 2, 2).found;
    cost += found.cost;
    best += Math.min(found.cost, longer.cost);
    slowest = Math.max(slowest, firstMs);
  }
  yield `30 orders of a shop in boxes of 8 kinds: after 0.5 s ${percent(cost / best - 1)} dearer than the best seen; a first answer after at most ${slowest.toFixed(0)} ms`;
}
