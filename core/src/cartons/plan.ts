import type { Carton } from './rank.js';
import { type BoxKind, type CartonProblem, type FilledBox, type Packing, type Size, volumeOf } from './problem.js';
import { CartonSearch } from './search.js';

/** A box of the house as it is chosen: what it costs beside the others, and how many are left. */
export interface CartonToHave extends Carton {
  /** In thousandths of the dearest. */
  costShare: number;
  /** Null where nobody counts them. */
  left: number | null;
}

/** Goods of one kind that are to be packed; the size is null where it is not known. */
export interface GoodsToPack {
  units: number;
  unitG: number | null;
  sizeMm: Size | null;
  keepUpright: boolean;
  fragile: boolean;
}

export interface BoxPlan {
  /** The boxes that all goods go into, each with where they lie; by the index of the carton. */
  best: Packing;
  /** By carton: how all goods lie in one alone; null where they were not got into it. */
  alone: (FilledBox | null)[];
}

/** Each box alone is tried so many times. */
const TRIES_ALONE = 40;

/** The goods and boxes as a problem; null where a size is not known, so that nothing can be laid out. */
export function cartonProblem(cartons: readonly CartonToHave[], goods: readonly GoodsToPack[]): CartonProblem | null {
  if (cartons.length === 0 || goods.every((g) => g.units === 0) || goods.some((g) => g.units > 0 && !isSize(g.sizeMm))) return null;
  return {
    boxes: cartons.map((c): BoxKind => ({
      innerMm: [c.lengthMm, c.widthMm, c.heightMm],
      maxWeightG: c.mostG,
      tareG: c.tareG,
      cost: c.costShare,
      stock: c.left ?? undefined,
    })),
    goods: goods.map(({ units, unitG, sizeMm, keepUpright, fragile }) => ({
      sizeMm: sizeMm ?? [1, 1, 1],
      weightG: unitG ?? 0,
      quantity: units,
      keepUpright,
      fragile,
    })),
  };
}

/**
 * Chooses boxes and lays the goods out, and tries each box alone; the boxes chosen get better until `progress` has come to 1. `onBetter`
 * hears of the first answer, of each box alone, and of each improvement. What cannot be packed stays out of `best`.
 */
export function planBoxes(problem: CartonProblem, progress: () => number, onBetter: (plan: BoxPlan) => void, seed = 1): BoxPlan {
  const search = new CartonSearch(problem, seed);
  const alone: BoxPlan['alone'] = problem.boxes.map(() => null);
  let best = search.found;
  const tell = () => onBetter({ best, alone: [...alone] });
  tell();
  problem.boxes.forEach((box, i) => (alone[i] = aloneIn(problem, box, i, seed)));
  tell();
  best = search.improve(progress, (found) => {
    best = found;
    tell();
  });
  return { best, alone };
}

function aloneIn({ goods }: CartonProblem, box: BoxKind, index: number, seed: number): FilledBox | null {
  const volume = goods.reduce((sum, g) => sum + g.quantity * volumeOf(g.sizeMm), 0);
  if (volume > volumeOf(box.innerMm)) return null;
  let n = 0;
  const search = new CartonSearch({ boxes: [{ ...box, stock: 1 }], goods }, seed);
  const found = search.improve(() => (search.found.unplaced.some((u) => u > 0) ? n++ / TRIES_ALONE : 1));
  const only = found.boxes[0];
  return only && found.unplaced.every((u) => u === 0) ? { ...only, box: index } : null;
}

const isSize = (size: Size | null): size is Size => size?.every((side) => side > 0) ?? false;
