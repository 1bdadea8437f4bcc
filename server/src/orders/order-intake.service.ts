import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { inTransaction, isDuplicate, one, type Tx } from '../platform/index.js';
import { type NewLine, OrderWriter } from './order-writer.js';
import { type Hold } from './holds.js';

export interface IncomingOrder {
  ref: string;
  placedAt: string;
  customer: string;
  email?: string;
  phone?: string;
  address: { line: string; city: string; postcode: string; country: string };
  note?: string | null;
  speed?: string;
  promisedAt?: string;
  /** False where the channel has not been paid yet: it waits for that. */
  paid?: boolean;
  lines: { sku: string; quantity: number; price: string }[];
}
/** The channel that an order comes from. */
export interface FromChannel {
  id: number;
  site_id: number;
}

/** Turns a channel's order into ours, once; reserves what it can at once; holds what cannot go on, with the reason. */
@Injectable()
export class OrderIntake {
  constructor(
    private readonly source: DataSource,
    private readonly writer: OrderWriter,
  ) {}

  async takeIn(channel: FromChannel, order: IncomingOrder): Promise<{ code: string; known: boolean }> {
    const known = await this.known(channel.id, order.ref);
    if (known) return { code: known, known: true };
    try {
      return { code: await inTransaction(this.source, (tx) => this.write(tx, channel, order)), known: false };
    } catch (thrown) {
      const code = isDuplicate(thrown) ? await this.known(channel.id, order.ref) : undefined;
      if (code) return { code, known: true };
      throw thrown;
    }
  }

  private async known(channelId: number, ref: string): Promise<string | undefined> {
    return (
      await one<{ code: string }>(this.source, 'SELECT code FROM sales_order WHERE channel_id = ? AND channel_ref = ?', [channelId, ref])
    )?.code;
  }

  private async write(tx: Tx, channel: FromChannel, order: IncomingOrder): Promise<string> {
    return this.writer.write(tx, null, {
      channelId: channel.id,
      ref: order.ref,
      siteId: channel.site_id,
      customer: order.customer,
      email: order.email ?? '',
      phone: order.phone ?? '',
      address: order.address,
      placedAt: new Date(order.placedAt),
      promisedAt: order.promisedAt ? new Date(order.promisedAt) : null,
      speed: order.speed ?? 'standard',
      notePacker: order.note ?? null,
      lines: await this.lines(tx, channel.id, order.lines),
      holds: await this.holds(tx, channel.id, order),
    });
  }

  /** A channel's lines, each with the item that its code is linked to; null where nobody has linked it. */
  async lines(tx: Pick<Tx, 'query'>, channelId: number, lines: IncomingOrder['lines']): Promise<NewLine[]> {
    const found: NewLine[] = [];
    for (const line of lines) {
      const listing = await one<{ item_id: number; factor: number }>(
        tx,
        `SELECT item_id, factor FROM listing WHERE channel_id = ? AND channel_sku = ?`,
        [channelId, line.sku],
      );
      found.push({
        channelSku: line.sku,
        itemId: listing?.item_id ?? null,
        quantity: line.quantity,
        factor: listing?.factor ?? 1,
        price: line.price,
      });
    }
    return found;
  }

  /** What a channel's rules hold an order for: that it is not paid, or worth much to somebody who has never bought here. */
  private async holds(tx: Tx, channelId: number, order: IncomingOrder): Promise<Hold[]> {
    const holds: Hold[] = [];
    if (order.paid === false) holds.push({ kind: 'payment', reason: 'Not paid yet. The channel says when it is' });
    const worth = order.lines.reduce((sum, l) => sum + l.quantity * Number(l.price), 0);
    const rule = await one<{ over: string | null }>(tx, 'SELECT check_over AS `over` FROM channel WHERE id = ?', [channelId]);
    if (rule?.over == null || worth <= Number(rule.over)) return holds;
    const before = order.email
      ? await one(tx, `SELECT id FROM sales_order WHERE email = ? AND state = 'shipped' LIMIT 1`, [order.email])
      : undefined;
    if (!before) holds.push({ kind: 'check', reason: `Worth ${worth.toFixed(2)} and the first order of this customer. Check who it is` });
    return holds;
  }
}
