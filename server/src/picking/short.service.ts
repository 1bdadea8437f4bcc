import { Injectable } from '@nestjs/common';
import { chooseBins } from '@vectrum/core/allocation';
import { spell } from '@vectrum/core/quantity';
import { ActivityService } from '../activity/activity.service.js';
import { AllocationService } from '../allocation/allocation.service.js';
import { CodebookQueries } from '../catalogue/codebook.queries.js';
import type { Act } from '../platform/act.js';
import { CommandLog } from '../platform/command-log.js';
import { one, type Tx } from '../platform/database/tx.js';
import { badState, Problem } from '../platform/problem.js';
import { LedgerService } from '../stock/ledger.service.js';
import type { PostedDto } from '../receiving/receiving.dto.js';
import type { ShortDto } from './picking.dto.js';
import { PickingService } from './picking.service.js';
import { ReleaseService } from './release.service.js';

interface StopRow {
  id: number;
  round_id: number;
  order_line_id: number;
  item_id: number;
  lot_id: number;
  place_id: number;
  place: string;
  units: number;
  picked_units: number;
  short_units: number;
  rotation: 'fifo' | 'fefo';
}

/**
 * Goods that the books say are in a bin and a person says are not: held until somebody checks the bin, and sought in
 * another one. What no bin has stays on order.
 */
@Injectable()
export class ShortService {
  constructor(
    private readonly commands: CommandLog,
    private readonly picking: PickingService,
    private readonly releases: ReleaseService,
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly codebook: CodebookQueries,
    private readonly activity: ActivityService,
  ) {}

  short(act: Act, code: string, input: ShortDto): Promise<PostedDto> {
    return this.commands.run(act, 'pick.short', { code, input }, async (tx) => {
      const round = await this.picking.round(tx, act, code, true);
      if (round.state !== 'picking' && round.state !== 'waiting') throw badState(`${code} is set down already`);
      await this.picking.begin(tx, act, round);
      const stop = await this.stop(tx, round.id, input.stopId);
      const wanted = stop.units - stop.picked_units - stop.short_units;
      if (input.units > wanted)
        throw new Problem(409, 'refused', 'Less than that is wanted here by now. Look at the stop again', {
          band: 'too-many',
          title: stop.place,
        });
      await this.hold(tx, act, stop, input.units, code);
      await tx.query('UPDATE pick_stop SET short_units = short_units + ? WHERE id = ?', [input.units, stop.id]);
      const found = await this.elsewhere(tx, round.id, round.site_id, stop, input.units);
      const lost = input.units - found;
      if (lost > 0) await this.allocation.change(tx, round.site_id, stop.order_line_id, stop.item_id, -lost);
      await this.allocation.settle(tx, [{ siteId: round.site_id, itemId: stop.item_id }]);
      const item = (await this.codebook.items(tx, round.site_id, [stop.item_id]))[stop.item_id];
      const words = spell(input.units, item?.packs ?? []);
      const activityId = await this.activity.record(tx, act, {
        kind: 'short',
        glyph: 'blocked',
        title: `Not there: ${words} ${item?.name ?? ''}`,
        detail: `${stop.place} to be checked. ${found > 0 ? `${found} sought in another bin` : 'No other bin holds more'}`,
        document: code,
        siteId: round.site_id,
      });
      return { activityId };
    });
  }

  private async stop(tx: Tx, roundId: number, stopId: number): Promise<StopRow> {
    const stop = await one<StopRow>(
      tx,
      `SELECT s.*, p.code AS place, i.rotation FROM pick_stop s JOIN place p ON p.id = s.place_id JOIN item i ON i.id = s.item_id WHERE s.id = ? AND s.round_id = ? FOR UPDATE`,
      [stopId, roundId],
    );
    if (!stop) throw new Problem(404, 'not-found', 'This stop is not on the round');
    return stop;
  }

  /** Holds the missing units where they should be, until somebody has counted the bin. */
  private async hold(tx: Tx, act: Act, stop: StopRow, units: number, code: string): Promise<void> {
    const stays = { fromPlaceId: stop.place_id, toPlaceId: stop.place_id };
    await this.ledger.post(
      tx,
      act,
      [{ itemId: stop.item_id, lotId: stop.lot_id, condition: 'good', toCondition: 'held', ...stays, units }],
      { task: 'pick', document: code, reason: 'reported not there' },
    );
  }

  private async elsewhere(tx: Tx, roundId: number, siteId: number, stop: StopRow, units: number): Promise<number> {
    const stock = await this.releases.pickable(tx, siteId, [stop.item_id]);
    const bins = (stock.get(stop.item_id) ?? []).filter((b) => b.placeId !== stop.place_id);
    const { choices, short } = chooseBins(bins, units, stop.rotation);
    for (const c of choices) {
      await tx.query('INSERT INTO pick_stop (round_id, order_line_id, item_id, lot_id, place_id, units) VALUES (?, ?, ?, ?, ?, ?)', [
        roundId,
        stop.order_line_id,
        stop.item_id,
        c.lotId,
        c.placeId,
        c.units,
      ]);
    }
    return units - short;
  }
}
