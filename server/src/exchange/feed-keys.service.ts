import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { newToken, SessionService, tokenHash } from '../identity/index.js';
import { type Act, badForm, CommandLog, find, insert, notFound, num, one, type Person, Problem, remove, rows } from '../platform/index.js';
import type { FeedKeyDto, NewFeedKeyDto } from './feeds.dto.js';

const MOST_KEYS = 20;
/** Feeds may be read every second: when a key was used is written no oftener than this. */
const USED_SECONDS = 60;

/**
 * Keys by which other programs read lists. A key sees what its maker sees, at the moment that it is used: whoever leaves, or is at
 * fewer sites, takes it along. It opens nothing but lists.
 */
@Injectable()
export class FeedKeys {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly sessions: SessionService,
  ) {}

  /** A person's own keys. */
  list(person: Person): Promise<FeedKeyDto[]> {
    return rows<FeedKeyDto>(
      this.source,
      'SELECT id, name, made_at AS madeAt, used_at AS usedAt FROM feed_key WHERE person_id = ? ORDER BY id',
      [person.id],
    );
  }

  /** Makes a key, which is told this once. Said again after a lost answer it has none: what is kept of an act holds no secret. */
  async add(act: Act, name: string): Promise<NewFeedKeyDto> {
    const key = newToken();
    const made = await this.commands.run(act, 'feed-key.add', { name }, async (tx) => {
      const has = await one<{ n: string }>(tx, 'SELECT COUNT(*) AS n FROM feed_key WHERE person_id = ? FOR UPDATE', [act.person.id]);
      if (num(has?.n) >= MOST_KEYS) throw badForm({ name: `You have ${MOST_KEYS} keys. Take one away that nobody uses` });
      const hash = tokenHash(key);
      const id = await insert(tx, 'feed_key', { name: name.trim(), person_id: act.person.id, key_hash: hash });
      await this.activity.record(tx, act, { kind: 'setup', glyph: 'full', title: `A key for feeds made: ${name.trim()}` });
      return { id, hash };
    });
    return { id: made.id, key: made.hash === tokenHash(key) ? key : null };
  }

  drop(act: Act, id: number): Promise<{ id: number }> {
    return this.commands.run(act, 'feed-key.drop', { id }, async (tx) => {
      const key = await find(tx, 'feed_key', { id, person_id: act.person.id }, 'lock');
      if (!key) throw notFound('This key');
      await remove(tx, 'feed_key', { id });
      await this.activity.record(tx, act, { kind: 'setup', glyph: 'blocked', title: `A key for feeds taken away: ${key.name}` });
      return { id };
    });
  }

  /** Whoever made the key in a header `Authorization: Bearer …`, as that person is now. One answer for every key that opens nothing. */
  async personOf(header: string | undefined): Promise<Person> {
    const key = /^Bearer ([\w-]{20,100})$/.exec(header ?? '')?.[1];
    const found = key ? await find(this.source, 'feed_key', { key_hash: tokenHash(key) }) : undefined;
    const person = found && (await this.sessions.person(found.person_id));
    if (!found || !person)
      throw new Problem(401, 'signed-out', 'This key opens nothing. Make one on your own page, and send it as Authorization: Bearer');
    await this.source.query(
      'UPDATE feed_key SET used_at = UTC_TIMESTAMP(3) WHERE id = ? AND (used_at IS NULL OR used_at < UTC_TIMESTAMP(3) - INTERVAL ? SECOND)',
      [found.id, USED_SECONDS],
    );
    return person;
  }
}
