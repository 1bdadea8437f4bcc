import { Injectable } from '@nestjs/common';
import { goodsWords, spell } from '@vectrum/core/quantity';
import {
  ALL_ORDERS,
  checkPick,
  checkSetDown,
  checkTote,
  type ItemFacts,
  type PickCommand,
  type PlaceFacts,
  type SetDownCommand,
  type TakeCommand,
  type ToteCommand,
} from '@vectrum/core/scan';
import { ActivityService, UndoService } from '../activity/index.js';
import { Containers, Reservations, spareSql } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { OrderStates, urgentSql } from '../orders/index.js';
import { type Act, badState, more, NOW, one, Problem, refused, rows, type Tx, update } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { keepStanding } from '../sites/index.js';
import { LedgerService } from '../stock/index.js';
import { leftAt, mustBeOpen, ordersOfRound, roundOf, type RoundRow, sharedOut, type StopRow, stopOf, stopsLike } from './rounds.js';
import { SharesService } from './shares.service.js';
import { freeEmpty, freeTotes, standsOnCart, toteOf } from './totes.js';

interface PickUndo extends Record<string, unknown> {
  movements: number[];
  /** The stops that it served, with the units of each. */
  parts: { stopId: number; units: number }[];
  round: string;
  toteId: number;
  /** The lot that was taken. */
  lotId: number;
}

/** Picks goods from bins into totes, stop by stop; any number of people may work one round. */
@Injectable()
export class PickingService {
  constructor(
    private readonly ledger: LedgerService,
    private readonly reservations: Reservations,
    private readonly containers: Containers,
    private readonly codebook: CodebookQueries,
    private readonly states: OrderStates,
    private readonly activity: ActivityService,
    private readonly settings: SettingsService,
    private readonly shares: SharesService,
    undo: UndoService,
  ) {
    undo.register('pick', 'pick', (tx, act, payload) => this.takeBack(tx, act, payload as PickUndo));
    undo.register('tote', 'pick', (tx, act, { round, toteId }) => this.freeTote(tx, act, { round: String(round), toteId: Number(toteId) }));
  }

  /** Puts a person's name on a round, so that nobody else is sent there: one that waits, or one that a colleague leaves. */
  async take(tx: Tx, act: Act, { round: code }: TakeCommand): Promise<FloorAnswerDto> {
    const round = await roundOf(tx, act, code, 'alone');
    mustBeOpen(round);
    const before = round.picker_id === act.person.id ? null : round.picker_id;
    await this.begin(tx, act, round);
    if (before) await update(tx, 'round', { id: round.id }, { picker_id: act.person.id });
    await this.shares.reset(tx, round.id);
    const other = before ? await one<{ name: string }>(tx, 'SELECT name FROM person WHERE id = ?', [before]) : null;
    const activityId = await this.activity.record(tx, act, {
      kind: 'take',
      glyph: 'go',
      title: `${round.code} taken`,
      detail: other ? `over from ${other.name}` : '',
      document: round.code,
      siteId: round.site_id,
    });
    return { activityId };
  }

  /** Ties an empty tote to an order of the round; a round that waits is begun. */
  async tieTote(tx: Tx, act: Act, command: ToteCommand): Promise<FloorAnswerDto> {
    const round = await this.working(tx, act, command.round);
    const order = await this.orderOn(tx, round, command.orderId);
    const tote = await this.claim(tx, act, round, command.orderId, await this.codebook.place(tx, round.site_id, command.totePlaceId));
    const activityId = await this.activity.record(tx, act, {
      kind: 'tote',
      glyph: 'go',
      title: `Tote ${tote.code} for ${order.code}`,
      detail: `${round.code}, ${order.customer}`,
      document: round.code,
      siteId: round.site_id,
      undo: { round: round.code, toteId: tote.id },
    });
    return { activityId };
  }

  /** An order of the round, or of a pooled one all of them. Refused where it is not on the round. */
  async orderOn(tx: Tx, round: RoundRow, orderId: number): Promise<{ code: string; customer: string }> {
    const order = await one<{ code: string; customer: string }>(
      tx,
      round.pooled === 1
        ? `SELECT ? AS code, CONCAT(COUNT(*), ' orders') AS customer FROM round_order x WHERE x.round_id = ? AND ? = ${ALL_ORDERS} HAVING COUNT(*) > 0`
        : 'SELECT o.code, o.customer FROM round_order x JOIN sales_order o ON o.id = x.order_id WHERE x.round_id = ? AND x.order_id = ?',
      round.pooled === 1 ? [round.code, round.id, orderId] : [round.id, orderId],
    );
    if (!order) throw refused({ band: 'not-this', title: round.code, detail: 'This order is not on the round any more' });
    return order;
  }

  /** A tote that is still empty is free again. */
  private async freeTote(tx: Tx, act: Act, undo: { round: string; toteId: number }): Promise<void> {
    await freeEmpty(tx, (await roundOf(tx, act, undo.round, 'alone')).id, undo.toteId);
  }

  /** Goods from one stop into a tote. Loads that stop, its item and the tote, and locks nothing else of the round. */
  async pick(tx: Tx, act: Act, command: PickCommand): Promise<FloorAnswerDto> {
    const round = await this.working(tx, act, command.round);
    const stops = await stopsLike(tx, round, command.stopId);
    const stop = stops.find((s) => s.id === command.stopId);
    const item = stop && (await this.codebook.item(tx, round.site_id, stop.itemId));
    const refusal = checkPick(stop, item, command.units, leftAt(stops));
    if (refusal || !stop || !item)
      throw refused(refusal ?? { band: 'not-this', title: 'Not on this round', detail: 'Look at the round again' });
    const isOver = command.passedOver !== undefined && command.lotId !== stop.lotId;
    if (stop.itemId !== command.itemId || (stop.lotId !== command.lotId && !isOver) || stop.placeId !== command.fromPlaceId)
      throw refused({
        band: 'not-this',
        title: 'The stop has changed',
        detail: `It is ${item.name} in ${stop.placeCode} by now. Put this back`,
      });
    const tote = await this.claim(tx, act, round, stop.orderId, await this.codebook.place(tx, round.site_id, command.totePlaceId));
    if (isOver) await this.mustBeFree(tx, stop, command.lotId, command.units, item);
    const { lotId } = command;
    const reason = isOver ? `lot passed over: ${command.passedOver ?? ''}` : undefined;
    const document = round.pooled === 1 ? round.code : stop.order;
    const { ids } = await this.ledger.post(
      tx,
      act,
      [{ itemId: stop.itemId, lotId, condition: 'good', fromPlaceId: stop.placeId, toPlaceId: tote.id, units: command.units }],
      { task: 'pick', document, how: command.how, ...(reason ? { reason } : {}) },
    );
    if (stop.ownerId !== null && stop.ownerId !== act.person.id) await this.shares.atBin(tx, act, round.id, stop.placeId);
    const parts = sharedOut(stops, command.units);
    for (const part of parts) await this.count(tx, round, part.stop, { id: tote.id, lotId }, part.units);
    const activityId = await this.activity.record(tx, act, {
      kind: 'pick',
      glyph: 'full',
      title: goodsWords(command.units, item),
      detail: `${stop.placeCode} to tote ${tote.code}, ${document}${isOver ? `; ${reason ?? ''}` : ''}`,
      document,
      siteId: round.site_id,
      how: command.how,
      undo: {
        movements: ids,
        parts: parts.map((p) => ({ stopId: p.stop.id, units: p.units })),
        round: round.code,
        toteId: tote.id,
        lotId,
      } satisfies PickUndo,
    });
    return { activityId };
  }

  async setDown(tx: Tx, act: Act, command: SetDownCommand): Promise<FloorAnswerDto> {
    const round = await roundOf(tx, act, command.round, 'alone');
    if (round.state !== 'picking')
      throw badState(round.state === 'waiting' ? `Nothing of ${round.code} is picked yet` : `${round.code} is set down already`);
    const place = await this.codebook.place(tx, round.site_id, command.placeId);
    const stops = await one<{ open: string; picked: string }>(
      tx,
      'SELECT COALESCE(SUM(units > picked_units + short_units), 0) AS open, COALESCE(SUM(picked_units), 0) AS picked FROM round_stop WHERE round_id = ?',
      [round.id],
    );
    const refusal = checkSetDown({ siteId: round.site_id, pooled: round.pooled === 1 }, place, Number(stops?.open ?? 0));
    if (refusal || !place)
      throw refused(
        refusal ?? {
          band: 'unknown',
          title: 'No such place',
          detail: `Scan the label of a ${round.pooled === 1 ? 'sorting wall' : 'packing table'}`,
        },
      );
    const picked = Number(stops?.picked ?? 0) > 0;
    const orders = await this.states.lock(tx, await ordersOfRound(tx, round.id));
    await update(tx, 'round', { id: round.id }, { state: picked ? 'set-down' : 'done', finished_at: NOW });
    await this.setTotesDown(tx, act, round, place, picked);
    // What was taken out of the order on the way may be put back already.
    for (const order of orders) await freeTotes(tx, order);
    await this.states.refresh(tx, orders);
    const first = await one<{ code: string; customer: string }>(tx, 'SELECT code, customer FROM sales_order WHERE id = ?', [
      orders[0] ?? 0,
    ]);
    const activityId = await this.activity.record(tx, act, {
      kind: 'set-down',
      glyph: 'half',
      title:
        round.pooled === 1
          ? `${round.code} picked, to be sorted at ${place.code}`
          : `${first?.code ?? round.code}${orders.length > 1 ? ` and ${orders.length - 1} more` : ''} picked, set down at ${place.code}`,
      detail: `${round.code}, ${first?.customer ?? ''}`,
      document: round.pooled === 1 ? round.code : (first?.code ?? round.code),
      siteId: round.site_id,
    });
    return { activityId };
  }

  /** The round that a person works at, begun where it waited. */
  async working(tx: Tx, act: Act, code: string): Promise<RoundRow> {
    const seen = await roundOf(tx, act, code, 'share');
    mustBeOpen(seen);
    if (seen.state === 'picking') return seen;
    const round = await roundOf(tx, act, code, 'alone');
    mustBeOpen(round);
    await this.begin(tx, act, round);
    return round;
  }

  /** Puts the first person to touch a waiting round on it. */
  private async begin(tx: Tx, act: Act, round: RoundRow): Promise<void> {
    if (round.state !== 'waiting') return;
    await this.mustBeNext(tx, act, round);
    await update(tx, 'round', { id: round.id }, { state: 'picking', picker_id: act.person.id, begun_at: NOW });
    await this.states.refresh(tx, await ordersOfRound(tx, round.id));
  }

  /** Where pickers may not choose, the round whose promise is soonest comes before any other that waits for them. */
  private async mustBeNext(tx: Tx, act: Act, round: RoundRow): Promise<void> {
    if (await this.settings.get(tx, 'ownChoice')) return;
    const next = await one<{ code: string }>(
      tx,
      `SELECT r.code FROM \`round\` r JOIN round_order x ON x.round_id = r.id JOIN sales_order o ON o.id = x.order_id WHERE r.site_id = ? AND r.state = 'waiting' AND (r.sent_to_id IS NULL OR r.sent_to_id = ?) ORDER BY ${urgentSql('o')} DESC, o.promised_at, r.id LIMIT 1`,
      [round.site_id, act.person.id],
    );
    if (next && next.code !== round.code) throw badState(`${next.code} comes first: it is urgent, or its promise is sooner. Take that one`);
  }

  /** Takes a tote for an order of the round. One that comes to it stands on the round's cart, where it is walked with one. */
  async claim(tx: Tx, act: Act, round: RoundRow, orderId: number, place: PlaceFacts | undefined): Promise<PlaceFacts> {
    if (!place) throw refused({ band: 'unknown', title: 'No such tote', detail: 'Scan the code on the tote' });
    const refusal = checkTote({ siteId: round.site_id, busyToteIds: [] }, place);
    if (refusal) throw refused(refusal);
    const isNew = await toteOf(tx, { roundId: round.id, orderId: round.pooled === 1 ? null : orderId }, place);
    if (isNew && (round.cart_id !== null || (await standsOnCart(tx, place.id))))
      await this.containers.move(tx, act, place.id, round.cart_id);
    return place;
  }

  /** Another lot than the one that is due is taken only as far as it lies there and is held for nobody. */
  private async mustBeFree(tx: Tx, stop: StopRow, lotId: number, units: number, item: ItemFacts): Promise<void> {
    const free = await this.free(tx, stop, lotId);
    if (units <= free) return;
    throw refused({
      band: 'too-many',
      title: `Only ${spell(Math.max(0, free), item.packs)} here`,
      detail: 'No more of this lot is free. Take the lot that is due',
    });
  }

  /** Units of a lot in a stop's bin that are held for nobody; its balance is locked. */
  private async free(tx: Tx, stop: StopRow, lotId: number): Promise<number> {
    await keepStanding(tx, '?', [stop.placeId]);
    await one(tx, `SELECT units FROM balance WHERE item_id = ? AND place_id = ? AND lot_id = ? AND stock_condition = 'good' FOR UPDATE`, [
      stop.itemId,
      stop.placeId,
      lotId,
    ]);
    const row = await one<{ units: number | string }>(
      tx,
      `SELECT ${spareSql('b')} AS units FROM balance b WHERE b.item_id = ? AND b.place_id = ? AND b.lot_id = ? AND b.stock_condition = 'good'`,
      [stop.itemId, stop.placeId, lotId],
    );
    return Number(row?.units ?? 0);
  }

  /** Stop, line and what is promised go with the goods; units below nought bring them back. */
  private async count(tx: Tx, round: RoundRow, stop: StopRow, into: { id: number; lotId: number }, units: number): Promise<void> {
    const holder = { lineId: stop.lineId, itemId: stop.itemId, siteId: round.site_id };
    const [bin, tote] = [
      { placeId: stop.placeId, lotId: stop.lotId },
      { placeId: into.id, lotId: into.lotId },
    ];
    if (units > 0) await this.reservations.move(tx, holder, bin, tote, units);
    else await this.reservations.move(tx, holder, tote, bin, -units);
    await update(tx, 'round_stop', { id: stop.id }, { picked_units: more(units) });
    await this.states.progress(tx, stop.lineId, { picked: units });
  }

  private async setTotesDown(tx: Tx, act: Act, round: RoundRow, place: PlaceFacts, picked: boolean): Promise<void> {
    const totes = await rows<{ id: number; cartId: number | null }>(
      tx,
      `SELECT u.tote_id AS id, c.id AS cartId FROM tote_use u JOIN place t ON t.id = u.tote_id LEFT JOIN place c ON c.id = t.parent_id AND c.kind = 'cart' WHERE u.round_id = ? AND u.ended_at IS NULL ORDER BY u.tote_id`,
      [round.id],
    );
    await tx.query(
      `UPDATE tote_use SET set_down_at = UTC_TIMESTAMP(3), ended_at = IF(?, NULL, UTC_TIMESTAMP(3)) WHERE round_id = ? AND ended_at IS NULL`,
      [picked, round.id],
    );
    // Totes stay on their cart, which stands at the table with them.
    const moving = new Set(totes.map((t) => (t.cartId !== null && t.cartId === round.cart_id ? t.cartId : t.id)));
    for (const id of [...moving].sort((x, y) => x - y)) await this.containers.move(tx, act, id, place.id);
  }

  private async takeBack(tx: Tx, act: Act, undo: PickUndo): Promise<void> {
    const round = await roundOf(tx, act, undo.round, 'alone');
    const parts: { stop: StopRow; units: number }[] = [];
    for (const { stopId, units } of undo.parts) {
      const stop = await stopOf(tx, round.id, stopId);
      if (stop) parts.push({ stop, units });
    }
    const [first] = parts;
    if (round.state !== 'picking' || !first || parts.length < undo.parts.length)
      throw new Problem(409, 'undo', `${undo.round} is set down. Put the goods back by hand and ask the office`);
    const orders = await this.states.lock(
      tx,
      parts.map((p) => p.stop.orderId),
    );
    await this.ledger.reverse(tx, act, undo.movements, null);
    // The lot that was due is the stop's again, where nobody else has been promised it meanwhile.
    const { lotId } = undo;
    const all = parts.reduce((n, p) => n + p.units, 0);
    if (lotId !== first.stop.lotId && (await this.free(tx, first.stop, first.stop.lotId)) < all)
      throw new Problem(
        409,
        'undo',
        'The lot that was passed over is promised to another order by now. Put the goods back and ask the office',
      );
    for (const { stop, units } of parts) await this.count(tx, round, stop, { id: undo.toteId, lotId }, -units);
    await this.states.refresh(tx, orders);
  }
}
