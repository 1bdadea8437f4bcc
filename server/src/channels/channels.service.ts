import { randomBytes } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  CommandLog,
  find,
  insert,
  mustBeAt,
  mustMatch,
  notFound,
  num,
  one,
  type Person,
  remove,
  rows,
  type Tx,
  update,
} from '../platform/index.js';
import type { ChannelDto, ChannelSheetDto, EditChannelDto, EditListingDto, ListingDto, NewChannelDto } from './channels.dto.js';

const CHANNEL_FIELDS = `c.id, c.code, c.name, c.kind, s.name AS site, c.base_url AS baseUrl, c.polled_at AS polledAt, c.poll_error AS pollError, c.version, c.secret IS NOT NULL AS hasSecret,
  (SELECT COUNT(*) FROM listing l WHERE l.channel_id = c.id) AS listings`;

const SECRET_BYTES = 24;
const counted = (c: ChannelDto): ChannelDto => ({ ...c, listings: num(c.listings), hasSecret: num(c.hasSecret as never) === 1 });

/** Channels that the house sells on, with their listings. */
@Injectable()
export class ChannelsService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  /** Channels that sell from one of the person's sites. */
  async list(person: Person): Promise<ChannelDto[]> {
    const found = await rows<ChannelDto>(
      this.source,
      `SELECT ${CHANNEL_FIELDS} FROM channel c JOIN site s ON s.id = c.site_id WHERE c.site_id IN (?) ORDER BY c.name`,
      [[0, ...person.siteIds]],
    );
    return found.map(counted);
  }

  async sheet(person: Person, code: string): Promise<ChannelSheetDto> {
    const found = await one<ChannelDto>(
      this.source,
      `SELECT ${CHANNEL_FIELDS} FROM channel c JOIN site s ON s.id = c.site_id WHERE c.code = ? AND c.site_id IN (?)`,
      [code, [0, ...person.siteIds]],
    );
    if (!found) throw notFound(`Channel ${code}`);
    const items = await rows<ListingDto>(
      this.source,
      `SELECT l.channel_sku AS channelSku, i.sku, i.name, l.factor, l.keep_back AS keepBack, l.price, l.told_units AS told FROM listing l JOIN item i ON i.id = l.item_id WHERE l.channel_id = ? ORDER BY i.name`,
      [found.id],
    );
    return { ...counted(found), items };
  }

  add(act: Act, input: NewChannelDto): Promise<{ code: string }> {
    mustBeAt(act.person, input.siteId);
    return this.commands.run(act, 'channel.add', input, async (tx) => {
      const code = input.code.toUpperCase();
      if (await find(tx, 'channel', { code })) throw badForm({ code: `${code} is taken. Choose another code` });
      const made = await insert(tx, 'channel', {
        code,
        name: input.name,
        kind: input.kind,
        site_id: input.siteId,
        base_url: input.baseUrl ?? null,
      });
      await this.writeListings(tx, made, input.listings);
      await this.activity.record(tx, act, {
        kind: 'channel',
        glyph: 'full',
        title: `Channel ${input.name} made`,
        document: code,
        siteId: input.siteId,
      });
      return { code };
    });
  }

  edit(act: Act, code: string, version: number, input: EditChannelDto): Promise<{ code: string }> {
    return this.commands.run(act, 'channel.edit', { code, version, input }, async (tx) => {
      const channel = await find(tx, 'channel', { code }, 'lock');
      if (!channel) throw notFound(`Channel ${code}`);
      mustBeAt(act.person, channel.site_id);
      mustMatch(channel.version, version);
      await update(tx, 'channel', { id: channel.id }, { name: input.name, base_url: input.baseUrl ?? null, version: version + 1 });
      await this.writeListings(tx, channel.id, input.listings);
      await this.activity.record(tx, act, {
        kind: 'channel',
        glyph: 'full',
        title: `Channel ${input.name} changed`,
        document: code,
        siteId: channel.site_id,
      });
      return { code };
    });
  }

  /** Gives a channel a new secret to sign with, told this once; the one before is void from then on. */
  giveSecret(act: Act, code: string): Promise<{ secret: string }> {
    return this.commands.run(act, 'channel.secret', { code }, async (tx) => {
      const channel = await find(tx, 'channel', { code }, 'lock');
      if (!channel) throw notFound(`Channel ${code}`);
      mustBeAt(act.person, channel.site_id);
      const secret = randomBytes(SECRET_BYTES).toString('base64url');
      await update(tx, 'channel', { id: channel.id }, { secret });
      await this.activity.record(tx, act, {
        kind: 'channel',
        glyph: 'full',
        title: `${channel.name} signs with a new secret`,
        detail: channel.secret ? 'the one before is void' : '',
        document: code,
        siteId: channel.site_id,
      });
      return { secret };
    });
  }

  /** The telephone and counter of a site, by which orders come that somebody keys; made when the first one is. */
  async desk(tx: Tx, siteId: number): Promise<number> {
    const known = await one<{ id: number }>(tx, `SELECT id FROM channel WHERE kind = 'phone' AND site_id = ? ORDER BY id LIMIT 1`, [
      siteId,
    ]);
    if (known) return known.id;
    const site = await find(tx, 'site', { id: siteId });
    if (!site) throw notFound('That site');
    const first = await find(tx, 'channel', { code: 'DESK' });
    return insert(tx, 'channel', {
      code: first ? `DESK-${site.code}`.slice(0, 20) : 'DESK',
      name: first ? `Telephone and counter, ${site.name}`.slice(0, 80) : 'Telephone and counter',
      kind: 'phone',
      site_id: siteId,
    });
  }

  /** The listing behind a channel's code: the one there is, otherwise a new one of single units of the item. */
  async link(
    tx: Tx,
    channelId: number,
    wanted: { channelSku: string; itemId: number; price: string },
  ): Promise<{ itemId: number; factor: number }> {
    const known = await find(tx, 'listing', { channel_id: channelId, channel_sku: wanted.channelSku });
    if (known) return { itemId: known.item_id, factor: known.factor };
    await insert(tx, 'listing', {
      channel_id: channelId,
      channel_sku: wanted.channelSku,
      item_id: wanted.itemId,
      factor: 1,
      price: wanted.price,
    });
    return { itemId: wanted.itemId, factor: 1 };
  }

  /** Keeps how far a channel's orders were fetched, or why they could not be. */
  async polled(channelId: number, how: { cursor: string } | { why: string }): Promise<void> {
    await update(
      this.source,
      'channel',
      { id: channelId },
      'cursor' in how ? { poll_cursor: how.cursor, poll_error: null } : { poll_error: how.why.slice(0, 300) },
    );
  }

  private async writeListings(tx: Tx, channelId: number, listings: readonly EditListingDto[]): Promise<void> {
    await remove(tx, 'listing', { channel_id: channelId });
    for (const { sku, channelSku, factor, keepBack, price } of listings) {
      const item = await find(tx, 'item', { sku: sku.toUpperCase() });
      if (!item) throw badForm({ listings: `There is no item ${sku}. Make the item first` });
      await insert(tx, 'listing', { channel_id: channelId, item_id: item.id, channel_sku: channelSku, factor, keep_back: keepBack, price });
    }
  }
}
