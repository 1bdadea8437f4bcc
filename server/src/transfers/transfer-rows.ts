import { notFound, type Person, Problem, type Row, rows, type Tx } from '../platform/index.js';

export type TransferRow = Row<'transfer'>;

/** A transfer by its code, held until the transaction ends. */
export async function transferOf(tx: Tx, code: string): Promise<TransferRow> {
  const [row] = await rows<TransferRow>(tx, 'SELECT * FROM transfer WHERE code = ? FOR UPDATE', [code.toUpperCase()]);
  if (!row) throw notFound(`Transfer ${code.slice(0, 20)}`);
  return row;
}

/** Refuses whoever is at neither end of a transfer. */
export function mustBeAtEither(person: Person, t: Pick<TransferRow, 'from_site_id' | 'to_site_id'>): void {
  if (!person.siteIds.includes(t.from_site_id) && !person.siteIds.includes(t.to_site_id))
    throw new Problem(403, 'wrong-site', 'You are set up for neither of its sites. Ask whoever sets up people');
}
