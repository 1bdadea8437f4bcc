/** A way of packing an item: how it is called and how many base units it holds. */
export interface PackUnit {
  id: number;
  /** Singular, lower case: "tray". */
  name: string;
  /** Plural, lower case: "trays". */
  plural: string;
  /** Base units in one; a whole number of at least 1. The base unit itself has 1. */
  factor: number;
}

/** Base units in a number of packs. Throws RangeError unless both are whole and not negative. */
export function toBase(packs: number, factor: number): number {
  const units = packs * factor;
  if (!Number.isSafeInteger(packs) || packs < 0 || !Number.isSafeInteger(factor) || factor < 1) {
    throw new RangeError(`A quantity is a whole number of packs of at least 1 unit, not ${packs} × ${factor}`);
  }
  if (!Number.isSafeInteger(units)) throw new RangeError(`${packs} × ${factor} is more than can be counted`);
  return units;
}

export interface PackCount {
  pack: PackUnit;
  count: number;
}

/**
 * A quantity as the fewest packs of a ladder, largest first, none of them zero: 108 over (tray 48, jar 1) is two trays
 * and twelve jars. `units` is whole and not negative; the ladder holds a pack of factor 1. O(packs log packs).
 */
export function inPacks(units: number, ladder: readonly PackUnit[]): PackCount[] {
  let rest = units;
  const counts: PackCount[] = [];
  for (const pack of [...ladder].sort((a, b) => b.factor - a.factor)) {
    const count = Math.floor(rest / pack.factor);
    if (count > 0) counts.push({ pack, count });
    rest -= count * pack.factor;
  }
  return counts;
}

const grouped = (n: number) => String(n).replace(/\B(?=(\d{3})+(?!\d))/g, ',');

/** A count with its unit: "1 tray", "20 trays", "1,536 jars". */
export function countOf(count: number, pack: Pick<PackUnit, 'name' | 'plural'>): string {
  return `${grouped(count)} ${count === 1 ? pack.name : pack.plural}`;
}

const UNIT = { name: 'unit', plural: 'units' };

/** A quantity in words, in its own packs: "2 trays and 12 jars", "no jars"; "20 units" where its packs are not known yet. O(packs log packs). */
export function spell(units: number, ladder: readonly PackUnit[]): string {
  const base = ladder.find((p) => p.factor === 1);
  if (ladder.length === 0 && units !== 0) return countOf(units, UNIT);
  const counts = inPacks(units, ladder);
  if (counts.length === 0) return `no ${base?.plural ?? 'units'}`;
  const words = counts.map(({ pack, count }) => countOf(count, pack));
  return words.length === 1 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}

/** A pack's name with what it holds: "trays of 48", or just "jars" for the base unit. */
export function packName(pack: PackUnit, count = 2): string {
  const word = count === 1 ? pack.name : pack.plural;
  return pack.factor === 1 ? word : `${word} of ${grouped(pack.factor)}`;
}

/** How the tape names a quantity of goods: "2 trays and 12 jars: Jar 454 g, round". */
export function goodsWords(units: number, item: { name: string; packs: readonly PackUnit[] }): string {
  return `${spell(units, item.packs)}: ${item.name}`;
}
