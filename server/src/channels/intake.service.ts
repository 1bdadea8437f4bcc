import { Inject, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { plainToInstance } from 'class-transformer';
import { validate } from 'class-validator';
import type { Logger } from 'pino';
import { DataSource } from 'typeorm';
import { OrderIntake } from '../orders/order-intake.service.js';
import { inTransaction, one, rows } from '../platform/database/tx.js';
import { badForm, notFound, Problem } from '../platform/problem.js';
import { signatureMatches } from '../platform/signature.js';
import { LOGGER } from '../platform/tokens.js';
import { ShopClient, type ChannelAccess } from './shop.client.js';
import { ShopOrderDto, type TakenInDto } from './shop-order.dto.js';

const FIELDS = 'id, code, site_id, base_url, secret, poll_cursor';
const POLL_SECONDS = 10;
const BEAT_MS = 2_000;

/** Takes orders in from web shops: by signed message at once, and by asking regularly for what a message missed. */
@Injectable()
export class IntakeService implements OnApplicationShutdown {
  private timer: NodeJS.Timeout | undefined;
  private busy: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly source: DataSource,
    private readonly shops: ShopClient,
    private readonly intake: OrderIntake,
    @Inject(LOGGER) private readonly log: Logger,
  ) {}

  async fromWebhook(code: string, body: Buffer | undefined, given: string): Promise<TakenInDto> {
    const channel = await one<ChannelAccess>(this.source, `SELECT ${FIELDS} FROM channel WHERE code = ? AND kind = 'web-shop'`, [code]);
    if (!channel) throw notFound(`Channel ${code}`);
    if (!body || !channel.secret || !signatureMatches(channel.secret, body, given))
      throw new Problem(401, 'signature', 'The signature does not match the message');
    let order: unknown;
    try {
      order = JSON.parse(body.toString('utf8'));
    } catch {
      throw new Problem(400, 'json', 'The message is not readable JSON');
    }
    return this.takeIn(channel, order);
  }

  /** Asks each shop that is due, one server at a time. */
  async pollDue(): Promise<void> {
    const due = await inTransaction(this.source, async (tx) => {
      const channels = await rows<ChannelAccess>(
        tx,
        `SELECT ${FIELDS} FROM channel WHERE base_url IS NOT NULL AND (polled_at IS NULL OR polled_at < UTC_TIMESTAMP(3) - INTERVAL ? SECOND) FOR UPDATE SKIP LOCKED`,
        [POLL_SECONDS],
      );
      for (const c of channels) await tx.query('UPDATE channel SET polled_at = UTC_TIMESTAMP(3) WHERE id = ?', [c.id]);
      return channels;
    });
    for (const channel of due) {
      try {
        const { orders, cursor } = await this.shops.ordersSince(channel);
        for (const order of orders) await this.takeIn(channel, order);
        await this.source.query('UPDATE channel SET poll_cursor = ?, poll_error = NULL WHERE id = ?', [cursor, channel.id]);
      } catch (thrown) {
        const why = thrown instanceof Error ? thrown.message : String(thrown);
        await this.source.query('UPDATE channel SET poll_error = ? WHERE id = ?', [why.slice(0, 300), channel.id]);
        this.log.warn({ channel: channel.code, why }, 'shop did not answer');
      }
    }
  }

  start(): void {
    const beat = () => {
      this.busy = this.pollDue()
        .catch((err: unknown) => this.log.warn({ err }, 'polling failed'))
        .finally(() => {
          if (this.timer) this.timer = setTimeout(beat, BEAT_MS);
        });
    };
    this.timer = setTimeout(beat, BEAT_MS);
  }

  async onApplicationShutdown(): Promise<void> {
    clearTimeout(this.timer);
    this.timer = undefined;
    await this.busy;
  }

  private async takeIn(channel: ChannelAccess, raw: unknown): Promise<TakenInDto> {
    if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) throw badForm({ order: 'An order is a JSON object' });
    const order = plainToInstance(ShopOrderDto, raw);
    const faults = await validate(order, { whitelist: true });
    if (faults.length > 0)
      throw badForm(
        Object.fromEntries(
          faults.map((f) => [f.property, Object.values(f.constraints ?? {}).join('. ') || `${f.property} is not complete`]),
        ),
      );
    return this.intake.takeIn(channel, order);
  }
}
