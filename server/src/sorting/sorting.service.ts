import { Injectable } from '@nestjs/common';
import { isFor } from '@vectrum/core/places';
import { goodsWords } from '@vectrum/core/quantity';
import type { PlaceFacts, SortCommand } from '@vectrum/core/scan';
import { ActivityService, UndoService } from '../activity/index.js';
import { Reservations } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { OrderStates } from '../orders/index.js';
import { backIntoTote, freeTotes, roundOf, toteOf } from '../picking/index.js';
import { type Act, one, Problem, refused, type Tx } from '../platform/index.js';
import { LedgerService } from '../stock/index.js';
import { standsAtSql } from '../sites/index.js';
import { pooledLines } from './pooled-lines.js';

interface SortUndo extends Record<string, unknown> {
  round: string;
  movements: number[];
  orderId: number;
  itemId: number;
  lotId: number;
  toteId: number;
  slotId: number;
  parts: { lineId: number; units: number }[];
}

/** Puts what a pooled round has picked into the slots of a wall, an order in each. Any number of people may sort one round. */
@Injectable()
export class SortingService {
  constructor(
    private readonly ledger: LedgerService,
    private readonly reservations: Reservations,
    private readonly codebook: CodebookQueries,
    private readonly states: OrderStates,
    private readonly activity: ActivityService,
    undo: UndoService,
  ) {
    undo.register('sort', 'pick', (tx, act, payload) => this.takeBack(tx, act, payload as SortUndo));
  }

  async sort(tx: Tx, act: Act, command: SortCommand): Promise<FloorAnswerDto> {
    const round = await roundOf(tx, act, command.round, 'alone');
    if (round.state !== 'set-down')
      throw refused({ band: 'not-this', title: round.code, detail: 'Nothing of it is to be sorted here now' });
    await this.states.lock(tx, [command.orderId]);
    const { orderId, itemId, lotId, units, fromPlaceId: toteId } = command;
    const item = await this.codebook.item(tx, round.site_id, itemId);
    const parts = await pooledLines(tx, { roundId: round.id, orderId, itemId, lotId, toteId }, units, item?.name ?? round.code);
    const slot = await this.slotFor(tx, round.id, orderId, await this.codebook.place(tx, round.site_id, command.slotPlaceId));
    const { ids } = await this.ledger.post(
      tx,
      act,
      [{ itemId, lotId, condition: 'good', fromPlaceId: toteId, toPlaceId: slot.id, units }],
      { task: 'sort', document: round.code, how: command.how },
    );
    for (const part of parts) {
      const holder = { lineId: part.lineId, itemId, siteId: round.site_id };
      await this.reservations.move(tx, holder, { placeId: toteId, lotId }, { placeId: slot.id, lotId }, part.units);
    }
    await freeTotes(tx, orderId);
    await this.states.refresh(tx, [orderId]);
    const order = await one<{ code: string; customer: string; done: number | string }>(
      tx,
      'SELECT o.code, o.customer, u.set_down_at IS NOT NULL AS done FROM sales_order o JOIN tote_use u ON u.open_tote = ? WHERE o.id = ?',
      [slot.id, orderId],
    );
    const done = Number(order?.done ?? 0) === 1;
    const activityId = await this.activity.record(tx, act, {
      kind: 'sort',
      glyph: done ? 'full' : 'half',
      title: item ? goodsWords(units, item) : round.code,
      detail: `into ${slot.code}, ${order?.code ?? ''}${done ? `; complete, ready to pack` : ''}`,
      document: order?.code ?? round.code,
      siteId: round.site_id,
      how: command.how,
      undo: { round: round.code, movements: ids, orderId, itemId, lotId, toteId, slotId: slot.id, parts } satisfies SortUndo,
    });
    return { activityId };
  }

  /** The slot of an order: the one that it has, or a free one of the wall at which its round stands. */
  private async slotFor(tx: Tx, roundId: number, orderId: number, place: PlaceFacts | undefined): Promise<PlaceFacts> {
    if (!place || !isFor(place.kind, 'picked') || place.kind !== 'wall-slot')
      throw refused({ band: 'not-this', title: place?.code ?? 'No such slot', detail: 'Scan the label of the slot that is shown' });
    const own = await one<{ code: string; id: number }>(
      tx,
      `SELECT p.id, p.code FROM tote_use u JOIN place p ON p.id = u.tote_id AND p.kind = 'wall-slot' WHERE u.round_id = ? AND u.order_id = ? AND u.ended_at IS NULL`,
      [roundId, orderId],
    );
    if (own && own.id !== place.id) throw refused({ band: 'not-this', title: place.code, detail: `These go into ${own.code}` });
    const stands = await one(
      tx,
      `SELECT 1 AS n FROM tote_use u JOIN place t ON t.id = u.tote_id ${standsAtSql('t', 'w')} JOIN place s ON s.parent_id = w.id WHERE s.id = ? AND u.round_id = ? AND u.order_id IS NULL AND u.ended_at IS NULL LIMIT 1`,
      [place.id, roundId],
    );
    if (!stands) throw refused({ band: 'not-this', title: place.code, detail: 'Its totes stand at another wall' });
    await toteOf(tx, { roundId, orderId }, place);
    return place;
  }

  private async takeBack(tx: Tx, act: Act, undo: SortUndo): Promise<void> {
    const round = await roundOf(tx, act, undo.round, 'alone');
    await this.states.lock(tx, [undo.orderId]);
    const packed = await one(tx, 'SELECT 1 AS n FROM parcel WHERE order_id = ? AND state = ? LIMIT 1', [undo.orderId, 'open']);
    if (packed) throw new Problem(409, 'undo', 'Somebody packs this order by now. Take the goods out at the packing table');
    await this.ledger.reverse(tx, act, undo.movements, null);
    for (const part of undo.parts) {
      const holder = { lineId: part.lineId, itemId: undo.itemId, siteId: round.site_id };
      const [slot, tote] = [
        { placeId: undo.slotId, lotId: undo.lotId },
        { placeId: undo.toteId, lotId: undo.lotId },
      ];
      await this.reservations.move(tx, holder, slot, tote, part.units);
    }
    await backIntoTote(tx, { roundId: round.id, orderId: undo.orderId }, undo.slotId, undo.toteId);
    await this.states.refresh(tx, [undo.orderId]);
  }
}
