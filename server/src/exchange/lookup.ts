import { marks, type Person, rows, type Tx } from '../platform/index.js';
import { atSitesOf, siteColumn } from './at-sites.js';
import { fault, type ImportRow, type Memory, type RowFault, textOf } from './shape.js';

type Reader = Pick<Tx, 'query'>;

/** Ids by code, for the codes that a batch of rows names; of what belongs to sites, only of those where the person works. Nobody is asked for what belongs to the whole house. */
export async function idsBy(
  tx: Reader,
  table: string,
  column: string,
  codes: readonly string[],
  person: Person | null,
): Promise<Map<string, number>> {
  const wanted = [...new Set(codes.filter(Boolean))];
  if (wanted.length === 0) return new Map();
  const bound = person ? atSitesOf(person, table) : undefined;
  if (!person && siteColumn(table)) throw new Error(`Say whose ${table} it is`);
  const found = await rows<{ id: number; code: string }>(
    tx,
    `SELECT id, \`${column}\` AS code FROM \`${table}\` WHERE \`${column}\` IN (${marks(wanted)})${bound ? ` AND ${bound.sql}` : ''}`,
    [...wanted, ...(bound?.params ?? [])],
  );
  return new Map(found.map((f) => [f.code.toUpperCase(), f.id]));
}

/** Faults of rows that name the same thing as an earlier row of the file. */
export function repeated(batch: readonly ImportRow[], memory: Memory, field: string, key: (row: ImportRow) => string): RowFault[] {
  return batch.flatMap((r) =>
    memory.first(field, key(r)) ? [] : [fault(r, field, key(r), `${key(r)} stands in an earlier row of this file too. Keep one of them`)],
  );
}

/** Faults of rows that name something which is not known. */
export function unknown(
  batch: readonly ImportRow[],
  field: string,
  known: ReadonlyMap<string, unknown>,
  says: (code: string) => string,
): RowFault[] {
  return batch.flatMap((r) => {
    const code = textOf(r, field);
    if (code === '' || known.has(code.toUpperCase())) return [];
    const noughts = /^\d+$/.test(code) ? '. If it begins with noughts, the spreadsheet may have dropped them' : '';
    return [fault(r, field, code, says(code) + noughts)];
  });
}

/** Reads a table in pages by id, so that memory is bounded. */
export async function* pages<T extends { id: number }>(load: (after: number) => Promise<T[]>): AsyncGenerator<T> {
  let after = 0;
  for (;;) {
    const page = await load(after);
    for (const row of page) yield row;
    const last = page.at(-1);
    if (!last) return;
    after = last.id;
  }
}
