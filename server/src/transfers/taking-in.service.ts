import { Injectable } from '@nestjs/common';
import { dividedBy, micro, times } from '@vectrum/core/money';
import { isFor } from '@vectrum/core/places';
import { goodsWords } from '@vectrum/core/quantity';
import { checkTakeIn, type ParcelHereCommand, type TakeInCloseCommand, type TakeInCommand } from '@vectrum/core/scan';
import { ActivityService, UndoService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { type Act, badState, find, more, mustBeAt, NOW, num, one, Problem, refused, type Tx, update } from '../platform/index.js';
import { keepStanding } from '../sites/index.js';
import { LedgerService } from '../stock/index.js';
import { transferOf } from './transfer-rows.js';

/** Goods from another site are counted in, at what they left at. */
@Injectable()
export class TakingIn {
  constructor(
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly codebook: CodebookQueries,
    private readonly activity: ActivityService,
    undo: UndoService,
  ) {
    undo.register('take-in', 'receive', (tx, act, payload) => this.takeBack(tx, act, payload as unknown as Taken));
  }

  async takeIn(tx: Tx, act: Act, command: TakeInCommand): Promise<FloorAnswerDto> {
    const t = await transferOf(tx, command.document);
    mustBeAt(act.person, t.to_site_id);
    if (t.state !== 'on-the-road' && t.state !== 'arriving')
      throw badState(
        t.state === 'received' ? `${t.code} is closed. What comes late is settled by the office` : `${t.code} has not been sent yet`,
      );
    const goods = await find(tx, 'transfer_goods', { id: command.goodsId, transfer_id: t.id }, 'lock');
    if (!goods || goods.item_id !== command.itemId || goods.lot_id !== command.lotId) throw badState('These goods were not sent with it');
    const item = await this.codebook.item(tx, t.to_site_id, goods.item_id);
    const left = goods.units - goods.received_units - goods.lost_units;
    const refusal = checkTakeIn(item, left, command.units);
    if (refusal) throw refused(refusal);
    const [place] = await keepStanding(tx, '?', [command.toPlaceId]);
    const facts = await this.codebook.place(tx, t.to_site_id, command.toPlaceId);
    if (
      !place ||
      !facts ||
      facts.siteId !== t.to_site_id ||
      !(isFor(facts.kind, 'receive') || isFor(facts.kind, 'apart')) ||
      (command.isDamaged && isFor(facts.kind, 'shelf'))
    )
      throw refused({
        band: 'not-this',
        title: place?.code ?? 'This place',
        detail: 'Goods are not booked in here. Scan a bin, the dock, or for damaged goods a place apart',
      });
    const { units, isDamaged } = command;
    // The last unit brings what is left of the worth, so that nothing is lost on the road to rounding.
    const before = micro(goods.value) * BigInt(goods.received_units + goods.lost_units);
    const value =
      units === left && goods.lost_units === 0
        ? micro(goods.value) - dividedBy(before, goods.units)
        : dividedBy(times(micro(goods.value), units), goods.units);
    const road = await this.ledger.outside(tx, 'in-transit');
    const { ids, changes } = await this.ledger.post(
      tx,
      act,
      [
        {
          itemId: goods.item_id,
          lotId: goods.lot_id,
          condition: 'good',
          ...(isDamaged ? { toCondition: 'damaged' as const } : {}),
          fromPlaceId: road,
          toPlaceId: place.id,
          units,
        },
      ],
      { task: 'transfer', document: t.code, how: command.how, worths: [{ value, parts: [] }] },
    );
    if (t.order_id !== null) await this.allocation.giveTo(tx, t.order_id, { siteId: t.to_site_id, itemId: goods.item_id, units });
    await this.allocation.settle(tx, changes);
    await update(tx, 'transfer_goods', { id: goods.id }, { received_units: more(units), damaged_units: more(isDamaged ? units : 0) });
    await update(tx, 'transfer', { id: t.id }, { state: 'arriving', version: more(1) });
    const taken: Taken = { transferId: t.id, goodsId: goods.id, units, damaged: isDamaged ? units : 0, movements: ids };
    const activityId = await this.activity.record(tx, act, {
      kind: 'take-in',
      glyph: isDamaged ? 'held' : 'full',
      title: `${item ? goodsWords(units, item) : units}${isDamaged ? ', damaged' : ''}`,
      detail: `${t.code}, to ${place.code}`,
      document: t.code,
      siteId: t.to_site_id,
      how: command.how,
      undo: { ...taken },
    });
    return { activityId };
  }

  /** A parcel of it stands at the dock. Scanned twice, it is there once. */
  async parcelHere(tx: Tx, act: Act, command: ParcelHereCommand): Promise<FloorAnswerDto> {
    const t = await transferOf(tx, command.document);
    mustBeAt(act.person, t.to_site_id);
    if (t.state !== 'on-the-road' && t.state !== 'arriving') throw badState(`${t.code} is not on the road`);
    const parcel = await find(tx, 'transfer_parcel', { transfer_id: t.id, code: command.parcel }, 'lock');
    if (!parcel || parcel.state === 'removed') throw badState(`${command.parcel} was not sent with it`);
    if (parcel.here_at) return { activityId: 0 };
    await update(tx, 'transfer_parcel', { id: parcel.id }, { here_at: NOW });
    await update(tx, 'transfer', { id: t.id }, { version: more(1) });
    const activityId = await this.activity.record(tx, act, {
      kind: 'take-in',
      glyph: 'half',
      title: `Parcel ${parcel.code} is here`,
      detail: parcel.tracking ?? '',
      document: t.code,
      siteId: t.to_site_id,
    });
    return { activityId };
  }

  /** Nothing more comes with it. */
  async close(tx: Tx, act: Act, { document }: Omit<TakeInCloseCommand, 'kind' | 'id'>): Promise<FloorAnswerDto> {
    const t = await transferOf(tx, document);
    mustBeAt(act.person, t.to_site_id);
    if (t.state !== 'on-the-road' && t.state !== 'arriving')
      throw badState(t.state === 'received' ? 'It is closed already' : 'It has not been sent yet');
    await update(tx, 'transfer', { id: t.id }, { state: 'received', received_at: NOW, version: more(1) });
    const missing = await one<{ n: string }>(
      tx,
      'SELECT COALESCE(SUM(units - received_units - lost_units), 0) AS n FROM transfer_goods WHERE transfer_id = ?',
      [t.id],
    );
    const activityId = await this.activity.record(tx, act, {
      kind: 'take-in',
      glyph: num(missing?.n) > 0 ? 'blocked' : 'full',
      title: `${t.code} closed`,
      detail: num(missing?.n) > 0 ? `${num(missing?.n)} units did not come` : 'all that was sent is here',
      document: t.code,
      siteId: t.to_site_id,
    });
    return { activityId };
  }

  private async takeBack(tx: Tx, act: Act, taken: Taken): Promise<void> {
    const t = await find(tx, 'transfer', { id: taken.transferId }, 'lock');
    if (t?.state !== 'arriving') throw new Problem(409, 'undo', 'The transfer is closed by now');
    await this.allocation.settle(tx, await this.ledger.reverse(tx, act, taken.movements, t.code));
    await update(tx, 'transfer_goods', { id: taken.goodsId }, { received_units: more(-taken.units), damaged_units: more(-taken.damaged) });
    await update(tx, 'transfer', { id: t.id }, { version: more(1) });
  }
}

interface Taken {
  transferId: number;
  goodsId: number;
  units: number;
  damaged: number;
  movements: number[];
}
