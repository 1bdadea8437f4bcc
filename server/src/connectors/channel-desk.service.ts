import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { ChannelsService, ChannelStock } from '../channels/index.js';
import { type Act, badState, CommandLog, Outbox, type Person } from '../platform/index.js';
import type { AskedDto, BeliefDto } from './channel-desk.dto.js';
import { channelOf } from './connector.js';
import { Connectors } from './connectors.js';

/** What is done at a channel's page: try again at once, compare what it believes with what is true, tell it anew. */
@Injectable()
export class ChannelDesk {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly channels: ChannelsService,
    private readonly stock: ChannelStock,
    private readonly connectors: Connectors,
    private readonly activity: ActivityService,
    private readonly outbox: Outbox,
  ) {}

  /** What each listing may be sold by now, what the channel was told, and what it believes. */
  async beliefs(person: Pick<Person, 'siteIds'>, code: string): Promise<BeliefDto[]> {
    const { id } = await this.channels.seen(person, code);
    const now = new Map((await this.stock.all(id)).map((l) => [l.id, l.units]));
    return (await this.channels.beliefs(id)).map(({ id: listing, due, ...b }) => ({ ...b, units: now.get(listing) ?? 0, due: due === 1 }));
  }

  /** Asks the channel what it believes, and keeps it with the time. Problem 409 where it does not answer. */
  async ask(person: Pick<Person, 'siteIds'>, code: string): Promise<AskedDto> {
    const { id, name } = await this.channels.seen(person, code);
    const channel = await channelOf(this.source, code);
    const connector = channel?.base_url ? this.connectors.of(channel) : undefined;
    if (!channel || !connector?.beliefs) throw badState(`${name} cannot be asked what it believes`);
    try {
      const beliefs = await connector.beliefs(channel);
      await this.stock.believes(id, beliefs);
      return { count: beliefs.length };
    } catch (thrown) {
      throw badState(`${name} does not answer: ${thrown instanceof Error ? thrown.message : String(thrown)}. Try again later`);
    }
  }

  /** Tells the channel all its figures anew. */
  repair(act: Act, code: string): Promise<AskedDto> {
    return this.commands.run(act, 'channel.repair', { code }, async (tx) => {
      const { id, siteId, name } = await this.channels.seen(act.person, code);
      const count = await this.stock.tellAll(tx, id);
      await this.channels.tryNow(tx, id);
      await this.activity.record(tx, act, {
        kind: 'channel',
        glyph: 'go',
        title: `${name} is told all its stock anew`,
        document: code,
        siteId,
      });
      return { count };
    });
  }

  /** Asks and tells at once what is waiting for its next try. */
  tryNow(act: Act, code: string): Promise<AskedDto> {
    return this.commands.run(act, 'channel.try', { code }, async (tx) => {
      const { id } = await this.channels.seen(act.person, code);
      await this.channels.tryNow(tx, id);
      return { count: await this.outbox.retryAll(tx, `channel:${code}`) };
    });
  }
}
