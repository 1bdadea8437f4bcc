import { Injectable } from '@nestjs/common';
import { goodsWords } from '@vectrum/core/quantity';
import { checkStore, type StoreCommand, type StoreTask } from '@vectrum/core/scan';
import { ActivityService, UndoService } from '../activity/index.js';
import { spareSql } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { freeTotes, holdUseOf } from '../picking/index.js';
import { type Act, mustBeAt, num, one, Problem, refused, type Tx } from '../platform/index.js';
import { keepStanding } from '../sites/index.js';
import { LedgerService } from '../stock/index.js';
import { PutawayQueries } from './putaway.queries.js';

/** Puts goods away from docks and carts, and out of totes that want them no longer, into bins, by two scans. */
@Injectable()
export class StoringService {
  constructor(
    private readonly ledger: LedgerService,
    private readonly codebook: CodebookQueries,
    private readonly activity: ActivityService,
    private readonly putaway: PutawayQueries,
    undo: UndoService,
  ) {
    undo.register('store', 'store', async (tx, act, payload) => {
      const tote = payload['tote'];
      if (typeof tote === 'number' && (await holdUseOf(tx, tote)) === null)
        throw new Problem(409, 'undo', 'The tote is free for another order by now. The goods stay where they are');
      await this.ledger.reverse(tx, act, payload['movements'] as number[], null);
    });
  }

  /** What stands at a site's docks and on its carts, with bins suggested for each and the reason, in the order of a short walk. */
  async task(tx: Tx, siteId: number): Promise<StoreTask> {
    return { siteId, ...(await this.putaway.list(tx, siteId)) };
  }

  async store(tx: Tx, act: Act, input: StoreCommand): Promise<FloorAnswerDto> {
    const order = await holdUseOf(tx, input.fromPlaceId);
    const places = await keepStanding(tx, '?, ?', [input.fromPlaceId, input.toPlaceId]);
    const from = places.find((p) => p.id === input.fromPlaceId && p.siteId !== null);
    const siteId = from?.siteId ?? 0;
    mustBeAt(act.person, siteId);
    const item = await this.codebook.item(tx, siteId, input.itemId);
    const place = await this.codebook.place(tx, siteId, input.toPlaceId);
    if (input.fromPlaceId === input.toPlaceId)
      throw refused({ band: 'not-this', title: from?.code ?? 'This place', detail: 'The goods stand here already. Scan where they go' });
    const standing = await this.standing(tx, input);
    const refusal = item
      ? checkStore(siteId, item, place, input.units, standing)
      : { band: 'unknown' as const, title: 'No such item', detail: 'Scan the goods again' };
    if (refusal || !item || !place)
      throw refused(refusal ?? { band: 'unknown', title: 'No such place', detail: 'Scan the label of a bin' });
    const { ids } = await this.ledger.post(
      tx,
      act,
      [
        {
          itemId: input.itemId,
          lotId: input.lotId,
          condition: 'good',
          fromPlaceId: input.fromPlaceId,
          toPlaceId: input.toPlaceId,
          units: input.units,
        },
      ],
      { task: 'store', document: null, how: input.how },
    );
    if (order !== null) await freeTotes(tx, order);
    const activityId = await this.activity.record(tx, act, {
      kind: 'store',
      glyph: 'full',
      title: goodsWords(input.units, item),
      detail: `from ${from?.code ?? ''} to ${place.code}`,
      siteId,
      how: input.how,
      undo: { movements: ids, ...(order === null ? {} : { tote: input.fromPlaceId }) },
    });
    return { activityId };
  }

  /** What may be taken from there: what no order holds. */
  private async standing(tx: Tx, input: StoreCommand): Promise<number> {
    const key = [input.itemId, input.fromPlaceId, input.lotId];
    await one(
      tx,
      `SELECT units FROM balance WHERE item_id = ? AND place_id = ? AND lot_id = ? AND stock_condition = 'good' FOR UPDATE`,
      key,
    );
    const row = await one<{ units: number | string }>(
      tx,
      `SELECT ${spareSql('b')} AS units FROM balance b WHERE b.item_id = ? AND b.place_id = ? AND b.lot_id = ? AND b.stock_condition = 'good'`,
      key,
    );
    return Math.max(0, num(row?.units));
  }
}
