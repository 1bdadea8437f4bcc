import { Inject, Injectable } from '@nestjs/common';
import type { Logger } from 'pino';
import { DataSource } from 'typeorm';
import { ChannelsService } from '../channels/index.js';
import { claimRows, LOGGER, Worker } from '../platform/index.js';
import { CHANNEL_ACCESS, type ChannelAccess, TooSoon } from './connector.js';
import { Connectors } from './connectors.js';
import { Exchanges } from './exchanges.js';
import { IntakeService } from './intake.service.js';

const POLL_SECONDS = 10;
const BEAT_MS = 2_000;

/** Asks each channel that can be asked regularly for what is new, one server at a time. */
@Injectable()
export class ChannelPolling extends Worker<ChannelAccess> {
  protected readonly beatMs = BEAT_MS;

  constructor(
    private readonly source: DataSource,
    private readonly connectors: Connectors,
    private readonly intake: IntakeService,
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
      due: `j.base_url IS NOT NULL AND j.paused = 0 AND j.kind IN ('web-shop','marketplace') AND (j.next_poll_at IS NULL OR j.next_poll_at <= UTC_TIMESTAMP(3))
        AND (j.polled_at IS NULL OR j.polled_at < UTC_TIMESTAMP(3) - INTERVAL ? SECOND)`,
      params: [POLL_SECONDS],
      most,
      lease: 'polled_at = UTC_TIMESTAMP(3)',
    });
  }

  protected async carryOut(channel: ChannelAccess): Promise<void> {
    const connector = this.connectors.of(channel);
    if (!connector?.fetch) return;
    try {
      const { messages, cursor } = await connector.fetch(channel);
      for (const message of messages) await this.intake.takeIn(channel, message, 'fetched');
      await this.channels.polled(channel.id, { cursor });
    } catch (thrown) {
      const why = thrown instanceof Error ? thrown.message : String(thrown);
      const isNew = await this.channels.polled(channel.id, { why, rest: thrown instanceof TooSoon ? thrown.seconds : 0 });
      if (isNew) await this.exchanges.note(channel.id, { direction: 'out', what: 'asked', ref: null, went: 'failed', detail: why });
      this.log.warn({ channel: channel.code, why }, 'channel did not answer');
    }
  }
}
