import type { Tx } from './tx.js';

type Value = string | number | bigint | boolean | Date | Buffer | null | undefined;
/** Values by column. A column whose value is undefined is left as it is, or at its default. */
export type Row = Readonly<Record<string, Value>>;
type Writer = Pick<Tx, 'query'>;

const NAME = /^[a-z][a-z0-9_]*$/;
const quoted = (name: string): string => {
  if (!NAME.test(name)) throw new RangeError(`Not a name for SQL: ${name}`);
  return `\`${name}\``;
};
const given = (row: Row): [string, Exclude<Value, undefined>][] =>
  Object.entries(row).flatMap(([column, value]) => (value === undefined ? [] : [[column, value]]));

/** Inserts one row and returns its number, where the table gives one. Names come from the code, values are bound. */
export async function insert(tx: Writer, table: string, row: Row): Promise<number> {
  const columns = given(row);
  const done = await tx.query<{ insertId: number; affectedRows: number }>(
    `INSERT INTO ${quoted(table)} (${columns.map(([c]) => quoted(c)).join(', ')}) VALUES (${columns.map(() => '?').join(', ')})`,
    columns.map(([, v]) => v),
  );
  return done.insertId;
}

/** Changes the rows that have these values; returns how many were found. An empty condition is refused. */
export async function update(tx: Writer, table: string, where: Row, set: Row): Promise<number> {
  const [sets, conditions] = [given(set), given(where)];
  if (conditions.length === 0) throw new RangeError(`Which rows of ${table}?`);
  if (sets.length === 0) return 0;
  const done = await tx.query<{ insertId: number; affectedRows: number }>(
    `UPDATE ${quoted(table)} SET ${sets.map(([c]) => `${quoted(c)} = ?`).join(', ')} WHERE ${matching(conditions)}`,
    [...sets, ...conditions]
      .flatMap(([, v]) => (v === null ? [null] : [v]))
      .filter((_, i) => i < sets.length || conditions[i - sets.length]?.[1] !== null),
  );
  return done.affectedRows;
}

/** Takes away the rows that have these values; returns how many there were. */
export async function remove(tx: Writer, table: string, where: Row): Promise<number> {
  const conditions = given(where);
  if (conditions.length === 0) throw new RangeError(`Which rows of ${table}?`);
  const done = await tx.query<{ insertId: number; affectedRows: number }>(
    `DELETE FROM ${quoted(table)} WHERE ${matching(conditions)}`,
    boundOf(conditions),
  );
  return done.affectedRows;
}

const matching = (conditions: readonly (readonly [string, Value])[]) =>
  conditions.map(([c, v]) => (v === null ? `${quoted(c)} IS NULL` : `${quoted(c)} = ?`)).join(' AND ');
/** The values that a condition binds: null is said in words. */
const boundOf = (conditions: readonly (readonly [string, Value])[]) => conditions.flatMap(([, v]) => (v === null ? [] : [v]));
