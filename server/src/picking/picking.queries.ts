import { Injectable } from '@nestjs/common';
import { ALL_ORDERS, type PickStop } from '@vectrum/core/scan';
import { walkOn } from '@vectrum/core/walk';
import { spareSql } from '../allocation/index.js';
import { marks, notFound, num, one, prepared, rows, type Tx } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { FloorQueries } from '../sites/index.js';
import { cartsAt } from './carts.queries.js';
import type { PickOrderDto, PickStopDto, PickTaskDto, ToteSpareDto } from './picking.dto.js';
import { distinct, isOpen, type PlacedStop, pointOf, pooledStops, stopsOf } from './stops.js';

/** A stop before the other lots of its bin are known. */
type BareStop = Omit<PickStop, 'others'> & Pick<PlacedStop, 'ownerId' | 'owner'>;

/** Reads the task of a round: its stops in walking order, its orders with their totes. */
@Injectable()
export class PickingQueries {
  constructor(
    private readonly floors: FloorQueries,
    private readonly settings: SettingsService,
  ) {}

  /**
   * The task for a phone: its stops in walking order, with the metres between them. `personId`: who looks at it; stops of others are
   * named as theirs.
   */
  async task(tx: Pick<Tx, 'query'>, code: string, personId: number | null = null): Promise<PickTaskDto> {
    const [round] = await prepared<
      { id: number; siteId: number; state: string; picker: string | null; pooled: number; cartId: number | null }[]
    >(
      tx,
      'SELECT r.id, r.site_id AS siteId, r.state, p.name AS picker, r.pooled, r.cart_id AS cartId FROM `round` r LEFT JOIN person p ON p.id = r.picker_id WHERE r.code = ?',
      [code],
    );
    if (!round) throw notFound(`Round ${code}`);
    const { id, ...head } = round;
    const pooled = round.pooled === 1;
    const totes = await prepared<{ toteId: number; roundId: number; orderId: number | null }[]>(
      tx,
      `SELECT u.tote_id AS toteId, u.round_id AS roundId, u.order_id AS orderId FROM tote_use u JOIN place p ON p.id = u.tote_id WHERE u.ended_at IS NULL AND (p.site_id = ? OR u.round_id = ?) ORDER BY u.id`,
      [round.siteId, id],
    );
    const own = await this.orders(tx, id);
    const orders = pooled ? [together(code, own)] : own;
    const stops = await stopsOf(tx, [id]);
    const { scanBins, scanTotes, scanEach } = await this.settings.several(tx, ['scanBins', 'scanTotes', 'scanEach']);
    return {
      round: code,
      ...head,
      pooled,
      orders: orders.map((o) => ({
        ...o,
        toteIds: totes.filter((t) => t.roundId === id && (t.orderId ?? ALL_ORDERS) === o.id).map((t) => t.toteId),
      })),
      mustScanBin: scanBins,
      mustScanTote: scanTotes,
      scansEach: scanEach,
      busyToteIds: totes.filter((t) => t.roundId !== id).map((t) => t.toteId),
      carts: await cartsAt(tx, { id, siteId: round.siteId }),
      spare: await this.spare(tx, id),
      stops: (await this.withOthers(tx, await this.walked(tx, round.siteId, orders, pooled ? pooledStops(stops) : stops))).map(
        ({ ownerId, owner, ...stop }) => (owner !== null && ownerId !== personId ? { ...stop, by: owner } : stop),
      ),
    };
  }

  /** The stops of a round that are still open, in walking order, with who goes there. */
  async ahead(tx: Pick<Tx, 'query'>, code: string): Promise<BareStop[]> {
    const round = await one<{ id: number; siteId: number }>(tx, 'SELECT id, site_id AS siteId FROM `round` WHERE code = ?', [code]);
    if (!round) throw notFound(`Round ${code}`);
    return (await this.walked(tx, round.siteId, await this.orders(tx, round.id), await stopsOf(tx, [round.id]))).filter(isOpen);
  }

  /** The orders of a round, the one that was promised soonest first. */
  orders(tx: Pick<Tx, 'query'>, roundId: number): Promise<Omit<PickOrderDto, 'toteIds'>[]> {
    return prepared(
      tx,
      'SELECT o.id, o.code, o.customer, o.note_picker AS note FROM round_order x JOIN sales_order o ON o.id = x.order_id WHERE x.round_id = ? ORDER BY o.promised_at, o.id',
      [roundId],
    );
  }

  /** What lies in the totes of a round and is held for no order: taken out of it after it was picked. */
  private async spare(tx: Pick<Tx, 'query'>, roundId: number): Promise<ToteSpareDto[]> {
    const found = await prepared<{ itemId: number; code: string; units: string | number }[]>(
      tx,
      `SELECT b.item_id AS itemId, p.code, SUM(${spareSql('b')}) AS units
       FROM tote_use u JOIN place p ON p.id = u.tote_id JOIN balance b ON b.place_id = p.id AND b.units > 0 AND b.stock_condition = 'good' WHERE u.round_id = ? AND u.ended_at IS NULL GROUP BY b.item_id, p.id HAVING units > 0 ORDER BY p.code, b.item_id`,
      [roundId],
    );
    return found.map((s) => ({ ...s, units: num(s.units) }));
  }

  /** Other lots of the goods in the same bins, held for nobody: what is due may be passed over for a reason. */
  private async withOthers(tx: Pick<Tx, 'query'>, stops: readonly BareStop[]): Promise<(BareStop & PickStopDto)[]> {
    const kept = stops.filter((s) => s.lot !== null && isOpen(s));
    if (kept.length === 0) return [...stops];
    const found = await rows<{ itemId: number; placeId: number; lotId: number; lot: string; units: string | number }>(
      tx,
      `SELECT b.item_id AS itemId, b.place_id AS placeId, b.lot_id AS lotId, l.code AS lot, ${spareSql('b')} AS units FROM balance b JOIN lot l ON l.id = b.lot_id
       WHERE b.place_id IN (?) AND b.item_id IN (?) AND b.stock_condition = 'good' AND b.units > 0 ORDER BY l.expires_on IS NULL, l.expires_on, l.id`,
      [kept.map((s) => s.placeId), kept.map((s) => s.itemId)],
    );
    const free = found.map((f) => ({ ...f, units: num(f.units) })).filter((f) => f.units > 0);
    return stops.map((s) => {
      if (!kept.includes(s)) return s;
      const others = free.filter((f) => f.placeId === s.placeId && f.itemId === s.itemId && f.lotId !== s.lotId);
      return others.length === 0 ? s : { ...s, others: others.map(({ lotId, lot, units }) => ({ lotId, lot, units })) };
    });
  }

  /**
   * Stops in the order of the shortest walk from where totes are set down past all of them and back: the same order while the round
   * lasts, for everybody on it. What is not on the plan comes last, in its walking order. The metres of the first open stop are those
   * from where somebody picked last.
   */
  private async walked(
    tx: Pick<Tx, 'query'>,
    siteId: number,
    orders: readonly { code: string }[],
    stops: readonly PlacedStop[],
  ): Promise<BareStop[]> {
    const [floor, table] = [await this.floors.floor(tx, siteId), await this.floors.start(tx, siteId)];
    const [last] = await prepared<{ x: string | null; y: string | null }[]>(
      tx,
      `SELECT p.x_m AS x, p.y_m AS y FROM movement m JOIN place p ON p.id = m.from_place_id WHERE m.document IN (${marks(orders)}) AND m.task = 'pick' ORDER BY m.id DESC LIMIT 1`,
      orders.map((o) => o.code),
    );
    const places = distinct(stops);
    const walk = walkOn(floor, places.map(pointOf), table, table);
    const turn = new Map(walk.order.map((place, i) => [places[place]?.placeId, i]));
    const at = (s: PlacedStop) => turn.get(s.placeId) ?? places.length;
    let from = last?.x != null && last.y != null ? pointOf(last) : table;
    // Sorting keeps like goods at one place together, and what is not drawn in its walking order.
    return [...stops]
      .sort((a, b) => at(a) - at(b))
      .map(({ x, y, roundId: _, ...stop }) => {
        if (!isOpen(stop) || x === null || y === null) return { ...stop, metres: 0 };
        const to = pointOf({ x, y });
        const metres = Math.round(floor.metresBetween(from, to));
        from = to;
        return { ...stop, metres };
      });
  }
}

/** All orders of a pooled round as whoever picks it sees them: one, with the notes of each. */
function together(round: string, orders: readonly { code: string; note: string | null }[]): Omit<PickOrderDto, 'toteIds'> {
  const notes = orders.flatMap((o) => (o.note === null ? [] : [`${o.code}: ${o.note}`]));
  return {
    id: ALL_ORDERS,
    code: round,
    customer: `${orders.length} ${orders.length === 1 ? 'order' : 'orders'} together`,
    note: notes.length === 0 ? null : notes.join('; '),
  };
}
