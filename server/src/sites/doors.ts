import { badForm, one, type Tx } from '../platform/index.js';

/** The dock of a site behind a code; null where none is named. A `form` problem where the site has no such dock. */
export async function doorId(tx: Pick<Tx, 'query'>, siteId: number, code: string | null | undefined): Promise<number | null> {
  if (!code) return null;
  const found = await one<{ id: number }>(tx, `SELECT id FROM place WHERE code = ? AND site_id = ? AND kind = 'dock'`, [
    code.trim().toUpperCase(),
    siteId,
  ]);
  if (!found) throw badForm({ door: `${code} is no dock of this site. Choose one from the list` });
  return found.id;
}
