import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { ALL_ORDERS } from '@vectrum/core/scan';
import { OrderStates } from '../orders/index.js';
import { type Act, badForm, badState, CommandLog, one, rows, type Tx } from '../platform/index.js';
import { pickable } from './pickable.js';
import { PickingService } from './picking.service.js';
import { mustBeOpen, ordersOfRound, roundOf, type RoundRow } from './rounds.js';
import type { PaperResultsDto } from './sheet.dto.js';
import { ShortService } from './short.service.js';

interface OpenStop {
  id: number;
  orderId: number;
  itemId: number;
  lotId: number;
  placeId: number;
  place: string;
  left: number;
}

/** Enters what was written on a round's paper list: what was taken goes into the totes, the rest was not there, and all is set down. */
@Injectable()
export class ResultsService {
  constructor(
    private readonly commands: CommandLog,
    private readonly picking: PickingService,
    private readonly shorts: ShortService,
    private readonly states: OrderStates,
  ) {}

  /** All of it or nothing: every open stop must have its number, and every order of which something was taken its tote. */
  enter(act: Act, code: string, results: PaperResultsDto): Promise<{ code: string }> {
    return this.commands.run(act, 'round.results', { code, results }, async (tx) => {
      const round = await roundOf(tx, act, code, 'alone');
      mustBeOpen(round);
      const stops = await this.open(tx, round);
      const totes = await this.totes(tx, round, results);
      const table = await placeId(tx, round, results.table, 'table');
      const said = new Map(results.stops.map((s) => [s.stopId, s.units]));
      const faults: Record<string, string> = {};
      for (const stop of stops) {
        const units = said.get(stop.id);
        if (units === undefined) faults[`stop-${stop.id}`] = `${stop.place}: say how many were taken, 0 where none were`;
        else if (units > stop.left) faults[`stop-${stop.id}`] = `${stop.place}: ${stop.left} at most, as many as were wanted`;
        if (units && !totes.has(stop.orderId)) faults[`tote-${stop.orderId}`] = 'Say which tote the goods of this order are in';
      }
      if (Object.keys(faults).length > 0) throw badForm(faults);
      await this.holdAll(tx, round, stops);
      for (const stop of stops) {
        const units = said.get(stop.id) ?? 0;
        const { itemId, lotId, placeId: fromPlaceId } = stop;
        const totePlaceId = totes.get(stop.orderId) ?? 0;
        const own = { id: randomUUID(), round: code, stopId: stop.id };
        if (units > 0)
          await this.picking.pick(tx, act, { kind: 'pick', ...own, itemId, lotId, fromPlaceId, units, totePlaceId, how: 'typed' });
      }
      // What is missing is told once all that was taken is out of its bins, and sought no further: the walk is over.
      for (const stop of stops) {
        const missing = stop.left - (said.get(stop.id) ?? 0);
        if (missing > 0) await this.shorts.missing(tx, act, round, stop.id, missing);
      }
      await this.picking.setDown(tx, act, { kind: 'set-down', id: randomUUID(), round: code, placeId: table });
      return { code };
    });
  }

  /** All that picks and shorts will touch is locked first, in the house's order: they come one after the other, and each touches all of it. */
  private async holdAll(tx: Tx, round: RoundRow, stops: readonly OpenStop[]): Promise<void> {
    await this.states.lock(tx, await ordersOfRound(tx, round.id));
    const items = [...new Set(stops.map((s) => s.itemId))].sort((a, b) => a - b);
    await pickable(tx, round.site_id, items, 'locked');
    await tx.query('SELECT item_id FROM site_stock WHERE site_id = ? AND item_id IN (?) ORDER BY item_id FOR UPDATE', [
      round.site_id,
      [0, ...items],
    ]);
  }

  /** What is still wanted; of a pooled round, for all of its orders together. */
  private open(tx: Tx, round: RoundRow): Promise<OpenStop[]> {
    const pooled = round.pooled === 1;
    return rows<OpenStop>(
      tx,
      `SELECT MIN(s.id) AS id, ${pooled ? ALL_ORDERS : 'MIN(l.order_id)'} AS orderId, s.item_id AS itemId, s.lot_id AS lotId, s.place_id AS placeId, p.code AS place, CAST(SUM(s.units - s.picked_units - s.short_units) AS DOUBLE) AS \`left\`
       FROM round_stop s JOIN sales_order_line l ON l.id = s.order_line_id JOIN place p ON p.id = s.place_id WHERE s.round_id = ? GROUP BY ${pooled ? 's.place_id, s.item_id, s.lot_id' : 's.id'} HAVING \`left\` > 0 ORDER BY id`,
      [round.id],
    );
  }

  /** The tote of each order, by its code; an order that has one already needs none. */
  private async totes(tx: Tx, round: RoundRow, { totes }: PaperResultsDto): Promise<Map<number, number>> {
    const known = await rows<{ orderId: number | null; toteId: number }>(
      tx,
      'SELECT order_id AS orderId, tote_id AS toteId FROM tote_use WHERE round_id = ? AND ended_at IS NULL ORDER BY id',
      [round.id],
    );
    const found = new Map(known.map((u) => [u.orderId ?? ALL_ORDERS, u.toteId]));
    const orders = new Set(round.pooled === 1 ? [ALL_ORDERS] : await ordersOfRound(tx, round.id));
    for (const { orderId, tote } of totes) {
      if (!orders.has(orderId)) throw badState('An order has left this round meanwhile. Look at it again');
      found.set(orderId, await placeId(tx, round, tote, `tote-${orderId}`));
    }
    return found;
  }
}

async function placeId(tx: Tx, round: RoundRow, code: string, field: string): Promise<number> {
  const place = await one<{ id: number }>(tx, 'SELECT id FROM place WHERE code = ? AND site_id = ?', [
    code.trim().toUpperCase(),
    round.site_id,
  ]);
  if (!place) throw badForm({ [field]: `${code.trim()} is no place of this site. Read the code again` });
  return place.id;
}
