import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { find, inTransaction, isDuplicate, one, Outbox, rows, type Tx } from '../platform/index.js';
import { type NewLine, OrderWriter } from './order-writer.js';
import { type Hold } from './holds.js';

export interface IncomingOrder {
  ref: string;
  placedAt: string;
  customer: string;
  /** The account that the customer names, where they name one. */
  account?: string | null;
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
  code?: string;
  /** web-shop, marketplace, trade or phone: a trade customer may name goods by our own codes. */
  kind?: string;
  /** Where it is told that its order has come in. */
  base_url?: string | null;
}

/** Turns a channel's order into ours, once; reserves what it can at once; holds what cannot go on, with the reason. */
@Injectable()
export class OrderIntake {
  constructor(
    private readonly source: DataSource,
    private readonly writer: OrderWriter,
    private readonly outbox: Outbox,
  ) {}

  /** `revision` counts how often the channel has said it; the order is kept as it was said, so that a change can be told from it. */
  async takeIn(channel: FromChannel, order: IncomingOrder, revision: number | null = null): Promise<{ code: string; known: boolean }> {
    const known = await this.known(channel.id, order.ref);
    if (known) return { code: known, known: true };
    try {
      return { code: await inTransaction(this.source, (tx) => this.write(tx, channel, order, revision)), known: false };
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

  private async write(tx: Tx, channel: FromChannel, order: IncomingOrder, revision: number | null): Promise<string> {
    const account = order.account && (await find(tx, 'customer', { code: order.account.toUpperCase() }));
    const code = await this.writer.write(tx, null, {
      channelId: channel.id,
      ref: order.ref,
      siteId: channel.site_id,
      customerId: account ? account.id : null,
      said: JSON.stringify(order),
      revision,
      wholeOnly: account ? account.whole_only === 1 : false,
      customer: order.customer,
      email: order.email ?? '',
      phone: order.phone ?? '',
      address: order.address,
      placedAt: new Date(order.placedAt),
      promisedAt: order.promisedAt ? new Date(order.promisedAt) : null,
      speed: order.speed ?? 'standard',
      notePacker: order.note ?? null,
      lines: await this.lines(tx, channel, order.lines),
      holds: await this.holds(tx, channel.id, order),
    });
    if (channel.base_url && channel.code)
      await this.outbox.send(
        tx,
        `channel:${channel.code}`,
        'channel.order',
        { channel: channel.code, ref: order.ref, code },
        { siteId: channel.site_id, document: code },
      );
    return code;
  }

  /** A channel's lines, each with the item that its code is linked to; null where nobody has linked it. */
  async lines(tx: Pick<Tx, 'query'>, channel: Pick<FromChannel, 'id' | 'kind'>, lines: IncomingOrder['lines']): Promise<NewLine[]> {
    const skus = [...new Set(lines.map((l) => l.sku))];
    const listings = await rows<{ sku: string; itemId: number; factor: number }>(
      tx,
      'SELECT channel_sku AS sku, item_id AS itemId, factor FROM listing WHERE channel_id = ? AND channel_sku IN (?)',
      [channel.id, ['', ...skus]],
    );
    const own = channel.kind === 'trade' ? await this.ownCodes(tx, skus) : [];
    const same = (sku: string) => (known: { sku: string }) => known.sku.toUpperCase() === sku.toUpperCase();
    return lines.map((line) => {
      const goods = listings.find(same(line.sku)) ?? own.find(same(line.sku));
      return {
        channelSku: line.sku,
        itemId: goods?.itemId ?? null,
        quantity: line.quantity,
        factor: goods?.factor ?? 1,
        price: line.price,
      };
    });
  }

  /** Our own SKUs, and barcodes with what they hold. */
  private async ownCodes(tx: Pick<Tx, 'query'>, codes: readonly string[]): Promise<{ sku: string; itemId: number; factor: number }[]> {
    return rows(
      tx,
      `SELECT sku, id AS itemId, 1 AS factor FROM item WHERE sku IN (?)
       UNION ALL SELECT b.code, u.item_id, u.factor FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id WHERE b.code IN (?)`,
      [
        ['', ...codes],
        ['', ...codes],
      ],
    );
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
