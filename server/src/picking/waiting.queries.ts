import { Injectable } from '@nestjs/common';
import { urgentSql } from '../orders/index.js';
import { marks, promisedSql, rows, type Tx } from '../platform/index.js';

/** So many orders are looked at together, the soonest first; those behind them come once these are sent. */
const MOST_ORDERS = 1000;

/** An order that waits to be sent to picking. */
export interface WaitingOrder {
  id: number;
  code: string;
  version: number;
  customer: string;
  channel: string;
  promisedAt: Date;
  urgent: number;
  /** How many wait in all. */
  total: string;
}
/** What it holds of an item at the site. */
export interface WaitingLine {
  orderId: number;
  itemId: number;
  sku: string;
  name: string;
  rotation: 'fifo' | 'fefo';
  units: number;
  weightG: number | null;
  volumeMl: string | null;
}
type Reads = Pick<Tx, 'query'>;

/** What waits to be picked at a site, and is not on a round yet. */
@Injectable()
export class WaitingQueries {
  /** Open orders that are promised whole and hold goods at the site, the urgent ones first; of all sites with null. */
  orders(tx: Reads, siteId: number, siteIds: readonly number[] | null): Promise<WaitingOrder[]> {
    return rows<WaitingOrder>(
      tx,
      `SELECT o.id, o.code, o.version, o.customer, c.name AS channel, o.promised_at AS promisedAt, ${urgentSql('o')} AS urgent, COUNT(*) OVER () AS total
       FROM sales_order o JOIN channel c ON c.id = o.channel_id
       WHERE o.state = 'open' ${siteIds === null ? '' : 'AND o.site_id IN (?)'}
         AND EXISTS (SELECT 1 FROM sales_order_line l JOIN reservation v ON v.order_line_id = l.id AND v.site_id = ? AND v.place_id IS NULL WHERE l.order_id = o.id)
         AND NOT EXISTS (SELECT 1 FROM sales_order_line l LEFT JOIN item i ON i.id = l.item_id WHERE l.order_id = o.id AND COALESCE(i.never_holds_up, 0) = 0 AND ${promisedSql('l')} < l.units)
       ORDER BY urgent DESC, o.promised_at, o.id LIMIT ${MOST_ORDERS}`,
      siteIds === null ? [siteId] : [[0, ...siteIds], siteId],
    );
  }

  /** What orders hold at the site and no round goes for, in the order of the orders given. */
  lines(tx: Reads, siteId: number, orderIds: readonly number[]): Promise<WaitingLine[]> {
    return rows<WaitingLine>(
      tx,
      `SELECT l.order_id AS orderId, l.item_id AS itemId, i.sku, i.name, i.rotation, v.units, u.weight_g AS weightG, u.length_mm * u.width_mm * u.height_mm / 1000 AS volumeMl
       FROM sales_order_line l JOIN reservation v ON v.order_line_id = l.id AND v.site_id = ? AND v.place_id IS NULL JOIN item i ON i.id = l.item_id LEFT JOIN pack_unit u ON u.item_id = i.id AND u.factor = 1
       WHERE l.order_id IN (${marks(orderIds)}) ORDER BY FIELD(l.order_id, ${marks(orderIds)}), l.line`,
      [siteId, ...orderIds, ...orderIds],
    );
  }
}
