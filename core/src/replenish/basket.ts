import { orderUnits } from './policy.js';

/** A line of an order as it would be placed with one supplier. Units are base units; money in the supplier's currency. */
export interface BasketLine {
  id: number;
  /** Proposed; nought where it is not due, but might be taken along. */
  units: number;
  /** A week's demand; nought where none is expected. */
  weekMean: number;
  /** Days until it would be due by itself. */
  daysLeft: number;
  multiple: number;
  minimum: number;
  unitPrice: number;
  /** Most that may be ordered of it without some of it passing its date, or being more than is ever wanted. */
  most: number;
  /** Units that make a pallet; null where that is not known. */
  palletUnits: number | null;
}

export interface Least {
  value: number | null;
  units: number | null;
  pallets: number | null;
}

const sizeOf = (lines: readonly BasketLine[]) =>
  lines.reduce(
    (n, l) => ({
      value: n.value + l.units * l.unitPrice,
      units: n.units + l.units,
      pallets: n.pallets + (l.palletUnits ? l.units / l.palletUnits : 0),
    }),
    { value: 0, units: 0, pallets: 0 },
  );

const EPSILON = 1e-9;

const isEnough = (lines: readonly BasketLine[], least: Least): boolean => {
  const size = sizeOf(lines);
  return (
    (least.value === null || size.value >= least.value - EPSILON) &&
    (least.units === null || size.units >= least.units) &&
    (least.pallets === null || size.pallets >= least.pallets - EPSILON)
  );
};

/** Whether one more of a line brings the order nearer to what it lacks. */
const helps = (line: BasketLine, lines: readonly BasketLine[], least: Least): boolean => {
  const size = sizeOf(lines);
  return (
    (least.value !== null && size.value < least.value && line.unitPrice > 0) ||
    (least.units !== null && size.units < least.units) ||
    (least.pallets !== null && size.pallets < least.pallets && line.palletUnits !== null)
  );
};

/** More than what would be wanted within this many days is never taken along. */
const FARTHEST_DAYS = 182;
const MOST_STEPS = 20_000;

/**
 * Brings an order up to the least that its supplier takes, with what will be needed soonest: a multiple at a time of whatever would
 * run down to its point first. Lines keep at least what was proposed. Where it cannot be reached, what was proposed is left as it is,
 * and `isEnough` says so. O(steps × lines).
 */
export function filledUp(lines: readonly BasketLine[], least: Least): { lines: BasketLine[]; isEnough: boolean } {
  const own = lines.map((l) => ({ ...l }));
  if (own.every((l) => l.units === 0) || isEnough(own, least)) return { lines: own, isEnough: true };
  for (let step = 0; step < MOST_STEPS; step += 1) {
    let next: { line: BasketLine; units: number; days: number } | null = null;
    for (const line of own) {
      if (line.weekMean <= 0 || !helps(line, own, least)) continue;
      const units = line.units === 0 ? orderUnits(1, line) : line.units + Math.max(1, line.multiple);
      // A line that was proposed lasts at least until it is due again; each unit more puts that off.
      const days = line.daysLeft + (line.units / line.weekMean) * 7;
      if (units > line.most || days > FARTHEST_DAYS) continue;
      if (next === null || days < next.days) next = { line, units, days };
    }
    if (next === null) return { lines: lines.map((l) => ({ ...l })), isEnough: false };
    next.line.units = next.units;
    if (isEnough(own, least)) return { lines: own, isEnough: true };
  }
  return { lines: lines.map((l) => ({ ...l })), isEnough: false };
}

/** Which lines a sum of money buys: the most urgent first, each whole or not at all. O(n log n). */
export function withinBudget<T extends { daysLeft: number; worth: number }>(lines: readonly T[], budget: number): T[] {
  let left = budget + EPSILON;
  const bought = new Set<T>();
  for (const line of [...lines].sort((a, b) => a.daysLeft - b.daysLeft)) {
    if (line.worth > left) continue;
    left -= line.worth;
    bought.add(line);
  }
  return lines.filter((l) => bought.has(l));
}

/**
 * The size of an order where more packs cost less each: of what is proposed and every step above it, the one with the least cost a
 * unit, with what it costs to hold (all-units discounts, Hadley and Whitin 1963). Never more than `most`.
 */
export function atBreaks(
  packs: number,
  steps: readonly { from: number; price: number }[],
  item: { price: number; packUnits: number; weekMean: number; orderCost: number; holdingRate: number; mostPacks: number },
): number {
  if (packs <= 0 || item.weekMean <= 0) return packs;
  const yearPacks = (item.weekMean * 52) / item.packUnits;
  const priceAt = (n: number) => steps.reduce((price, s) => (n >= s.from ? Math.min(price, s.price) : price), item.price);
  const cost = (n: number) => priceAt(n) + item.orderCost / n + (priceAt(n) * item.holdingRate * n) / (2 * yearPacks);
  let best = packs;
  for (const { from } of steps) if (from > packs && from <= item.mostPacks && cost(from) < cost(best) - EPSILON) best = from;
  return best;
}
