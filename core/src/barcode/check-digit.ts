/** The GS1 modulo-10 check digit of the digits before it (General Specifications 7.9.1). `digits` holds only 0–9. */
export function checkDigit(digits: string): number {
  let sum = 0;
  for (let i = 0; i < digits.length; i++) {
    const weight = (digits.length - i) % 2 === 1 ? 3 : 1;
    sum += Number(digits[i]) * weight;
  }
  return (10 - (sum % 10)) % 10;
}

/** Whether the last digit of a number is its GS1 check digit. */
export function hasCheckDigit(number: string): boolean {
  return /^\d{2,}$/.test(number) && checkDigit(number.slice(0, -1)) === Number(number.at(-1));
}

/** The 82 characters that GS1 values may hold, in the order that gives each its value. */
export const CSET82 = '!"%&\'()*+,-./0123456789:;<=>?ABCDEFGHIJKLMNOPQRSTUVWXYZ_abcdefghijklmnopqrstuvwxyz';
const CSET32 = '23456789ABCDEFGHJKLMNPQRSTUVWXYZ';
const PRIMES = [2, 3, 5, 7, 11, 13, 17, 19, 23, 29, 31, 37, 41, 43, 47, 53, 59, 61, 67, 71, 73, 79, 83];

/** The check character pair of a global model number (General Specifications 7.9.5); undefined for foreign characters. */
export function checkPair(body: string): string | undefined {
  let sum = 0;
  for (let i = 0; i < body.length; i++) {
    const value = CSET82.indexOf(body.charAt(body.length - 1 - i));
    const weight = PRIMES[i];
    if (value < 0 || weight === undefined) return undefined;
    sum += value * weight;
  }
  sum %= 1021;
  return CSET32.charAt(sum >> 5) + CSET32.charAt(sum & 31);
}

/**
 * The 12-digit UPC-A number behind a zero-suppressed UPC-E one of 8 digits (number system, six digits, check digit);
 * undefined where the number system is not 0 or 1.
 */
export function expandUpcE(digits: string): string | undefined {
  const [ns, a, b, c, d, e, f] = digits;
  if (digits.length !== 8 || (ns !== '0' && ns !== '1')) return undefined;
  const check = digits.charAt(7);
  switch (f) {
    case '0':
    case '1':
    case '2':
      return `${ns}${a}${b}${f}0000${c}${d}${e}${check}`;
    case '3':
      return `${ns}${a}${b}${c}00000${d}${e}${check}`;
    case '4':
      return `${ns}${a}${b}${c}${d}00000${e}${check}`;
    default:
      return `${ns}${a}${b}${c}${d}${e}0000${f}${check}`;
  }
}
