import type { PlaceFacts } from '@vectrum/core/scan';
import { one, type Tx } from '../platform/index.js';

/** The first open place of a kind at a site, in walking order. */
export function firstPlace(tx: Pick<Tx, 'query'>, siteId: number, kind: string): Promise<PlaceFacts | undefined> {
  return one<PlaceFacts>(
    tx,
    'SELECT id, code, kind, site_id AS siteId FROM place WHERE site_id = ? AND kind = ? AND blocked = 0 ORDER BY walk_order, id LIMIT 1',
    [siteId, kind],
  );
}

/** The dock that goods come to: the one that was said, while it is open, otherwise the site's first. */
export async function dockOf(tx: Pick<Tx, 'query'>, siteId: number, doorId: number | null): Promise<PlaceFacts | undefined> {
  const said = await one<PlaceFacts>(
    tx,
    `SELECT id, code, kind, site_id AS siteId FROM place WHERE id = ? AND site_id = ? AND kind = 'dock' AND blocked = 0`,
    [doorId ?? 0, siteId],
  );
  return said ?? firstPlace(tx, siteId, 'dock');
}
