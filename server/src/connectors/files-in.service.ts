import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { IncomingOrder } from '../orders/index.js';
import { badForm, notFound, type Person, Problem } from '../platform/index.js';
import { type ChannelAccess, channelOf } from './connector.js';
import { readCsvOrders } from './csv/read-csv-orders.js';
import type { TakenFileDto } from './channel-desk.dto.js';
import { Exchanges } from './exchanges.js';
import { IntakeService, type TakenIn } from './intake.service.js';
import { ParkedMessages } from './parked-messages.js';

/** Takes files of orders in: the documented CSV, a UBL 2.1 Order, or what the channel would have sent. */
@Injectable()
export class FilesIn {
  constructor(
    private readonly source: DataSource,
    private readonly intake: IntakeService,
    private readonly parked: ParkedMessages,
    private readonly exchanges: Exchanges,
  ) {}

  /** Problem 400 where nothing of it can be read; single orders that are wrong are put aside, and hold up no other. */
  async take(person: Pick<Person, 'siteIds'> | null, code: string, bytes: Buffer): Promise<TakenFileDto> {
    const channel = await channelOf(this.source, code);
    if (!channel || (person && !person.siteIds.includes(channel.site_id))) throw notFound(`Channel ${code}`);
    const text = bytes.toString('utf8').replace(/^\ufeff/, '');
    if (text.trim() === '') throw badForm({ file: 'The file is empty' });
    const start = text.trimStart();
    return start.startsWith('<') || start.startsWith('{') ? this.takeMessage(channel, text) : this.takeCsv(channel, text);
  }

  private async takeMessage(channel: ChannelAccess, text: string): Promise<TakenFileDto> {
    const taken = await this.intake.takeIn(channel, text, 'fetched');
    return { taken: taken && !taken.known ? [taken.code] : [], known: taken?.known ? 1 : 0, parked: taken ? 0 : 1 };
  }

  private async takeCsv(channel: ChannelAccess, text: string): Promise<TakenFileDto> {
    const { orders, wrong } = readCsvOrders(text);
    const done: TakenFileDto = { taken: [], known: 0, parked: 0 };
    for (const { raw, why } of wrong) {
      await this.parked.park(channel, raw, why);
      done.parked++;
    }
    for (const order of orders) {
      const taken = await this.takeOrder(channel, order);
      if (!taken) done.parked++;
      else if (taken.known) done.known++;
      else done.taken.push(taken.code);
    }
    await this.exchanges.note(channel.id, {
      direction: 'in',
      what: 'file',
      ref: null,
      went: done.parked > 0 ? 'parked' : 'well',
      detail: `${done.taken.length} taken in, ${done.known} known, ${done.parked} put aside`,
      raw: text,
    });
    return done;
  }

  private async takeOrder(channel: ChannelAccess, order: IncomingOrder): Promise<TakenIn | null> {
    try {
      return await this.intake.act(channel, { kind: 'order', order, revision: null });
    } catch (thrown) {
      if (!(thrown instanceof Problem) || thrown.status >= 500) throw thrown;
      await this.parked.park(channel, JSON.stringify(order), thrown.detail);
      return null;
    }
  }
}
