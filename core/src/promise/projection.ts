/** Units that come or go at an instant, in milliseconds. */
export interface Flow {
  at: number;
  units: number;
}

/** What may be promised of one item at one site, from each instant on; ascending in both. The first step is now. */
export interface Projection {
  /** Below nought where more is promised than will be there. */
  steps: readonly { at: number; units: number }[];
}

/**
 * Cumulative available to promise: at every instant, what is there or has come by then and no promise will ever need. It is the
 * least that the projected stock comes to at any time from that instant on, so that a promise made by it never eats an older
 * one. What was due before now, in or out, counts as of now; goods that come at an instant may go at it. O(n log n).
 */
export function projectionOf(now: number, stock: number, coming: readonly Flow[], going: readonly Flow[]): Projection {
  const changes = new Map<number, number>([[now, stock]]);
  const add = (at: number, units: number) => changes.set(Math.max(now, at), (changes.get(Math.max(now, at)) ?? 0) + units);
  for (const { at, units } of coming) add(at, units);
  for (const { at, units } of going) add(at, -units);
  const instants = [...changes].sort(([a], [b]) => a - b);
  let level = 0;
  const levels = instants.map(([at, change]) => ({ at, units: (level += change) }));
  let least = Infinity;
  const free = levels.reverse().map(({ at, units }) => ({ at, units: (least = Math.min(least, units)) }));
  // An instant that brings nothing new is no step.
  return { steps: free.reverse().filter((step, i) => step.units !== free[i - 1]?.units) };
}

/**
 * What one order may count on: what nobody was promised, and beside it what it holds itself and what is on its way for it alone.
 * O(n log n).
 */
export function withOwn({ steps }: Projection, held: number, coming: readonly Flow[]): Projection {
  const now = steps[0]?.at ?? 0;
  const instants = [...new Set([...steps.map((s) => s.at), ...coming.map((c) => Math.max(now, c.at))])].sort((a, b) => a - b);
  const own = (at: number) => coming.reduce((n, c) => (c.at <= at ? n + c.units : n), held);
  return { steps: instants.map((at) => ({ at, units: promisableAt({ steps }, at) + own(at) })) };
}

/** What may be promised for an instant; never less than nought. O(log n). */
export function promisableAt({ steps }: Projection, at: number): number {
  let [low, high] = [0, steps.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((steps[middle]?.at ?? Infinity) <= at) low = middle + 1;
    else high = middle;
  }
  return Math.max(0, steps[low - 1]?.units ?? 0);
}

/** The first instant for which so many may be promised; null where nothing that is known of ever suffices. O(n). */
export function earliestFor({ steps }: Projection, units: number): number | null {
  if (units <= 0) return steps[0]?.at ?? null;
  return steps.find((step) => step.units >= units)?.at ?? null;
}
