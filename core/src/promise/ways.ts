import { earliestFor, promisableAt, type Projection } from './projection.js';

/** A site that goods may leave from, as far as promising goes. */
export interface SendingSite {
  id: number;
  /** By item; an item that is not named has nothing and gets nothing. */
  projections: ReadonlyMap<number, Projection>;
  /** How long it takes from the goods being there to the parcel standing at the van, in milliseconds. */
  workMs: number;
  /** The first departure at or after an instant; null where none is known. */
  leavesAfter: (ready: number) => number | null;
}

export interface WantedLine {
  itemId: number;
  units: number;
}

export interface Sending {
  siteId: number;
  leavesAt: number;
  lines: WantedLine[];
}

/** Goods that must come from another site first. */
export interface Fetching extends WantedLine {
  from: number;
  to: number;
  /** By when they must be free where they stand. */
  freeAt: number;
}

/**
 * One way of sending an order: whole from one site, split over several sites at once, what is there now and the rest later, or
 * fetched from other sites and sent together.
 */
export interface Way {
  kind: 'together' | 'split' | 'in parts' | 'fetched';
  sendings: Sending[];
  fetches: Fetching[];
  /** When the last of it leaves. */
  wholeAt: number;
}

const NOTHING: Projection = { steps: [] };
const of = (site: SendingSite, itemId: number) => site.projections.get(itemId) ?? NOTHING;

/** Lines of the same item together, since they take from the same goods. */
function summed(lines: readonly WantedLine[]): WantedLine[] {
  const sums = new Map<number, number>();
  for (const { itemId, units } of lines) if (units > 0) sums.set(itemId, (sums.get(itemId) ?? 0) + units);
  return [...sums].map(([itemId, units]) => ({ itemId, units }));
}

/** What leaves a site once its goods are free; null where nothing leaves there any more. */
function sending(site: SendingSite, freeAt: number, lines: WantedLine[]): Sending | null {
  const leavesAt = site.leavesAfter(freeAt + site.workMs);
  return leavesAt === null ? null : { siteId: site.id, leavesAt, lines };
}

function way(kind: Way['kind'], sendings: readonly (Sending | null)[], fetches: Fetching[] = []): Way[] {
  const all = sendings.flatMap((s) => s ?? []);
  if (all.length === 0 || all.length < sendings.length) return [];
  return [{ kind, sendings: all, fetches, wholeAt: Math.max(...all.map((s) => s.leavesAt)) }];
}

/**
 * The ways in which an order can be sent without eating what is promised to others, the soonest whole one first; among equals the
 * one of fewer parcels, then the one that fetches less. `sites`: those that it may be sent from, the best first. `fetchMs`: how
 * long goods are on their way from one site to another; null where they are not. Empty where nothing that is known of suffices.
 * O(2^sites + steps · sites · lines).
 */
export function waysToSend(
  now: number,
  lines: readonly WantedLine[],
  sites: readonly SendingSite[],
  fetchMs: (from: number, to: number) => number | null,
): Way[] {
  const wanted = summed(lines);
  if (wanted.length === 0) return [];
  const ways = [
    ...sites.flatMap((site) => together(site, wanted)),
    ...split(sites, wanted),
    ...sites.flatMap((site) => inParts(now, site, wanted)),
    ...sites.flatMap((site) => fetched(site, sites, wanted, fetchMs)),
  ];
  return ways.sort((a, b) => a.wholeAt - b.wholeAt || a.sendings.length - b.sendings.length || a.fetches.length - b.fetches.length);
}

/** When a site has all of it free; null where it never will. */
function wholeFrom(site: SendingSite, wanted: readonly WantedLine[]): number | null {
  let at = -Infinity;
  for (const { itemId, units } of wanted) {
    const free = earliestFor(of(site, itemId), units);
    if (free === null) return null;
    at = Math.max(at, free);
  }
  return at;
}

function together(site: SendingSite, wanted: readonly WantedLine[]): Way[] {
  const at = wholeFrom(site, wanted);
  return at === null ? [] : way('together', [sending(site, at, [...wanted])]);
}

/** Over several sites, none of which has it whole by then: at the first instant at which they have it together, from as few of them as suffice. */
function split(sites: readonly SendingSite[], wanted: readonly WantedLine[]): Way[] {
  const at = firstInstant(
    stepsOf(sites, wanted, () => 0),
    (t) => wanted.every(({ itemId, units }) => sites.reduce((n, s) => n + promisableAt(of(s, itemId), t), 0) >= units),
  );
  if (at === null) return [];
  const chosen = fewest(sites, (some) =>
    wanted.every(({ itemId, units }) => some.reduce((n, s) => n + promisableAt(of(s, itemId), at), 0) >= units),
  );
  if (!chosen || chosen.length < 2) return [];
  const left = new Map(wanted.map((l) => [l.itemId, l.units]));
  const sendings = chosen.map((site) => {
    const lines = wanted.flatMap(({ itemId }) => {
      const units = Math.min(left.get(itemId) ?? 0, promisableAt(of(site, itemId), at));
      left.set(itemId, (left.get(itemId) ?? 0) - units);
      return units > 0 ? [{ itemId, units }] : [];
    });
    return lines.length > 0 ? [sending(site, at, lines)] : [];
  });
  return way('split', sendings.flat());
}

/** What a site has free now, and the rest of it when that is. */
function inParts(now: number, site: SendingSite, wanted: readonly WantedLine[]): Way[] {
  const at = wholeFrom(site, wanted);
  if (at === null || at <= now) return [];
  const first = wanted.flatMap(({ itemId, units }) => {
    const here = Math.min(units, promisableAt(of(site, itemId), now));
    return here > 0 ? [{ itemId, units: here }] : [];
  });
  if (first.length === 0) return [];
  const rest = wanted.flatMap(({ itemId, units }) => {
    const later = units - (first.find((f) => f.itemId === itemId)?.units ?? 0);
    return later > 0 ? [{ itemId, units: later }] : [];
  });
  const [one, other] = [sending(site, now, first), sending(site, at, rest)];
  // Where both leave with the same van it is one parcel, and no way of its own.
  return one && other && one.leavesAt === other.leavesAt ? [] : way('in parts', [one, other]);
}

/** Whole from a site, with what it lacks fetched from the others. */
function fetched(
  site: SendingSite,
  sites: readonly SendingSite[],
  wanted: readonly WantedLine[],
  fetchMs: (from: number, to: number) => number | null,
): Way[] {
  const others = sites.flatMap((s) => {
    const ms = s === site ? null : fetchMs(s.id, site.id);
    return ms === null ? [] : [{ site: s, ms }];
  });
  if (others.length === 0) return [];
  const arrives = (s: SendingSite) => others.find((o) => o.site === s)?.ms ?? 0;
  const known = [site, ...others.map((o) => o.site)];
  const free = (s: SendingSite, itemId: number, t: number) => promisableAt(of(s, itemId), t - arrives(s));
  const at = firstInstant(stepsOf(known, wanted, arrives), (t) =>
    wanted.every(({ itemId, units }) => known.reduce((n, s) => n + free(s, itemId, t), 0) >= units),
  );
  if (at === null) return [];
  const fetches: Fetching[] = [];
  for (const { itemId, units } of wanted) {
    let lacks = units - free(site, itemId, at);
    for (const { site: from, ms } of others) {
      const part = Math.min(lacks, free(from, itemId, at));
      if (part <= 0) continue;
      fetches.push({ itemId, units: part, from: from.id, to: site.id, freeAt: at - ms });
      lacks -= part;
    }
  }
  // What needs no fetching is the site's own way, and what comes by itself as soon is not fetched again.
  if (fetches.length === 0) return [];
  const own = together(site, wanted)[0];
  return way('fetched', [sending(site, at, [...wanted])], fetches).filter((w) => own === undefined || w.wholeAt < own.wholeAt);
}

/** Every instant at which more becomes free, as it is felt after a delay; ascending. */
function stepsOf(sites: readonly SendingSite[], wanted: readonly WantedLine[], delay: (site: SendingSite) => number): number[] {
  const all = sites.flatMap((s) => wanted.flatMap(({ itemId }) => of(s, itemId).steps.map((step) => step.at + delay(s))));
  return [...new Set(all)].sort((a, b) => a - b);
}

/** The first of ascending instants from which on something holds; null where it never does. O(log n) tries. */
function firstInstant(instants: readonly number[], holds: (t: number) => boolean): number | null {
  let [low, high] = [0, instants.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (holds(instants[middle] ?? 0)) high = middle;
    else low = middle + 1;
  }
  return instants[low] ?? null;
}

/** The fewest of some sites that suffice, the first of them where several do. O(2^sites). */
function fewest(sites: readonly SendingSite[], suffice: (some: readonly SendingSite[]) => boolean): SendingSite[] | null {
  const most = sites.slice(0, 12);
  for (let size = 1; size <= most.length; size++) for (const some of combinations(most, size)) if (suffice(some)) return some;
  return suffice(sites) ? [...sites] : null;
}

function* combinations<T>(list: readonly T[], size: number): Generator<T[]> {
  if (size === 0) return void (yield []);
  for (const [i, first] of list.entries()) for (const rest of combinations(list.slice(i + 1), size - 1)) yield [first, ...rest];
}
