import { num, one, type Tx } from '../platform/index.js';

/** How many of goods that stand apart in a place (row `b` of balance) are a customer's, and only here to be repaired. */
export const OF_CUSTOMERS = `COALESCE((SELECT SUM(k.units) FROM came_back k JOIN customer_return_line kl ON kl.id = k.line_id WHERE b.stock_condition = 'apart' AND k.place_id = b.place_id AND kl.item_id = b.item_id AND k.lot_id = b.lot_id
  AND k.fate = 'repair' AND k.undone_at IS NULL AND k.given_back_id IS NULL), 0)`;

/** Units of goods that stand in a place and are not a customer's. */
export async function notOfCustomers(
  tx: Tx,
  goods: { itemId: number; lotId: number; placeId: number; condition: string },
): Promise<number> {
  const found = await one<{ units: string }>(
    tx,
    `SELECT b.units - ${OF_CUSTOMERS} AS units FROM balance b WHERE b.item_id = ? AND b.place_id = ? AND b.lot_id = ? AND b.stock_condition = ?`,
    [goods.itemId, goods.placeId, goods.lotId, goods.condition],
  );
  return num(found?.units);
}
