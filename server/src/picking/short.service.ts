import { Injectable } from '@nestjs/common';
import type { BinStock } from '@vectrum/core/allocation';
import { spell } from '@vectrum/core/quantity';
import type { StopId } from '@vectrum/core/ids';
import type { ShortCommand } from '@vectrum/core/scan';
import { ActivityService, UndoService } from '../activity/index.js';
import { AllocationService, Reservations } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { OrderStates } from '../orders/index.js';
import { type Act, more, one, Problem, promisedSql, refused, rows, type Tx, update } from '../platform/index.js';
import { LedgerService } from '../stock/index.js';
import { pickable, takeFrom } from './pickable.js';
import { PickingService } from './picking.service.js';
import { RecallService } from './recall.service.js';
import { ReleaseService } from './release.service.js';
import { mustBeOpen, roundOf, type RoundRow, type StopRow, stopOf } from './rounds.js';

/** Units of a stop that were sought elsewhere, as stops of the same round. */
interface Sought {
  stopId: number;
  units: number;
}
interface ShortUndo extends Record<string, unknown> {
  round: string;
  stopId: number;
  units: number;
  movements: number[];
  sought: Sought[];
}

/**
 * Goods that the books say are in a bin and a person says are not: all that the bin claims beyond what was seen is held until
 * somebody has checked it, and sought in other bins, for this round and for all others that would have come for it. What no bin has
 * stays on order.
 */
@Injectable()
export class ShortService {
  constructor(
    private readonly picking: PickingService,
    private readonly releases: ReleaseService,
    private readonly recalls: RecallService,
    private readonly ledger: LedgerService,
    private readonly reservations: Reservations,
    private readonly allocation: AllocationService,
    private readonly codebook: CodebookQueries,
    private readonly states: OrderStates,
    private readonly activity: ActivityService,
    undo: UndoService,
  ) {
    undo.register('short', 'pick', (tx, act, payload) => this.takeBack(tx, act, payload as ShortUndo));
  }

  async short(tx: Tx, act: Act, command: ShortCommand): Promise<FloorAnswerDto> {
    return this.report(tx, act, await this.picking.working(tx, act, command.round), command, 'seek');
  }

  /** What was not there on a walk that is over: it is held and told like any other, and waits as a backorder instead of being sought. */
  async missing(tx: Tx, act: Act, round: RoundRow, stopId: StopId, units: number): Promise<void> {
    await this.report(tx, act, round, { stopId, units, there: 0 }, 'leave');
  }

  private async report(
    tx: Tx,
    act: Act,
    round: RoundRow,
    command: Pick<ShortCommand, 'stopId' | 'units' | 'there'>,
    then: 'seek' | 'leave',
  ): Promise<FloorAnswerDto> {
    const stop = await stopOf(tx, round.id, command.stopId);
    if (!stop) throw new Problem(404, 'not-found', 'This stop is not on the round');
    const left = stop.units - stop.picked - stop.short;
    if (command.units > left)
      throw refused({ band: 'too-many', title: stop.placeCode, detail: 'Less than that is wanted here by now. Look at the stop again' });
    const all = await this.othersAt(tx, stop);
    // On a walk that is over, its other stops are told of by themselves.
    const others = then === 'seek' ? all : all.filter((o) => o.roundId !== round.id);
    await this.states.lock(tx, [stop.orderId, ...others.map((o) => o.orderId)]);
    // Bins are locked before the bin that lacks is posted to, all in one order.
    const stock = await pickable(tx, round.site_id, [stop.itemId], 'locked');
    const bins = (stock.get(stop.itemId) ?? []).filter((b) => b.placeId !== stop.placeId);
    const { movements, stays } = await this.hold(tx, act, stop, command.there, round);
    await update(tx, 'round_stop', { id: stop.id }, { short_units: more(command.units) });
    const sought = await this.elsewhere(tx, round, stop, command.units, then === 'seek' ? bins : []);
    await this.sendOthers(tx, others, bins, stays - (left - command.units));
    await this.allocation.settle(tx, [{ siteId: round.site_id, itemId: stop.itemId }]);
    await this.states.refresh(tx, [stop.orderId, ...others.map((o) => o.orderId)]);
    const item = await this.codebook.item(tx, round.site_id, stop.itemId);
    const found = sought.reduce((n, s) => n + s.units, 0);
    const activityId = await this.activity.record(tx, act, {
      kind: 'short',
      glyph: 'blocked',
      title: `Not there: ${spell(command.units, item?.packs ?? [])} ${item?.name ?? ''}`,
      detail: `${stop.placeCode} to be checked. ${found > 0 ? `${found} sought in another bin` : then === 'leave' ? 'It waits for stock' : 'No other bin holds more'}`,
      document: round.code,
      siteId: round.site_id,
      undo: { round: round.code, stopId: stop.id, units: command.units, movements, sought } satisfies ShortUndo,
    });
    return { activityId };
  }

  /** The open stops of other rounds, and of other orders of this one, that would come for the same goods. */
  private async othersAt(tx: Tx, stop: StopRow): Promise<(StopRow & { round: RoundRow })[]> {
    const found = await rows<{ id: number; roundId: number; code: string }>(
      tx,
      `SELECT s.id, s.round_id AS roundId, r.code FROM round_stop s JOIN \`round\` r ON r.id = s.round_id
       WHERE s.place_id = ? AND s.item_id = ? AND s.lot_id = ? AND s.id <> ? AND s.units > s.picked_units + s.short_units AND r.state IN ('waiting','picking') ORDER BY r.id, s.id`,
      [stop.placeId, stop.itemId, stop.lotId, stop.id],
    );
    const others: (StopRow & { round: RoundRow })[] = [];
    for (const { id, roundId } of found) {
      const round = await one<RoundRow>(tx, 'SELECT id, code, site_id, state, picker_id FROM `round` WHERE id = ? LOCK IN SHARE MODE', [
        roundId,
      ]);
      const other = await stopOf(tx, roundId, id);
      if (round && other) others.push({ ...other, round });
    }
    return others;
  }

  /**
   * Holds all that the books have there beyond what was seen, until somebody has counted the bin. What the books have taken from
   * there meanwhile is missing to nobody's surprise, and needs no check. Tells how many units may still be taken there.
   */
  private async hold(
    tx: Tx,
    act: Act,
    stop: StopRow,
    there: number,
    { code, site_id: siteId }: RoundRow,
  ): Promise<{ movements: number[]; stays: number }> {
    const booked = await one<{ units: number }>(
      tx,
      `SELECT units FROM balance WHERE item_id = ? AND place_id = ? AND lot_id = ? AND stock_condition = 'good' FOR UPDATE`,
      [stop.itemId, stop.placeId, stop.lotId],
    );
    const units = Math.max(0, (booked?.units ?? 0) - there);
    const stays = (booked?.units ?? 0) - units;
    // The site's figures are locked before what is promised of them, also where nothing is held.
    if (units === 0) {
      await this.ledger.reserved(tx, siteId, stop.itemId, 0);
      return { movements: [], stays };
    }
    const place = { fromPlaceId: stop.placeId, toPlaceId: stop.placeId };
    const { ids } = await this.ledger.post(
      tx,
      act,
      [{ itemId: stop.itemId, lotId: stop.lotId, condition: 'good', toCondition: 'held', ...place, units }],
      { task: 'pick', document: code, reason: 'reported not there' },
    );
    return { movements: ids, stays };
  }

  /** What others would have come for and is not there goes to other bins for them too, the latest stops first. */
  private async sendOthers(tx: Tx, others: readonly (StopRow & { round: RoundRow })[], bins: BinStock[], stays: number): Promise<void> {
    let rest = Math.max(0, stays);
    for (const other of others) {
      const wanted = other.units - other.picked - other.short;
      const keeps = Math.min(wanted, rest);
      rest -= keeps;
      if (keeps === wanted) continue;
      await update(tx, 'round_stop', { id: other.id }, { units: more(keeps - wanted) });
      await this.elsewhere(tx, other.round, other, wanted - keeps, bins);
      // A round of which nothing is left to walk for is over.
      await this.recalls.endEmpty(tx, other.orderId);
    }
  }

  /** Seeks units in other bins, as stops of the same round; what no bin has is promised no longer. Returns what was found. */
  private async elsewhere(tx: Tx, round: RoundRow, stop: StopRow, units: number, bins: BinStock[]): Promise<Sought[]> {
    const holder = { lineId: stop.lineId, itemId: stop.itemId, siteId: round.site_id };
    await this.reservations.move(tx, holder, { placeId: stop.placeId, lotId: stop.lotId }, null, units);
    const { choices, short } = takeFrom(new Map([[stop.itemId, bins]]), { itemId: stop.itemId, units, rotation: stop.rotation });
    const sought: Sought[] = [];
    for (const choice of choices) sought.push({ stopId: await this.releases.addStop(tx, round.id, holder, choice), units: choice.units });
    if (short > 0) await this.reservations.free(tx, holder, null, short);
    return sought;
  }

  /** The goods were there after all: the stop wants them again, and nobody goes for them elsewhere. */
  private async takeBack(tx: Tx, act: Act, undo: ShortUndo): Promise<void> {
    const round = await roundOf(tx, act, undo.round, 'alone');
    mustBeOpen(round);
    const stop = await stopOf(tx, round.id, undo.stopId);
    if (!stop || stop.short < undo.units) throw gone('The stop is not on the round any more');
    await this.states.lock(tx, [stop.orderId]);
    if (undo.movements.length > 0) await this.ledger.reverse(tx, act, undo.movements, null);
    const holder = { lineId: stop.lineId, itemId: stop.itemId, siteId: round.site_id };
    const missing = undo.units - undo.sought.reduce((n, s) => n + s.units, 0);
    if (missing > 0) await this.promiseAgain(tx, holder, missing);
    for (const { stopId, units } of undo.sought) {
      const other = await stopOf(tx, round.id, stopId);
      if (!other || other.units - other.picked - other.short < units) throw gone('Some of it is taken from another bin already');
      await this.reservations.move(tx, holder, { placeId: other.placeId, lotId: other.lotId }, null, units);
      await update(tx, 'round_stop', { id: stopId }, { units: more(-units) });
      await tx.query('DELETE FROM round_stop WHERE id = ? AND units = 0', [stopId]);
    }
    await this.reservations.move(tx, holder, null, { placeId: stop.placeId, lotId: stop.lotId }, undo.units);
    await update(tx, 'round_stop', { id: stop.id }, { short_units: more(-undo.units) });
    await this.allocation.settle(tx, [{ siteId: round.site_id, itemId: stop.itemId }]);
    await this.states.refresh(tx, [stop.orderId]);
  }

  /** What was let go of for want of another bin is the line's again: what it was given since, and the rest anew. */
  private async promiseAgain(tx: Tx, holder: { lineId: number; itemId: number; siteId: number }, units: number): Promise<void> {
    const line = await one<{ lacks: number | string; given: number | string | null }>(
      tx,
      `SELECT CAST(l.units AS SIGNED) - ${promisedSql('l')} AS lacks, (SELECT SUM(v.units) FROM reservation v WHERE v.order_line_id = l.id AND v.site_id = ? AND v.place_id IS NULL) AS given FROM sales_order_line l WHERE l.id = ?`,
      [holder.siteId, holder.lineId],
    );
    const anew = Math.max(0, units - Number(line?.given ?? 0));
    if (anew > Number(line?.lacks ?? 0)) throw gone('The order wants no more of it by now');
    if (anew > 0) await this.reservations.hold(tx, holder, anew);
  }
}

const gone = (detail: string) => new Problem(409, 'undo', `${detail}. Ask the office to check the bin`);
