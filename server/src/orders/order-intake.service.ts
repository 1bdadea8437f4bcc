import { promisedFor } from '@vectrum/core/promise';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { CalendarQueries } from '../company/index.js';
import { insert, inTransaction, isDuplicate, nextCode, one, type Row, type Tx } from '../platform/index.js';

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
      lines.filter((l) => l.item_id === null).map((l) => l.channel_sku),
    );
    const placedAt = new Date(order.placedAt);
    const orderId = await insert(tx, 'sales_order', {
      code,
      channel_id: channel.id,
      channel_ref: order.ref,
      site_id: channel.site_id,
      state: holdReason ? 'held' : 'open',
      hold_reason: holdReason,
      customer: order.customer,
      email: order.email ?? '',
      address_line: order.address.line,
      city: order.address.city,
      postcode: order.address.postcode,
      country: order.address.country.toUpperCase(),
      placed_at: placedAt,
      promised_at: order.promisedAt ? new Date(order.promisedAt) : promisedFor(new Date(), await this.calendars.of(tx, channel.site_id)),
      speed: order.speed ?? 'standard',
      note_packer: order.note ?? null,
    });
    for (const [i, line] of lines.entries()) await insert(tx, 'sales_order_line', { ...line, order_id: orderId, line: i + 1 });
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
      lines.flatMap((l) => (l.item_id === null ? [] : [{ siteId: channel.site_id, itemId: l.item_id }])),
    );
    return code;
  }

  private async lines(tx: Tx, channelId: number, order: IncomingOrder) {
    const lines: Pick<Row<'sales_order_line'>, 'channel_sku' | 'item_id' | 'quantity' | 'units' | 'price'>[] = [];
    for (const line of order.lines) {
      const listing = await one<{ item_id: number; factor: number }>(
        tx,
        `SELECT item_id, factor FROM listing WHERE channel_id = ? AND channel_sku = ?`,
        [channelId, line.sku],
      );
      lines.push({
        channel_sku: line.sku,
        item_id: listing?.item_id ?? null,
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
