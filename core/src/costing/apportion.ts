import { fractionText, plus, product, ratio, whole, ZERO, type Fraction } from '../money/index.js';

/** What a charge is shared by. */
export type ShareBy = 'value' | 'units' | 'weight' | 'volume';

/** What a line weighs in a share; all figures are of the whole line. */
export interface ShareLine {
  units: number;
  value: Fraction;
  /** Grams; absent where it is not known. */
  weight?: Fraction;
  /** Millilitres; absent where it is not known. */
  volume?: Fraction;
}

const basisOf = (line: ShareLine, by: ShareBy): Fraction => (by === 'units' ? whole(line.units) : (line[by] ?? ZERO));

/**
 * The share of a charge that falls on each line, exact; the shares add up to the charge. Null where nothing can be shared by
 * that: every line has nought of it.
 */
export function shares(amount: Fraction, by: ShareBy, lines: readonly ShareLine[]): Fraction[] | null {
  const bases = lines.map((l) => basisOf(l, by));
  const sum = bases.reduce(plus, ZERO);
  if (sum.num === 0n) return null;
  return bases.map((b) => product(amount, product(b, ratio(sum.den, sum.num))));
}

/**
 * Shares brought to whole steps (pennies by default) that still add up to the charge: each is rounded down, and what is left
 * goes a step at a time to the largest remainders, the earlier line first. The charge must itself be whole steps.
 */
export function wholeShares(amount: Fraction, by: ShareBy, lines: readonly ShareLine[], places = 2): string[] | null {
  const exact = shares(amount, by, lines);
  if (!exact) return null;
  const step = 10n ** BigInt(places);
  const floor = (f: Fraction) => {
    const down = (f.num * step) / f.den;
    return f.num < 0n && down * f.den !== f.num * step ? down - 1n : down;
  };
  const floors = exact.map(floor);
  const left = Number(floor(amount) - floors.reduce((sum, n) => sum + n, 0n));
  const byRemainder = exact
    .map((f, i) => ({ i, rest: ratio(f.num * step - (floors[i] ?? 0n) * f.den, f.den) }))
    .sort((a, b) =>
      a.rest.num * b.rest.den === b.rest.num * a.rest.den ? a.i - b.i : a.rest.num * b.rest.den > b.rest.num * a.rest.den ? -1 : 1,
    );
  const extra = new Set(byRemainder.slice(0, left).map((r) => r.i));
  return floors.map((n, i) => fractionText(ratio(n + (extra.has(i) ? 1n : 0n), step), places));
}
