/** Length, width and height, in millimetres. */
export type Size = readonly [number, number, number];

/** A kind of box. */
export interface BoxKind {
  innerMm: Size;
  /** Most that goods and box together may weigh, in grams. */
  maxWeightG: number;
  tareG: number;
  /** What one costs, in any currency. */
  cost: number;
  /** How many there are; absent where there is no limit. */
  stock?: number | undefined;
}

/** Goods of one kind, each of the same size. */
export interface Good {
  sizeMm: Size;
  weightG: number;
  quantity: number;
  /** Its height stays vertical; it may be turned about it. */
  keepUpright?: boolean | undefined;
  /** Nothing may stand on it or above it. */
  fragile?: boolean | undefined;
}

export interface CartonProblem {
  boxes: readonly BoxKind[];
  goods: readonly Good[];
}

/** One unit in its box: the corner nearest the origin, and its size as it is turned; the third axis is up. */
export interface Placement {
  good: number;
  atMm: Size;
  sizeMm: Size;
}

/** One box with goods. */
export interface FilledBox {
  box: number;
  placements: Placement[];
  /** Goods and box, in grams. */
  weightG: number;
  /** The share of the box's room that goods take, 0 to 1. */
  fill: number;
}

export interface Packing {
  boxes: FilledBox[];
  cost: number;
  /** Inner room of all its boxes, in cubic millimetres. */
  volume: number;
  /** By good: units that fit in no box, or for which none is left. */
  unplaced: number[];
}

export const volumeOf = (size: Size): number => size[0] * size[1] * size[2];

/** The ways in which a good can lie along the axes, each once. */
export function turnsOf({ sizeMm: [l, w, h], keepUpright = false }: Good): Size[] {
  const all: Size[] = keepUpright
    ? [
        [l, w, h],
        [w, l, h],
      ]
    : [
        [l, w, h],
        [w, l, h],
        [l, h, w],
        [h, l, w],
        [w, h, l],
        [h, w, l],
      ];
  const seen = new Set<string>();
  return all.filter((turn) => !seen.has(turn.join()) && seen.add(turn.join()));
}

/** Whether one unit of a good goes into an empty box of a kind. */
export function holds(box: BoxKind, good: Good): boolean {
  return (
    good.weightG + box.tareG <= box.maxWeightG && turnsOf(good).some((turn) => turn.every((side, axis) => side <= (box.innerMm[axis] ?? 0)))
  );
}
