import { Injectable } from '@nestjs/common';
import { spell } from '@vectrum/core/quantity';
import type { StopId } from '@vectrum/core/ids';
import type { ShortCommand } from '@vectrum/core/scan';
import { ActivityService, UndoService } from '../activity/index.js';
import { AllocationService, Reservations } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import { type CountedSpot, SpotCounts } from '../counting/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { OrderStates } from '../orders/index.js';
import { type Act, more, one, Problem, promisedSql, refused, type Tx, update } from '../platform/index.js';
import { LedgerService } from '../stock/index.js';
import { MissingService, type Sought } from './missing.service.js';
import { pickable } from './pickable.js';
import { PickingService } from './picking.service.js';
import { leftAt, mustBeOpen, roundOf, type RoundRow, sharedOut, type StopRow, stopOf, stopsLike } from './rounds.js';

/** What of one stop was not there, and where it is sought instead. */
interface ShortPart {
  stopId: number;
  units: number;
  sought: Sought[];
}
interface ShortUndo extends Record<string, unknown> {
  round: string;
  parts: ShortPart[];
  movements: number[];
  /** Units that were held for it. */
  held: number;
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
    private readonly missingGoods: MissingService,
    private readonly counts: SpotCounts,
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
    const stops = await stopsLike(tx, round, command.stopId);
    const [stop] = stops;
    if (!stop) throw new Problem(404, 'not-found', 'This stop is not on the round');
    const left = leftAt(stops);
    if (command.units > left)
      throw refused({ band: 'too-many', title: stop.placeCode, detail: 'Less than that is wanted here by now. Look at the stop again' });
    const all = await this.missingGoods.stopsAt(
      tx,
      stop,
      stops.map((s) => s.id),
    );
    // On a walk that is over, its other stops are told of by themselves.
    const others = then === 'seek' ? all : all.filter((o) => o.roundId !== round.id);
    const orders = [...stops, ...others].map((s) => s.orderId);
    await this.states.lock(tx, orders);
    // Bins are locked before the bin that lacks is posted to, all in one order.
    const stock = await pickable(tx, round.site_id, [stop.itemId], 'locked');
    const bins = (stock.get(stop.itemId) ?? []).filter((b) => b.placeId !== stop.placeId);
    const spot = spotOf(stop, round);
    const { movements, units: held, stays } = await this.missingGoods.hold(tx, act, spot, command.there, round.code);
    if (held > 0) await this.counts.raise(tx, act, spot, held, 'reported not there', round.code);
    const parts: ShortPart[] = [];
    // Of several orders that wanted it, those that were promised latest go short first.
    for (const part of sharedOut([...stops].reverse(), command.units)) {
      await update(tx, 'round_stop', { id: part.stop.id }, { short_units: more(part.units) });
      const sought = await this.missingGoods.elsewhere(tx, round, part.stop, part.units, then === 'seek' ? bins : []);
      parts.push({ stopId: part.stop.id, units: part.units, sought });
    }
    await this.missingGoods.sendOthers(tx, others, bins, stays - (left - command.units));
    await this.allocation.settle(tx, [{ siteId: round.site_id, itemId: stop.itemId }]);
    await this.states.refresh(tx, orders);
    const item = await this.codebook.item(tx, round.site_id, stop.itemId);
    const found = parts.flatMap((p) => p.sought).reduce((n, s) => n + s.units, 0);
    const activityId = await this.activity.record(tx, act, {
      kind: 'short',
      glyph: 'blocked',
      title: `Not there: ${spell(command.units, item?.packs ?? [])} ${item?.name ?? ''}`,
      detail: `${stop.placeCode} to be checked. ${found > 0 ? `${found} sought in another bin` : then === 'leave' ? 'It waits for stock' : 'No other bin holds more'}`,
      document: round.code,
      siteId: round.site_id,
      undo: { round: round.code, parts, movements, held } satisfies ShortUndo,
    });
    return { activityId };
  }

  /** The goods were there after all: their stops want them again, and nobody goes for them elsewhere. */
  private async takeBack(tx: Tx, act: Act, undo: ShortUndo): Promise<void> {
    const round = await roundOf(tx, act, undo.round, 'alone');
    mustBeOpen(round);
    const stops: { stop: StopRow; part: ShortPart }[] = [];
    for (const part of undo.parts) {
      const stop = await stopOf(tx, round.id, part.stopId);
      if (!stop || stop.short < part.units) throw gone('The stop is not on the round any more');
      stops.push({ stop, part });
    }
    const [first] = stops;
    if (!first) throw gone('The stop is not on the round any more');
    const orders = await this.states.lock(
      tx,
      stops.map((s) => s.stop.orderId),
    );
    if (undo.movements.length > 0) await this.ledger.reverse(tx, act, undo.movements, null);
    if (undo.held > 0) await this.counts.lower(tx, spotOf(first.stop, round), undo.held);
    for (const { stop, part } of stops) await this.wantAgain(tx, round, stop, part);
    await this.allocation.settle(tx, [{ siteId: round.site_id, itemId: first.stop.itemId }]);
    await this.states.refresh(tx, orders);
  }

  private async wantAgain(tx: Tx, round: RoundRow, stop: StopRow, { units, sought }: ShortPart): Promise<void> {
    const holder = { lineId: stop.lineId, itemId: stop.itemId, siteId: round.site_id };
    const missing = units - sought.reduce((n, s) => n + s.units, 0);
    if (missing > 0) await this.promiseAgain(tx, holder, missing);
    for (const { stopId, units: there } of sought) {
      const other = await stopOf(tx, round.id, stopId);
      if (!other || leftAt([other]) < there) throw gone('Some of it is taken from another bin already');
      await this.reservations.move(tx, holder, { placeId: other.placeId, lotId: other.lotId }, null, there);
      await update(tx, 'round_stop', { id: stopId }, { units: more(-there) });
      await tx.query('DELETE FROM round_stop WHERE id = ? AND units = 0', [stopId]);
    }
    await this.reservations.move(tx, holder, null, { placeId: stop.placeId, lotId: stop.lotId }, units);
    await update(tx, 'round_stop', { id: stop.id }, { short_units: more(-units) });
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

const spotOf = ({ itemId, lotId, placeId }: StopRow, { site_id: siteId }: RoundRow): CountedSpot => ({ siteId, placeId, itemId, lotId });
const gone = (detail: string) => new Problem(409, 'undo', `${detail}. Ask the office to check the bin`);
