import { keptSku, SKU, SKU_SAYS } from '@vectrum/core/catalogue';
import { codeMadeDay, dayMadeNumber, type Measure, readDate, readDecimal, readWhole, readYesNo, roundedNumber } from '@vectrum/core/cells';
import type { Right } from '../identity/index.js';
import { type Act, dayIn, type Person, type Tx } from '../platform/index.js';
import type { MadeLog } from './made-log.js';

/** A cell that cannot be read, and why. */
export class Wrong {
  constructor(readonly reason: string) {}
}

export interface Column {
  key: string;
  /** How the column is headed in our own files. */
  label: string;
  also?: readonly string[];
  required?: boolean;
  /** The value of a cell; an empty cell of an optional column is null and never gets here. */
  read: Reader;
  /** It is a weight or a length, which files state in units of their own. */
  measure?: Measure;
}
/** Reads a cell; where it may be one of a few words only, these are its choices. */
export type Reader = ((text: string) => unknown) & { choices?: readonly string[] };

/** One row of a file: its number as a person counts it (the heads are row 1), and the values of the columns that were given. */
export interface ImportRow {
  n: number;
  values: Readonly<Record<string, unknown>>;
}

export interface RowFault {
  n: number;
  field: string;
  value: string;
  reason: string;
}

export type Cells = Readonly<Record<string, string>>;

/** What a file of one kind holds, how its rows are checked against the house, written, and read out again. */
export interface Shape {
  kind: string;
  says: string;
  /** Whoever takes such a file in needs it. */
  right: Right;
  /** The tables that it writes, with the columns that name a row: what it takes to take an import back. */
  tables: Readonly<Record<string, readonly string[]>>;
  /** Why the very same file may not be taken in twice; absent where it may. */
  onceOnly?: string;
  columns(tx: Pick<Tx, 'query'>, person: Person): Promise<Column[]> | Column[];
  /** What is wrong with a batch of rows. `memory` lives as long as the run, for what must differ over the whole file. */
  check(tx: Tx, rows: readonly ImportRow[], memory: Memory, person: Person): Promise<RowFault[]>;
  /** Writes rows that `check` found no fault with, in the transaction of the import. */
  write(tx: Tx, act: Act, rows: readonly ImportRow[], log: MadeLog, memory: Memory): Promise<void>;
  /** Rows as they would be taken in again, in a fixed order. */
  read(tx: Pick<Tx, 'query'>, person: Person): AsyncIterable<Cells>;
  /** Takes back what it noted in the log beside rows, the newest first. */
  takeBack?(tx: Tx, act: Act, what: unknown): Promise<void>;
  /** What else must be made right after an import was taken back. */
  undone?(tx: Tx): Promise<void>;
}

export class Memory {
  private readonly sets = new Map<string, Set<string>>();
  private readonly maps = new Map<string, unknown>();

  /** True the first time that `value` is seen under `name`. */
  first(name: string, value: string): boolean {
    const set = this.sets.get(name) ?? new Set<string>();
    this.sets.set(name, set);
    if (set.has(value)) return false;
    set.add(value);
    return true;
  }

  /** A value loaded once in a run. */
  async once<T>(name: string, load: () => Promise<T>): Promise<T> {
    if (!this.maps.has(name)) this.maps.set(name, await load());
    return this.maps.get(name) as T;
  }
}

export const fault = (row: ImportRow, field: string, value: unknown, reason: string): RowFault => ({
  n: row.n,
  field,
  value: typeof value === 'string' || typeof value === 'number' ? String(value) : '',
  reason,
});

/** A cell's value as text; absent or empty is ''. */
export const textOf = (row: ImportRow, key: string): string => {
  const value = row.values[key];
  return typeof value === 'string' ? value : typeof value === 'number' ? String(value) : '';
};
export const numberOf = (row: ImportRow, key: string): number | null => (typeof row.values[key] === 'number' ? row.values[key] : null);
/** Whether the file has the column at all: a column that it has not changes nothing. */
export const has = (row: ImportRow, key: string): boolean => Object.hasOwn(row.values, key);

/** Readers of cells. Each gives the value, or says in words what the cell should hold. */
export const cell = {
  text: (most: number) => (t: string) => {
    const damage = roundedNumber(t);
    return damage ? new Wrong(damage) : t.length > most ? new Wrong(`This is longer than ${most} characters`) : t;
  },
  code:
    (pattern: RegExp, says: string, kept: (code: string) => string = (code) => code.toUpperCase()) =>
    (t: string) => {
      const damage = roundedNumber(t) ?? codeMadeDay(t);
      return damage ? new Wrong(damage) : pattern.test(kept(t)) ? kept(t) : new Wrong(says);
    },
  whole:
    (least: number, most = 1_000_000_000) =>
    (t: string) => {
      const n = readWhole(t);
      return n === null || n < least || n > most ? new Wrong(`This should be a whole number from ${least} to ${most}`) : n;
    },
  decimal: (t: string) => {
    const d = readDecimal(t);
    return d === null || d.startsWith('-') || !/^\d{1,10}(\.\d{1,6})?$/.test(d)
      ? new Wrong('This should be a number of nought or more, with at most 6 decimal places')
      : d;
  },
  metres: (t: string) => {
    const d = readDecimal(t);
    return d === null || Math.abs(Number(d)) > 9999 ? new Wrong('This should be metres, such as 12.5') : d;
  },
  yesNo: Object.assign((t: string) => readYesNo(t) ?? new Wrong('This should be yes or no'), { choices: ['yes', 'no'] }) as Reader,
  date: (t: string) => readDate(t) ?? new Wrong(dayMadeNumber(t) ?? 'This should be a date, such as 2026-05-14'),
  oneOf: (choices: readonly string[]): Reader =>
    Object.assign(
      (t: string) => {
        const word = t
          .trim()
          .toLowerCase()
          .replace(/[\s_]+/g, '-');
        return choices.includes(word) ? word : new Wrong(`This should be one of: ${choices.join(', ')}`);
      },
      { choices },
    ),
  mail: (t: string) => (/^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(t) && t.length <= 190 ? t : new Wrong('This should be an e-mail address')),
};

export const skuColumn = (
  key = 'sku',
  label = 'SKU',
  also: string[] = ['item code', 'item', 'stock code', 'part number', 'article'],
): Column => ({
  key,
  label,
  also,
  required: true,
  read: cell.code(SKU, SKU_SAYS, keptSku),
});
export const yes = (value: unknown) => (value === 1 || value === true ? 'yes' : 'no');
export const text = (value: unknown) =>
  value === null || value === undefined ? '' : value instanceof Date ? dayIn('UTC', value) : String(value);
/** A decimal of the database without its trailing noughts. */
export const trimmed = (value: string | null) => (value === null ? '' : value.includes('.') ? value.replace(/\.?0+$/, '') : value);
