import { fractionText, minus, ratio, scaled, whole, ZERO, plus, fractionOf, type Fraction } from '../money/index.js';
import { wholeShares, type ShareBy, type ShareLine } from './apportion.js';

/** Goods that came in once, and how many of them are still there. */
export interface LateLine extends ShareLine {
  left: number;
}

/** What falls on a line: its share, what of it is added to the goods still there, and what has gone with the others. */
export interface LateShare {
  share: string;
  toStock: string;
  toGone: string;
}

/**
 * A charge that comes after the goods, shared over them to the penny: the part of those still there is added to stock, the part
 * of those that have gone is a cost of goods gone. The parts add up to the charge. Null where nothing can be shared by that.
 * O(lines log lines).
 */
export function lateShares(amount: Fraction, by: ShareBy, lines: readonly LateLine[]): LateShare[] | null {
  const shared = wholeShares(amount, by, lines);
  return (
    shared &&
    shared.map((share, i) => {
      const { left = 0, units = 1 } = lines[i] ?? {};
      const toStock = fractionText(scaled(fractionOf(share), left, units), 2);
      return { share, toStock, toGone: fractionText(minus(fractionOf(share), fractionOf(toStock)), 2) };
    })
  );
}

/** An amount with so many places, in the house's money: × home per one of the other. */
export const atRate = (amount: Fraction, rate: string): Fraction => {
  const r = fractionOf(rate);
  return { ...ratio(amount.num * r.num, amount.den * r.den) };
};

/** What so many units of a pack's price come to: price × units ÷ factor. */
export const goodsWorth = (price: string, units: number, factor: number): Fraction => scaled(fractionOf(price), units, factor);

/** What falls on so many units of a line's share. */
export const shareOfUnits = (share: string, units: number, ordered: number): Fraction =>
  ordered === 0 ? ZERO : scaled(fractionOf(share), Math.min(units, ordered), ordered);

export const sumOf = (list: readonly Fraction[]): Fraction => list.reduce(plus, whole(0));
