/** What is to be arranged: goods on faces, and the orders of some time that were walked for them. All by index. */
export interface ToSlot {
  /** The face of each of the goods. Several may share one. */
  faceOf: readonly number[];
  faces: number;
  /** Each order's goods; none twice. */
  orders: readonly (readonly number[])[];
  /** How many weeks the orders are of. */
  weeks: number;
  /** Whether goods may and do fit at a face, beside nothing else. */
  fits: (goods: number, face: number) => boolean;
  /** Metres of the walk through some faces, there and back. */
  metres: (faces: readonly number[]) => number;
}

/** Goods go to another face, and what stood there comes to theirs. */
export interface SlotMove {
  goods: number;
  from: number;
  to: number;
  /** What stands at the other face and changes with them; null where it is empty. */
  change: number | null;
  /** Metres that a week is shorter, once all moves before it are made. */
  metresAWeek: number;
}

export interface SlotAdvice {
  moves: SlotMove[];
  /** Metres a week, as it is and once all moves are made. */
  before: number;
  after: number;
}

/** So many of the most promising changes are measured for each that is made. */
const MOST_MEASURED = 200;
const MOST_PAIRS = 60;
const NEAREST = 4;

/** A change of places, not measured yet. */
interface Change {
  goods: number;
  other: number | null;
  to: number;
  guess: number;
}

/**
 * Which goods should change their places, the most worthwhile first: each move is the best single change of what is left by the walks
 * of the orders that were, so that what is asked for often comes near, and what leaves together stands together. At most `most`
 * moves, each saving at least `least` metres a week. Goods that share a face stay. O(most × measured × orders of two goods).
 */
export function slotAdvice(given: ToSlot, most = 10, least = 1): SlotAdvice {
  const faceOf = [...given.faceOf];
  const { orders, weeks, fits } = given;
  const at = new Map<number, number[]>();
  faceOf.forEach((face, goods) => at.set(face, [...(at.get(face) ?? []), goods]));
  const ordersOf = faceOf.map((): number[] => []);
  orders.forEach((goods, o) => goods.forEach((g) => ordersOf[g]?.push(o)));
  const walkOf = (o: number) => given.metres([...new Set((orders[o] ?? []).map((g) => faceOf[g] ?? 0))]);
  const walks = orders.map((_, o) => walkOf(o));
  const far = Array.from({ length: given.faces }, (_, face) => given.metres([face]));
  const sum = () => walks.reduce((n, w) => n + w, 0) / weeks;
  const alone = (goods: number) => (at.get(faceOf[goods] ?? -1)?.length ?? 0) === 1;

  /** Metres a week that a change saves; the goods stand as before once it is known. */
  const measured = ({ goods, other, to }: Change): number => {
    const touched = new Set([...(ordersOf[goods] ?? []), ...(other === null ? [] : (ordersOf[other] ?? []))]);
    const from = faceOf[goods] ?? 0;
    faceOf[goods] = to;
    if (other !== null) faceOf[other] = from;
    let saved = 0;
    for (const o of touched) saved += (walks[o] ?? 0) - walkOf(o);
    faceOf[goods] = from;
    if (other !== null) faceOf[other] = to;
    return saved / weeks;
  };

  const make = ({ goods, other, to }: Change): void => {
    const from = faceOf[goods] ?? 0;
    faceOf[goods] = to;
    at.set(to, [goods]);
    at.set(from, other === null ? [] : [other]);
    if (other !== null) faceOf[other] = from;
    for (const o of new Set([...(ordersOf[goods] ?? []), ...(other === null ? [] : (ordersOf[other] ?? []))])) walks[o] = walkOf(o);
  };

  const asked = (goods: number) => ordersOf[goods]?.length ?? 0;
  const change = (goods: number, to: number): Change | null => {
    const there = at.get(to) ?? [];
    const from = faceOf[goods] ?? 0;
    const other = there[0] ?? null;
    if (to === from || there.length > 1 || !alone(goods) || !fits(goods, to) || (other !== null && !fits(other, from))) return null;
    const nearer = (far[from] ?? 0) - (far[to] ?? 0);
    return { goods, other, to, guess: nearer * (asked(goods) - (other === null ? 0 : asked(other))) };
  };

  const pairs = pairsOf(orders);
  // Which faces are near to which does not change with what stands there.
  const known = new Map<number, number[]>();
  const near = (face: number): number[] => {
    const found = known.get(face) ?? nearestTo(face, given);
    known.set(face, found);
    return found;
  };
  /** Changes that bring often asked goods near, and goods that leave together next to each other. */
  const promising = (): Change[] => {
    const found: Change[] = [];
    faceOf.forEach((_, goods) => {
      if (asked(goods) === 0 || !alone(goods)) return;
      for (let to = 0; to < given.faces; to += 1) {
        if ((far[to] ?? 0) >= (far[faceOf[goods] ?? 0] ?? 0)) continue;
        const next = change(goods, to);
        if (next && next.guess > 0) found.push(next);
      }
    });
    found.sort((a, b) => b.guess - a.guess || a.goods - b.goods || a.to - b.to);
    const together = pairs.flatMap(([a, b]) =>
      [
        [a, b],
        [b, a],
      ].flatMap(([stays, comes]) => near(faceOf[stays ?? 0] ?? 0).flatMap((to) => change(comes ?? 0, to) ?? [])),
    );
    return [...found.slice(0, MOST_MEASURED), ...together];
  };

  const before = sum();
  const moves: SlotMove[] = [];
  while (moves.length < most) {
    let best: (Change & { saves: number }) | null = null;
    for (const next of promising()) {
      const saves = measured(next);
      if (saves >= least && saves > (best?.saves ?? 0)) best = { ...next, saves };
    }
    if (!best) break;
    moves.push({ goods: best.goods, from: faceOf[best.goods] ?? 0, to: best.to, change: best.other, metresAWeek: best.saves });
    make(best);
  }
  return { moves, before, after: sum() };
}

/** The goods that leave together most often, the most often first. O(orders × goods²). */
function pairsOf(orders: ToSlot['orders']): [number, number][] {
  const times = new Map<string, number>();
  for (const goods of orders)
    for (const [i, a] of goods.entries())
      for (const b of goods.slice(i + 1)) {
        const key = a < b ? `${a}/${b}` : `${b}/${a}`;
        times.set(key, (times.get(key) ?? 0) + 1);
      }
  return [...times]
    .filter(([, n]) => n > 1)
    .sort(([p, m], [q, n]) => n - m || p.localeCompare(q))
    .slice(0, MOST_PAIRS)
    .map(([key]) => key.split('/').map(Number) as [number, number]);
}

/** The faces from which a walk past another is lengthened least. */
function nearestTo(face: number, { faces, metres }: ToSlot): number[] {
  return Array.from({ length: faces }, (_, other) => other)
    .filter((other) => other !== face)
    .map((other) => ({ other, both: metres([face, other]) }))
    .sort((a, b) => a.both - b.both || a.other - b.other)
    .slice(0, NEAREST)
    .map((n) => n.other);
}
