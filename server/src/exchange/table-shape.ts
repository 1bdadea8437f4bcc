import type { Right } from '../identity/index.js';
import { type Act, insertMany, type Person, rows, type TableName, type Tx } from '../platform/index.js';
import { atSitesOf, siteColumn } from './at-sites.js';
import type { MadeLog } from './made-log.js';
import {
  type Cells,
  type Column,
  fault,
  has,
  type ImportRow,
  type Memory,
  type RowFault,
  type Shape,
  text,
  textOf,
  trimmed,
  yes,
} from './shape.js';
import { idsBy, repeated, unknown } from './lookup.js';

export interface TableColumn extends Column {
  /** The column of the table. */
  column: string;
  /** What an empty cell means. */
  empty: string | number | null;
  /** The cell names a row of another table, by this column of it. */
  ref?: { table: string; by: string; says: (code: string) => string };
  /** How it is read out of the table's row `t`; its own column by default. */
  select?: string;
  as?: 'yes-no' | 'decimal';
  /** What is kept, where it is not what the cell says. */
  value?: (row: ImportRow, ids: RefIds) => string | number | null;
  /** Only for those who may see costs. */
  cost?: true;
}

export interface TableShape extends Pick<Shape, 'onceOnly' | 'undone'> {
  kind: string;
  says: string;
  right: Right;
  table: TableName;
  /** The keys of the columns that name a row. */
  key: readonly string[];
  columns: readonly TableColumn[];
  /** The column by which rows that change are found; part of the key. */
  changeBy: string;
  /** Joins for reading, beyond the table itself. */
  joins?: string;
  order: string;
  /** The primary key of the table, where it is not `id`. */
  rowKey?: readonly string[];
  /** Other tables that `after` writes, with their primary keys. */
  alsoWrites?: Shape['tables'];
  /** Whether rows count their versions. */
  versioned?: boolean;
  /** Values of columns that no cell gives. */
  fixed?: Readonly<Record<string, string | number>>;
  where?: string;
  /** Ids beyond those of the columns. */
  more?: (tx: Tx, ids: RefIds) => Promise<RefIds>;
  check?: (tx: Tx, batch: readonly ImportRow[], ids: RefIds, memory: Memory, person: Person) => Promise<RowFault[]> | RowFault[];
  after?: (tx: Tx, act: Act, batch: readonly ImportRow[], ids: RefIds, log: MadeLog) => Promise<void>;
}

/** Ids of what a batch refers to, by column key. */
export type RefIds = ReadonlyMap<string, ReadonlyMap<string, number>>;

const PAGE = 2_000;
const BATCH_KEYS = 500;

async function resolve(tx: Tx, shape: TableShape, batch: readonly ImportRow[], person: Person): Promise<RefIds> {
  const ids = new Map<string, Map<string, number>>();
  for (const c of shape.columns) {
    if (c.ref)
      ids.set(
        c.key,
        await idsBy(
          tx,
          c.ref.table,
          c.ref.by,
          batch.map((r) => textOf(r, c.key)),
          person,
        ),
      );
  }
  return new Map([...ids, ...((await shape.more?.(tx, ids)) ?? [])]);
}

function valueOf(row: ImportRow, c: TableColumn, ids: RefIds): string | number | null {
  if (c.value) return c.value(row, ids);
  const value = row.values[c.key] ?? null;
  if (value === null) return c.empty;
  if (c.ref) return ids.get(c.key)?.get(textOf(row, c.key).toUpperCase()) ?? null;
  return typeof value === 'boolean' ? (value ? 1 : 0) : (value as string | number);
}

const keyWords = (shape: TableShape, row: ImportRow) => shape.key.map((k) => textOf(row, k)).join(' ');

const keysOf = (shape: TableShape) => shape.key.flatMap((k) => shape.columns.filter((c) => c.key === k));

async function write(shape: TableShape, tx: Tx, act: Act, batch: readonly ImportRow[], log: MadeLog): Promise<void> {
  const ids = await resolve(tx, shape, batch, act.person);
  const keys = keysOf(shape);
  const keyOf = (r: ImportRow) => keys.map((c) => valueOf(r, c, ids));
  // 2.5 in a file and 2.50 in the table are one number.
  const name = (values: readonly unknown[]) =>
    values.map((v, i) => (keys[i]?.as === 'decimal' ? String(Number(v)) : String(v as string).toUpperCase())).join('\n');
  const known = new Set((await existing(tx, shape, keys, batch.map(keyOf))).map((found) => name(keys.map((c) => found[c.column]))));
  const fresh = batch.filter((r) => !known.has(name(keyOf(r))));
  const old = batch.filter((r) => known.has(name(keyOf(r))));
  if (fresh.length > 0) {
    const fixed = Object.entries(shape.fixed ?? {});
    await insertMany(
      tx,
      shape.table,
      [...shape.columns.map((c) => c.column), ...fixed.map(([c]) => c)] as never[],
      fresh.map((r) => [...shape.columns.map((c) => valueOf(r, c, ids)), ...fixed.map(([, v]) => v)]),
    );
    await log.createdKeys(shape.table, await existing(tx, shape, keys, fresh.map(keyOf)), true);
  }
  const changeBy = shape.columns.find((c) => c.column === shape.changeBy);
  if (old.length > 0 && changeBy) {
    await log.change(
      shape.table,
      shape.changeBy,
      [...new Set(old.map((r) => valueOf(r, changeBy, ids)))],
      async () => {
        for (const r of old) {
          const given = shape.columns.filter((c) => has(r, c.key) && !shape.key.includes(c.key));
          const sets = [...given.map((c) => `\`${c.column}\` = ?`), ...(shape.versioned ? ['version = version + 1'] : [])];
          if (given.length === 0) continue;
          await tx.query(`UPDATE \`${shape.table}\` SET ${sets.join(', ')} WHERE ${keys.map((c) => `\`${c.column}\` = ?`).join(' AND ')}`, [
            ...given.map((c) => valueOf(r, c, ids)),
            ...keyOf(r),
          ]);
        }
      },
      true,
    );
  }
  await shape.after?.(tx, act, batch, ids, log);
}

/** The rows that have one of the keys, with all that names them. */
async function existing(tx: Tx, shape: TableShape, keys: readonly TableColumn[], wanted: readonly (readonly unknown[])[]) {
  const found: Record<string, unknown>[] = [];
  for (let i = 0; i < wanted.length; i += BATCH_KEYS) {
    const some = wanted.slice(i, i + BATCH_KEYS);
    const tuple = `(${keys.map(() => '?').join(', ')})`;
    found.push(
      ...(await rows<Record<string, unknown>>(
        tx,
        `SELECT * FROM \`${shape.table}\` WHERE (${keys.map((c) => `\`${c.column}\``).join(', ')}) IN (${some.map(() => tuple).join(', ')})`,
        some.flat(),
      )),
    );
  }
  return found;
}

/** Faults of rows that would change what is at a site where the person does not work. */
async function farAway(tx: Tx, shape: TableShape, batch: readonly ImportRow[], ids: RefIds, person: Person): Promise<RowFault[]> {
  const column = siteColumn(shape.table);
  const keys = keysOf(shape);
  // Where the site is part of the key, a site of others was not found in the first place.
  if (column === undefined || keys.some((c) => c.column === column)) return [];
  const keyOf = (values: readonly unknown[]) => values.map((v) => String(v as string).toUpperCase()).join('\n');
  const wanted = batch.map((r) => keys.map((c) => valueOf(r, c, ids)));
  const found = await existing(tx, shape, keys, wanted);
  const far = new Set(found.filter((f) => !person.siteIds.includes(f[column] as number)).map((f) => keyOf(keys.map((c) => f[c.column]))));
  const field = shape.key.at(-1) ?? '';
  return batch.flatMap((r, i) =>
    far.has(keyOf(wanted[i] ?? []))
      ? [fault(r, field, textOf(r, field), `${textOf(r, field)} is at a site where you are not set up. Ask somebody who is`)]
      : [],
  );
}

/** What bounds the rows that are given out: the site of the row itself, and of all that it names. */
function bounds(shape: TableShape, person: Person): { sql: string[]; params: unknown[] } {
  const own = atSitesOf(person, shape.table, 't.');
  const named = shape.columns.flatMap((c) => {
    const bound = c.ref && atSitesOf(person, c.ref.table);
    if (!bound || (own && c.ref?.table === 'site')) return [];
    const at = `t.\`${c.column}\``;
    return [{ sql: `(${at} IS NULL OR ${at} IN (SELECT id FROM \`${c.ref?.table ?? ''}\` WHERE ${bound.sql}))`, params: bound.params }];
  });
  const all = [...(own ? [own] : []), ...named];
  return { sql: all.map((b) => b.sql), params: all.flatMap((b) => b.params) };
}

async function* read(shape: TableShape, tx: Pick<Tx, 'query'>, person: Person): AsyncIterable<Cells> {
  const shown = shape.columns.filter((c) => !c.cost || person.seesCosts);
  const select = shown.map((c) => `${c.select ?? `t.\`${c.column}\``} AS \`${c.key}\``).join(', ');
  const { sql, params } = bounds(shape, person);
  const where = [...(shape.where ? [shape.where] : []), ...sql].join(' AND ');
  for (let from = 0; ; from += PAGE) {
    const found = await rows<Record<string, unknown>>(
      tx,
      `SELECT ${select} FROM \`${shape.table}\` t ${shape.joins ?? ''} ${where ? `WHERE ${where}` : ''} ORDER BY ${shape.order} LIMIT ? OFFSET ?`,
      [...params, PAGE, from],
    );
    for (const r of found) {
      yield Object.fromEntries(
        shown.map((c) => [
          c.key,
          c.as === 'yes-no' ? yes(r[c.key]) : c.as === 'decimal' ? trimmed(r[c.key] as string | null) : text(r[c.key]),
        ]),
      );
    }
    if (found.length < PAGE) return;
  }
}

/** A shape whose rows are rows of one table: found by its key, made or changed, read out in a fixed order. */
export function tableShape(shape: TableShape): Shape {
  return {
    kind: shape.kind,
    says: shape.says,
    right: shape.right,
    tables: { [shape.table]: shape.rowKey ?? ['id'], ...shape.alsoWrites },
    ...(shape.undone ? { undone: shape.undone } : {}),
    columns: (_, person) => shape.columns.filter((c) => !c.cost || person.seesCosts),
    check: async (tx, batch, memory, person) => {
      const ids = await resolve(tx, shape, batch, person);
      const refs = shape.columns.flatMap((c) => (c.ref ? unknown(batch, c.key, ids.get(c.key) ?? new Map(), c.ref.says) : []));
      const twice = repeated(batch, memory, shape.key.at(-1) ?? '', (r) => keyWords(shape, r));
      const far = await farAway(tx, shape, batch, ids, person);
      return [...refs, ...twice, ...far, ...((await shape.check?.(tx, batch, ids, memory, person)) ?? [])];
    },
    write: (tx, act, batch, log) => write(shape, tx, act, batch, log),
    read: (tx, person) => read(shape, tx, person),
  };
}
