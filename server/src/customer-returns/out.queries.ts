import { num, rows, type Tx } from '../platform/index.js';

/** A line of an order of which something left, and what of it is still with the customer. Units are base units. */
export interface OutLine {
  id: number;
  line: number;
  itemId: number;
  sku: string;
  name: string;
  picture: string;
  channelSku: string;
  /** So many have left, and so many of these are back. */
  gone: number;
  back: number;
  lots: { lotId: number; lot: string; left: number }[];
  numbers: string[];
}

/** Pieces that came back and are here for good: not undone, and not sent to the customer again after a repair. */
export const IS_BACK = 'c.undone_at IS NULL AND c.given_back_id IS NULL';

type Asks = Pick<Tx, 'query'>;

/** What left with an order, line by line: parts of kits by themselves, the kit not. */
export async function outLines(tx: Asks, orderId: number): Promise<OutLine[]> {
  const lines = await rows<Omit<OutLine, 'lots' | 'numbers' | 'back'> & { back: string }>(
    tx,
    `SELECT l.id, l.line, i.id AS itemId, i.sku, i.name, i.picture, l.channel_sku AS channelSku, l.shipped_units AS gone,
       COALESCE((SELECT SUM(c.units) FROM came_back c JOIN customer_return_line r ON r.id = c.line_id WHERE r.order_line_id = l.id AND ${IS_BACK}), 0) AS back
     FROM sales_order_line l JOIN item i ON i.id = l.item_id
     WHERE l.order_id = ? AND l.shipped_units > 0 AND NOT EXISTS (SELECT 1 FROM sales_order_line p WHERE p.order_id = l.order_id AND p.kit_line = l.line) ORDER BY l.line`,
    [orderId],
  );
  const lots = await rows<{ lineId: number; lotId: number; lot: string; gone: string; back: string }>(
    tx,
    `SELECT pl.order_line_id AS lineId, pl.lot_id AS lotId, t.code AS lot, SUM(pl.units) AS gone,
       COALESCE((SELECT SUM(c.units) FROM came_back c JOIN customer_return_line r ON r.id = c.line_id WHERE r.order_line_id = pl.order_line_id AND c.lot_id = pl.lot_id AND ${IS_BACK}), 0) AS back
     FROM parcel p JOIN parcel_line pl ON pl.parcel_id = p.id JOIN lot t ON t.id = pl.lot_id WHERE p.order_id = ? AND p.state = 'gone' GROUP BY pl.order_line_id, pl.lot_id, t.code ORDER BY t.code`,
    [orderId],
  );
  const numbers = await rows<{ lineId: number; number: string }>(
    tx,
    `SELECT s.order_line_id AS lineId, s.serial AS number FROM parcel p JOIN parcel_serial s ON s.parcel_id = p.id WHERE p.order_id = ? AND p.state = 'gone'
       AND NOT EXISTS (SELECT 1 FROM came_back c JOIN customer_return_line r ON r.id = c.line_id WHERE r.order_line_id = s.order_line_id AND c.number = s.serial AND ${IS_BACK}) ORDER BY s.serial`,
    [orderId],
  );
  return lines.map((l) => ({
    ...l,
    back: num(l.back),
    lots: lots
      .filter((t) => t.lineId === l.id && num(t.gone) > num(t.back))
      .map((t) => ({ lotId: t.lotId, lot: t.lot, left: num(t.gone) - num(t.back) })),
    numbers: numbers.filter((n) => n.lineId === l.id).map((n) => n.number),
  }));
}
