import { Injectable } from '@nestjs/common';
import { plainToInstance } from 'class-transformer';
import { validate } from 'class-validator';
import { DataSource } from 'typeorm';
import { OrderIntake } from '../orders/index.js';
import { badForm, notFound, one, Problem, signatureMatches } from '../platform/index.js';
import { CHANNEL_ACCESS, type ChannelAccess } from './shop.client.js';
import { ShopOrderDto, type TakenInDto } from './shop-order.dto.js';

/** Takes orders in from channels, by signed message or as they were fetched. */
@Injectable()
export class IntakeService {
  constructor(
    private readonly source: DataSource,
    private readonly intake: OrderIntake,
  ) {}

  async fromWebhook(code: string, body: Buffer | undefined, given: string): Promise<TakenInDto> {
    const channel = await one<ChannelAccess>(this.source, `SELECT ${CHANNEL_ACCESS} FROM channel WHERE code = ? AND kind = 'web-shop'`, [
      code,
    ]);
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

  /** Takes one order of a channel in, whatever it looks like. */
  async takeIn(channel: ChannelAccess, raw: unknown): Promise<TakenInDto> {
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
