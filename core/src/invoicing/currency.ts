import { fractionOf, fractionText, scaled, type Fraction } from '../money/index.js';
import { pence, sumsOf, wholePence, type Pence, type Sums, type TaxedLine } from './sums.js';

/** What an amount in home money is in another currency. `rate`: home money for one of the other, above nought. */
export function inOther(amount: Pence, rate: Fraction): Pence {
  if (rate.num <= 0n) throw new RangeError('A rate is above nought');
  return pence(scaled(wholePence(amount), rate.den, rate.num));
}

/** A price in another currency, to four places. */
export const priceInOther = (price: string, rate: Fraction): string => fractionText(scaled(fractionOf(price), rate.den, rate.num), 4);

/**
 * A document in another currency is a document of its own: each line is taken over at the rate, and the sums and taxes are reckoned from
 * these, so that what it says adds up to the penny in the currency that it is said in. `lines` of the result: each line's amount.
 */
export function documentInOther(lines: readonly TaxedLine[], pricesHoldTax: boolean, rate: Fraction): { amounts: Pence[]; sums: Sums } {
  const taken = lines.map((l) => ({ ...l, amount: inOther(l.amount, rate) }));
  return { amounts: taken.map((l) => l.amount), sums: sumsOf(taken, pricesHoldTax) };
}

/** What is open of a document in another currency: all of it where nothing is paid, and otherwise the same share of what it says. */
export function openInOther(open: Pence, gross: Pence, grossInOther: Pence): Pence {
  if (gross === 0n) return 0n;
  return pence(scaled(wholePence(grossInOther), open, gross));
}
