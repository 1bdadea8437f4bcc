/** Keys of the pad: digits, times and plus. */
export type PadKey = '0' | '1' | '2' | '3' | '4' | '5' | '6' | '7' | '8' | '9' | '×' | '+';

const MOST_DIGITS = 5;
const MOST_TERMS = 12;
const isSign = (c: string | undefined) => c === '×' || c === '+';

/**
 * What the pad shows after one more key, so that layers can be counted: "4×12+5". A sign needs a figure before it, a second sign
 * takes the place of the first, and a figure has up to five digits.
 */
export function pressed(text: string, key: PadKey): string {
  const last = text.at(-1);
  if (isSign(key)) {
    if (text === '' || (text.match(/[×+]/g)?.length ?? 0) >= MOST_TERMS) return text;
    return isSign(last) ? text.slice(0, -1) + key : text + key;
  }
  const figure = /\d*$/.exec(text)?.[0] ?? '';
  if (figure === '0') return text.slice(0, -1) + key;
  return figure.length >= MOST_DIGITS ? text : text + key;
}

/** What a sum on the pad comes to; a sign at its end waits for its figure and counts for nothing. Times binds before plus. */
export function padValue(text: string): number {
  return text
    .replace(/[×+]$/, '')
    .split('+')
    .reduce((sum, term) => sum + (term === '' ? 0 : term.split('×').reduce((product, n) => product * Number(n), 1)), 0);
}

/** Whether there is more to it than one figure. */
export const isSum = (text: string): boolean => /[×+]/.test(text);
