import { Injectable, type OnModuleInit } from '@nestjs/common';
import { goodsWords } from '@vectrum/core/quantity';
import { checkPick, checkSetDown, checkTote } from '@vectrum/core/scan';
import { ActivityService } from '../activity/activity.service.js';
import { UndoService } from '../activity/undo.service.js';
import { SettingsService } from '../company/settings.service.js';
import { CodebookQueries } from '../catalogue/codebook.queries.js';
import { type Act, mustBeAt } from '../platform/act.js';
import { CommandLog } from '../platform/command-log.js';
import { one, type Tx } from '../platform/database/tx.js';
import { badState, notFound, Problem } from '../platform/problem.js';
import { refused } from '../platform/refused.js';
import { LedgerService } from '../stock/ledger.service.js';
import type { PostedDto } from '../receiving/receiving.dto.js';
import type { PickDto, SetDownDto } from './picking.dto.js';
import { PickingQueries } from './picking.queries.js';

interface RoundRow {
  id: number;
  code: string;
  site_id: number;
  order_id: number;
  state: string;
  picker_id: number | null;
  tote_id: number | null;
}
interface PickUndo extends Record<string, unknown> {
  movements: number[];
  stopId: number;
  units: number;
  round: string;
}

/** Picks goods from bins into totes, stop by stop; any number of people may work one round. */
@Injectable()
export class PickingService implements OnModuleInit {
  constructor(
    private readonly commands: CommandLog,
    private readonly queries: PickingQueries,
    private readonly ledger: LedgerService,
    private readonly codebook: CodebookQueries,
    private readonly activity: ActivityService,
    private readonly undo: UndoService,
    private readonly settings: SettingsService,
  ) {}

  onModuleInit(): void {
    this.undo.register('pick', 'pick', (tx, act, payload) => this.takeBack(tx, act, payload as PickUndo));
  }

  /** Puts a person's name on a round, so that nobody else is sent there. */
  take(act: Act, code: string): Promise<{ code: string }> {
    return this.commands.run(act, 'round.take', { code }, async (tx) => {
      const round = await this.round(tx, act, code, true);
      await this.begin(tx, act, round);
      return { code };
    });
  }

  pick(act: Act, code: string, input: PickDto): Promise<PostedDto> {
    return this.commands.run(act, 'pick', { code, input }, async (tx) => {
      const round = await this.round(tx, act, code, true);
      if (round.state !== 'waiting' && round.state !== 'picking') throw badState(`${code} is set down already`);
      const task = await this.queries.task(tx, code);
      const stop = task.stops.find((s) => s.id === input.stopId);
      const book = await this.codebook.book(tx, round.site_id, stop ? [stop.itemId] : [], [input.totePlaceId]);
      const item = stop && book.items[stop.itemId];
      const refusal = checkPick(stop, item, input.units, stop ? stop.units - stop.picked - stop.short : 0);
      if (refusal || !stop || !item)
        throw refused(refusal ?? { band: 'not-this', title: 'Not on this round', detail: 'Look at the round again' });
      const tote = Object.values(book.places).find((p) => p.id === input.totePlaceId);
      const toteRefusal = tote
        ? checkTote(task, tote)
        : { band: 'unknown' as const, title: 'No such tote', detail: 'Scan the code on the tote' };
      if (toteRefusal || !tote)
        throw refused(toteRefusal ?? { band: 'unknown', title: 'No such tote', detail: 'Scan the code on the tote' });
      await this.claimTote(tx, round, tote.id, tote.code);
      await this.begin(tx, act, round);
      const { ids } = await this.ledger.post(
        tx,
        act,
        [
          {
            itemId: stop.itemId,
            lotId: stop.lotId,
            condition: 'good',
            fromPlaceId: stop.placeId,
            toPlaceId: tote.id,
            units: input.units,
          },
        ],
        { task: 'pick', document: task.order, how: input.how },
      );
      await this.count(tx, stop.id, input.units);
      const activityId = await this.activity.record(tx, act, {
        kind: 'pick',
        glyph: 'full',
        title: goodsWords(input.units, item),
        detail: `${stop.placeCode} to tote ${tote.code}, ${task.order}`,
        document: task.order,
        siteId: round.site_id,
        how: input.how,
        undo: { movements: ids, stopId: stop.id, units: input.units, round: code } satisfies PickUndo,
      });
      return { activityId };
    });
  }

  setDown(act: Act, code: string, input: SetDownDto): Promise<PostedDto> {
    return this.commands.run(act, 'round.set-down', { code, input }, async (tx) => {
      const round = await this.round(tx, act, code, true);
      if (round.state !== 'picking')
        throw badState(round.state === 'waiting' ? `Nothing of ${code} is picked yet` : `${code} is set down already`);
      const task = await this.queries.task(tx, code);
      const book = await this.codebook.book(tx, round.site_id, [], [input.placeId]);
      const place = Object.values(book.places).find((p) => p.id === input.placeId);
      const refusal = checkSetDown(round.site_id, place, task.stops.filter((s) => s.units > s.picked + s.short).length);
      if (refusal) throw refused(refusal);
      const picked = task.stops.some((s) => s.picked > 0);
      await tx.query(`UPDATE pick_round SET state = ?, finished_at = UTC_TIMESTAMP(3) WHERE id = ?`, [
        picked ? 'set-down' : 'done',
        round.id,
      ]);
      await tx.query(`UPDATE sales_order SET state = ?, version = version + 1 WHERE id = ?`, [picked ? 'picked' : 'open', round.order_id]);
      if (round.tote_id) await tx.query('UPDATE place SET parent_id = ? WHERE id = ?', [input.placeId, round.tote_id]);
      const activityId = await this.activity.record(tx, act, {
        kind: 'set-down',
        glyph: 'half',
        title: `${task.order} picked, set down at ${place?.code ?? ''}`,
        detail: `${code}, ${task.customer}`,
        document: task.order,
        siteId: round.site_id,
      });
      return { activityId };
    });
  }

  /** The round's row, locked where it will be changed. */
  async round(tx: Tx, act: Act, code: string, lock: boolean): Promise<RoundRow> {
    const round = await one<RoundRow>(
      tx,
      `SELECT id, code, site_id, order_id, state, picker_id, tote_id FROM pick_round WHERE code = ? ${lock ? 'FOR UPDATE' : ''}`,
      [code],
    );
    if (!round) throw notFound(`Round ${code}`);
    mustBeAt(act.person, round.site_id);
    return round;
  }

  /** Puts the first person to touch a waiting round on it. */
  async begin(tx: Tx, act: Act, round: RoundRow): Promise<void> {
    if (round.state !== 'waiting') return;
    await this.mustBeNext(tx, round);
    await tx.query(`UPDATE pick_round SET state = 'picking', picker_id = ?, begun_at = UTC_TIMESTAMP(3) WHERE id = ?`, [
      act.person.id,
      round.id,
    ]);
    await tx.query(`UPDATE sales_order SET state = 'picking', version = version + 1 WHERE id = ?`, [round.order_id]);
  }

  /** Where pickers may not choose, the round whose promise is soonest comes before any other that waits. */
  private async mustBeNext(tx: Tx, round: RoundRow): Promise<void> {
    if (await this.settings.get(tx, 'ownChoice')) return;
    const next = await one<{ code: string }>(
      tx,
      `SELECT r.code FROM pick_round r JOIN sales_order o ON o.id = r.order_id WHERE r.site_id = ? AND r.state = 'waiting' ORDER BY o.promised_at, r.id LIMIT 1`,
      [round.site_id],
    );
    if (next && next.code !== round.code) throw badState(`${next.code} comes first: its promise is sooner. Take that one`);
  }

  /** A tote serves one round at a time; its row is locked, so that two rounds cannot take it together. */
  private async claimTote(tx: Tx, round: RoundRow, toteId: number, code: string): Promise<void> {
    if (round.tote_id === toteId) return;
    await one(tx, 'SELECT id FROM place WHERE id = ? FOR UPDATE', [toteId]);
    const other = await one(tx, `SELECT id FROM pick_round WHERE tote_id = ? AND state IN ('picking','set-down') AND id <> ? LIMIT 1`, [
      toteId,
      round.id,
    ]);
    if (other)
      throw new Problem(409, 'refused', 'In use on another order. Take an empty one', {
        band: 'not-this',
        title: `Tote ${code}`,
      });
    if (round.tote_id !== null)
      throw new Problem(409, 'refused', 'This round has its tote already. Put the goods in that one', {
        band: 'not-this',
        title: `Tote ${code}`,
      });
    await tx.query('UPDATE pick_round SET tote_id = ? WHERE id = ?', [toteId, round.id]);
  }

  private async count(tx: Tx, stopId: number, units: number): Promise<void> {
    await tx.query('UPDATE pick_stop SET picked_units = picked_units + ? WHERE id = ?', [units, stopId]);
    await tx.query(
      'UPDATE sales_order_line l JOIN pick_stop s ON s.order_line_id = l.id SET l.picked_units = l.picked_units + ? WHERE s.id = ?',
      [units, stopId],
    );
  }

  private async takeBack(tx: Tx, act: Act, undo: PickUndo): Promise<void> {
    const round = await this.round(tx, act, undo.round, true);
    if (round.state !== 'picking')
      throw new Problem(409, 'undo', `${undo.round} is set down. Put the goods back by hand and ask the office`);
    await this.ledger.reverse(tx, act, undo.movements, null);
    await this.count(tx, undo.stopId, -undo.units);
  }
}
