import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badState,
  CommandLog,
  inTransaction,
  mustBeAt,
  mustMatch,
  NEXT,
  notFound,
  NOW,
  one,
  countOf,
  pageOf,
  rows,
  type Tx,
  update,
  type Window,
} from '../platform/index.js';
import type { ParkedDto, ParkedPageDto, ParkedRowDto } from './parked.dto.js';
import type { ChannelAccess } from './connector.js';

const MOST_RAW = 1_000_000;
/** A channel that has so many waiting is asked for no more until some are settled; nothing is dropped. */
const MOST_WAITING = 1_000;
const FIELDS = `m.id, c.name AS channel, m.came_at AS cameAt, m.ref, m.why, m.state`;

interface Kept {
  id: number;
  channel_id: number;
  site_id: number;
  channel: string;
  state: string;
  version: number;
}

/** Messages that cannot be understood: kept as they came, shown, and mended or set aside by hand. They never hold up the next. */
@Injectable()
export class ParkedMessages {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  /** Keeps a message with what is against it; returns whether it is new. The same message again is the same row. */
  async park(channel: Pick<ChannelAccess, 'id' | 'code' | 'site_id'>, text: string, why: string): Promise<boolean> {
    const raw = text.slice(0, MOST_RAW);
    const hash = createHash('sha256').update(text).digest('hex');
    return inTransaction(this.source, async (tx) => {
      const [row] = await rows<{ waiting: string }>(
        tx,
        `SELECT COUNT(*) AS waiting FROM parked_message WHERE channel_id = ? AND state = 'waiting'`,
        [channel.id],
      );
      if (Number(row?.waiting) >= MOST_WAITING) throw badState(`${MOST_WAITING} messages wait to be mended. Settle some of them first`);
      const done = await tx.query<{ affectedRows: number }>(
        'INSERT IGNORE INTO parked_message (channel_id, raw, hash, ref, why) VALUES (?, ?, ?, ?, ?)',
        [channel.id, raw, hash, refOf(text), why.slice(0, 500)],
      );
      if (done.affectedRows === 0) return false;
      await this.activity.record(tx, null, {
        kind: 'channel',
        glyph: 'blocked',
        title: `A message of ${channel.code} cannot be understood`,
        detail: why,
        siteId: channel.site_id,
      });
      return true;
    });
  }

  /** Messages about an order that wait, as they came. */
  async waitingFor(channelId: number, ref: string): Promise<string[]> {
    const found = await rows<{ raw: string }>(
      this.source,
      `SELECT raw FROM parked_message WHERE channel_id = ? AND ref = ? AND state = 'waiting' ORDER BY id`,
      [channelId, ref],
    );
    return found.map((f) => f.raw);
  }

  /** An order came in after all: what was kept of it under its number waits no longer. */
  async cameIn(channelId: number, ref: string, code: string): Promise<void> {
    await this.source.query(
      `UPDATE parked_message SET state = 'taken-in', order_code = ?, settled_at = UTC_TIMESTAMP(3), version = version + 1 WHERE channel_id = ? AND ref = ? AND state = 'waiting'`,
      [code, channelId, ref],
    );
  }

  /** Those that wait, oldest first, then the newest of the settled. */
  async list(siteIds: readonly number[], window: Window): Promise<ParkedPageDto> {
    const list = {
      select: FIELDS,
      from: 'FROM parked_message m JOIN channel c ON c.id = m.channel_id WHERE c.site_id IN (?)',
      params: [[0, ...siteIds]],
      order: `m.state <> 'waiting', IF(m.state = 'waiting', m.id, 0), m.id DESC`,
    };
    const waits = { from: `${list.from} AND m.state = 'waiting'`, params: list.params };
    const [page, waiting] = await Promise.all([pageOf<ParkedRowDto>(this.source, list, window), countOf(this.source, waits)]);
    return { ...page, waiting };
  }

  async sheet(id: number, siteIds: readonly number[]): Promise<ParkedDto> {
    const found = await one<ParkedDto>(
      this.source,
      `SELECT ${FIELDS}, m.raw, m.order_code AS \`order\`, p.name AS settledBy, m.settled_at AS settledAt, m.settled_why AS settledWhy, m.version
       FROM parked_message m JOIN channel c ON c.id = m.channel_id LEFT JOIN person p ON p.id = m.settled_by WHERE m.id = ? AND c.site_id IN (?)`,
      [id, [0, ...siteIds]],
    );
    if (!found) throw notFound('That message');
    return found;
  }

  /**
   * Takes a message in as it should have been: `takeIn` does what it says and returns our number of the order. Problem 400 with what is
   * still against it.
   */
  mend(
    act: Act,
    id: number,
    version: number,
    text: string,
    takeIn: (channelId: number, text: string) => Promise<string>,
  ): Promise<{ code: string }> {
    return this.commands.run(act, 'parked.mend', { id, version, text }, async (tx) => {
      const kept = await this.waiting(tx, act, id, version);
      // Taking in is known by the channel's number: where this ends half way, it is the same order the next time.
      const code = await takeIn(kept.channel_id, text);
      await this.settle(tx, act, kept, { state: 'taken-in', order_code: code }, `A message of ${kept.channel} mended: ${code}`);
      return { code };
    });
  }

  setAside(act: Act, id: number, version: number, why: string): Promise<void> {
    return this.commands.run(act, 'parked.set-aside', { id, version, why }, async (tx) => {
      const kept = await this.waiting(tx, act, id, version);
      await this.settle(
        tx,
        act,
        kept,
        { state: 'set-aside', settled_why: why.trim() },
        `A message of ${kept.channel} set aside: ${why.trim()}`,
      );
    });
  }

  private async waiting(tx: Tx, act: Act, id: number, version: number): Promise<Kept> {
    // The channel's row is left free, since taking the order in refers to it.
    await one(tx, 'SELECT id FROM parked_message WHERE id = ? FOR UPDATE', [id]);
    const kept = await one<Kept>(
      tx,
      'SELECT m.id, m.channel_id, c.site_id, c.name AS channel, m.state, m.version FROM parked_message m JOIN channel c ON c.id = m.channel_id WHERE m.id = ?',
      [id],
    );
    if (!kept) throw notFound('That message');
    mustBeAt(act.person, kept.site_id);
    mustMatch(kept.version, version);
    if (kept.state !== 'waiting') throw badState('That message is settled already');
    return kept;
  }

  private async settle(
    tx: Tx,
    act: Act,
    kept: Kept,
    how: { state: string; order_code?: string; settled_why?: string },
    title: string,
  ): Promise<void> {
    await update(tx, 'parked_message', { id: kept.id }, { ...how, settled_by: act.person.id, settled_at: NOW, version: NEXT });
    await this.activity.record(tx, act, {
      kind: 'channel',
      glyph: how.state === 'taken-in' ? 'full' : 'held',
      title,
      document: how.order_code ?? null,
      siteId: kept.site_id,
    });
  }
}

/** The channel's number of the order in a message, as far as it can be made out. */
function refOf(text: string): string | null {
  if (text.trimStart().startsWith('<')) return /<(?:\w+:)?ID[^>]*>([^<]{1,60})</.exec(text)?.[1]?.trim() ?? null;
  try {
    const read = JSON.parse(text) as { ref?: unknown; returnRef?: unknown; number?: unknown } | null;
    // A return waits under its own number: that its order comes in says nothing of it.
    const ref = read?.returnRef ?? read?.ref ?? read?.number;
    return typeof ref === 'string' && ref !== '' ? ref.slice(0, 60) : null;
  } catch {
    return null;
  }
}
