import { Injectable } from '@nestjs/common';
import { decimalText, micro } from '@vectrum/core/money';
import { DataSource } from 'typeorm';
import { dayOf, rows } from '../platform/index.js';
import type { MarginDto, MarginRowDto } from './margin.dto.js';

export const MARGIN_BY = ['order', 'customer', 'channel'] as const;
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
  async list(siteIds: readonly number[], { from, to, by }: MarginAsked): Promise<MarginDto> {
    const orders = await rows<OrderRow>(
      this.source,
      `SELECT o.code, COALESCE(c.name, o.customer) AS customer, h.name AS channel, s.net,
         (SELECT SUM(IF(e.debit = 'cost of goods', e.amount, -e.amount)) FROM movement m JOIN value_entry e ON e.movement_id = m.id AND (e.debit = 'cost of goods' OR e.credit = 'cost of goods') WHERE m.document = o.code OR m.document IN (SELECT r.code FROM customer_return r WHERE r.order_id = o.id)) AS cost,
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
    const found = [...groups].map(([name, g]): MarginRowDto => ({
      key: name,
      name: g.name,
      orders: g.orders,
      net: decimalText(g.net),
      cost: decimalText(g.cost),
      margin: decimalText(g.net - g.cost),
      share: share(g.net, g.cost),
      ahead: g.ahead,
    }));
    const sum = (of: (g: { net: bigint; cost: bigint }) => bigint) => [...groups.values()].reduce((all, g) => all + of(g), 0n);
    const [net, cost] = [sum((g) => g.net), sum((g) => g.cost)];
    return {
      rows: found.sort((a, b) => a.share - b.share || a.key.localeCompare(b.key)).slice(0, MOST),
      net: decimalText(net),
      cost: decimalText(cost),
      margin: decimalText(net - cost),
      share: share(net, cost),
    };
  }
}

/** The margin in hundredths of a per cent of what was invoiced; nought where nothing was. */
const share = (net: bigint, cost: bigint): number => (net === 0n ? 0 : Number(((net - cost) * 10_000n) / net));
