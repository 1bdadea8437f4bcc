import { isFor, PLACE_KINDS } from '@vectrum/core/places';
import type { GatherBin } from '@vectrum/core/scan';
import { spareSql } from '../allocation/index.js';
import { marks, num, rows, sqlList, type Tx } from '../platform/index.js';

const SHELVES = sqlList(PLACE_KINDS.filter((k) => isFor(k, 'shelf')));

/** The bins of a site from which goods may be gathered, for each item in the order in which they are due: what dates first, then what came first. */
export async function binsFor(tx: Tx, siteId: number, itemIds: readonly number[]): Promise<Map<number, GatherBin[]>> {
  const found = await rows<{ itemId: number; placeId: number; code: string; lotId: number; lot: string | null; spare: string }>(
    tx,
    `SELECT b.item_id AS itemId, b.place_id AS placeId, p.code, b.lot_id AS lotId, l.code AS lot, ${spareSql('b')} AS spare
     FROM balance b JOIN place p ON p.id = b.place_id AND p.site_id = ? AND p.kind IN ${SHELVES} AND p.blocked = 0 LEFT JOIN lot l ON l.id = b.lot_id
     WHERE b.stock_condition = 'good' AND b.units > 0 AND b.item_id IN (${marks(itemIds)}) ORDER BY l.expires_on IS NULL, l.expires_on, l.first_received_on, p.pickable, p.walk_order, p.id`,
    [siteId, ...itemIds],
  );
  const bins = new Map<number, GatherBin[]>();
  for (const { itemId, spare, ...bin } of found)
    if (num(spare) > 0) bins.set(itemId, [...(bins.get(itemId) ?? []), { ...bin, spare: num(spare) }]);
  return bins;
}
