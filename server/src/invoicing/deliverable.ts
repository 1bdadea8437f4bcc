import { marks, num, rows, type Tx } from '../platform/index.js';

/** A line of a sales order with what was delivered of it and what is invoiced. Units are base units. */
export interface DeliveredLine {
  id: number;
  orderId: number;
  order: string;
  line: number;
  itemId: number;
  sku: string;
  name: string;
  pack: string;
  ordered: number;
  delivered: number;
  invoiced: number;
  factor: number;
  /** Of one pack of `factor` units. */
  price: string;
  taxCode: string;
  taxPercent: string;
}

const IS_KIT = `(i.kind = 'kit' AND EXISTS (SELECT 1 FROM sales_order_line p WHERE p.order_id = l.order_id AND p.kit_line = l.line))`;
/** A kit's line wants no units itself: its parts do. */
const SOLD = `IF(${IS_KIT}, l.quantity * l.factor, l.units)`;
/**
 * Kits are delivered as far as all their parts are. What only goes along, and the parts of kits, are on no invoice: they cost
 * nothing of their own.
 */
const DELIVERED = `IF(${IS_KIT},
  (SELECT FLOOR(MIN(p.shipped_units * l.quantity * l.factor / p.units)) FROM sales_order_line p WHERE p.order_id = l.order_id AND p.kit_line = l.line AND p.units > 0), l.shipped_units)`;
/** What came back before it was invoiced, and was paid back or never owed. */
const UNBILLED = `COALESCE((SELECT SUM(f.unbilled) FROM return_refund f WHERE f.order_line_id = l.id), 0)`;
const BILLABLE = `(${DELIVERED} - ${UNBILLED})`;
const INVOICED = `COALESCE((SELECT SUM(IF(v.kind = 'invoice', CAST(x.units AS SIGNED), IF(v.reopens = 1, -CAST(x.units AS SIGNED), 0))) FROM invoice_line x JOIN invoice v ON v.id = x.invoice_id WHERE x.order_line_id = l.id), 0)`;

/** Conditions of a line `l` with its item `i` that can be invoiced at all. What is sent in exchange was paid for once. */
export const IS_GOODS = `l.kit_line IS NULL AND l.along = 0 AND l.item_id IS NOT NULL AND NOT EXISTS (SELECT 1 FROM customer_return x WHERE x.exchange_order_id = l.order_id)`;
/** How many units of a line `l` were delivered and are not invoiced. */
export const TO_INVOICE = `(${BILLABLE} - ${INVOICED})`;

/** The lines of orders, in their order; tax is the customer's own rate where the account has one, else the item's. */
export async function deliveredLines(tx: Pick<Tx, 'query'>, orderIds: readonly number[]): Promise<DeliveredLine[]> {
  const found = await rows<DeliveredLine & Record<'delivered' | 'invoiced' | 'ordered', number | string>>(
    tx,
    `SELECT l.id, o.id AS orderId, o.code AS \`order\`, l.line, i.id AS itemId, i.sku, i.name, COALESCE(u.name, b.name) AS pack, ${SOLD} AS ordered, ${BILLABLE} AS delivered, ${INVOICED} AS invoiced,
       l.factor, l.price, COALESCE(t.code, '') AS taxCode, COALESCE(t.percent, 0) AS taxPercent
     FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id JOIN item i ON i.id = l.item_id JOIN pack_unit b ON b.item_id = i.id AND b.factor = 1
       LEFT JOIN pack_unit u ON u.item_id = i.id AND u.factor = l.factor LEFT JOIN customer c ON c.id = o.customer_id LEFT JOIN tax_rate t ON t.code = COALESCE(c.tax_code, i.tax_code)
     WHERE o.id IN (${marks(orderIds)}) AND ${IS_GOODS} ORDER BY o.id, l.line`,
    [...orderIds],
  );
  return found.map((l) => ({
    ...l,
    ordered: num(l.ordered),
    delivered: num(l.delivered),
    invoiced: num(l.invoiced),
    taxPercent: bare(l.taxPercent),
  }));
}

/** A rate without the noughts behind it: "20", "5.5". */
export const bare = (percent: string): string => percent.replace(/(\.\d*?)0+$/, '$1').replace(/\.$/, '');
