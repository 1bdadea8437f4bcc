import type { Pile } from './fill.js';
import type { CartonProblem, Size } from './problem.js';

/** A block of goods without gaps, or one unit. */
interface Block {
  size: Size;
  /** The axis that must stay vertical; −1 where any may. */
  up: number;
  /** What it was put together of, `a` nearer the origin; a unit has a good. */
  good: number;
  a: Block | null;
  b: Block | null;
  /** The axis of `a` along which they lie one after the other, and for each axis of `a` that of `b` that lies along it. */
  along: number;
  map: Axes;
}
type Axes = readonly [number, number, number];

const SAME: Axes = [0, 1, 2];
const ORDERS: readonly Axes[] = [SAME, [0, 2, 1], [1, 0, 2], [1, 2, 0], [2, 0, 1], [2, 1, 0]];
/** How much later a joint comes that fits to nothing that is there yet. */
const LONELY = 10;
/** More units than this are not put together so: each step looks at all faces. */
export const MOST_MERGED = 80;

/**
 * Finds a packing that fills a box to its last corner where it can be cut into the goods by straight cuts through (guillotine cuts): of
 * goods that were cut so, two always share a whole face; joined they are one, until the box is whole. Of several that could be joined,
 * those whose face few others share come first; wrong turns are left by beginning anew.
 */
export class Merger {
  constructor(
    private readonly problem: CartonProblem,
    private readonly random: () => number,
  ) {}

  /** Tries once. O(units³). Null where it did not come out. */
  attempt(box: number, counts: ArrayLike<number>): Pile[] | null {
    const inner = this.problem.boxes[box]?.innerMm as Size;
    const blocks: Block[] = [];
    this.problem.goods.forEach((g, good) => {
      for (let n = 0; n < (counts[good] ?? 0); n++)
        blocks.push({ size: g.sizeMm, up: g.keepUpright ? 2 : -1, good, a: null, b: null, along: 0, map: SAME });
    });
    while (blocks.length > 1) {
      const pair = this.bestPair(blocks, inner);
      if (!pair) return null;
      const { a, b, along, map } = pair;
      const [i, j] = [blocks.indexOf(a), blocks.indexOf(b)];
      blocks[i] = { size: sizeOf(pair), up: upOf(pair), good: -1, a, b, along, map };
      blocks[j] = blocks.at(-1) as Block;
      blocks.pop();
    }
    const whole = blocks[0] as Block;
    const turn = ORDERS.find((t) => t.every((axis, k) => whole.size[axis] === inner[k]) && (whole.up < 0 || t[2] === whole.up));
    return turn ? laid(whole, turn, [0, 0, 0]) : null;
  }

  private bestPair(blocks: readonly Block[], inner: Size): Joint | null {
    const faces: Faces = new Map();
    let least = Infinity;
    for (const block of blocks) {
      const { size } = block;
      least = Math.min(least, size[0], size[1], size[2]);
      for (let along = 0; along < 3; along++) {
        const [u, v] = ACROSS[along] as readonly [number, number];
        const key = faceKey(size[u] as number, size[v] as number);
        const known = faces.get(key);
        if (known) known.push({ block, along });
        else faces.set(key, [{ block, along }]);
      }
    }
    let best = Infinity;
    let found: Joint | null = null;
    for (const list of faces.values()) {
      for (let i = 0; i < list.length; i++) {
        const { block: a, along } = list[i] as { block: Block; along: number };
        for (let j = i + 1; j < list.length; j++) {
          const { block: b, along: other } = list[j] as Face;
          if (a === b) continue;
          const length = (a.size[along] as number) + (b.size[other] as number);
          // What fills a side of the box is a cut right through it: seldom an accident.
          const score = list.length * (inner.includes(length) ? 0.5 : 1) * (0.3 + this.random());
          if (score >= best) continue;
          const joint = jointOf(a, b, along, other, inner, least);
          if (!joint) continue;
          const judged = score * (hasPartner(joint, faces, inner) ? 1 : LONELY);
          if (judged < best) [best, found] = [judged, joint];
        }
      }
    }
    return found;
  }
}

interface Face {
  block: Block;
  /** The axis that stands upright on it. */
  along: number;
}
type Faces = Map<number, Face[]>;
interface Joint {
  a: Block;
  b: Block;
  along: number;
  map: Axes;
}
const ACROSS = [
  [1, 2],
  [0, 2],
  [0, 1],
] as const;

/** How two blocks can be joined that share the face across these axes; null where the block would not go into the box. */
function jointOf(a: Block, b: Block, along: number, other: number, inner: Size, least: number): Joint | null {
  const [u, v] = ACROSS[along] as readonly [number, number];
  for (const map of ORDERS) {
    if (map[along] !== other || a.size[u] !== b.size[map[u] as number] || a.size[v] !== b.size[map[v] as number]) continue;
    if (a.up >= 0 && b.up >= 0 && map[a.up] !== b.up) continue;
    const joint = { a, b, along, map };
    if (fits(sizeOf(joint), upOf(joint), inner, least)) return joint;
  }
  return null;
}

/** Whether a joint has a face that something else has too, or that is one of the box. */
function hasPartner(joint: Joint, faces: Faces, inner: Size): boolean {
  const size = sizeOf(joint);
  return ACROSS.some(([u, v]) => {
    const [p, q] = [size[u], size[v]];
    if (inner.includes(p) && inner.includes(q)) return true;
    return faces.get(faceKey(p, q))?.some((f) => f.block !== joint.a && f.block !== joint.b) ?? false;
  });
}

const sizeOf = ({ a, b, along, map }: Joint): Size =>
  a.size.map((side, axis) => (axis === along ? side + (b.size[map[along] as number] as number) : side)) as unknown as Size;

const upOf = ({ a, b, map }: Joint): number => (a.up >= 0 || b.up < 0 ? a.up : map.indexOf(b.up));

const faceKey = (a: number, b: number) => (a < b ? a * 1e6 + b : b * 1e6 + a);

/** Whether a block goes into the box so that beside it is nothing, or room for the thinnest of what there is. */
function fits(size: Size, up: number, inner: Size, least: number): boolean {
  return ORDERS.some(
    (t) =>
      (up < 0 || t[2] === up) &&
      t.every((axis, k) => {
        const gap = (inner[k] as number) - (size[axis] as number);
        return gap === 0 || gap >= least;
      }),
  );
}

/** The units of a block. `turn` names for each axis of the box the axis of the block that lies along it. */
function laid(block: Block, turn: Axes, at: Size): Pile[] {
  if (!block.a || !block.b)
    return [{ good: block.good, at, turn: turn.map((axis) => block.size[axis]) as unknown as Size, times: [1, 1, 1] }];
  const side = block.a.size[block.along] as number;
  const next = at.map((v, k) => (turn[k] === block.along ? v + side : v)) as unknown as Size;
  return [...laid(block.a, turn, at), ...laid(block.b, turn.map((axis) => block.map[axis]) as unknown as Axes, next)];
}
