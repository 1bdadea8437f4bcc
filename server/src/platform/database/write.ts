import type { Tables } from './tables.generated.js';
import { prepared, preparedRows } from './prepared.js';
import type { Tx } from './tx.js';

type Writer = Pick<Tx, 'query'>;
export type TableName = keyof Tables;
/** A row as it is read: `select *` of its table. */
export type Row<T extends TableName> = Tables[T]['row'];

/** The moment at which the database carries the statement out, in UTC. */
export const NOW = Symbol('now');
/** One more than the column holds. */
export const NEXT = Symbol('next');
class More {
  constructor(readonly units: number | string) {}
}
/** What the column holds and so much more; less where it is negative. */
export const more = (units: number | string) => new More(units);

/** What a column can be given: decimals also as numbers, instants also as now, JSON as text. */
type Given<V> =
  | (unknown extends V ? string | null : V)
  | (Date extends V ? typeof NOW : never)
  | (string extends V ? number : never)
  | (number extends V ? boolean | bigint : never);
type Writable<T extends TableName> = Exclude<keyof Row<T>, Tables[T]['computed']>;
/** A new row: what the table asks for, and whatever else is known. A column that is undefined takes its default. */
export type NewRow<T extends TableName> = { readonly [C in Tables[T]['needs'] & keyof Row<T>]: Given<Row<T>[C]> } & {
  readonly [C in Writable<T>]?: Given<Row<T>[C]> | undefined;
};
/** Columns to be changed; one that is undefined stays as it is. */
export type Change<T extends TableName> = {
  readonly [C in Writable<T>]?:
    Given<Row<T>[C]> | (number extends Row<T>[C] ? typeof NEXT | More : string extends Row<T>[C] ? More : never) | undefined;
};
/** Large numbers are read as text, and may be asked for as numbers. */
type Key<V> = V | (string extends V ? number : never);
/** Rows that have these values: a list means any of them, null means none. */
export type Where<T extends TableName> = { readonly [C in keyof Row<T>]?: Key<Row<T>[C]> | readonly Key<Row<T>[C]>[] };

/** Refuses columns that the table has not, in what is spread too. */
type Only<T extends TableName, R> = { readonly [C in Exclude<keyof R, Writable<T>>]: never };

/** Inserts one row and returns its number, where the table gives one. */
export async function insert<T extends TableName, R extends NewRow<T>>(tx: Writer, table: T, row: R & Only<T, R>): Promise<number> {
  const columns = given(row);
  const done = await prepared<{ insertId: number }>(
    tx,
    `INSERT INTO \`${table}\` (${columns.map(([c]) => `\`${c}\``).join(', ')}) VALUES (${columns.map(([c, v]) => spelt(c, v)).join(', ')})`,
    bound(columns),
  );
  return done.insertId;
}

/** Inserts many rows in statements of 500, which is what the database takes fastest. `then` is SQL for rows that are there. O(rows). */
export async function insertMany<T extends TableName>(
  tx: Writer,
  table: T,
  columns: readonly (Writable<T> & string)[],
  values: readonly (readonly unknown[])[],
  then = '',
): Promise<void> {
  for (let i = 0; i < values.length; i += 500)
    await preparedRows(tx, {
      before: `INSERT INTO \`${table}\` (${columns.map((c) => `\`${c}\``).join(', ')}) VALUES`,
      given: values.slice(i, i + 500),
      after: then,
    });
}

/** Changes the rows that have these values; returns how many were changed. A condition that names nothing is refused. */
export async function update<T extends TableName, C extends Change<T>>(
  tx: Writer,
  table: T,
  where: Where<T>,
  change: C & Only<T, C>,
): Promise<number> {
  const [sets, which] = [given(change), condition(table, where)];
  if (sets.length === 0) return 0;
  const sql = `UPDATE \`${table}\` SET ${sets.map(([c, v]) => `\`${c}\` = ${spelt(c, v)}`).join(', ')} WHERE ${which.sql}`;
  const values = [...bound(sets), ...which.values];
  const done = await prepared<Done>(tx, sql, values);
  return done.affectedRows;
}

/** Takes away the rows that have these values; returns how many there were. A condition that names nothing is refused. */
export async function remove<T extends TableName>(tx: Writer, table: T, where: Where<T>): Promise<number> {
  const which = condition(table, where);
  const done = await prepared<Done>(tx, `DELETE FROM \`${table}\` WHERE ${which.sql}`, which.values);
  return done.affectedRows;
}

/** The row that has these values, if there is one; `lock` keeps it from being changed by others until the transaction ends. */
export async function find<T extends TableName>(tx: Writer, table: T, where: Where<T>, lock?: 'lock'): Promise<Row<T> | undefined> {
  const which = condition(table, where);
  const found = await prepared<Row<T>[]>(
    tx,
    `SELECT * FROM \`${table}\` WHERE ${which.sql} LIMIT 1${lock ? ' FOR UPDATE' : ''}`,
    which.values,
  );
  return found[0];
}

/** The row that must be there, since another names it. */
export async function theRow<T extends TableName>(tx: Writer, table: T, where: Where<T>): Promise<Row<T>> {
  const found = await find(tx, table, where);
  if (!found) throw new Error(`No row of ${table} where there must be one`);
  return found;
}

/** The rows that have these values, by a column. */
export function findAll<T extends TableName>(
  tx: Writer,
  table: T,
  where: Where<T>,
  order: keyof Row<T> & string,
  lock?: 'lock',
): Promise<Row<T>[]> {
  const which = condition(table, where);
  return prepared<Row<T>[]>(
    tx,
    `SELECT * FROM \`${table}\` WHERE ${which.sql} ORDER BY \`${order}\`${lock ? ' FOR UPDATE' : ''}`,
    which.values,
  );
}

interface Done {
  affectedRows: number;
}
type Pair = readonly [column: string, value: unknown];
const given = (row: object): Pair[] => Object.entries(row).filter(([, value]) => value !== undefined);
const spelt = (column: string, value: unknown) =>
  value === NOW
    ? 'UTC_TIMESTAMP(3)'
    : value === NEXT
      ? `\`${column}\` + 1`
      : value instanceof More
        ? `\`${column}\` + ${exact(value)}`
        : '?';
/** What is given goes as text, and a sum with text would be a floating one. */
const exact = ({ units }: More) => (typeof units === 'number' ? 'CAST(? AS SIGNED)' : 'CAST(? AS DECIMAL(38, 6))');
const bound = (pairs: readonly Pair[]) =>
  pairs.flatMap(([, value]) => (value === NOW || value === NEXT ? [] : [value instanceof More ? value.units : value]));

function condition(table: string, where: object): { sql: string; values: readonly unknown[] } {
  const pairs = given(where);
  if (pairs.length === 0) throw new RangeError(`Which rows of ${table}?`);
  const part = ([column, value]: Pair) =>
    value === null ? `\`${column}\` IS NULL` : Array.isArray(value) ? `\`${column}\` IN (${marks(value)})` : `\`${column}\` = ?`;
  return {
    sql: pairs.map(part).join(' AND '),
    values: pairs.flatMap(([, value]): readonly unknown[] => (value === null ? [] : Array.isArray(value) ? value : [value])),
  };
}

/** `?, ?, ?` for an IN list; an empty list matches nothing. */
export const marks = (list: readonly unknown[]) => (list.length === 0 ? 'NULL' : list.map(() => '?').join(', '));
