import { type ClassConstructor, plainToInstance } from 'class-transformer';
import { validate, type ValidationError } from 'class-validator';
import { badForm } from '../platform/index.js';

/** What is against a message, field by field with the way to it: "lines.0.price". */
function faultsIn(errors: readonly ValidationError[], path = ''): Record<string, string> {
  return Object.assign(
    {},
    ...errors.map((e) => {
      const own = path ? `${path}.${e.property}` : e.property;
      const says = [...new Set(Object.values(e.constraints ?? {}))].join('. ');
      return { ...(says ? { [own]: `${inWords(own)}: ${says}` } : {}), ...faultsIn(e.children ?? [], own) };
    }),
  ) as Record<string, string>;
}

/** The way to a field as people count: "lines.0.price" is "Line 1, price". */
function inWords(path: string): string {
  const words = path.replace(/s\.(\d+)/g, (_, n: string) => ` ${Number(n) + 1}`).split('.');
  const text = words.join(', ').replace(/([A-Z])/g, (letter) => ` ${letter.toLowerCase()}`);
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** Text as a JSON object. Problem 400 where it is none. */
export function jsonObject(text: string): Record<string, unknown> {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw badForm({ text: 'This is not readable JSON' });
  }
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) throw badForm({ order: 'An order is a JSON object' });
  return raw as Record<string, unknown>;
}

/** Reads a message as its kind of form. Problem 400 with what is against it, field by field. */
export async function readForm<T extends object>(form: ClassConstructor<T>, raw: Record<string, unknown>): Promise<T> {
  const read = plainToInstance(form, raw);
  const faults = await validate(read, { whitelist: true });
  if (faults.length > 0) throw badForm(faultsIn(faults));
  return read;
}
