import { Injectable } from '@nestjs/common';
import { decimalText, micro, times } from '@vectrum/core/money';
import { isFor } from '@vectrum/core/places';
import { goodsWords } from '@vectrum/core/quantity';
import type { CountSpotCommand, ReportSpotCommand } from '@vectrum/core/scan';
import { ActivityService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import {
  type Act,
  badState,
  CommandLog,
  find,
  insert,
  more,
  mustBeAt,
  mustMatch,
  notFound,
  NOW,
  one,
  Problem,
  type Tx,
  update,
} from '../platform/index.js';
import { LedgerService } from '../stock/index.js';
import { type CountedSpot, MissingGoods } from './missing-goods.js';
import { becauseCounted, bookedAt, counted, lockedSpot, openSpotAt, spotOf } from './spot-rows.js';

/**
 * Goods of one bin that somebody has not found: what is missing is held until somebody else has counted it. A count gives back
 * what is there, at once; what is not there is held until a person decides that the books follow, or that it is counted again.
 */
@Injectable()
export class SpotCounts {
  constructor(
    private readonly commands: CommandLog,
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly codebook: CodebookQueries,
    private readonly missing: MissingGoods,
    private readonly activity: ActivityService,
  ) {}

  /** Somebody has found too few: their bin is counted. Units are those that were held for it. The goods' balances are locked. */
  async raise(tx: Tx, act: Act, spot: CountedSpot, units: number, why: string, document: string | null): Promise<void> {
    const known = await openSpotAt(tx, spot);
    if (known)
      await update(
        tx,
        'spot_count',
        { id: known.id },
        {
          state: 'open',
          why,
          document,
          raised_by_id: act.person.id,
          raised_at: NOW,
          counted_units: null,
          counted_by_id: null,
          held_units: more(units),
          version: more(1),
        },
      );
    else
      await insert(tx, 'spot_count', {
        site_id: spot.siteId,
        place_id: spot.placeId,
        item_id: spot.itemId,
        lot_id: spot.lotId,
        why,
        document,
        raised_by_id: act.person.id,
        held_units: units,
      });
  }

  /** Somebody who came to fetch goods has found fewer than the books have. */
  async report(tx: Tx, act: Act, { itemId, lotId, placeId, there, how }: Omit<ReportSpotCommand, 'kind' | 'id'>): Promise<FloorAnswerDto> {
    const bin = await find(tx, 'place', { id: placeId });
    const siteId = bin?.site_id ?? 0;
    mustBeAt(act.person, siteId);
    // What lies in a tote or parcel is somebody's already, and is looked for by them.
    if (!bin || !isFor(bin.kind, 'shelf')) throw badState('Only bins are counted here. Scan the bin that they should lie in');
    const spot: CountedSpot = { siteId, placeId, itemId, lotId };
    const { units: gone } = await this.missing.onlyThere(tx, act, spot, there);
    const place = await this.codebook.place(tx, siteId, placeId);
    const item = await this.codebook.item(tx, siteId, itemId);
    if (gone === 0) throw badState('The books have no more than that there by now. Look at the list again');
    await this.raise(tx, act, spot, gone, 'reported not there', null);
    const activityId = await this.activity.record(tx, act, {
      kind: 'count',
      glyph: 'blocked',
      title: `Not there: ${item ? goodsWords(gone, item) : gone}`,
      detail: `${place?.code ?? ''} to be counted`,
      siteId,
      how,
    });
    return { activityId };
  }

  /** They were there after all, says who reported it. Refused once somebody has counted. */
  async lower(tx: Tx, spot: CountedSpot, units: number): Promise<void> {
    const known = await openSpotAt(tx, spot);
    if (!known || known.state !== 'open' || known.held_units < units)
      throw new Problem(409, 'undo', 'Somebody has counted the bin meanwhile. What they have found holds');
    await update(tx, 'spot_count', { id: known.id }, { held_units: more(-units), version: more(1) });
    await update(tx, 'spot_count', { id: known.id, held_units: 0 }, { state: 'dropped' });
  }

  /** Somebody has counted a bin. */
  async count(tx: Tx, act: Act, command: Omit<CountSpotCommand, 'kind' | 'id'>): Promise<FloorAnswerDto> {
    const seen = await find(tx, 'spot_count', { id: command.spotId });
    if (!seen) throw notFound('This count');
    mustBeAt(act.person, seen.site_id);
    const spot = spotOf(seen);
    if (spot.itemId !== command.itemId || spot.lotId !== command.lotId || spot.placeId !== command.placeId)
      throw badState('Something else is counted there by now. Look at the list again');
    const { units } = command;
    const { units: gone } = await this.missing.onlyThere(tx, act, spot, units);
    const { good, held } = await bookedAt(tx, spot);
    const row = await lockedSpot(tx, seen.id);
    if (row.state !== 'open' && row.state !== 'counted') throw badState('This bin is decided already');
    const all = good + held;
    const found = Math.max(0, Math.min(held, row.held_units, units - good));
    if (found > 0) await this.ledger.post(tx, act, [counted(spot, 'held', 'good', found)], becauseCounted(seen.document));
    // What is found is somebody's again: whoever waits for it.
    await this.allocation.settle(tx, [spot]);
    const isSettled = units === all && row.raised_by_id !== act.person.id;
    await update(
      tx,
      'spot_count',
      { id: row.id },
      {
        state: isSettled ? 'settled' : 'counted',
        held_units: row.held_units + gone - found,
        counted_units: units,
        booked_units: all,
        counted_by_id: act.person.id,
        counted_at: NOW,
        counted_command: act.key,
        ...(isSettled ? { settled_by_id: act.person.id, settled_at: NOW } : {}),
        version: more(1),
      },
    );
    const item = await this.codebook.item(tx, spot.siteId, spot.itemId);
    const place = await this.codebook.place(tx, spot.siteId, spot.placeId);
    const activityId = await this.activity.record(tx, act, {
      kind: 'count',
      glyph: isSettled ? 'full' : 'half',
      title: `Counted: ${item ? goodsWords(units, item) : units}`,
      detail: `${place?.code ?? ''}, ${isSettled ? 'as the books say' : 'for the office to decide'}`,
      document: seen.document,
      siteId: spot.siteId,
      how: command.how,
    });
    return { activityId };
  }

  /** Somebody says how many of goods lie in a place, for a reason, without having been asked: it is decided like any other count. */
  correct(act: Act, spot: CountedSpot, units: number, reason: string): Promise<{ id: number; worth: string | null }> {
    return this.commands.run(act, 'spot.correct', { ...spot, units, reason }, async (tx) => {
      mustBeAt(act.person, spot.siteId);
      const known = await openSpotAt(tx, spot);
      if (!known) await this.raise(tx, act, spot, 0, reason.slice(0, 60), null);
      const row = known ?? (await openSpotAt(tx, spot));
      if (!row) throw notFound('This count');
      await this.count(tx, act, { ...spot, spotId: row.id, units, how: 'typed' });
      const after = await lockedSpot(tx, row.id);
      const cost = await one<{ cost: string | null }>(
        tx,
        'SELECT COALESCE(CAST(k.value / k.units AS DECIMAL(18,6)), i.cost) AS cost FROM item i LEFT JOIN cost_pool k ON k.item_id = i.id AND k.units > 0 WHERE i.id = ?',
        [spot.itemId],
      );
      const off = Math.abs((after.counted_units ?? 0) - (after.booked_units ?? 0));
      return { id: row.id, worth: cost?.cost ? decimalText(times(micro(cost.cost), off)) : null };
    });
  }

  /** The same from the office, where a number comes on paper or by word of mouth. */
  countByHand(act: Act, id: number, version: number, units: number): Promise<{ id: number }> {
    return this.commands.run(act, 'spot.count', { id, version, units }, async (tx) => {
      const row = await find(tx, 'spot_count', { id });
      if (!row) throw notFound('This count');
      mustMatch(row.version, version);
      await this.count(tx, act, { ...spotOf(row), spotId: id, units, how: 'typed' });
      return { id };
    });
  }
}
