import { ordersIn } from '@vectrum/core/orders';
import { promisedSql, sqlList } from '../platform/index.js';
import { urgentSql } from './announcing.js';

/** What the list of orders is narrowed to; the last two are over. */
export const SHOWS = ['all', 'urgent', 'ready', 'short', 'stuck', 'quotes', 'gone', 'cancelled'] as const;
export type Show = (typeof SHOWS)[number];

const OPEN = sqlList(ordersIn('live'));
const LATE = `o.promised_at < UTC_TIMESTAMP()`;
const SHORT = `(o.state = 'open' AND EXISTS (SELECT 1 FROM sales_order_line l WHERE l.order_id = o.id AND l.item_id IS NOT NULL AND l.shipped_units < l.units AND ${promisedSql('l')} < l.units))`;
const STUCK = `(o.state = 'held' OR ${LATE})`;

/** The condition of each on `sales_order o`. */
export const SHOWN: Readonly<Record<Show, string>> = {
  all: `o.state IN ${OPEN}`,
  urgent: `o.state IN ${OPEN} AND ${urgentSql('o')}`,
  ready: `o.state = 'open' AND NOT ${SHORT}`,
  short: SHORT,
  stuck: `o.state IN ${OPEN} AND ${STUCK}`,
  quotes: `o.state = 'quote'`,
  gone: `o.state = 'shipped'`,
  cancelled: `o.state = 'cancelled'`,
};

/** How many there are of each that is not over, in one reading of the open orders. */
export const COUNTS = `COUNT(*) AS \`all\`, COALESCE(SUM(${urgentSql('o')}), 0) AS urgent, COALESCE(SUM(${SHOWN.ready}), 0) AS ready, COALESCE(SUM(${SHORT}), 0) AS short, COALESCE(SUM(${STUCK}), 0) AS stuck`;

/** How the list is grouped, with the order that brings a group together. */
export const GROUPINGS = ['departure', 'customer', 'channel'] as const;
export type Grouping = (typeof GROUPINGS)[number];
export const GROUPED: Readonly<Record<Grouping, string>> = {
  departure: 'o.promised_at, o.id',
  customer: 'o.customer, o.promised_at, o.id',
  channel: 'o.channel_id, o.promised_at, o.id',
};

/** What the list is narrowed to beyond its state. */
export interface Narrowed {
  by: Grouping;
  /** The code of a channel; empty for all. */
  channel: string;
  /** Words of the customer's name, or an order's number; empty for all. */
  search: string;
}
