import { micro } from '../money/index.js';

/** A supplier's price of one pack, and lower ones from some number of packs on. Decimal text, in the supplier's currency. */
export interface ListPrice {
  price: string;
  breaks: readonly { from: number; price: string }[];
}

export interface PriceFound {
  price: string;
  /** From how many packs this price holds; 1 where it is the plain one. */
  from: number;
  /** The next price that more packs would bring, and how many more. */
  next: { from: number; price: string; more: number } | null;
}

/** The price of so many packs. O(breaks). */
export function priceFor(list: ListPrice, packs: number): PriceFound {
  const steps = [{ from: 1, price: list.price }, ...list.breaks].sort((a, b) => a.from - b.from);
  const at = steps.filter((s) => s.from <= Math.max(1, packs)).at(-1) ?? { from: 1, price: list.price };
  const next = steps.find((s) => s.from > packs && micro(s.price) < micro(at.price));
  return { ...at, next: next ? { ...next, more: next.from - packs } : null };
}

/**
 * Whether taking the next price's number of packs would cost no more than what is asked for now: then more is to be had for
 * nothing.
 */
export function moreForNothing(found: PriceFound, packs: number): boolean {
  return found.next !== null && micro(found.next.price) * BigInt(found.next.from) <= micro(found.price) * BigInt(packs);
}
