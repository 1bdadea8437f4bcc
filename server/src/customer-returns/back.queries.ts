import type { Billable } from '../invoicing/index.js';
import { num, rows, type Tx } from '../platform/index.js';

type Asks = Pick<Tx, 'query'>;

/** A line of a return with what of it is back: repaired goods that went to the customer again are not. */
export interface BackLine {
  id: number;
  orderLineId: number | null;
  itemId: number;
  sku: string;
  channelSku: string | null;
  reason: string;
  units: number;
  fates: string[];
}

export async function backLines(tx: Asks, returnId: number): Promise<BackLine[]> {
  const found = await rows<Omit<BackLine, 'units' | 'fates'> & { units: string; fates: string | null }>(
    tx,
    `SELECT l.id, l.order_line_id AS orderLineId, i.id AS itemId, i.sku, n.channel_sku AS channelSku, l.reason, COALESCE(SUM(c.units), 0) AS units, GROUP_CONCAT(DISTINCT c.fate) AS fates
     FROM customer_return_line l JOIN item i ON i.id = l.item_id LEFT JOIN sales_order_line n ON n.id = l.order_line_id
       LEFT JOIN came_back c ON c.line_id = l.id AND c.undone_at IS NULL AND c.given_back_id IS NULL
     WHERE l.return_id = ? GROUP BY l.id ORDER BY l.line`,
    [returnId],
  );
  return found.map((l) => ({ ...l, units: num(l.units), fates: l.fates?.split(',') ?? [] }));
}

/**
 * What a return takes off what the customer pays, by the lines that are invoiced: a kit as far as all its parts are back, on this
 * return and on earlier ones that were paid back; what only went along is on none. What was credited by hand before counts as paid back.
 */
export async function refundable(tx: Asks, returnId: number, orderId: number): Promise<Billable[]> {
  const lines = await rows<{
    id: number;
    line: number;
    kitLine: number | null;
    units: number;
    sold: string;
    isKit: number;
    along: number;
    back: string;
    refunded: string;
    byHand: string;
  }>(
    tx,
    `SELECT l.id, l.line, l.kit_line AS kitLine, l.units, l.quantity * l.factor AS sold, l.along, EXISTS (SELECT 1 FROM sales_order_line p WHERE p.order_id = l.order_id AND p.kit_line = l.line) AS isKit,
       COALESCE((SELECT SUM(c.units) FROM customer_return_line r JOIN customer_return t ON t.id = r.return_id JOIN came_back c ON c.line_id = r.id AND c.undone_at IS NULL AND c.given_back_id IS NULL AND c.fate <> 'repair'
         WHERE r.order_line_id = l.id AND (t.id = ? OR t.settled_as = 'refund')), 0) AS back,
       COALESCE((SELECT SUM(f.units) FROM return_refund f WHERE f.order_line_id = l.id), 0) AS refunded,
       COALESCE((SELECT SUM(x.units) FROM invoice_line x JOIN invoice v ON v.id = x.invoice_id AND v.kind = 'credit' AND v.reopens = 0 WHERE x.order_line_id = l.id AND NOT EXISTS (SELECT 1 FROM return_credit k WHERE k.invoice_id = v.id)), 0) AS byHand
     FROM sales_order_line l WHERE l.order_id = ? AND l.item_id IS NOT NULL ORDER BY l.line`,
    [returnId, orderId],
  );
  const whole = (l: (typeof lines)[number]): number =>
    num(l.isKit) === 1
      ? Math.min(...lines.filter((p) => p.kitLine === l.line && p.units > 0).map((p) => Math.floor((num(p.back) * num(l.sold)) / p.units)))
      : num(l.back);
  return lines
    .filter((l) => l.kitLine === null && num(l.along) === 0)
    .map((l) => ({ orderLineId: l.id, units: whole(l) - num(l.refunded) - num(l.byHand) }))
    .filter((l) => l.units > 0);
}
