import { readDate, readDecimal, readYesNo } from '@vectrum/core/cells';
import { badForm, parsed, rows, type Tx } from '../platform/index.js';
import type { ExtraFieldDto } from './items.dto.js';

/** The company's own fields of an item, in their order. */
export async function extraFields(tx: Pick<Tx, 'query'>): Promise<ExtraFieldDto[]> {
  const found = await rows<ExtraFieldDto & { choices: unknown }>(tx, 'SELECT name, kind, choices FROM extra_field ORDER BY position, id');
  return found.map((f) => ({ ...f, choices: parsed<string[]>(f.choices) }));
}

/** A value in the one form in which a field of its kind is kept, or what it should have been. */
export function extraValue(field: ExtraFieldDto, text: string): { value: string } | { wrong: string } {
  const t = text.trim();
  switch (field.kind) {
    case 'number': {
      const value = readDecimal(t);
      return value === null ? { wrong: `${field.name} is a number` } : { value };
    }
    case 'date': {
      const value = readDate(t);
      return value === null ? { wrong: `${field.name} is a date, such as 2026-05-14` } : { value };
    }
    case 'yes-no': {
      const value = readYesNo(t);
      return value === null ? { wrong: `${field.name} is yes or no` } : { value: value ? 'yes' : 'no' };
    }
    case 'choice': {
      const value = field.choices.find((c) => c.toLowerCase() === t.toLowerCase());
      return value === undefined ? { wrong: `${field.name} is one of: ${field.choices.join(', ')}` } : { value };
    }
    default:
      return t.length > 200 ? { wrong: `${field.name} is longer than 200 characters` } : { value: t };
  }
}

/** The values of an item's own fields, checked; refuses a field that the company has not. */
export function checkExtra(fields: readonly ExtraFieldDto[], given: Readonly<Record<string, unknown>>): Record<string, string> {
  const kept: Record<string, string> = {};
  for (const [name, raw] of Object.entries(given)) {
    const field = fields.find((f) => f.name === name);
    if (!field) throw badForm({ extra: `There is no field called ${name.slice(0, 40)}` });
    if (typeof raw !== 'string') throw badForm({ extra: `${name} is text` });
    if (raw.trim() === '') continue;
    const read = extraValue(field, raw);
    if ('wrong' in read) throw badForm({ extra: read.wrong });
    kept[name] = read.value;
  }
  return kept;
}
