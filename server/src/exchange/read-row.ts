import { readMeasure } from '@vectrum/core/cells';
import { type Column, type ImportRow, type RowFault, Wrong } from './shape.js';

/** What a word of a file is read as, by field and by the word in small letters; said by a person who looked at it. */
export type Words = Readonly<Record<string, Readonly<Record<string, string>>>>;

/** What a column of a file holds: the field, and the unit in which its numbers are, where it measures. */
export interface Held {
  column: Column;
  unit: string | null;
}

export const wordKey = (value: string): string => value.trim().toLowerCase();

/** Reads the cells of a row by what its columns hold. Every fault is named; a row with one is not taken in. */
export function readRow(
  n: number,
  cells: readonly string[],
  mapping: readonly (Held | undefined)[],
  words: Words,
): { row: ImportRow; faults: RowFault[] } {
  const values: Record<string, unknown> = {};
  const faults: RowFault[] = [];
  mapping.forEach((held, i) => {
    if (!held) return;
    const { column, unit } = held;
    const cell = cells[i] ?? '';
    const own = words[column.key];
    const text = own && Object.hasOwn(own, wordKey(cell)) ? (own[wordKey(cell)] ?? '') : cell;
    if (text === '') {
      if (column.required) faults.push({ n, field: column.key, value: cell, reason: `${column.label} is missing` });
      values[column.key] = null;
      return;
    }
    // What is no measure is left to the column, which says what it should be.
    const measured = column.measure ? (readMeasure(text, column.measure, unit ?? undefined) ?? text) : text;
    const value = column.read(measured);
    if (value instanceof Wrong) faults.push({ n, field: column.key, value: cell, reason: value.reason });
    else values[column.key] = value;
  });
  return { row: { n, values }, faults };
}
