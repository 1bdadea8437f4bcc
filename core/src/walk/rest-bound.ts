import type { Step } from './frontier.js';
import { waysOf } from './stretches.js';

/** The steps at which the ends of each stretch open, and those at which something opens that must be reached. */
interface Openings {
  ends: [number, number][];
  wanted: { at: number; isEnd: boolean }[];
}

function openings(steps: readonly Step[]): Openings {
  const inSlot = new Map<number, number>();
  const wanted: Openings['wanted'] = [];
  const ends = steps.map((step, i): [number, number] => {
    for (const { slot, reached } of step.opens) {
      inSlot.set(slot, i);
      if (reached) wanted.push({ at: i, isEnd: true });
    }
    const both: [number, number] = [inSlot.get(step.a) ?? 0, inSlot.get(step.b) ?? 0];
    for (const { slot, must } of step.closes) if (must) wanted.push({ at: inSlot.get(slot) ?? 0, isEnd: false });
    if (step.stretch.stops.length > 0) wanted.push({ at: Math.max(...both), isEnd: false }, { at: Math.min(...both), isEnd: false });
    return both;
  });
  return { ends, wanted };
}

/**
 * Metres of going over the divides between the nodes that are open by a step and those that open later, by the first step of each:
 * a walk with something to do on both sides goes over, and comes back unless it ends there. Only divides without stops that share no
 * stretch are counted, so that their metres add up.
 */
function dividesOf(steps: readonly Step[]): Map<number, number> {
  const { ends, wanted } = openings(steps);
  const isRound = wanted.filter((w) => w.isEnd).length < 2;
  const used = new Set<number>();
  const divides = new Map<number, number>();
  for (const [i, step] of steps.entries()) {
    if (step.opens.length === 0) continue;
    const over = ends.flatMap(([a, b], j) => (Math.min(a, b) <= i && Math.max(a, b) > i ? [j] : []));
    if (over.length === 0 || over.some((j) => used.has(j) || (steps[j]?.stretch.stops.length ?? 0) > 0)) continue;
    const [here, there] = [wanted.filter((w) => w.at <= i), wanted.filter((w) => w.at > i)];
    if (here.length === 0 || there.length === 0) continue;
    const isParted = !isRound && here.some((w) => w.isEnd) && there.some((w) => w.isEnd);
    const shortest = Math.min(...over.map((j) => steps[j]?.stretch.length ?? 0));
    for (const j of over) used.add(j);
    const first = Math.min(...over);
    divides.set(first, (divides.get(first) ?? 0) + shortest * (isParted ? 1 : 2));
  }
  return divides;
}

/**
 * For each step, metres that whatever is still to be walked from it on cannot do without: each stretch in its cheapest way, and
 * going over each divide that lies wholly ahead. O(steps²).
 */
export function restBounds(steps: readonly Step[]): Float64Array {
  const rest = new Float64Array(steps.length + 1);
  const divides = dividesOf(steps);
  for (const [i, { stretch }] of [...steps.entries()].reverse()) {
    const cheapest = Math.min(...waysOf(stretch).map(([, metres]) => metres));
    rest[i] = (rest[i + 1] ?? 0) + cheapest + (divides.get(i) ?? 0);
  }
  return rest;
}
