import { one, type Tx } from '../platform/index.js';

/** Whether anybody walks rounds at a site; otherwise goods are packed from the shelf. */
export async function picksAt(tx: Pick<Tx, 'query'>, siteId: number): Promise<boolean> {
  const site = await one<{ picks: number }>(tx, 'SELECT picks FROM site WHERE id = ?', [siteId]);
  return site?.picks !== 0;
}
