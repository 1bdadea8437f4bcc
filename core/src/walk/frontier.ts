import { type Stretch, WALKED, type Walked } from './stretches.js';

/**
 * What is known of a walk over some of the stretches, as seen from the nodes that the others still touch: of each whether its degree is
 * odd, and with which others it hangs together. A number holds it: five bits a slot, the group in the upper four (0: not reached).
 */
export type State = number;

/** So many nodes may be open at once: five bits each of the 53 that a number holds. */
export const MOST_OPEN = 10;
const SLOT = 32;

/** A stretch to decide on, with the nodes that open before it and close behind it, each in a slot of its own. */
export interface Step {
  stretch: Stretch;
  a: number;
  b: number;
  /** Slots that open, and whether something begins or ends there: it is reached from the outset. */
  opens: { slot: number; reached: boolean }[];
  closes: { slot: number; odd: boolean; must: boolean }[];
}

/** The order in which stretches are decided on, so that few nodes are open at once. */
export interface Plan {
  steps: Step[];
  /** Slots in use at most. */
  width: number;
}

const byRank = (rank: ReadonlyMap<number, number>, stretches: readonly Stretch[]): Stretch[] => {
  const of = (node: number) => rank.get(node) ?? 0;
  const late = (s: Stretch) => Math.max(of(s.a), of(s.b));
  const early = (s: Stretch) => Math.min(of(s.a), of(s.b));
  return [...stretches].sort((x, y) => late(x) - late(y) || early(x) - early(y));
};

/** With four open nodes a step, no other order is worth looking for. */
const GOOD = 4 ** 4;

/** What an order of stretches costs to decide on: the states grow with the open nodes. */
function weightOf(order: readonly Stretch[]): number {
  const left = new Map<number, number>();
  for (const s of order) for (const node of [s.a, s.b]) left.set(node, (left.get(node) ?? 0) + 1);
  const open = new Set<number>();
  let weight = 0;
  for (const s of order) {
    open.add(s.a).add(s.b);
    weight += 4 ** open.size;
    for (const node of [s.a, s.b]) {
      left.set(node, (left.get(node) ?? 0) - 1);
      if (left.get(node) === 0) open.delete(node);
    }
  }
  return weight;
}

/** Nodes in the order of a breadth-first look from one of them. */
function fromNode(node: number, stretches: readonly Stretch[]): Map<number, number> {
  const near = new Map<number, number[]>();
  for (const { a, b } of stretches) {
    near.set(a, [...(near.get(a) ?? []), b]);
    near.set(b, [...(near.get(b) ?? []), a]);
  }
  const rank = new Map([[node, 0]]);
  for (const at of rank.keys()) for (const other of near.get(at) ?? []) if (!rank.has(other)) rank.set(other, rank.size);
  return rank;
}

/** Always the stretch that leaves the fewest nodes open, and of those the one that has waited longest. */
function greedy(first: Stretch, stretches: readonly Stretch[]): Stretch[] {
  const left = new Map<number, number>();
  for (const s of stretches) for (const node of [s.a, s.b]) left.set(node, (left.get(node) ?? 0) + 1);
  const waiting = new Set(stretches);
  const open = new Map<number, number>();
  const order: Stretch[] = [];
  for (let next: Stretch | undefined = first; next;) {
    waiting.delete(next);
    order.push(next);
    for (const node of [next.a, next.b]) {
      left.set(node, (left.get(node) ?? 0) - 1);
      if (!open.has(node)) open.set(node, order.length);
      if (left.get(node) === 0) open.delete(node);
    }
    let best: [Stretch, number] | undefined;
    for (const s of waiting) {
      const [a, b] = [open.get(s.a), open.get(s.b)];
      if (a === undefined && b === undefined) continue;
      const grows = [s.a, s.b].reduce((n, node) => n + (open.has(node) ? 0 : 1) - (left.get(node) === 1 ? 1 : 0), 0);
      const score = grows * 1e6 + Math.min(a ?? Infinity, b ?? Infinity);
      if (!best || score < best[1]) best = [s, score];
    }
    next = best?.[0];
  }
  return order;
}

/**
 * Plans the order of the stretches: across, along and askew by the nodes' places, and outwards from a few of them; the cheapest is taken.
 * `must` are nodes to be reached, `ends` where the walk begins and ends.
 */
export function planOf(
  stretches: readonly Stretch[],
  must: ReadonlySet<number>,
  ends: readonly [start: number, end: number],
  place: (node: number) => { x: number; y: number },
): Plan {
  const nodes = [...new Set(stretches.flatMap((s) => [s.a, s.b]))];
  const along = (of: (p: { x: number; y: number }) => number, then: (p: { x: number; y: number }) => number) =>
    new Map([...nodes].sort((m, n) => of(place(m)) - of(place(n)) || then(place(m)) - then(place(n)) || m - n).map((node, i) => [node, i]));
  const x = (p: { x: number }) => p.x;
  const y = (p: { y: number }) => p.y;
  const across = along(x, y);
  const corners = [nodes[0], nodes.at(-1), [...across.keys()][0], [...across.keys()].at(-1), ends[0]].filter((n) => n !== undefined);
  const first = byRank(across, stretches);
  // A floor of aisles is decided on aisle by aisle: nothing is better than a few open nodes.
  if (weightOf(first) <= GOOD * stretches.length) return slotted(first, must, ends);
  const orders = [
    first,
    byRank(along(y, x), stretches),
    byRank(
      along((p) => p.x + p.y, x),
      stretches,
    ),
    byRank(
      along((p) => p.x - p.y, x),
      stretches,
    ),
    ...[...new Set(corners)].flatMap((node) => {
      const outwards = byRank(fromNode(node, stretches), stretches);
      return outwards[0] ? [outwards, greedy(outwards[0], stretches)] : [];
    }),
  ].filter((order) => order.length === stretches.length);
  const order = orders.reduce((best, o) => (weightOf(o) < weightOf(best) ? o : best), orders[0] ?? []);
  return slotted(order, must, ends);
}

function slotted(order: readonly Stretch[], must: ReadonlySet<number>, [start, end]: readonly [number, number]): Plan {
  const last = new Map<number, number>();
  order.forEach((s, i) => last.set(s.a, i).set(s.b, i));
  const slotOf = new Map<number, number>();
  const free: number[] = [];
  let width = 0;
  const steps = order.map((stretch, i): Step => {
    const opens: Step['opens'] = [];
    const open = (node: number): number => {
      const known = slotOf.get(node);
      if (known !== undefined) return known;
      const slot = free.pop() ?? width++;
      slotOf.set(node, slot);
      opens.push({ slot, reached: node === start || node === end });
      return slot;
    };
    const [a, b] = [open(stretch.a), open(stretch.b)];
    const closes = [...new Set([stretch.a, stretch.b])]
      .filter((node) => last.get(node) === i)
      .map((node) => {
        const slot = slotOf.get(node) ?? 0;
        free.push(slot);
        return { slot, odd: start !== end && (node === start || node === end), must: must.has(node) };
      });
    return { stretch, a, b, opens, closes };
  });
  return { steps, width };
}

/** The slots of a state. */
export function slotsOf(state: State, width: number): Uint8Array {
  const read = new Uint8Array(width);
  for (let i = 0, rest = state; i < width; i++) {
    read[i] = rest % SLOT;
    rest = Math.floor(rest / SLOT);
  }
  return read;
}

/** The state in which nothing is reached. */
export const NOTHING: State = 0;
/** A walk that is whole: nothing may be added to it. */
export const WHOLE: State = -1;

const slots = new Uint8Array(MOST_OPEN);
const seen = new Uint8Array(SLOT);

/**
 * The state behind a step that is walked in a way, from a state and its slots (`slotsOf`); null where no walk can come of it. `whole` says whether a walk may end here:
 * nothing that must be reached lies ahead.
 */
export function after(state: State, read: Uint8Array, step: Step, walked: Walked, width: number, whole: boolean): State | null {
  if (state === WHOLE) return walked === WALKED.not ? WHOLE : null;
  for (let i = 0; i < width; i++) slots[i] = read[i] ?? 0;
  let fresh = SLOT / 2 - 1;
  const reach = (slot: number) => {
    if ((slots[slot] ?? 0) >> 1 === 0) slots[slot] = ((slots[slot] ?? 0) & 1) | (fresh-- << 1);
  };
  for (const { slot, reached } of step.opens) {
    slots[slot] = 0;
    if (reached) reach(slot);
  }
  const { a, b } = step;
  if (walked !== WALKED.not && walked !== WALKED.fromB) reach(a);
  if (walked !== WALKED.not && walked !== WALKED.fromA) reach(b);
  if (walked === WALKED.once || walked === WALKED.twice) {
    const [one, two] = [(slots[a] ?? 0) >> 1, (slots[b] ?? 0) >> 1];
    if (one !== two) for (let i = 0; i < width; i++) if ((slots[i] ?? 0) >> 1 === two) slots[i] = ((slots[i] ?? 0) & 1) | (one << 1);
    if (walked === WALKED.once) {
      slots[a] = (slots[a] ?? 0) ^ 1;
      slots[b] = (slots[b] ?? 0) ^ 1;
    }
  }
  for (const [i, { slot, odd, must }] of step.closes.entries()) {
    const now = slots[slot] ?? 0;
    if ((now & 1) !== (odd ? 1 : 0)) return null;
    slots[slot] = 0;
    const group = now >> 1;
    if (group === 0) {
      if (must) return null;
      continue;
    }
    let [others, apart] = [0, 0];
    for (let k = 0; k < width; k++) {
      const theirs = (slots[k] ?? 0) >> 1;
      if (theirs === group) others++;
      else if (theirs !== 0) apart++;
    }
    if (others > 0) continue;
    // The last node of its group: whatever else is reached could never be joined to it.
    if (apart > 0 || !whole) return null;
    // Those that closed before it in this step were reached.
    for (const c of step.closes.slice(i + 1)) if (c.must && (slots[c.slot] ?? 0) >> 1 === 0) return null;
    return WHOLE;
  }
  return packed(width);
}

/** Groups are numbered as they come, so that two states that mean the same are the same number. */
function packed(width: number): State {
  seen.fill(0);
  let count = 0;
  let state = 0;
  let unit = 1;
  for (let i = 0; i < width; i++) {
    const now = slots[i] ?? 0;
    const group = now >> 1;
    if (group !== 0 && seen[group] === 0) seen[group] = ++count;
    state += ((now & 1) | ((group === 0 ? 0 : (seen[group] ?? 0)) << 1)) * unit;
    unit *= SLOT;
  }
  return state;
}
