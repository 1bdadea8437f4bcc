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
