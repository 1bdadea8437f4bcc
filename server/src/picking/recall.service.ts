import { Injectable } from '@nestjs/common';
import { kindsFor } from '@vectrum/core/places';
import { ActivityService } from '../activity/index.js';
import { type Holder, onShelfSql, Reservations, type Spot } from '../allocation/index.js';
import { OrderStates } from '../orders/index.js';
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
  one,
  rows,
  sqlList,
  type Tx,
  update,
} from '../platform/index.js';
import { freeTotes, holdRounds } from './totes.js';

const RECALLED_FROM: readonly string[] = ['released', 'picking', 'picked'];

interface OpenStop extends Holder {
  id: number;
  placeId: number;
  lotId: number;
  left: number;
}

/** Takes back what was sent to picking and is not picked yet: an order as a whole, or some units of a line. */
@Injectable()
export class RecallService {
  constructor(
    private readonly commands: CommandLog,
    private readonly reservations: Reservations,
    private readonly states: OrderStates,
    private readonly activity: ActivityService,
  ) {}

  /**
   * Takes an order back from picking; what is promised to it stays promised. What is picked of it already is unpicked: the floor is
   * asked to put it away out of its totes. Refused once something of it is in a parcel.
   */
  recall(act: Act, code: string, version: number): Promise<{ code: string }> {
    return this.commands.run(act, 'order.recall', { code, version }, async (tx) => {
      await holdRounds(tx, code);
      const order = await find(tx, 'sales_order', { code }, 'lock');
      if (!order) throw notFound(`Order ${code}`);
      mustBeAt(act.person, order.site_id);
      mustMatch(order.version, version);
      if (!RECALLED_FROM.includes(order.state)) throw badState(`${code} is ${order.state}. Only what is being picked can be recalled`);
      const packed = await one(
        tx,
        `SELECT 1 AS n FROM reservation v JOIN sales_order_line l ON l.id = v.order_line_id JOIN place p ON p.id = v.place_id AND p.kind = 'parcel' WHERE l.order_id = ? LIMIT 1`,
        [order.id],
      );
      if (packed) throw badState(`Some of ${code} is packed already. Take it out of its parcel at the packing table first`);
      await this.offShelf(tx, order.id);
      const unpicked = await this.outOfTotes(tx, order.id);
      await this.fromStops(tx, order.id);
      await freeTotes(tx, order.id);
      await this.states.refresh(tx, [order.id]);
      await this.activity.record(tx, act, {
        kind: 'release',
        glyph: 'undo',
        title: `${code} recalled from picking`,
        detail: unpicked > 0 ? `${unpicked} to be put away out of its totes` : order.customer,
        document: code,
        siteId: order.site_id,
      });
      return { code };
    });
  }

  /** What waits on the shelf to be packed is promised at its site again, and may be taken from any bin. */
  private async offShelf(tx: Tx, orderId: number): Promise<void> {
    const held = await rows<Holder & { placeId: number; lotId: number; units: number }>(
      tx,
      `SELECT v.order_line_id AS lineId, v.item_id AS itemId, v.site_id AS siteId, v.place_id AS placeId, v.lot_id AS lotId, v.units
       FROM reservation v JOIN sales_order_line l ON l.id = v.order_line_id JOIN place p ON p.id = v.place_id WHERE l.order_id = ? AND ${onShelfSql('v', 'p')} ORDER BY v.item_id, v.place_id, v.lot_id`,
      [orderId],
    );
    for (const { placeId, lotId, units, ...holder } of held) await this.reservations.move(tx, holder, { placeId, lotId }, null, units);
  }

  /** What lies in totes and slots for an order is promised to it at its site again, and lies there for nobody. Returns its units. */
  private async outOfTotes(tx: Tx, orderId: number): Promise<number> {
    const held = await rows<Holder & { placeId: number; lotId: number; units: number }>(
      tx,
      `SELECT v.order_line_id AS lineId, v.item_id AS itemId, v.site_id AS siteId, v.place_id AS placeId, v.lot_id AS lotId, v.units
       FROM reservation v JOIN sales_order_line l ON l.id = v.order_line_id JOIN place p ON p.id = v.place_id AND p.kind IN ${sqlList(kindsFor('picked'))} WHERE l.order_id = ? ORDER BY v.item_id, v.place_id, v.lot_id`,
      [orderId],
    );
    for (const { placeId, lotId, units, ...holder } of held) {
      await this.reservations.move(tx, holder, { placeId, lotId }, null, units);
      await this.states.progress(tx, holder.lineId, { picked: -units });
    }
    return held.reduce((n, h) => n + h.units, 0);
  }

  /** Nobody goes for what of an order is not picked yet, on one round or on any; it stays promised at its sites. The rounds and the order are held. */
  async fromStops(tx: Tx, orderId: number, roundId?: number): Promise<void> {
    const stops = await rows<OpenStop>(
      tx,
      `SELECT s.id, s.order_line_id AS lineId, s.item_id AS itemId, r.site_id AS siteId, s.place_id AS placeId, s.lot_id AS lotId, s.units - s.picked_units - s.short_units AS \`left\`
       FROM round_stop s JOIN \`round\` r ON r.id = s.round_id JOIN sales_order_line l ON l.id = s.order_line_id
       WHERE l.order_id = ? AND s.units > s.picked_units + s.short_units AND r.state IN ('waiting','picking') AND (? IS NULL OR r.id = ?) ORDER BY s.item_id, s.place_id, s.lot_id, s.id`,
      [orderId, roundId ?? null, roundId ?? null],
    );
    for (const stop of stops) {
      await this.reservations.move(tx, stop, { placeId: stop.placeId, lotId: stop.lotId }, null, stop.left);
      await update(tx, 'round_stop', { id: stop.id }, { units: more(-stop.left) });
    }
    await this.endEmpty(tx, orderId);
  }

  /** Fewer units of a line are sought at a spot. The rounds of its order are held. */
  async fewer(tx: Tx, lineId: number, spot: NonNullable<Spot>, units: number): Promise<void> {
    const stops = await rows<{ id: number; left: number }>(
      tx,
      `SELECT s.id, s.units - s.picked_units - s.short_units AS \`left\` FROM round_stop s JOIN \`round\` r ON r.id = s.round_id
       WHERE s.order_line_id = ? AND s.place_id = ? AND s.lot_id = ? AND s.units > s.picked_units + s.short_units AND r.state IN ('waiting','picking') ORDER BY s.id DESC`,
      [lineId, spot.placeId, spot.lotId],
    );
    let need = units;
    for (const stop of stops) {
      const part = Math.min(need, stop.left);
      if (part <= 0) break;
      await update(tx, 'round_stop', { id: stop.id }, { units: more(-part) });
      need -= part;
    }
  }

  /**
   * Stops at which nothing is sought any more go, the order leaves rounds that have nothing of it, and rounds with nothing left to walk
   * for and nothing in a tote are over.
   */
  async endEmpty(tx: Tx, orderId: number): Promise<void> {
    await tx.query(
      'DELETE s FROM round_stop s JOIN sales_order_line l ON l.id = s.order_line_id WHERE l.order_id = ? AND s.units = 0 AND s.picked_units = 0 AND s.short_units = 0',
      [orderId],
    );
    const over = await rows<{ id: number }>(
      tx,
      `SELECT r.id FROM \`round\` r JOIN round_order x ON x.round_id = r.id WHERE x.order_id = ? AND r.state IN ('waiting','picking')
         AND NOT EXISTS (SELECT 1 FROM round_stop s WHERE s.round_id = r.id AND (s.units > s.picked_units + s.short_units OR s.picked_units > 0)) ORDER BY r.id`,
      [orderId],
    );
    await tx.query(
      `DELETE x FROM round_order x JOIN \`round\` r ON r.id = x.round_id JOIN round_order y ON y.round_id = x.round_id AND y.order_id <> x.order_id
       WHERE x.order_id = ? AND r.state IN ('waiting','picking') AND NOT EXISTS (SELECT 1 FROM round_stop s JOIN sales_order_line l ON l.id = s.order_line_id WHERE s.round_id = r.id AND l.order_id = x.order_id)
         AND NOT EXISTS (SELECT 1 FROM tote_use u WHERE u.round_id = r.id AND u.order_id = x.order_id AND u.ended_at IS NULL)`,
      [orderId],
    );
    for (const { id } of over) {
      await update(tx, 'round', { id }, { state: 'done', finished_at: NOW });
      await update(tx, 'tote_use', { round_id: id, ended_at: null }, { ended_at: NOW });
    }
  }
}
