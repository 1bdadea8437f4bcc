import { Injectable } from '@nestjs/common';
import { goodsWords } from '@vectrum/core/quantity';
import type { SortMissingCommand } from '@vectrum/core/scan';
import { ActivityService } from '../activity/index.js';
import { AllocationService, Reservations } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import { SpotCounts } from '../counting/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { OrderStates } from '../orders/index.js';
import { freeTotes, roundOf } from '../picking/index.js';
import { type Act, badState, one, type Tx } from '../platform/index.js';
import { LedgerService } from '../stock/index.js';
import { pooledLines } from './pooled-lines.js';

/**
 * Goods that should be in a shared tote and are not: most likely they were never taken out of their bin. The books have them there
 * again, held until somebody has counted that bin; their order waits for others, and its slot is complete without them.
 */
@Injectable()
export class SortMissingService {
  constructor(
    private readonly ledger: LedgerService,
    private readonly reservations: Reservations,
    private readonly allocation: AllocationService,
    private readonly counts: SpotCounts,
    private readonly codebook: CodebookQueries,
    private readonly states: OrderStates,
    private readonly activity: ActivityService,
  ) {}

  async missing(tx: Tx, act: Act, command: SortMissingCommand): Promise<FloorAnswerDto> {
    const round = await roundOf(tx, act, command.round, 'alone');
    if (round.state !== 'set-down') throw badState(`${round.code} is sorted already`);
    await this.states.lock(tx, [command.orderId]);
    const { orderId, itemId, lotId, units, fromPlaceId: toteId } = command;
    const item = await this.codebook.item(tx, round.site_id, itemId);
    const parts = await pooledLines(tx, { roundId: round.id, orderId, itemId, lotId, toteId }, units, item?.name ?? round.code);
    const bin = await this.cameFrom(tx, round.code, { itemId, lotId, toteId });
    await this.ledger.post(
      tx,
      act,
      [{ itemId, lotId, condition: 'good', toCondition: 'held', fromPlaceId: toteId, toPlaceId: bin.id, units }],
      { task: 'sort', document: round.code, reason: 'not in the tote' },
    );
    for (const part of parts) {
      await this.reservations.free(tx, { lineId: part.lineId, itemId, siteId: round.site_id }, { placeId: toteId, lotId }, part.units);
      await this.states.progress(tx, part.lineId, { picked: -part.units });
    }
    await this.counts.raise(tx, act, { siteId: round.site_id, placeId: bin.id, itemId, lotId }, units, 'not in the tote', round.code);
    await this.allocation.settle(tx, [{ siteId: round.site_id, itemId }]);
    await freeTotes(tx, orderId);
    await this.states.refresh(tx, [orderId]);
    const activityId = await this.activity.record(tx, act, {
      kind: 'sort-missing',
      glyph: 'blocked',
      title: `Not in the tote: ${item ? goodsWords(units, item) : units}`,
      detail: `${bin.code} to be counted`,
      document: round.code,
      siteId: round.site_id,
    });
    return { activityId };
  }

  /** The bin from which the newest of these goods came into a tote. */
  private async cameFrom(
    tx: Tx,
    round: string,
    { itemId, lotId, toteId }: { itemId: number; lotId: number; toteId: number },
  ): Promise<{ id: number; code: string }> {
    const bin = await one<{ id: number; code: string }>(
      tx,
      `SELECT p.id, p.code FROM movement m JOIN place p ON p.id = m.from_place_id WHERE m.document = ? AND m.task = 'pick' AND m.to_place_id = ? AND m.item_id = ? AND m.lot_id = ? AND p.kind <> 'tote' ORDER BY m.id DESC LIMIT 1`,
      [round, toteId, itemId, lotId],
    );
    if (!bin) throw badState('Nobody knows which bin these came from. Ask the office to look into it');
    return bin;
  }
}
