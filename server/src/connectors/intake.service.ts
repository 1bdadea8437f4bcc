import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { OrderIntake } from '../orders/index.js';
import { notFound, one, Problem, signatureMatches } from '../platform/index.js';
import { ParkedMessages } from './parked-messages.js';
import { readOrder } from './read-order.js';
import { CHANNEL_ACCESS, type ChannelAccess } from './shop.client.js';
import type { TakenInDto } from './shop-order.dto.js';

/** Takes orders in from channels, by signed message or as they were fetched. */
@Injectable()
export class IntakeService {
  constructor(
    private readonly source: DataSource,
    private readonly intake: OrderIntake,
    private readonly parked: ParkedMessages,
  ) {}

  async fromWebhook(code: string, body: Buffer | undefined, given: string): Promise<TakenInDto | null> {
    const channel = await one<ChannelAccess>(this.source, `SELECT ${CHANNEL_ACCESS} FROM channel WHERE code = ? AND kind = 'web-shop'`, [
      code,
    ]);
    if (!channel) throw notFound(`Channel ${code}`);
    if (!body || !channel.secret || !signatureMatches(channel.secret, body, given))
      throw new Problem(401, 'signature', 'The signature does not match the message');
    return this.takeIn(channel, body.toString('utf8'), 'sent');
  }

  /**
   * Takes one order of a channel in, whatever it looks like. One that cannot be understood is kept to be mended and, where its sender
   * waits for an answer, refused with what is against it; one that was fetched holds up nothing.
   */
  async takeIn(channel: ChannelAccess, message: unknown, how: 'sent' | 'fetched'): Promise<TakenInDto | null> {
    try {
      const order = await readOrder(message);
      const taken = await this.intake.takeIn(channel, order);
      if (!taken.known) await this.parked.cameIn(channel.id, order.ref, taken.code);
      return taken;
    } catch (thrown) {
      // Where the house is busy, or its database away, nothing is against the message; it is asked for again.
      if (thrown instanceof Problem && thrown.status >= 500) throw thrown;
      await this.source.query('SELECT 1');
      const why = thrown instanceof Problem ? thrown.detail : `It could not be written down: ${String(thrown)}`;
      await this.parked.park(channel, typeof message === 'string' ? message : JSON.stringify(message), why);
      if (how === 'sent') throw thrown;
      return null;
    }
  }
}
