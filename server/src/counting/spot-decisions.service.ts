import { Injectable } from '@nestjs/common';
import { spell } from '@vectrum/core/quantity';
import { ActivityService, UndoService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import {
  type Act,
  badState,
  CommandLog,
  find,
  more,
  mustBeAt,
  mustMatch,
  notFound,
  NOW,
  Problem,
  type Tx,
  update,
} from '../platform/index.js';
import { LedgerService } from '../stock/index.js';
import type { CountedSpot } from './missing-goods.js';
import { becauseCounted, bookedAt, counted, lockedSpot, openSpotAt, spotOf, type SpotRow } from './spot-rows.js';

/** What becomes of a count that does not agree with the books: they follow it, or somebody counts again. */
@Injectable()
export class SpotDecisions {
  constructor(
    private readonly commands: CommandLog,
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly codebook: CodebookQueries,
    private readonly activity: ActivityService,
    undo: UndoService,
  ) {
    undo.register('count', 'settle-counts', (tx, act, payload) =>
      this.takeBack(tx, act, payload as { spotId: number; movements: number[] }),
    );
  }

  /** The books follow what was counted. */
  settle(act: Act, id: number, version: number): Promise<{ id: number }> {
    return this.commands.run(act, 'spot.settle', { id, version }, async (tx) => {
      const { spot, row, held } = await this.decided(tx, act, id, version);
      const gone = Math.min(row.held_units, held);
      const outside = await this.ledger.outside(tx, 'count-difference');
      const found = (row.counted_units ?? 0) - (row.booked_units ?? 0);
      const movements: number[] = [];
      const post = (movement: ReturnType<typeof counted>) =>
        this.ledger.post(tx, act, [movement], becauseCounted(row.document)).then((p) => p.ids);
      if (gone > 0) movements.push(...(await post(counted(spot, 'held', 'held', gone, { toPlaceId: outside }))));
      if (found > 0) movements.push(...(await post(counted(spot, 'good', 'good', found, { fromPlaceId: outside }))));
      await this.allocation.settle(tx, [spot]);
      await update(
        tx,
        'spot_count',
        { id },
        { state: 'settled', held_units: 0, settled_by_id: act.person.id, settled_at: NOW, version: more(1) },
      );
      await this.told(tx, act, spot, gone > 0 ? -gone : found, { spotId: id, movements, held: gone });
      return { id };
    });
  }

  /** Nobody believes it yet: somebody else counts. */
  again(act: Act, id: number, version: number): Promise<{ id: number }> {
    return this.commands.run(act, 'spot.again', { id, version }, async (tx) => {
      const { spot, row } = await this.decided(tx, act, id, version);
      await update(
        tx,
        'spot_count',
        { id },
        {
          state: 'open',
          raised_by_id: row.counted_by_id,
          raised_at: NOW,
          why: 'to be counted again',
          counted_units: null,
          booked_units: null,
          counted_by_id: null,
          counted_at: null,
          version: more(1),
        },
      );
      const place = await this.codebook.place(tx, spot.siteId, spot.placeId);
      const item = await this.codebook.item(tx, spot.siteId, spot.itemId);
      await this.activity.record(tx, act, {
        kind: 'count',
        glyph: 'undo',
        title: `To be counted again: ${place?.code ?? ''}`,
        detail: item?.name ?? '',
        siteId: spot.siteId,
      });
      return { id };
    });
  }

  /** A count that waits for somebody to decide, with the goods that it is of, all locked. */
  private async decided(tx: Tx, act: Act, id: number, version: number): Promise<{ spot: CountedSpot; row: SpotRow; held: number }> {
    const seen = await find(tx, 'spot_count', { id });
    if (!seen) throw notFound('This count');
    mustBeAt(act.person, seen.site_id);
    const spot = spotOf(seen);
    const { held } = await bookedAt(tx, spot);
    const row = await lockedSpot(tx, id);
    mustMatch(row.version, version);
    if (row.state !== 'counted') throw badState(row.state === 'open' ? 'Nobody has counted it yet' : 'This bin is decided already');
    return { spot, row, held };
  }

  private async told(tx: Tx, act: Act, spot: CountedSpot, change: number, undo: { spotId: number; movements: number[]; held: number }) {
    const item = await this.codebook.item(tx, spot.siteId, spot.itemId);
    const place = await this.codebook.place(tx, spot.siteId, spot.placeId);
    const units = spell(Math.abs(change), item?.packs ?? []);
    await this.activity.record(tx, act, {
      kind: 'count',
      glyph: 'full',
      title: change === 0 ? `As the books say: ${place?.code ?? ''}` : `${units} ${change < 0 ? 'fewer' : 'more'} in ${place?.code ?? ''}`,
      detail: item?.name ?? '',
      siteId: spot.siteId,
      undo,
    });
  }

  /** The decision is taken back: it waits to be decided anew. */
  private async takeBack(tx: Tx, act: Act, undo: { spotId: number; movements: number[]; held?: number }): Promise<void> {
    const seen = await find(tx, 'spot_count', { id: undo.spotId });
    if (!seen) throw notFound('This count');
    const spot = spotOf(seen);
    await bookedAt(tx, spot);
    if (await openSpotAt(tx, spot)) throw new Problem(409, 'undo', 'The bin is being counted again by now. Decide on that count');
    if (undo.movements.length > 0) await this.ledger.reverse(tx, act, undo.movements, null);
    await this.allocation.settle(tx, [spot]);
    await update(
      tx,
      'spot_count',
      { id: undo.spotId },
      { state: 'counted', held_units: undo.held ?? 0, settled_by_id: null, settled_at: null, version: more(1) },
    );
  }
}
