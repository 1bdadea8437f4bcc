import { badState, insert, isReferenced, marks, rows, type Tx } from '../platform/index.js';

type Image = Record<string, unknown>;

/** Tables that a shape writes, with the columns that name a row. */
export type Keys = Readonly<Record<string, readonly string[]>>;

const keyOf = (keys: readonly string[], image: Image) => keys.map((k) => String(image[k] as number)).join('/');
/** Figures that the house keeps by itself; a row with only these altered counts as it was. */
const KEPT_BY_ITSELF = /^(lacks_|told_|believed_|due$|poll|next_p|push_|answered_at|version$)/;
const plainImage = (image: Image) => JSON.stringify(Object.entries(image).filter(([k]) => !KEPT_BY_ITSELF.test(k)));
const same = (a: Image, b: Image) => plainImage(a) === plainImage(b);
const versionOf = (image: Image | undefined) => Number(image?.['version'] ?? 1);

function columnsOf(tables: Keys, table: string): readonly string[] {
  const keys = tables[table];
  if (!keys) throw new Error(`This import does not write ${table}`);
  return keys;
}

async function read(tx: Tx, table: string, where: string, values: readonly unknown[]): Promise<Image[]> {
  return rows<Image>(tx, `SELECT * FROM \`${table}\` WHERE ${where}`, [...values]);
}

/**
 * What an import wrote, batch by batch, so that all of it can be taken back: rows that it made by their keys, rows that it
 * changed as they were before and after. Movements are not among them; the ledger reverses those.
 */
export class MadeLog {
  made = 0;
  changed = 0;
  private seq = 0;

  constructor(
    private readonly tx: Tx,
    private readonly importId: string,
    private readonly tables: Keys,
  ) {}

  /** Remembers rows that were made, found by a column. */
  async created(table: string, column: string, values: readonly unknown[], counts = false): Promise<void> {
    if (values.length === 0) return;
    const keys = columnsOf(this.tables, table);
    const found = await rows<Image>(
      this.tx,
      `SELECT ${keys.map((k) => `\`${k}\``).join(', ')} FROM \`${table}\` WHERE \`${column}\` IN (${marks(values)})`,
      [...values],
    );
    if (counts) this.made += found.length;
    await this.keep(table, null, found);
  }

  /** Remembers keys of rows that were made. */
  async createdKeys(table: string, keys: readonly Image[], counts = false): Promise<void> {
    if (keys.length === 0) return;
    if (counts) this.made += keys.length;
    await this.keep(table, null, keys);
  }

  /** Runs a change of rows and remembers them before and after; rows that stay as they are count for nothing. */
  async change(table: string, column: string, values: readonly unknown[], work: () => Promise<void>, counts = false): Promise<void> {
    if (values.length === 0) return;
    const keys = columnsOf(this.tables, table);
    const where = `\`${column}\` IN (${marks(values)})`;
    const before = await read(this.tx, table, `${where} FOR UPDATE`, values);
    await work();
    const after = new Map((await read(this.tx, table, where, values)).map((r) => [keyOf(keys, r), r]));
    const altered = before.filter((b) => !same(b, after.get(keyOf(keys, b)) ?? {}));
    // A row that a file only confirms has not changed: whoever has it open may still keep it.
    const confirmed = before.filter((b) => !altered.includes(b) && versionOf(after.get(keyOf(keys, b))) === versionOf(b) + 1);
    if (confirmed.length > 0) {
      const tuple = `(${marks(keys)})`;
      await this.tx.query(
        `UPDATE \`${table}\` SET version = version - 1 WHERE (${keys.map((k) => `\`${k}\``).join(', ')}) IN (${confirmed.map(() => tuple).join(', ')})`,
        confirmed.flatMap((b) => keys.map((k) => b[k])),
      );
    }
    if (counts) this.changed += altered.length;
    if (altered.length > 0)
      await this.keep(
        table,
        altered,
        altered.map((b) => after.get(keyOf(keys, b)) ?? {}),
      );
    const old = new Set(before.map((b) => keyOf(keys, b)));
    const fresh = [...after].filter(([key]) => !old.has(key)).map(([, r]) => Object.fromEntries(keys.map((k) => [k, r[k]])));
    await this.createdKeys(table, fresh);
  }

  /** Remembers something that only its own module can take back. */
  async note(target: string, what: unknown): Promise<void> {
    await this.keep(target, null, what);
  }

  private async keep(target: string, before: readonly Image[] | null, after: unknown): Promise<void> {
    await insert(this.tx, 'import_made', {
      import_id: this.importId,
      seq: ++this.seq,
      target,
      before_image: before === null ? null : JSON.stringify(before),
      after_image: JSON.stringify(after),
    });
  }
}

/** Taking a row back that somebody worked on since would lose that work. */
const changedSince = (table: string, row: Image) =>
  badState(
    `${String(row['sku'] ?? row['code'] ?? row['name'] ?? table)} was changed after this import. It stays as it is; change it by hand, or take the later import back first`,
  );

/** Takes one batch back. Refuses where a row was changed since, or where something depends on a row that was made. */
export async function takeBack(
  tx: Tx,
  tables: Keys,
  table: string,
  before: readonly Image[] | null,
  after: readonly Image[],
): Promise<void> {
  const keys = columnsOf(tables, table);
  if (before === null) {
    try {
      for (let i = 0; i < after.length; i += 500) {
        const some = after.slice(i, i + 500);
        const tuple = `(${keys.map(() => '?').join(', ')})`;
        const where = `(${keys.map((k) => `\`${k}\``).join(', ')}) IN (${some.map(() => tuple).join(', ')})`;
        const ids = some.flatMap((r) => keys.map((k) => r[k]));
        const changed = (await read(tx, table, `${where} FOR UPDATE`, ids)).find((r) => versionOf(r) > 1);
        if (changed) throw changedSince(table, changed);
        await tx.query(`DELETE FROM \`${table}\` WHERE ${where}`, ids);
      }
    } catch (thrown) {
      if (!isReferenced(thrown)) throw thrown;
      throw badState(
        `Something made by this import is in use: orders, stock or price lists name it (${table.replace(/_/g, ' ')}). Take those back first`,
      );
    }
    return;
  }
  for (const [i, old] of before.entries()) {
    const where = keys.map((k) => `\`${k}\` = ?`).join(' AND ');
    const ids = keys.map((k) => old[k]);
    const now = (await read(tx, table, `${where} FOR UPDATE`, ids))[0];
    if (!now || versionOf(now) !== versionOf(after[i]) || !same(JSON.parse(JSON.stringify(now)) as Image, after[i] ?? {})) {
      throw changedSince(table, old);
    }
    const columns = Object.keys(old).filter((c) => !keys.includes(c));
    await tx.query(`UPDATE \`${table}\` SET ${columns.map((c) => `\`${c}\` = ?`).join(', ')} WHERE ${where}`, [
      ...columns.map((c) => column(old[c])),
      ...ids,
    ]);
  }
}

const ISO_TIME = /^\d{4}-\d{2}-\d{2}T/;
const column = (value: unknown) =>
  value !== null && typeof value === 'object'
    ? JSON.stringify(value)
    : typeof value === 'string' && ISO_TIME.test(value)
      ? new Date(value)
      : value;
