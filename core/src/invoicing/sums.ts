import type { Micro } from '../money/index.js';
import { scaled, whole, type Fraction } from '../money/index.js';

/** Hundredths of the currency, so that every sum of a document is exact. */
export type Pence = bigint;

/** What a line of an invoice or credit note comes to, with the tax on it in per cent ("20", "5.5"). */
export interface TaxedLine {
  amount: Pence;
  taxCode: string;
  percent: string;
}

/** The tax of one rate: on what, and how much. */
export interface TaxSum {
  taxCode: string;
  percent: string;
  net: Pence;
  tax: Pence;
}

/** All that stands at the foot of a document. `lines`: what each comes to without tax, in their order. */
export interface Sums {
  lines: Pence[];
  taxes: TaxSum[];
  net: Pence;
  tax: Pence;
  gross: Pence;
}

const abs = (n: bigint) => (n < 0n ? -n : n);
/** n ÷ d, rounded half away from nought, as money is. */
const rounded = (n: bigint, d: bigint): bigint => {
  const size = (abs(n) * 2n + d) / (d * 2n);
  return n < 0n ? -size : size;
};

/** Per cent as a whole number of ten-thousandths of a per cent. Throws RangeError on what is none. */
function basis(percent: string): bigint {
  const parts = /^(\d{1,3})(?:\.(\d{1,4}))?$/.exec(percent.trim());
  if (!parts) throw new RangeError(`"${percent}" is not a rate of tax`);
  return BigInt(parts[1] ?? '0') * 10_000n + BigInt((parts[2] ?? '').padEnd(4, '0'));
}
const WHOLE = 1_000_000n;

/**
 * The sums of a document. Tax is reckoned once for each rate, on all that is taxed at it (EN 16931, BR-CO-17), never line by
 * line. Where prices hold the tax, the gross is what the lines say, and the net of a rate is parted among its lines so that it
 * is their sum to the penny. O(lines × rates).
 */
export function sumsOf(lines: readonly TaxedLine[], pricesHoldTax: boolean): Sums {
  const rates = [...new Map(lines.map((l) => [`${l.taxCode}/${basis(l.percent)}`, l])).values()];
  const net: Pence[] = lines.map((l) => l.amount);
  const taxes = rates.map(({ taxCode, percent }): TaxSum => {
    const rate = basis(percent);
    const at = lines.flatMap((l, i) => (l.taxCode === taxCode && basis(l.percent) === rate ? [i] : []));
    const said = at.reduce((sum, i) => sum + (lines[i]?.amount ?? 0n), 0n);
    if (!pricesHoldTax) return { taxCode, percent, net: said, tax: rounded(said * rate, 100n * 10_000n) };
    const base = rounded(said * WHOLE, WHOLE + rate);
    part(
      base,
      at.map((i) => lines[i]?.amount ?? 0n),
    ).forEach((share, n) => (net[at[n] ?? 0] = share));
    return { taxCode, percent, net: base, tax: said - base };
  });
  const sum = (of: (t: TaxSum) => Pence) => taxes.reduce((all, t) => all + of(t), 0n);
  const [all, tax] = [sum((t) => t.net), sum((t) => t.tax)];
  return { lines: net, taxes, net: all, tax, gross: all + tax };
}

/** Parts an amount in proportion to weights, to the penny: what rounding leaves goes to the largest. */
function part(amount: Pence, weights: readonly Pence[]): Pence[] {
  const total = weights.reduce((sum, w) => sum + w, 0n);
  if (total === 0n) return weights.map((_, i) => (i === 0 ? amount : 0n));
  const shares = weights.map((w) => rounded(amount * w * (total < 0n ? -1n : 1n), abs(total)));
  const rest = amount - shares.reduce((sum, s) => sum + s, 0n);
  const largest = weights.reduce((best, w, i) => (abs(w) > abs(weights[best] ?? 0n) ? i : best), 0);
  return shares.map((s, i) => (i === largest ? s + rest : s));
}

/**
 * What so many units come to, of an amount that is due for `of` units in all: reckoned from the beginning each time, so that
 * however the units are parted, their amounts are the whole's to the penny. `before`: units that were reckoned already.
 */
export function shareOf(amount: Fraction, units: number, before: number, of: number): Pence {
  if (of <= 0 || units < 0 || before < 0) throw new RangeError('Units are whole numbers above nought');
  const upTo = (n: number) => pence(scaled(amount, n, of));
  return upTo(before + units) - upTo(before);
}

/** The whole pence of an amount, rounded half away from nought. */
export const pence = (a: Fraction): Pence => rounded(scaled(a, 100).num, scaled(a, 100).den);

export const penceOf = (amount: Micro): Pence => rounded(amount, 10_000n);
export const microOf = (amount: Pence): Micro => amount * 10_000n;
export const wholePence = (amount: Pence): Fraction => scaled(whole(amount), 1, 100);
