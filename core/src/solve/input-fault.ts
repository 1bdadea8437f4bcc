/** An input that a solver cannot take, with the path of the member at fault: "cases[3].input". */
export class InputFault extends Error {
  constructor(
    message: string,
    readonly path: string,
  ) {
    super(message);
  }
}

/** The value as a plain object, or a fault at its path. */
export function objectAt(value: unknown, path: string): Record<string, unknown> {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) throw new InputFault('An object is wanted here', path);
  return value as Record<string, unknown>;
}

export function arrayAt(value: unknown, path: string): unknown[] {
  if (!Array.isArray(value)) throw new InputFault('A list is wanted here', path);
  return value;
}

export function textAt(value: unknown, path: string): string {
  if (typeof value !== 'string') throw new InputFault('Text is wanted here', path);
  return value;
}

/** An ISO date (a longer instant is cut to its date), or a fault. */
export function dateAt(value: unknown, path: string): string {
  const text = textAt(value, path);
  const date = text.slice(0, 10);
  if (!/^\d{4}-\d{2}-\d{2}(T.*)?$/.test(text) || Number.isNaN(Date.parse(date))) throw new InputFault('An ISO date is wanted here', path);
  return date;
}

/** One of a few words, or a fault that names them. */
export function oneOfAt<T extends string>(value: unknown, words: readonly T[], path: string): T {
  const word = words.find((w) => w === value);
  if (word === undefined) throw new InputFault(`One of these is wanted here: ${words.join(', ')}`, path);
  return word;
}

/** A whole number of at least `least`, or a fault. */
export function unitsAt(value: unknown, least: number, path: string): number {
  if (typeof value !== 'number' || !Number.isSafeInteger(value) || value < least)
    throw new InputFault(`A whole number of at least ${least} is wanted here`, path);
  return value;
}

/** An ISO date or instant as milliseconds, or a fault. */
export function instantAt(value: unknown, path: string): number {
  const text = textAt(value, path);
  const at = /^\d{4}-\d{2}-\d{2}/.test(text) ? Date.parse(text) : Number.NaN;
  if (Number.isNaN(at)) throw new InputFault('An ISO date or time is wanted here', path);
  return at;
}
