import { fractionOf, fractionText, scaled } from '../money/index.js';
import { readDecimal } from './values.js';

/** What weights and lengths are kept in. */
export type Measure = 'g' | 'mm';

/** How many grams or millimetres each unit holds, as a fraction in whole numbers (international yard and pound agreement of 1959). */
const UNITS: Readonly<Record<Measure, Readonly<Record<string, readonly [num: number, den: number]>>>> = {
  g: { g: [1, 1], kg: [1000, 1], mg: [1, 1000], t: [1_000_000, 1], lb: [45_359_237, 100_000], oz: [45_359_237, 1_600_000] },
  mm: { mm: [1, 1], cm: [10, 1], dm: [100, 1], m: [1000, 1], in: [254, 10], ft: [3048, 10] },
};
const ALIASES: Readonly<Record<string, string>> = { gr: 'g', gram: 'g', grams: 'g', gramm: 'g', kilo: 'kg', kgs: 'kg', lbs: 'lb', inch: 'in', inches: 'in', '"': 'in', zoll: 'in' }; // prettier-ignore

/** The units that a file may state a measure in, the kept one first. */
export const unitsOf = (measure: Measure): string[] => Object.keys(UNITS[measure]);

const unitNamed = (measure: Measure, name: string): string | null => {
  const own = ALIASES[name.toLowerCase()] ?? name.toLowerCase();
  return Object.hasOwn(UNITS[measure], own) ? own : null;
};

/** The unit that the head of a column names ("Gewicht (kg)", "Length cm"); null where it names none. */
export function unitInHead(head: string, measure: Measure): string | null {
  for (const word of head.split(/[^\p{L}"]+/u).reverse()) {
    const unit = word && unitNamed(measure, word);
    if (unit) return unit;
  }
  return null;
}

/**
 * A weight in grams or a length in millimetres as a whole number in text, rounded half up: "1,2 kg" is "1200". A number without a unit
 * is in `unit`. Null where it is none.
 */
export function readMeasure(text: string, measure: Measure, unit: string = measure): string | null {
  const parts = /^([^\p{L}"]*\d[^\p{L}"]*)([\p{L}"]*)\.?$/u.exec(text.trim());
  const named = parts?.[2] ? unitNamed(measure, parts[2]) : (unitNamed(measure, unit) ?? measure);
  const number = parts && readDecimal(parts[1] ?? '');
  const factor = named === null ? undefined : UNITS[measure][named];
  if (number === null || number === undefined || !factor) return null;
  return fractionText(scaled(fractionOf(number), factor[0], factor[1]), 0);
}
