import { readGs1, type Gs1Options, type Gs1Result } from '../barcode/index.js';
import { arrayAt, dateAt, objectAt, textAt } from './input-fault.js';

/** `{cases: [{input, today, context?}]}` to `{results}`, one for each case and in the same order. */
export function solveGs1(input: unknown): { results: Gs1Result[] } {
  const cases = arrayAt(objectAt(input, '')['cases'], 'cases');
  return { results: cases.map((value, i) => readCase(value, `cases[${i}]`)) };
}

function readCase(value: unknown, path: string): Gs1Result {
  const one = objectAt(value, path);
  const options: Gs1Options = { today: dateAt(one['today'], `${path}.today`) };
  if (one['context'] === 'upc-e') options.context = 'upc-e';
  return readGs1(textAt(one['input'], `${path}.input`), options);
}
