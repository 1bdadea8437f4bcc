/** How weights and lengths are shown: set once when the person is known; kept in grams and millimetres everywhere else. */
let imperial = false;
export function showUnits(units: string): void {
  imperial = units === 'pounds and inches';
}

const MM_PER_INCH = 25.4;
const G_PER_POUND = 453.592_37;
const cut = (n: number, places: number) => n.toLocaleString('en-GB', { maximumFractionDigits: places });

/** "1.25 kg", or "2.76 lb". */
export function weightText(grams: number): string {
  return imperial ? `${cut(grams / G_PER_POUND, 2)} lb` : `${cut(grams / 1000, grams < 10_000 ? 2 : 1)} kg`;
}

/** "80 × 80 × 110 mm", or in inches. */
export function lengthText(...mm: number[]): string {
  return imperial ? `${mm.map((n) => cut(n / MM_PER_INCH, 1)).join(' × ')} in` : `${mm.map((n) => cut(n, 0)).join(' × ')} mm`;
}
