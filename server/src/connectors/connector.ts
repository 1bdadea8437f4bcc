import type { ChannelReturn } from '../customer-returns/index.js';
import type { IncomingOrder } from '../orders/index.js';
import { one, type Tx } from '../platform/index.js';

/** The columns of a channel that it is spoken to with. */
export const CHANNEL_ACCESS = 'id, code, name, kind, site_id, base_url, secret, poll_cursor';
export interface ChannelAccess {
  id: number;
  code: string;
  name: string;
  kind: string;
  site_id: number;
  base_url: string | null;
  secret: string | null;
  poll_cursor: string;
}
export const channelOf = (tx: Pick<Tx, 'query'>, code: string) =>
  one<ChannelAccess>(tx, `SELECT ${CHANNEL_ACCESS} FROM channel WHERE code = ?`, [code]);

/** What a channel says, in our words. */
export type ChannelMessage =
  /** An order, new or said anew. A higher revision is the later one, where the channel counts them. */
  | { kind: 'order'; order: IncomingOrder; revision: number | null }
  | { kind: 'cancel'; ref: string; why: string }
  /** Its customer sends goods of an order back. */
  | { kind: 'return'; said: ChannelReturn };

/** A parcel that has gone, as its channel is told. */
export interface Shipment {
  ref: string;
  parcel: string;
  carrier: string;
  tracking: string;
  /** Whether nothing of the order is left to come. */
  complete: boolean;
  /** What is in the parcel, under the channel's own codes, in single pieces. */
  lines: { sku: string; units: number }[];
}
/** What was done about goods that came back, as its channel is told. */
export interface SettledReturn {
  ref: string;
  /** Our number of the return, and the channel's own where it announced it. */
  code: string;
  returnRef: string | null;
  settlement: string;
  /** What is paid back, with tax; null where nothing is. */
  amount: string | null;
  lines: { sku: string; units: number }[];
}
/** Goods as a channel offers them. */
export interface Offer {
  sku: string;
  title: string;
  price: string;
  barcode: string | null;
  picture: string | null;
}

/** A channel asks to be left alone for a while. */
export class TooSoon extends Error {
  constructor(readonly seconds: number) {
    super(`It asks to be left alone for ${seconds} s`);
  }
}

/** A channel has understood and refuses: saying it again would not help, and holds up what comes after. */
export class RefusedByChannel extends Error {}

/**
 * How a kind of channel is spoken to. Reading is for all of them; the rest is there where the kind can do it. What throws is tried
 * again later, in order; `TooSoon` says when, and what is `RefusedByChannel` is not.
 */
export interface Connector {
  /** Reads one message as the channel sends it. Problem 400 with what is against it. Pure. */
  read(raw: string): Promise<ChannelMessage>;
  /** Messages since the cursor, oldest first, each as it came, and the next cursor. */
  fetch?(channel: ChannelAccess): Promise<{ messages: string[]; cursor: string }>;
  /** The order has come in under our number. */
  acknowledge?(channel: ChannelAccess, order: { ref: string; code: string }): Promise<void>;
  /** So many may be sold. Later sequences are larger. */
  pushStock?(channel: ChannelAccess, stock: { sku: string; units: number; sequence: number }): Promise<void>;
  pushShipment?(channel: ChannelAccess, shipment: Shipment): Promise<void>;
  /** An invoice or credit note that was posted, by our number. */
  pushInvoice?(channel: ChannelAccess, invoice: { code: string }): Promise<void>;
  pushReturn?(channel: ChannelAccess, settled: SettledReturn): Promise<void>;
  /** We have cancelled its order. */
  cancel?(channel: ChannelAccess, order: { ref: string; why: string }): Promise<void>;
  /** What it believes that it may sell. */
  beliefs?(channel: ChannelAccess): Promise<{ sku: string; units: number }[]>;
  /** All that it offers. */
  catalogue?(channel: ChannelAccess): Promise<Offer[]>;
}
