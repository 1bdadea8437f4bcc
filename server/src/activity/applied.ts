import { marks, rows, type Tx } from '../platform/database/tx.js';

/** A phone that has not heard of its command for longer than this asks again under the same key. */
const WINDOW_MINUTES = 15;

/** The commands that were lately carried out on documents. Read in the snapshot that the bundle is read in. */
export async function appliedTo(tx: Pick<Tx, 'query'>, documents: readonly string[]): Promise<string[]> {
  const found = await rows<{ id: string }>(
    tx,
    `SELECT command_id AS id FROM activity WHERE document IN (${marks(documents)}) AND command_id IS NOT NULL AND at > UTC_TIMESTAMP() - INTERVAL ? MINUTE`,
    [...documents, WINDOW_MINUTES],
  );
  return found.map((f) => f.id);
}

/** The same for acts of one kind at a site, where there is no document. */
export async function appliedAt(tx: Pick<Tx, 'query'>, kind: string, siteId: number): Promise<string[]> {
  const found = await rows<{ id: string }>(
    tx,
    'SELECT command_id AS id FROM activity WHERE kind = ? AND site_id = ? AND command_id IS NOT NULL AND at > UTC_TIMESTAMP() - INTERVAL ? MINUTE',
    [kind, siteId, WINDOW_MINUTES],
  );
  return found.map((f) => f.id);
}
