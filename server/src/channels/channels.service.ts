import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  CommandLog,
  Config,
  find,
  insert,
  insertMany,
  mustBeAt,
  mustMatch,
  notFound,
  NOW,
  num,
  one,
  type Person,
  remove,
  rows,
  type Tx,
  update,
} from '../platform/index.js';
import type { ChannelDto, ChannelSheetDto, EditChannelDto, EditListingDto, ListingDto, NewChannelDto } from './channels.dto.js';

const CHANNEL_FIELDS = `c.id, c.code, c.name, c.kind, s.name AS site, c.base_url AS baseUrl, c.polled_at AS polledAt, c.poll_error AS pollError, c.push_error AS pushError, c.answered_at AS answeredAt, c.paused, c.share_percent AS sharePercent, c.scarce_under AS scarceUnder, c.check_over AS checkOver, c.prices_hold_tax AS pricesHoldTax, c.version, c.secret IS NOT NULL AS hasSecret,
  (SELECT COUNT(*) FROM parked_message m WHERE m.channel_id = c.id AND m.state = 'waiting') AS unread,
  (SELECT COUNT(*) FROM listing d WHERE d.channel_id = c.id AND d.due = 1 AND c.base_url IS NOT NULL AND c.kind IN ('web-shop','marketplace')) AS dueStock,
  (SELECT COUNT(*) FROM outbox b WHERE b.receiver = CONCAT('channel:', c.code) AND b.state <> 'done') AS dueMessages,
  (SELECT COUNT(*) FROM listing l WHERE l.channel_id = c.id) AS listings`;

const SECRET_BYTES = 24;
/** A channel that cannot be told is tried again at least so often. */
const LONGEST_REST_S = 60;
/** What is chosen of a channel beyond its name and address. */
const rulesOf = ({ paused, sharePercent, scarceUnder, checkOver, pricesHoldTax }: EditChannelDto) => ({
  paused,
  share_percent: sharePercent,
  scarce_under: scarceUnder,
  check_over: checkOver,
  prices_hold_tax: pricesHoldTax,
});
const counted = (c: ChannelDto): ChannelDto => ({
  ...c,
  listings: num(c.listings),
  unread: num(c.unread),
  dueStock: num(c.dueStock),
  dueMessages: num(c.dueMessages),
  hasSecret: num(c.hasSecret as never) === 1,
  paused: num(c.paused as never) === 1,
  pricesHoldTax: num(c.pricesHoldTax as never) === 1,
});

/** Channels that the house sells on, with their listings. */
@Injectable()
export class ChannelsService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly config: Config,
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
    const sites = await rows<{ id: number }>(this.source, 'SELECT site_id AS id FROM channel_site WHERE channel_id = ? ORDER BY site_id', [
      found.id,
    ]);
    return {
      ...counted(found),
      siteIds: sites.map((s) => s.id),
      items,
      folder: this.config.ORDER_FOLDER ? join(this.config.ORDER_FOLDER, code) : null,
    };
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
        ...rulesOf(input),
      });
      await this.writeSites(tx, act, made, input.siteIds ?? [input.siteId]);
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
      await update(
        tx,
        'channel',
        { id: channel.id },
        { name: input.name, base_url: input.baseUrl ?? null, ...rulesOf(input), version: version + 1 },
      );
      if (input.siteIds) await this.writeSites(tx, act, channel.id, input.siteIds);
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
    wanted: { channelSku: string; itemId: number; price: string; factor?: number },
  ): Promise<{ itemId: number; factor: number }> {
    const known = await find(tx, 'listing', { channel_id: channelId, channel_sku: wanted.channelSku });
    if (known) return { itemId: known.item_id, factor: known.factor };
    const factor = wanted.factor ?? 1;
    await insert(tx, 'listing', {
      channel_id: channelId,
      channel_sku: wanted.channelSku,
      item_id: wanted.itemId,
      factor,
      price: wanted.price,
    });
    return { itemId: wanted.itemId, factor };
  }

  /** Keeps how far a channel's orders were fetched, or why they could not be and how long it asks for a rest. Returns whether that is new. */
  async polled(channelId: number, how: { cursor: string } | { why: string; rest: number }): Promise<boolean> {
    if ('cursor' in how) {
      await update(
        this.source,
        'channel',
        { id: channelId },
        { poll_cursor: how.cursor, poll_error: null, next_poll_at: null, answered_at: NOW },
      );
      return true;
    }
    const why = how.why.slice(0, 300);
    const before = await find(this.source, 'channel', { id: channelId });
    await update(
      this.source,
      'channel',
      { id: channelId },
      { poll_error: why, next_poll_at: how.rest > 0 ? new Date(Date.now() + how.rest * 1000) : null },
    );
    return before?.poll_error !== why;
  }

  /**
   * Keeps whether a channel could be told of stock. What fails rests longer each time;
   * `rest` is what the channel asked for, in seconds. Returns whether the failure is new.
   */
  async pushed(channelId: number, why: string | null = null, rest: number | null = null): Promise<boolean> {
    if (why === null) {
      await update(this.source, 'channel', { id: channelId }, { push_error: null, push_tries: 0, next_push_at: null, answered_at: NOW });
      return true;
    }
    const before = await find(this.source, 'channel', { id: channelId });
    const tries = (before?.push_tries ?? 0) + 1;
    const seconds = rest ?? Math.min(LONGEST_REST_S, 2 ** Math.min(tries, 10));
    await update(
      this.source,
      'channel',
      { id: channelId },
      { push_error: why.slice(0, 300), push_tries: tries, next_push_at: new Date(Date.now() + seconds * 1000) },
    );
    return before?.push_error !== why.slice(0, 300);
  }

  /** Tries again at once what could not be asked or told. */
  async tryNow(tx: Tx, channelId: number): Promise<void> {
    await update(tx, 'channel', { id: channelId }, { polled_at: null, next_poll_at: null, next_push_at: null, push_tries: 0 });
  }

  /** The channel's id and site, for whoever may see it. */
  async seen(person: Pick<Person, 'siteIds'>, code: string): Promise<{ id: number; siteId: number; name: string }> {
    const found = await one<{ id: number; siteId: number; name: string }>(
      this.source,
      'SELECT id, site_id AS siteId, name FROM channel WHERE code = ? AND site_id IN (?)',
      [code, [0, ...person.siteIds]],
    );
    if (!found) throw notFound(`Channel ${code}`);
    return found;
  }

  /** What a channel is told of its listings, what it believes, and what may be sold by now is compared from. */
  async beliefs(channelId: number): Promise<BeliefRow[]> {
    return rows<BeliefRow>(
      this.source,
      `SELECT l.id, l.channel_sku AS channelSku, i.sku, i.name, l.told_units AS told, l.told_at AS toldAt, l.believed_units AS believes, l.believed_at AS believedAt, l.due
       FROM listing l JOIN item i ON i.id = l.item_id WHERE l.channel_id = ? ORDER BY i.name, l.channel_sku`,
      [channelId],
    );
  }

  /** The sites that a channel sells from; all that it sells is told anew. */
  private async writeSites(tx: Tx, act: Act, channelId: number, siteIds: readonly number[]): Promise<void> {
    if (siteIds.length === 0) throw badForm({ siteIds: 'Choose at least one site that it sells from' });
    const known = (await rows<{ id: number }>(tx, 'SELECT site_id AS id FROM channel_site WHERE channel_id = ?', [channelId])).map(
      (s) => s.id,
    );
    // Sites where the person does not work stay as they are.
    const elsewhere = known.filter((id) => !act.person.siteIds.includes(id));
    const wanted = siteIds.filter((id) => !elsewhere.includes(id));
    for (const siteId of wanted) mustBeAt(act.person, siteId);
    await remove(tx, 'channel_site', { channel_id: channelId });
    await insertMany(
      tx,
      'channel_site',
      ['channel_id', 'site_id'],
      [...new Set([...wanted, ...elsewhere])].map((siteId) => [channelId, siteId]),
    );
    await update(tx, 'listing', { channel_id: channelId }, { due: 1 });
  }

  /** Writes the listings of a channel: those that are there already keep what the channel was told. */
  private async writeListings(tx: Tx, channelId: number, listings: readonly EditListingDto[]): Promise<void> {
    const skus = [...new Set(listings.map((l) => l.sku.toUpperCase()))];
    const items = new Map(
      (await rows<{ id: number; sku: string }>(tx, 'SELECT id, sku FROM item WHERE sku IN (?)', [['', ...skus]])).map((i) => [
        i.sku.toUpperCase(),
        i.id,
      ]),
    );
    const unknown = listings.find((l) => !items.has(l.sku.toUpperCase()));
    if (unknown) throw badForm({ listings: `There is no item ${unknown.sku}. Make the item first` });
    const twice = listings.find((l, i) => listings.findIndex((x) => x.channelSku === l.channelSku) !== i);
    if (twice) throw badForm({ listings: `${twice.channelSku} is there twice` });
    const kept = listings.map((l) => l.channelSku);
    await tx.query('DELETE FROM listing WHERE channel_id = ? AND channel_sku NOT IN (?)', [channelId, ['', ...kept]]);
    if (listings.length > 0)
      await insertMany(
        tx,
        'listing',
        ['channel_id', 'item_id', 'channel_sku', 'factor', 'keep_back', 'price'],
        listings.map((l) => [channelId, items.get(l.sku.toUpperCase()), l.channelSku, l.factor, l.keepBack, l.price]),
        'ON DUPLICATE KEY UPDATE due = 1, item_id = VALUES(item_id), factor = VALUES(factor), keep_back = VALUES(keep_back), price = VALUES(price)',
      );
  }
}

/** A listing as its channel knows it. */
export interface BeliefRow {
  id: number;
  channelSku: string;
  sku: string;
  name: string;
  told: number | null;
  toldAt: Date | null;
  believes: number | null;
  believedAt: Date | null;
  due: number;
}
