import type { Flow } from './projection.js';

/** A promise that waits for goods of one item at one site. */
export interface Promised {
  id: number;
  /** The higher is served first. */
  priority: number;
  /** When it was promised for, and when it was made. */
  due: number;
  placed: number;
  units: number;
}

/** A promise that goods which come later than they should would break. */
export interface Hit {
  id: number;
  due: number;
  /** When its goods are there now; null where they never are. */
  freeAt: number | null;
}

const inTurn = (a: Promised, b: Promised) => b.priority - a.priority || a.due - b.due || a.placed - b.placed || a.id - b.id;

/**
 * When the goods of each promise are all there, if what comes is given out as it is when it comes: to whoever has the higher
 * priority, then was promised earlier, then asked earlier. Null where they never are. O(n log n).
 */
export function metBy(now: number, stock: number, coming: readonly Flow[], promises: readonly Promised[]): Map<number, number | null> {
  const waiting = [...promises].sort(inTurn);
  const met = new Map<number, number | null>(waiting.map((p) => [p.id, null]));
  const supplies = [{ at: now, units: stock }, ...coming].map(({ at, units }) => ({ at: Math.max(now, at), units }));
  let next = 0;
  let lacks = waiting[0]?.units ?? 0;
  for (const { at, units } of supplies.sort((a, b) => a.at - b.at)) {
    let free = units;
    for (let one = waiting[next]; one && lacks <= free; one = waiting[next]) {
      free -= lacks;
      met.set(one.id, at);
      lacks = waiting[++next]?.units ?? 0;
    }
    lacks -= free;
  }
  return met;
}

/** The promises that are kept as things stand and would be broken if one of the flows came when it does in `later`, in turn. */
export function hitBy(now: number, stock: number, coming: readonly Flow[], later: readonly Flow[], promises: readonly Promised[]): Hit[] {
  const [before, after] = [metBy(now, stock, coming, promises), metBy(now, stock, later, promises)];
  const kept = (met: number | null | undefined, due: number) => met !== null && met !== undefined && met <= due;
  return [...promises]
    .sort(inTurn)
    .filter((p) => kept(before.get(p.id), p.due) && !kept(after.get(p.id), p.due))
    .map((p) => ({ id: p.id, due: p.due, freeAt: after.get(p.id) ?? null }));
}
