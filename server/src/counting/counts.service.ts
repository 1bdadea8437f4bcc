import { Injectable } from '@nestjs/common';
import { splitByArea } from '@vectrum/core/counting';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { PeopleQueries } from '../identity/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  inTransaction,
  insert,
  insertMany,
  marks,
  mustBeAt,
  mustMatch,
  nextCode,
  notFound,
  NOW,
  num,
  one,
  type Person,
  remove,
  rows,
  type Tx,
  update,
  more as plus,
} from '../platform/index.js';
import { type BinRow, countOfCode, type CountRow } from './count-rows.js';
import type { DrawnDto, DrawUpDto } from './counts.dto.js';
import { draw, type Drawn, WHOLE } from './drawing.js';

/** A day's work of a small house, and then some. */
const MOST_BINS = 20_000;

const NAMED: Readonly<Record<DrawUpDto['by'], (words: readonly string[]) => string>> = {
  area: (w) => w.join(', '),
  bins: (w) => (w.length === 1 ? `Bin ${w[0] ?? ''}` : `${w.length} bins`),
  items: (w) => w.join(', '),
  class: (w) => w.join(', '),
  lot: (w) => `Lot ${w.join(', ')}`,
  supplier: (w) => `Goods of ${w.join(', ')}`,
  field: (w) => `${w[0] ?? ''} ${w[1] ?? ''}`,
  value: () => 'What is worth most',
  suspicion: () => 'Bins in doubt',
  plan: () => 'Due by plan',
};

/** Draws counts up, opens them to phones, shares them out, and ends those that nobody wants. */
@Injectable()
export class Counts {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly people: PeopleQueries,
    private readonly activity: ActivityService,
  ) {}

  /** What a count would be of, without drawing it up. */
  preview(person: Person, asked: DrawUpDto): Promise<DrawnDto> {
    mustBeAt(person, asked.siteId);
    return inTransaction(this.source, async (tx) => {
      const found = await draw(tx, asked);
      const elsewhere = await this.elsewhere(tx, found);
      const taken = new Set(elsewhere.map((e) => e.placeId));
      const free = found.filter((f) => !taken.has(f.placeId));
      const areas = new Map<string, Set<number>>();
      for (const f of free) areas.set(f.area, (areas.get(f.area) ?? new Set()).add(f.placeId));
      return {
        bins: new Set(free.map((f) => f.placeId)).size,
        goods: free.filter((f) => f.itemId !== null).length,
        elsewhere: elsewhere.map(({ place, count }) => ({ place, count })),
        areas: [...areas].map(([area, bins]) => ({ area, bins: bins.size })),
      };
    });
  }

  /** Draws a count up; its lines can be looked at before phones see it. Bins that are in another count stay there. */
  drawUp(act: Act, asked: DrawUpDto): Promise<{ code: string }> {
    mustBeAt(act.person, asked.siteId);
    return this.commands.run(act, 'count.draw', asked, async (tx) => {
      const all = await draw(tx, asked);
      const taken = new Set((await this.elsewhere(tx, all)).map((e) => e.placeId));
      const found = all.filter((f) => !taken.has(f.placeId));
      const bins = [...new Map(found.map((f) => [f.placeId, f])).values()];
      if (bins.length === 0)
        throw badForm({
          words: taken.size > 0 ? 'All of these bins are in another count' : 'No bin has what is asked for. Choose otherwise',
        });
      if (bins.length > MOST_BINS) throw badForm({ words: `A count has at most ${MOST_BINS} bins. Draw up several` });
      const code = await nextCode(tx, 'N');
      const title = asked.title.trim() || NAMED[asked.by](asked.words).slice(0, 150) || 'Count';
      const countId = await insert(tx, 'stock_count', {
        code,
        site_id: asked.siteId,
        title,
        whole_bins: WHOLE.includes(asked.by),
        blind: asked.blind,
        scan_each: asked.scanEach,
        made_by_id: act.person.id,
      });
      await insertMany(
        tx,
        'count_bin',
        ['count_id', 'place_id', 'area', 'position'],
        bins.map((b, i) => [countId, b.placeId, b.area.slice(0, 40), i]),
      );
      await insertMany(
        tx,
        'count_line',
        ['count_id', 'place_id', 'item_id', 'lot_id', 'damaged'],
        found.filter((f) => f.itemId !== null).map((f) => [countId, f.placeId, f.itemId, f.lotId, f.damaged]),
      );
      await this.told(tx, act, { code, site_id: asked.siteId }, 'Count drawn up', `${title}, ${bins.length} bins`);
      return { code };
    });
  }

  /** Phones see it from now on. What moves from here on is followed. */
  open(act: Act, code: string, version: number): Promise<{ code: string }> {
    return this.commands.run(act, 'count.open', { code, version }, async (tx) => {
      const count = await this.held(tx, act, code, version, ['drawn-up']);
      const newest = await one<{ id: string | null }>(tx, 'SELECT MAX(id) AS id FROM movement');
      await this.goOn(tx, count, { state: 'open', opened_at: NOW, after_movement: newest?.id ?? '0' });
      await this.told(tx, act, count, 'Count opened', count.title);
      return { code };
    });
  }

  /** Bins are shared out among people, a stretch each, so that nobody crosses another; among none, anybody may count anything. */
  share(act: Act, code: string, version: number, personIds: readonly number[]): Promise<{ code: string }> {
    return this.commands.run(act, 'count.share', { code, version, personIds }, async (tx) => {
      const count = await this.held(tx, act, code, version, ['drawn-up', 'open', 'review']);
      await this.mayCount(tx, count, personIds);
      const bins = await rows<{ placeId: number; area: string; work: string }>(
        tx,
        `SELECT b.place_id AS placeId, b.area, COUNT(l.id) AS work FROM count_bin b LEFT JOIN count_line l ON l.count_id = b.count_id AND l.place_id = b.place_id
         WHERE b.count_id = ? AND b.state = 'open' GROUP BY b.id ORDER BY b.position`,
        [count.id],
      );
      const shares =
        personIds.length === 0
          ? []
          : splitByArea(
              bins.map((b) => ({ ...b, work: num(b.work) + 1 })),
              personIds.length,
            );
      await update(tx, 'count_bin', { count_id: count.id, state: 'open' }, { person_id: null });
      for (const [i, share] of shares.entries()) {
        if (share.length > 0)
          await update(
            tx,
            'count_bin',
            { count_id: count.id, state: 'open', place_id: share.map((b) => b.placeId) },
            { person_id: personIds[i] ?? null },
          );
      }
      await this.goOn(tx, count, {});
      return { code };
    });
  }

  /** One bin is given to somebody, or to whoever comes; what others have begun there is theirs no longer. */
  give(act: Act, code: string, version: number, placeId: number, personId: number | null): Promise<{ code: string }> {
    return this.commands.run(act, 'count.give', { code, version, placeId, personId }, async (tx) => {
      const count = await this.held(tx, act, code, version, ['drawn-up', 'open', 'review']);
      const bin = await this.bin(tx, count, placeId);
      if (bin.state === 'counted') throw badState('The bin is counted already. Have its lines counted again instead');
      if (personId !== null) await this.mayCount(tx, count, [personId]);
      await update(
        tx,
        'count_bin',
        { id: bin.id },
        {
          person_id: personId,
          begun_by_id: null,
          device_id: null,
          not_person_id: personId === bin.not_person_id ? null : bin.not_person_id,
        },
      );
      await this.goOn(tx, count, {});
      return { code };
    });
  }

  /** A bin is left out of a count that nobody has counted it for yet. */
  leaveOut(act: Act, code: string, version: number, placeId: number): Promise<{ code: string }> {
    return this.commands.run(act, 'count.leave-out', { code, version, placeId }, async (tx) => {
      const count = await this.held(tx, act, code, version, ['drawn-up', 'open']);
      const bin = await this.bin(tx, count, placeId);
      if (bin.state !== 'open') throw badState('Somebody has begun to count this bin');
      const all = await one<{ n: string }>(tx, 'SELECT COUNT(*) AS n FROM count_bin WHERE count_id = ?', [count.id]);
      if (num(all?.n) === 1) throw badState('It is the last bin of this count. Let the count go instead');
      await remove(tx, 'count_line', { count_id: count.id, place_id: placeId });
      await remove(tx, 'count_bin', { id: bin.id });
      await this.goOn(tx, count, {});
      return { code };
    });
  }

  /** Nobody wants it any more: nothing of it is booked. */
  drop(act: Act, code: string, version: number, reason: string): Promise<{ code: string }> {
    return this.commands.run(act, 'count.drop', { code, version, reason }, async (tx) => {
      const count = await this.held(tx, act, code, version, ['drawn-up', 'open', 'review']);
      const booked = await one(tx, `SELECT id FROM count_line WHERE count_id = ? AND state = 'accepted' LIMIT 1`, [count.id]);
      await tx.query(
        `UPDATE count_line SET state = 'dropped', reason = ?, settled_by_id = ?, settled_at = UTC_TIMESTAMP(3) WHERE count_id = ? AND state IN ('open','counted')`,
        [reason.trim() || null, act.person.id, count.id],
      );
      await this.end(tx, count, booked ? 'closed' : 'dropped');
      await this.told(tx, act, count, 'Count let go', reason.trim() || count.title);
      return { code };
    });
  }

  /** A count is over: its bins may be counted again. */
  async end(tx: Tx, count: CountRow, state: 'closed' | 'dropped'): Promise<void> {
    await update(tx, 'count_bin', { count_id: count.id }, { live: null });
    await this.goOn(tx, count, { state, ended_at: NOW });
  }

  /** The count, held, where the person may decide on it and it is in one of these states. */
  async held(tx: Tx, act: Act, code: string, version: number, states: readonly CountRow['state'][]): Promise<CountRow> {
    const count = await countOfCode(tx, code, 'lock');
    mustBeAt(act.person, count.site_id);
    mustMatch(count.version, version);
    if (!states.includes(count.state)) throw badState(STATE_SAYS[count.state] ?? 'The count is in another state by now');
    return count;
  }

  async goOn(
    tx: Tx,
    count: CountRow,
    change: Partial<{ state: string; opened_at: typeof NOW; reviewed_at: typeof NOW; ended_at: typeof NOW; after_movement: string }>,
  ): Promise<void> {
    await update(tx, 'stock_count', { id: count.id }, { ...change, version: plus(1) });
  }

  told(tx: Tx, act: Act, count: Pick<CountRow, 'code' | 'site_id'>, title: string, detail: string): Promise<number> {
    return this.activity.record(tx, act, { kind: 'tally', glyph: 'full', title, detail, document: count.code, siteId: count.site_id });
  }

  private async bin(tx: Tx, count: CountRow, placeId: number): Promise<BinRow> {
    const [bin] = await rows<BinRow>(tx, 'SELECT * FROM count_bin WHERE count_id = ? AND place_id = ? FOR UPDATE', [count.id, placeId]);
    if (!bin) throw notFound('This bin of the count');
    return bin;
  }

  private async mayCount(tx: Tx, count: CountRow, personIds: readonly number[]): Promise<void> {
    const allowed = new Set((await this.people.allowedAt(tx, count.site_id, 'count')).map((p) => p.id));
    if (personIds.some((id) => !allowed.has(id))) throw badForm({ personIds: 'Not all of these may count at this site' });
  }

  /** Which of these bins are in another count that is not over. */
  private async elsewhere(tx: Tx, found: readonly Drawn[]): Promise<{ placeId: number; place: string; count: string }[]> {
    const ids = [...new Set(found.map((f) => f.placeId))];
    if (ids.length === 0) return [];
    return rows(
      tx,
      `SELECT b.place_id AS placeId, p.code AS place, c.code AS count FROM count_bin b JOIN stock_count c ON c.id = b.count_id JOIN place p ON p.id = b.place_id
       WHERE b.live = 1 AND b.place_id IN (${marks(ids)}) ORDER BY p.walk_order, p.id FOR UPDATE`,
      ids,
    );
  }
}

const STATE_SAYS: Readonly<Record<string, string>> = {
  'drawn-up': 'The count is not open yet',
  open: 'The count is open to phones already',
  review: 'Counting is over. Decide on its lines',
  closed: 'The count is closed',
  dropped: 'The count was let go',
};
