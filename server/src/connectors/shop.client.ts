import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { one, Outbox, type OutboxMessage, signature } from '../platform/index.js';

const TIMEOUT_MS = 5_000;

/** The columns of a channel that it is spoken to with. */
export const CHANNEL_ACCESS = 'id, code, site_id, base_url, secret, poll_cursor';
export interface ChannelAccess {
  id: number;
  code: string;
  site_id: number;
  base_url: string | null;
  secret: string | null;
  poll_cursor: string;
}

/** Speaks to web shops over HTTP: stock figures and shipments go out, orders are fetched. */
@Injectable()
export class ShopClient implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly outbox: Outbox,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('shop.stock', (m) => this.put(m, `/stock/${encodeURIComponent(String(m.payload['sku']))}`));
    this.outbox.handle('shop.shipment', (m) =>
      this.put(m, `/orders/${encodeURIComponent(String(m.payload['ref']))}/shipments/${encodeURIComponent(String(m.payload['parcel']))}`),
    );
  }

  /** Orders the shop has taken since the cursor, oldest first, and the next cursor. */
  async ordersSince(channel: ChannelAccess): Promise<{ orders: unknown[]; cursor: string }> {
    const response = await fetch(`${channel.base_url}/orders?since=${encodeURIComponent(channel.poll_cursor)}`, {
      headers: { 'x-signature': signature(channel.secret ?? '', `/orders?since=${channel.poll_cursor}`) },
      signal: AbortSignal.timeout(TIMEOUT_MS),
    });
    if (!response.ok) throw new Error(`The shop answered ${response.status}`);
    const body = (await response.json()) as { orders?: unknown; cursor?: unknown };
    return {
      orders: Array.isArray(body.orders) ? body.orders : [],
      cursor: typeof body.cursor === 'string' ? body.cursor : channel.poll_cursor,
    };
  }

  private async put(message: OutboxMessage, path: string): Promise<void> {
    const channel = await one<ChannelAccess>(this.source, `SELECT ${CHANNEL_ACCESS} FROM channel WHERE code = ?`, [
      message.payload['channel'],
    ]);
    if (!channel?.base_url) return;
    const body = JSON.stringify({ ...message.payload, sequence: message.id });
    const response = await fetch(`${channel.base_url}${path}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json', 'x-signature': signature(channel.secret ?? '', body) },
      body,
      signal: AbortSignal.timeout(TIMEOUT_MS),
    });
    if (!response.ok) throw new Error(`The shop answered ${response.status}`);
  }
}
