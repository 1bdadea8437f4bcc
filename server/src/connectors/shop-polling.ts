import { Inject, Injectable } from '@nestjs/common';
import type { Logger } from 'pino';
import { DataSource } from 'typeorm';
import { ChannelsService } from '../channels/index.js';
import { claimRows, LOGGER, Worker } from '../platform/index.js';
import { IntakeService } from './intake.service.js';
import { CHANNEL_ACCESS, ShopClient, type ChannelAccess } from './shop.client.js';

const POLL_SECONDS = 10;
const BEAT_MS = 2_000;

/** Asks each shop regularly for what its messages missed, one server at a time. */
@Injectable()
export class ShopPolling extends Worker<ChannelAccess> {
  protected readonly beatMs = BEAT_MS;

  constructor(
    private readonly source: DataSource,
    private readonly shops: ShopClient,
    private readonly intake: IntakeService,
    private readonly channels: ChannelsService,
    @Inject(LOGGER) protected readonly log: Logger,
  ) {
    super();
  }

  protected claim(most: number): Promise<ChannelAccess[]> {
    return claimRows<ChannelAccess>(this.source, {
      table: 'channel',
      select: CHANNEL_ACCESS,
      due: 'j.base_url IS NOT NULL AND (j.polled_at IS NULL OR j.polled_at < UTC_TIMESTAMP(3) - INTERVAL ? SECOND)',
      params: [POLL_SECONDS],
      most,
      lease: 'polled_at = UTC_TIMESTAMP(3)',
    });
  }

  protected async carryOut(channel: ChannelAccess): Promise<void> {
    try {
      const { orders, cursor } = await this.shops.ordersSince(channel);
      for (const order of orders) await this.intake.takeIn(channel, order, 'fetched');
      await this.channels.polled(channel.id, { cursor });
    } catch (thrown) {
      const why = thrown instanceof Error ? thrown.message : String(thrown);
      await this.channels.polled(channel.id, { why });
      this.log.warn({ channel: channel.code, why }, 'shop did not answer');
    }
  }
}
