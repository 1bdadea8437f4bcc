import { isFor, PLACE_KINDS } from '@vectrum/core/places';
import type { GatherBin } from '@vectrum/core/scan';
import { spareSql } from '../allocation/index.js';
import { marks, num, rows, sqlList, type Tx } from '../platform/index.js';

const SHELVES = sqlList(PLACE_KINDS.filter((k) => isFor(k, 'shelf')));

/**
 * The bins of a site from which goods may be gathered for a document, for each item in the order in which they are due: what dates
 * first, then what came first; no more in all than it holds and nobody else does.
 */
export async function binsFor(tx: Tx, document: string, siteId: number, itemIds: readonly number[]): Promise<Map<number, GatherBin[]>> {
  const may = new Map(
    (
      await rows<{ itemId: number; units: string }>(
        tx,
        `SELECT s.item_id AS itemId, GREATEST(0, CAST(s.on_hand AS SIGNED) - s.held - s.reserved) + COALESCE((SELECT SUM(e.units) FROM earmark e WHERE e.document = ? AND e.item_id = s.item_id), 0) AS units
         FROM site_stock s WHERE s.site_id = ? AND s.item_id IN (${marks(itemIds)})`,
        [document, siteId, ...itemIds],
      )
    ).map((m) => [m.itemId, num(m.units)]),
  );
  const found = await rows<{ itemId: number; placeId: number; code: string; lotId: number; lot: string | null; spare: string }>(
    tx,
    `SELECT b.item_id AS itemId, b.place_id AS placeId, p.code, b.lot_id AS lotId, l.code AS lot, ${spareSql('b')} AS spare
     FROM balance b JOIN place p ON p.id = b.place_id AND p.site_id = ? AND p.kind IN ${SHELVES} AND p.blocked = 0 LEFT JOIN lot l ON l.id = b.lot_id
     WHERE b.stock_condition = 'good' AND b.units > 0 AND b.item_id IN (${marks(itemIds)}) ORDER BY l.expires_on IS NULL, l.expires_on, l.first_received_on, p.pickable, p.walk_order, p.id`,
    [siteId, ...itemIds],
  );
  const bins = new Map<number, GatherBin[]>();
  for (const { itemId, spare, ...bin } of found) {
    const left = may.get(itemId) ?? 0;
    const units = Math.min(num(spare), left);
    if (units <= 0) continue;
    may.set(itemId, left - units);
    bins.set(itemId, [...(bins.get(itemId) ?? []), { ...bin, spare: units }]);
  }
  return bins;
}
