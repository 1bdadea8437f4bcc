import { refused, rows, type Tx } from '../platform/index.js';

/** Goods that a command names, in a shared tote. */
export interface PooledGoods {
  roundId: number;
  orderId: number;
  itemId: number;
  lotId: number;
  toteId: number;
}

/**
 * The lines of an order that hold so many of these goods in a shared tote of a round, with the units of each. Refuses more than they
 * hold there: it is sorted already, or wanted no longer.
 */
export async function pooledLines(
  tx: Tx,
  { roundId, orderId, itemId, lotId, toteId }: PooledGoods,
  units: number,
  name: string,
): Promise<{ lineId: number; units: number }[]> {
  const found = await rows<{ lineId: number; units: number }>(
    tx,
    `SELECT v.order_line_id AS lineId, v.units FROM tote_use u JOIN reservation v ON v.place_id = u.open_tote JOIN sales_order_line l ON l.id = v.order_line_id
     WHERE u.round_id = ? AND u.order_id IS NULL AND u.set_down_at IS NOT NULL AND u.open_tote = ? AND l.order_id = ? AND v.item_id = ? AND v.lot_id = ? ORDER BY l.line`,
    [roundId, toteId, orderId, itemId, lotId],
  );
  const held = found.reduce((n, l) => n + l.units, 0);
  if (units > held) {
    const detail = held > 0 ? `Its order wants ${held} of it by now. Scan it again` : 'Its order wants no more of it by now. Scan it again';
    throw refused({ band: 'too-many', title: name, detail });
  }
  let rest = units;
  return found.flatMap((line) => {
    const part = Math.min(rest, line.units);
    rest -= part;
    return part > 0 ? [{ lineId: line.lineId, units: part }] : [];
  });
}
