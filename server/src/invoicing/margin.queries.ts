import { Injectable } from '@nestjs/common';
import { decimalText, micro, type Micro } from '@vectrum/core/money';
import { DataSource } from 'typeorm';
import { dayOf, rows } from '../platform/index.js';
import type { MarginDto, MarginRowDto } from './margin.dto.js';

export const MARGIN_BY = ['order', 'customer', 'channel', 'item'] as const;
export interface MarginAsked {
  /** ISO dates of the documents; empty where that end is open. */
  from: string;
  to: string;
  by: (typeof MARGIN_BY)[number];
}

interface OrderRow {
  code: string;
  customer: string;
  channel: string;
  net: string;
  cost: string | null;
  /** Whether more of it has left than is invoiced. */
  ahead: number;
}

/** What an entry `e` of a movement `m` says that goods cost; what comes back takes off. */
const COST = `IF(e.debit = 'cost of goods', e.amount, -e.amount)`;
const IS_COST = `e.movement_id = m.id AND (e.debit = 'cost of goods' OR e.credit = 'cost of goods')`;

/** More orders than anybody reads; the least profitable come first. */
const MOST = 500;

export function marginAsked(query: Readonly<Record<string, unknown>>): MarginAsked {
  const text = (name: string) => (typeof query[name] === 'string' ? query[name].trim() : '');
  return { from: dayOf(query, 'from'), to: dayOf(query, 'to'), by: MARGIN_BY.find((b) => b === text('by')) ?? 'order' };
}

/** What was left of sales once the goods that really left are paid for. */
@Injectable()
export class MarginQueries {
  constructor(private readonly source: DataSource) {}

  /**
   * Of the orders that documents of the days are about: goods invoiced without tax, less credit notes, beside the cost at which
   * the goods left, as the ledger posted it. Freight is on neither side.
   */
  async list(siteIds: readonly number[], asked: MarginAsked): Promise<MarginDto> {
    const { from, to, by } = asked;
    if (by === 'item') return this.byItem(siteIds, asked);
    const orders = await rows<OrderRow>(
      this.source,
      `SELECT o.code, COALESCE(c.name, o.customer) AS customer, h.name AS channel, s.net,
         (SELECT SUM(${COST}) FROM movement m JOIN value_entry e ON ${IS_COST} WHERE m.document = o.code)
           + COALESCE((SELECT SUM(${COST}) FROM customer_return r JOIN movement m ON m.document = r.code JOIN value_entry e ON ${IS_COST} WHERE r.order_id = o.id), 0) AS cost,
         EXISTS (SELECT 1 FROM sales_order_line l WHERE l.order_id = o.id AND l.kit_line IS NULL AND l.along = 0 AND l.shipped_units > COALESCE((SELECT SUM(x.units) FROM invoice_line x JOIN invoice w ON w.id = x.invoice_id AND w.kind = 'invoice' WHERE x.order_line_id = l.id), 0) + COALESCE((SELECT SUM(f.unbilled) FROM return_refund f WHERE f.order_line_id = l.id), 0)) AS ahead
       FROM (SELECT n.order_id AS orderId, SUM(l.net) AS net FROM invoice v JOIN invoice_line l ON l.invoice_id = v.id JOIN sales_order_line n ON n.id = l.order_line_id
             WHERE (? = '' OR v.issued_on >= ?) AND (? = '' OR v.issued_on <= ?) GROUP BY n.order_id) s
         JOIN sales_order o ON o.id = s.orderId JOIN channel h ON h.id = o.channel_id LEFT JOIN customer c ON c.id = o.customer_id WHERE o.site_id IN (?)`,
      [from, from || '2000-01-01', to, to || '2099-12-31', [0, ...siteIds]],
    );
    const key = (o: OrderRow) => (by === 'order' ? o.code : by === 'customer' ? o.customer : o.channel);
    const groups = new Map<string, { name: string; net: bigint; cost: bigint; orders: number; ahead: boolean }>();
    for (const o of orders) {
      const was = groups.get(key(o)) ?? { name: by === 'order' ? o.customer : '', net: 0n, cost: 0n, orders: 0, ahead: false };
      groups.set(key(o), {
        ...was,
        net: was.net + micro(o.net),
        cost: was.cost + micro(o.cost ?? '0'),
        orders: was.orders + 1,
        ahead: was.ahead || Number(o.ahead) === 1,
      });
    }
    return marginOf([...groups].map(([key, g]) => ({ key, ...g })));
  }

  /**
   * The same by what was sold: a kit under its own name, with what its parts cost. What goods of an order cost is spread over its lines of the
   * same goods by what left of each.
   */
  private async byItem(siteIds: readonly number[], { from, to }: MarginAsked): Promise<MarginDto> {
    const sold = await rows<{ sku: string; name: string; net: string; cost: string | null; orders: string }>(
      this.source,
      `WITH sold AS (
         SELECT n.order_id AS orderId, n.item_id AS itemId, SUM(l.net) AS net FROM invoice v JOIN invoice_line l ON l.invoice_id = v.id JOIN sales_order_line n ON n.id = l.order_line_id JOIN sales_order o ON o.id = n.order_id
         WHERE (? = '' OR v.issued_on >= ?) AND (? = '' OR v.issued_on <= ?) AND o.site_id IN (?) GROUP BY n.order_id, n.item_id
       ), went AS (
         SELECT l.order_id AS orderId, COALESCE(k.item_id, l.item_id) AS itemId, l.item_id AS partId, l.shipped_units AS units, SUM(l.shipped_units) OVER (PARTITION BY l.order_id, l.item_id) AS ofAll
         FROM sales_order_line l LEFT JOIN sales_order_line k ON k.order_id = l.order_id AND k.line = l.kit_line WHERE l.shipped_units > 0 AND l.order_id IN (SELECT orderId FROM sold)
       ), posted AS (
         SELECT o.id AS orderId, m.item_id AS partId, ${COST} AS amount FROM sales_order o JOIN movement m ON m.document = o.code JOIN value_entry e ON ${IS_COST} WHERE o.id IN (SELECT orderId FROM sold)
         UNION ALL SELECT r.order_id, m.item_id, ${COST} FROM customer_return r JOIN movement m ON m.document = r.code JOIN value_entry e ON ${IS_COST} WHERE r.order_id IN (SELECT orderId FROM sold)
       ), cost AS (
         SELECT orderId, partId, SUM(amount) AS amount FROM posted GROUP BY orderId, partId
       ), spread AS (
         SELECT w.orderId, w.itemId, SUM(c.amount * w.units / w.ofAll) AS amount FROM went w JOIN cost c ON c.orderId = w.orderId AND c.partId = w.partId GROUP BY w.orderId, w.itemId
       )
       SELECT i.sku, i.name, SUM(s.net) AS net, ROUND(SUM(c.amount), 6) AS cost, COUNT(DISTINCT s.orderId) AS orders
       FROM sold s JOIN item i ON i.id = s.itemId LEFT JOIN spread c ON c.orderId = s.orderId AND c.itemId = s.itemId GROUP BY i.id`,
      [from, from || '2000-01-01', to, to || '2099-12-31', [0, ...siteIds]],
    );
    return marginOf(
      sold.map((i) => ({
        key: i.sku,
        name: i.name,
        net: micro(i.net),
        cost: micro(i.cost ?? '0'),
        orders: Number(i.orders),
        ahead: false,
      })),
    );
  }
}

/** The margin in hundredths of a per cent of what was invoiced; nought where nothing was. */
const share = (net: bigint, cost: bigint): number => (net === 0n ? 0 : Number(((net - cost) * 10_000n) / net));

interface Group {
  key: string;
  name: string;
  net: Micro;
  cost: Micro;
  orders: number;
  ahead: boolean;
}

/** Groups with what is left of each, the least profitable first, over what is left of all. */
function marginOf(groups: readonly Group[]): MarginDto {
  const sum = (of: (g: Group) => Micro) => groups.reduce((all, g) => all + of(g), 0n);
  const [net, cost] = [sum((g) => g.net), sum((g) => g.cost)];
  const figures = (n: Micro, c: Micro) => ({ net: decimalText(n), cost: decimalText(c), margin: decimalText(n - c), share: share(n, c) });
  return {
    rows: groups
      .map((g): MarginRowDto => ({ key: g.key, name: g.name, orders: g.orders, ahead: g.ahead, ...figures(g.net, g.cost) }))
      .sort((a, b) => a.share - b.share || a.key.localeCompare(b.key))
      .slice(0, MOST),
    ...figures(net, cost),
  };
}
