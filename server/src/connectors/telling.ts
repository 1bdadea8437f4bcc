import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { Outbox, type OutboxMessage } from '../platform/index.js';
import { type ChannelAccess, channelOf, type Connector, RefusedByChannel, type SettledReturn, type Shipment } from './connector.js';
import { Connectors } from './connectors.js';
import { type Exchange, Exchanges } from './exchanges.js';

/** Tells channels what became of their orders: taken in, sent, invoiced, cancelled, sent back. What does not arrive is told again, in order. */
@Injectable()
export class Telling implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly outbox: Outbox,
    private readonly connectors: Connectors,
    private readonly exchanges: Exchanges,
  ) {}

  onModuleInit(): void {
    this.handle('channel.order', 'taken', (c, channel, p) => c.acknowledge?.(channel, { ref: String(p['ref']), code: String(p['code']) }));
    this.handle('channel.shipment', 'parcel', (c, channel, p) => c.pushShipment?.(channel, p as unknown as Shipment));
    this.handle('channel.invoice', 'invoice', (c, channel, p) => c.pushInvoice?.(channel, { code: String(p['ref']) }));
    this.handle('channel.return', 'return', (c, channel, p) => c.pushReturn?.(channel, p as unknown as SettledReturn));
    this.handle('channel.cancel', 'cancel', (c, channel, p) => c.cancel?.(channel, { ref: String(p['ref']), why: String(p['why']) }));
  }

  private handle(
    kind: string,
    what: Exchange['what'],
    tell: (connector: Connector, channel: ChannelAccess, payload: Record<string, unknown>) => Promise<void> | undefined,
  ): void {
    this.outbox.handle(kind, async (message: OutboxMessage) => {
      const channel = await channelOf(this.source, String(message.payload['channel']));
      const connector = channel?.base_url ? this.connectors.of(channel) : undefined;
      if (!channel || !connector) return;
      const { channel: _, ...payload } = message.payload;
      const ref = String(payload['ref']);
      try {
        const told = tell(connector, channel, payload);
        if (!told) return;
        await told;
        await this.exchanges.note(channel.id, { direction: 'out', what, ref, went: 'well', raw: JSON.stringify(payload) });
      } catch (thrown) {
        const why = thrown instanceof Error ? thrown.message : String(thrown);
        const isRefused = thrown instanceof RefusedByChannel;
        if (isRefused || message.attempts <= 1)
          await this.exchanges.note(channel.id, { direction: 'out', what, ref, went: 'failed', detail: why, raw: JSON.stringify(payload) });
        // What the channel refuses is not said again: it would hold up all that comes after it.
        if (!isRefused) throw thrown;
      }
    });
  }
}
