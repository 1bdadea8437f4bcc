import { Injectable } from '@nestjs/common';
import type { Movement } from '@vectrum/core/ledger';
import { spell } from '@vectrum/core/quantity';
import { ActivityService, UndoService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { PeopleQueries } from '../identity/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  find,
  insert,
  more,
  notFound,
  NOW,
  num,
  one,
  partOf,
  Problem,
  type Tx,
  update,
} from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { LedgerService } from '../stock/index.js';
import { countOfCode, type CountRow } from './count-rows.js';
import { Counts } from './counts.service.js';
import type { SettledLinesDto } from './counts.dto.js';
import { endWhereDecided, MOST_LINES, settleRight, undecided } from './deciding.js';
import { type Judged, ReviewQueries } from './review.queries.js';
import { bookedAt } from './spot-rows.js';
import { NOTHING, TakingOut } from './taking-out.service.js';

/** What becomes of the lines of a count: the books follow, somebody counts again, or nothing comes of it. */
@Injectable()
export class Reviews {
  constructor(
    private readonly commands: CommandLog,
    private readonly counts: Counts,
    private readonly review: ReviewQueries,
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly taking: TakingOut,
    private readonly people: PeopleQueries,
    private readonly settings: SettingsService,
    private readonly activity: ActivityService,
    undo: UndoService,
  ) {
    undo.register('count-lines', 'settle-counts', (tx, act, payload) => this.takeBack(tx, act, payload as unknown as Accepted));
  }

  /** Counting is over: what is as the books say is settled, and with it what is within tolerance where the house wants that. */
  async close(act: Act, code: string, version: number, leaveOut: boolean): Promise<{ code: string }> {
    const within = await this.commands.run(act, 'count.close', { code, version, leaveOut }, async (tx) => {
      const count = await this.counts.held(tx, act, code, version, ['open']);
      const left = await one<{ n: string }>(tx, `SELECT COUNT(*) AS n FROM count_bin WHERE count_id = ? AND state <> 'counted'`, [
        count.id,
      ]);
      if (num(left?.n) > 0 && !leaveOut)
        throw badState(
          `${num(left?.n) === 1 ? 'One bin is' : `${num(left?.n)} bins are`} not counted. Have them counted, or leave them out`,
        );
      await tx.query(
        `UPDATE count_line SET state = 'dropped', reason = 'not counted', settled_by_id = ?, settled_at = UTC_TIMESTAMP(3) WHERE count_id = ? AND state = 'open'`,
        [act.person.id, count.id],
      );
      await this.counts.goOn(tx, count, { state: 'review', reviewed_at: NOW });
      await this.counts.told(tx, act, count, 'Counting is over', `${count.title}, to be decided on`);
      const judged = await this.review.judged(tx, count);
      await settleRight(
        tx,
        act,
        judged.filter((j) => j.off === 0),
      );
      await endWhereDecided(tx, this.counts, { ...count, state: 'review' });
      if (!(await this.settings.get(tx, 'acceptWithin'))) return [];
      return judged.filter((j) => j.off !== 0 && j.isWithin && j.raw.state === 'counted').map((j) => j.raw.id);
    });
    await this.postEach(act, code, within);
    return { code };
  }

  /**
   * The books follow what was counted: these lines, or all within tolerance where none is named. Each line is booked by itself, so
   * that goods on the move hold up one and not all; what could not be booked is said.
   */
  async accept(act: Act, code: string, version: number, lineIds: readonly number[]): Promise<SettledLinesDto> {
    const chosen = await this.commands.run(act, 'count.accept', { code, version, lineIds }, async (tx) => {
      const count = await this.counts.held(tx, act, code, version, ['review']);
      const judged = await this.review.judged(tx, count, lineIds.length > 0 ? lineIds : null);
      const open = judged.filter((j) => j.raw.state === 'counted' && (lineIds.length > 0 || j.isWithin)).slice(0, MOST_LINES);
      if (open.length === 0) throw badState(lineIds.length > 0 ? 'These lines are decided already' : 'No line within tolerance is left');
      await this.mayDecide(tx, act, count, open);
      return open.map((j) => j.raw.id);
    });
    const failed = await this.postEach(act, code, chosen);
    const count = await this.commands.run(partOf(act, 'left'), 'count.left', { code, lineIds }, async (tx) =>
      undecided(tx, await countOfCode(tx, code, 'share')),
    );
    return { done: chosen.length - failed.length, left: count, failed };
  }

  /** Nobody believes it yet: the bins of these lines are counted again, by somebody else where there is anybody. */
  again(act: Act, code: string, version: number, lineIds: readonly number[]): Promise<SettledLinesDto> {
    return this.commands.run(act, 'count.again', { code, version, lineIds }, async (tx) => {
      const count = await this.counts.held(tx, act, code, version, ['review']);
      const lines = (await this.review.judged(tx, count, lineIds)).filter((j) => j.raw.state === 'counted');
      if (lines.length === 0) throw badState('These lines are decided already');
      const counters = await this.people.allowedAt(tx, count.site_id, 'count');
      for (const { raw } of lines) {
        await insert(tx, 'count_look', {
          line_id: raw.id,
          counted_units: raw.counted ?? 0,
          looked_at: raw.at ?? NOW,
          person_id: raw.personId,
        });
        await update(
          tx,
          'count_line',
          { id: raw.id },
          { state: 'open', counted_units: null, looked_at: null, person_id: null, version: more(1) },
        );
        const isOther = counters.some((c) => c.id !== raw.personId);
        await update(
          tx,
          'count_bin',
          { count_id: count.id, place_id: raw.placeId },
          {
            state: 'open',
            person_id: null,
            begun_by_id: null,
            device_id: null,
            counted_at: null,
            not_person_id: isOther ? raw.personId : null,
          },
        );
      }
      await this.counts.goOn(tx, count, {});
      await this.counts.told(
        tx,
        act,
        count,
        'To be counted again',
        lines
          .map((l) => l.raw.place)
          .slice(0, 5)
          .join(', '),
      );
      return { done: lines.length, left: await undecided(tx, count), failed: [] };
    });
  }

  /** Nothing comes of these lines, for a reason that is kept with them. */
  discard(act: Act, code: string, version: number, lineIds: readonly number[], reason: string): Promise<SettledLinesDto> {
    return this.commands.run(act, 'count.discard', { code, version, lineIds, reason }, async (tx) => {
      if (!reason.trim()) throw badForm({ reason: 'Say why nothing comes of it' });
      const count = await this.counts.held(tx, act, code, version, ['review']);
      const lines = (await this.review.judged(tx, count, lineIds)).filter((j) => j.raw.state === 'counted' || j.raw.state === 'open');
      if (lines.length === 0) throw badState('These lines are decided already');
      await update(
        tx,
        'count_line',
        { id: lines.map((l) => l.raw.id) },
        { state: 'dropped', reason: reason.trim(), settled_by_id: act.person.id, settled_at: NOW, version: more(1) },
      );
      await this.counts.goOn(tx, count, {});
      await this.counts.told(
        tx,
        act,
        count,
        `Let go: ${lines.length === 1 ? `a line of ${lines[0]?.raw.place ?? ''}` : `${lines.length} lines`}`,
        reason.trim(),
      );
      return { done: lines.length, left: await endWhereDecided(tx, this.counts, count), failed: [] };
    });
  }

  /** Whoever counted a line that is beyond tolerance does not decide on it, as long as there is somebody else who may. */
  private async mayDecide(tx: Tx, act: Act, count: CountRow, lines: readonly Judged[]): Promise<void> {
    const own = lines.find((j) => !j.isWithin && j.raw.personId === act.person.id);
    if (!own) return;
    const others = (await this.people.allowedAt(tx, count.site_id, 'settle-counts')).filter((p) => p.id !== act.person.id);
    if (others.length > 0)
      throw new Problem(
        403,
        'not-allowed',
        `You counted ${own.raw.place} yourself, and it is beyond tolerance. ${others[0]?.name ?? 'Somebody else'} decides on it`,
      );
  }

  /** Books lines one by one, each once; returns what could not be booked, and why. */
  private async postEach(act: Act, code: string, lineIds: readonly number[]): Promise<string[]> {
    const failed: string[] = [];
    for (const id of lineIds) {
      try {
        await this.commands.run(partOf(act, `line/${id}`), 'count.line', { code, id }, (tx) => this.post(tx, act, code, id));
      } catch (thrown) {
        if (!(thrown instanceof Problem)) throw thrown;
        failed.push(thrown.detail);
      }
    }
    return failed;
  }

  private async post(tx: Tx, act: Act, code: string, id: number): Promise<null> {
    const count = await countOfCode(tx, code, 'lock');
    const [seen] = await this.review.judged(tx, count, [id]);
    if (!seen || seen.raw.state !== 'counted' || seen.off === null) return null;
    const { raw } = seen;
    const spot = { siteId: count.site_id, placeId: raw.placeId, itemId: raw.itemId, lotId: raw.lotId };
    const outside = await this.ledger.outside(tx, 'count-difference');
    const posting = { task: 'count' as const, document: code, reason: 'counted' };
    const gone =
      seen.off < 0 && raw.damaged === 0
        ? await this.taking.leaveOthers(tx, act, spot, -seen.off, { toPlaceId: outside, posting })
        : NOTHING;
    await bookedAt(tx, spot);
    // What moved until now is followed: the line is reckoned anew, under the lock of its goods.
    const [now] = await this.review.judged(tx, count, [id]);
    const off = now?.off ?? 0;
    const rest = off + gone.units;
    if (gone.units > 0 && rest > 0) throw badState(`Goods are moved in ${raw.place} this very moment. Decide on it once more`);
    const goods = { itemId: raw.itemId, lotId: raw.lotId };
    const condition = raw.damaged === 1 ? ('damaged' as const) : ('good' as const);
    const movements: Movement[] =
      rest < 0
        ? await this.taking.take(tx, spot, -rest, { toPlaceId: outside }, raw.damaged === 1)
        : rest > 0
          ? [{ ...goods, condition, fromPlaceId: outside, toPlaceId: raw.placeId, units: rest }]
          : [];
    const ids = [...gone.movements, ...(movements.length > 0 ? (await this.ledger.post(tx, act, movements, posting)).ids : [])];
    await this.allocation.settle(tx, [spot]);
    await update(
      tx,
      'count_line',
      { id },
      {
        state: 'accepted',
        expected_units: now?.expected ?? null,
        unit_cost: raw.cost,
        within_limits: now?.isWithin ? 1 : 0,
        settled_by_id: act.person.id,
        settled_at: NOW,
        version: more(1),
      },
    );
    await this.counts.goOn(tx, count, {});
    await endWhereDecided(tx, this.counts, count);
    const accepted: Accepted = { code, lines: [{ id, movements: ids }] };
    await this.activity.record(tx, act, {
      kind: 'count-lines',
      glyph: 'full',
      title:
        off === 0 ? `As the books say: ${raw.place}` : `${spell(Math.abs(off), seen.packs)} ${off < 0 ? 'fewer' : 'more'} in ${raw.place}`,
      detail: raw.item,
      document: code,
      siteId: count.site_id,
      undo: { ...accepted },
    });
    return null;
  }

  /** Lines that were booked wait to be decided on anew. */
  private async takeBack(tx: Tx, act: Act, accepted: Accepted): Promise<void> {
    const count = await find(tx, 'stock_count', { code: accepted.code }, 'lock');
    if (!count) throw notFound(`Count ${accepted.code}`);
    const taken = await one(
      tx,
      `SELECT o.id FROM count_bin b JOIN count_bin o ON o.place_id = b.place_id AND o.live = 1 AND o.count_id <> b.count_id WHERE b.count_id = ? LIMIT 1`,
      [count.id],
    );
    if (taken) throw new Problem(409, 'undo', 'A bin of it is in another count by now. Decide on that one');
    const movements = accepted.lines.flatMap((l) => l.movements);
    if (movements.length > 0) await this.allocation.settle(tx, await this.ledger.reverse(tx, act, movements, count.code));
    await update(
      tx,
      'count_line',
      { id: [0, ...accepted.lines.map((l) => l.id)], state: 'accepted' },
      { state: 'counted', expected_units: null, within_limits: null, settled_by_id: null, settled_at: null, version: more(1) },
    );
    await update(tx, 'count_bin', { count_id: count.id }, { live: 1 });
    await update(tx, 'stock_count', { id: count.id }, { state: 'review', ended_at: null, version: more(1) });
  }
}

interface Accepted {
  code: string;
  lines: { id: number; movements: number[] }[];
}
