import { Inject, Injectable } from '@nestjs/common';
import type { Logger } from 'pino';
import { DataSource } from 'typeorm';
import { ChannelsService, ChannelStock } from '../channels/index.js';
import { claimRows, LOGGER, Worker } from '../platform/index.js';
import { CHANNEL_ACCESS, type ChannelAccess, RefusedByChannel, TooSoon } from './connector.js';
import { Connectors } from './connectors.js';
import { Exchanges } from './exchanges.js';

const BEAT_MS = 500;
const AT_ONCE = 200;
const LEASE_SECONDS = 60;

/**
 * Tells channels what they may sell: each figure as it is when it is told, one channel at a time, in order. Where a channel does not
 * answer, what it was not told stays due, and the rest between tries grows.
 */
@Injectable()
export class StockPushing extends Worker<ChannelAccess> {
  protected readonly beatMs = BEAT_MS;

  constructor(
    private readonly source: DataSource,
    private readonly connectors: Connectors,
    private readonly stock: ChannelStock,
    private readonly channels: ChannelsService,
    private readonly exchanges: Exchanges,
    @Inject(LOGGER) protected readonly log: Logger,
  ) {
    super();
  }

  protected claim(most: number): Promise<ChannelAccess[]> {
    return claimRows<ChannelAccess>(this.source, {
      table: 'channel',
      select: CHANNEL_ACCESS,
      due: `j.base_url IS NOT NULL AND j.paused = 0 AND j.kind IN ('web-shop','marketplace') AND (j.next_push_at IS NULL OR j.next_push_at <= UTC_TIMESTAMP(3))
        AND EXISTS (SELECT 1 FROM listing l WHERE l.channel_id = j.id AND l.due = 1)`,
      most,
      lease: 'next_push_at = UTC_TIMESTAMP(3) + INTERVAL ? SECOND',
      leaseParams: [LEASE_SECONDS],
    });
  }

  protected async carryOut(channel: ChannelAccess): Promise<void> {
    const connector = this.connectors.of(channel);
    if (!connector?.pushStock) return;
    const due = await this.stock.takeDue(channel.id, AT_ONCE);
    for (const [i, listing] of due.entries()) {
      if (listing.units === listing.told) continue;
      try {
        // The clock in milliseconds grows from push to push, also over a restart: one channel is told by one server at a time.
        await connector.pushStock(channel, { sku: listing.sku, units: listing.units, sequence: Date.now() });
        await this.stock.told(listing.id, listing.units);
      } catch (thrown) {
        if (thrown instanceof RefusedByChannel) {
          const what = { direction: 'out', what: 'stock', ref: listing.sku, went: 'failed' } as const;
          await this.exchanges.note(channel.id, { ...what, detail: thrown.message });
          continue;
        }
        await this.stock.again(due.slice(i).map((l) => l.id));
        await this.rest(channel, thrown);
        return;
      }
    }
    await this.channels.pushed(channel.id);
  }

  private async rest(channel: ChannelAccess, thrown: unknown): Promise<void> {
    const why = thrown instanceof Error ? thrown.message : String(thrown);
    const asked = thrown instanceof TooSoon ? thrown.seconds : null;
    const isNew = await this.channels.pushed(channel.id, why, asked);
    // To be asked for a rest is no failure: what is due is told after it.
    if (isNew && asked === null)
      await this.exchanges.note(channel.id, { direction: 'out', what: 'stock', ref: null, went: 'failed', detail: why });
    this.log.warn({ channel: channel.code, why }, 'stock could not be told');
  }
}
