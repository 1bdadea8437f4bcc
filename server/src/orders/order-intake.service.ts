import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { CalendarQueries, promisedFor } from '../company/index.js';
import { inTransaction, isDuplicate, nextCode, one, type Tx } from '../platform/index.js';
import { SalesOrder, SalesOrderLine } from './sales-order.entity.js';

export interface IncomingOrder {
  ref: string;
  placedAt: string;
  customer: string;
  email?: string;
  address: { line: string; city: string; postcode: string; country: string };
  note?: string | null;
  speed?: string;
  promisedAt?: string;
  lines: { sku: string; quantity: number; price: string }[];
}

/** Turns a channel's order into ours, once; reserves what it can at once; holds what cannot go on, with the reason. */
@Injectable()
export class OrderIntake {
  constructor(
    private readonly source: DataSource,
    private readonly allocation: AllocationService,
    private readonly activity: ActivityService,
    private readonly calendars: CalendarQueries,
  ) {}

  async takeIn(channel: { id: number; site_id: number }, order: IncomingOrder): Promise<{ code: string; known: boolean }> {
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

  private async write(tx: Tx, channel: { id: number; site_id: number }, order: IncomingOrder): Promise<string> {
    const code = await nextCode(tx, 'S');
    const lines = await this.lines(tx, channel.id, order);
    const holdReason = holdOf(
      order,
      lines.filter((l) => l.itemId === null).map((l) => l.channelSku),
    );
    const placedAt = new Date(order.placedAt);
    const made = await tx.insert(SalesOrder, {
      code,
      channelId: channel.id,
      channelRef: order.ref,
      siteId: channel.site_id,
      state: holdReason ? 'held' : 'open',
      holdReason,
      customer: order.customer,
      email: order.email ?? '',
      addressLine: order.address.line,
      city: order.address.city,
      postcode: order.address.postcode,
      country: order.address.country.toUpperCase(),
      placedAt,
      promisedAt: order.promisedAt ? new Date(order.promisedAt) : promisedFor(new Date(), await this.calendars.of(tx, channel.site_id)),
      speed: order.speed ?? 'standard',
      notePacker: order.note ?? null,
    });
    const orderId = (made.identifiers[0] as { id: number }).id;
    for (const [i, line] of lines.entries()) await tx.insert(SalesOrderLine, { ...line, orderId, line: i + 1 });
    await this.activity.record(tx, null, {
      kind: 'order',
      glyph: holdReason ? 'held' : 'empty',
      title: `${code} came in, ${order.customer}`,
      detail: holdReason ?? `${lines.length} ${lines.length === 1 ? 'line' : 'lines'}, their ref ${order.ref}`,
      document: code,
      siteId: channel.site_id,
    });
    await this.allocation.settle(
      tx,
      lines.flatMap((l) => (l.itemId === null ? [] : [{ siteId: channel.site_id, itemId: l.itemId }])),
    );
    return code;
  }

  private async lines(tx: Tx, channelId: number, order: IncomingOrder) {
    const lines: Pick<SalesOrderLine, 'channelSku' | 'itemId' | 'quantity' | 'units' | 'price'>[] = [];
    for (const line of order.lines) {
      const listing = await one<{ item_id: number; factor: number }>(
        tx,
        `SELECT item_id, factor FROM listing WHERE channel_id = ? AND channel_sku = ?`,
        [channelId, line.sku],
      );
      lines.push({
        channelSku: line.sku,
        itemId: listing?.item_id ?? null,
        quantity: line.quantity,
        units: line.quantity * (listing?.factor ?? 1),
        price: line.price,
      });
    }
    return lines;
  }
}

function holdOf(order: IncomingOrder, unknown: readonly string[]): string | null {
  if (unknown.length > 0) return `Unknown code ${unknown.join(', ')}. Link it to an item`;
  if (order.address.line.trim() === '' || order.address.postcode.trim() === '') return 'No postcode or street. Ask the customer';
  return null;
}
