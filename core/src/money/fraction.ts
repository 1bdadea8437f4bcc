/** An exact rational number, in lowest terms with a denominator above zero. */
export interface Fraction {
  readonly num: bigint;
  readonly den: bigint;
}

const abs = (n: bigint) => (n < 0n ? -n : n);

function gcd(a: bigint, b: bigint): bigint {
  let [x, y] = [abs(a), abs(b)];
  while (y !== 0n) [x, y] = [y, x % y];
  return x;
}

export const ZERO: Fraction = { num: 0n, den: 1n };
export const whole = (n: number | bigint): Fraction => ({ num: BigInt(n), den: 1n });

/** num ÷ den. Throws RangeError where den is nought. */
export function ratio(num: bigint, den: bigint): Fraction {
  if (den === 0n) throw new RangeError('Nothing can be divided by nought');
  const g = gcd(num, den) * (den < 0n ? -1n : 1n);
  return { num: num / g, den: den / g };
}

/**
 * The sum. Only the common part of the denominators can be cancelled (Knuth, The Art of Computer Programming, 4.5.1), so that
 * adding a small fraction to one of thousands of digits costs O(digits).
 */
export function plus(a: Fraction, b: Fraction): Fraction {
  const g = gcd(a.den, b.den);
  if (g === 1n) return { num: a.num * b.den + b.num * a.den, den: a.den * b.den };
  const num = a.num * (b.den / g) + b.num * (a.den / g);
  const h = gcd(num, g);
  return { num: num / h, den: (a.den / g) * (b.den / h) };
}

export const minus = (a: Fraction, b: Fraction): Fraction => plus(a, { num: -b.num, den: b.den });

/** The product, cancelled crosswise before it is multiplied out. */
export function product(a: Fraction, b: Fraction): Fraction {
  const [g, h] = [gcd(a.num, b.den), gcd(b.num, a.den)];
  if (a.num === 0n || b.num === 0n) return ZERO;
  return { num: (a.num / g) * (b.num / h), den: (a.den / h) * (b.den / g) };
}

/** a × num ÷ den, for whole numbers. */
export const scaled = (a: Fraction, num: number | bigint, den: number | bigint = 1): Fraction =>
  product(a, ratio(BigInt(num), BigInt(den)));

export const isNought = (a: Fraction): boolean => a.num === 0n;

/** Reads decimal text of any length, without an exponent. Throws RangeError on anything else. */
export function fractionOf(text: string): Fraction {
  const parts = /^(-?)(\d{1,30})(?:\.(\d{1,30}))?$/.exec(text.trim());
  if (!parts) throw new RangeError(`"${text.slice(0, 40)}" is not a decimal number`);
  const places = parts[3] ?? '';
  const value = ratio(BigInt((parts[2] ?? '0') + places), 10n ** BigInt(places.length));
  return parts[1] ? { num: -value.num, den: value.den } : value;
}

/** Decimal text with so many places, rounded half away from nought. */
export function fractionText(a: Fraction, places = 6): string {
  const size = abs(a.num) * 10n ** BigInt(places);
  const units = (size * 2n + a.den) / (a.den * 2n);
  const digits = String(units).padStart(places + 1, '0');
  const sign = a.num < 0n && units > 0n ? '-' : '';
  return places === 0 ? sign + digits : `${sign}${digits.slice(0, -places)}.${digits.slice(-places)}`;
}
