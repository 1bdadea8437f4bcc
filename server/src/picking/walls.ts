import { num, one, type Tx } from '../platform/index.js';

/** The slots of the largest sorting wall of a site, those that may be used; nought where it has none. */
export async function largestWall(tx: Pick<Tx, 'query'>, siteId: number): Promise<number> {
  const found = await one<{ slots: string | number }>(
    tx,
    `SELECT COUNT(*) AS slots FROM place s JOIN place w ON w.id = s.parent_id AND w.kind = 'sorting-wall' AND w.blocked = 0
     WHERE s.site_id = ? AND s.kind = 'wall-slot' AND s.blocked = 0 GROUP BY w.id ORDER BY slots DESC LIMIT 1`,
    [siteId],
  );
  return num(found?.slots ?? 0);
}
