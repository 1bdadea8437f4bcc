import { Injectable } from '@nestjs/common';
import { type BinStock, chooseBins } from '@vectrum/core/allocation';
import { spell } from '@vectrum/core/quantity';
import type { ShortCommand } from '@vectrum/core/scan';
import { ActivityService } from '../activity/index.js';
import { AllocationService, Reservations } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { OrderStates } from '../orders/index.js';
import { type Act, more, one, Problem, refused, type Tx, update } from '../platform/index.js';
import { LedgerService } from '../stock/index.js';
import { PickingService } from './picking.service.js';
import { ReleaseService } from './release.service.js';
import { type RoundRow, type StopRow, stopOf } from './rounds.js';

/**
 * Goods that the books say are in a bin and a person says are not: held until somebody checks the bin, and sought in
 * another one. What no bin has stays on order.
 */
@Injectable()
export class ShortService {
  constructor(
    private readonly picking: PickingService,
    private readonly releases: ReleaseService,
    private readonly ledger: LedgerService,
    private readonly reservations: Reservations,
    private readonly allocation: AllocationService,
    private readonly codebook: CodebookQueries,
    private readonly states: OrderStates,
    private readonly activity: ActivityService,
  ) {}

  async short(tx: Tx, act: Act, command: ShortCommand): Promise<FloorAnswerDto> {
    const round = await this.picking.working(tx, act, command.round);
    const stop = await stopOf(tx, round.id, command.stopId);
    if (!stop) throw new Problem(404, 'not-found', 'This stop is not on the round');
    if (command.units > stop.units - stop.picked - stop.short)
      throw refused({ band: 'too-many', title: stop.placeCode, detail: 'Less than that is wanted here by now. Look at the stop again' });
    await this.states.lock(tx, [stop.orderId]);
    // Bins are locked before the bin that lacks is posted to, all in one order.
    const stock = await this.releases.pickable(tx, round.site_id, [stop.itemId]);
    await this.hold(tx, act, stop, command.units, round);
    await update(tx, 'round_stop', { id: stop.id }, { short_units: more(command.units) });
    const found = await this.elsewhere(tx, round, stop, command.units, stock);
    await this.allocation.settle(tx, [{ siteId: round.site_id, itemId: stop.itemId }]);
    await this.states.refresh(tx, [stop.orderId]);
    const item = await this.codebook.item(tx, round.site_id, stop.itemId);
    const words = spell(command.units, item?.packs ?? []);
    const activityId = await this.activity.record(tx, act, {
      kind: 'short',
      glyph: 'blocked',
      title: `Not there: ${words} ${item?.name ?? ''}`,
      detail: `${stop.placeCode} to be checked. ${found > 0 ? `${found} sought in another bin` : 'No other bin holds more'}`,
      document: round.code,
      siteId: round.site_id,
    });
    return { activityId };
  }

  /**
   * Holds the missing units where they should be, until somebody has counted the bin. What the books have taken from there
   * meanwhile is missing to nobody's surprise, and needs no check.
   */
  private async hold(tx: Tx, act: Act, stop: StopRow, missing: number, { code, site_id: siteId }: RoundRow): Promise<void> {
    const booked = await one<{ units: number }>(
      tx,
      `SELECT units FROM balance WHERE item_id = ? AND place_id = ? AND lot_id = ? AND stock_condition = 'good' FOR UPDATE`,
      [stop.itemId, stop.placeId, stop.lotId],
    );
    const units = Math.min(missing, booked?.units ?? 0);
    // The site's figures are locked before what is promised of them, also where nothing is held.
    if (units === 0) return this.ledger.reserved(tx, siteId, stop.itemId, 0);
    const stays = { fromPlaceId: stop.placeId, toPlaceId: stop.placeId };
    await this.ledger.post(tx, act, [{ itemId: stop.itemId, lotId: stop.lotId, condition: 'good', toCondition: 'held', ...stays, units }], {
      task: 'pick',
      document: code,
      reason: 'reported not there',
    });
  }

  /** Seeks the units in other bins, as stops of the same round; what no bin has is promised no longer. Returns what was found. */
  private async elsewhere(
    tx: Tx,
    round: RoundRow,
    stop: StopRow,
    units: number,
    stock: ReadonlyMap<number, readonly BinStock[]>,
  ): Promise<number> {
    const holder = { lineId: stop.lineId, itemId: stop.itemId, siteId: round.site_id };
    await this.reservations.move(tx, holder, { placeId: stop.placeId, lotId: stop.lotId }, null, units);
    const bins = (stock.get(stop.itemId) ?? []).filter((b) => b.placeId !== stop.placeId);
    const { choices, short } = chooseBins(bins, units, stop.rotation);
    for (const choice of choices) await this.releases.addStop(tx, round.id, holder, choice);
    if (short > 0) await this.reservations.free(tx, holder, null, short);
    return units - short;
  }
}
