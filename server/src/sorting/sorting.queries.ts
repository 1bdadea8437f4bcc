import { Injectable } from '@nestjs/common';
import { spareSql } from '../allocation/index.js';
import { notFound, num, one, Problem, rows, type Tx } from '../platform/index.js';
import { standsAtSql } from '../sites/index.js';
import type { SortGoodsDto, SortOrderDto, SortSpareDto, SortTaskDto, WallDto, WallSlotDto } from './sorting.dto.js';

type Reads = Pick<Tx, 'query'>;

/** Slots in a row of a wall of which nobody has said how it hangs. */
const USUAL_COLUMNS = 6;

/** Reads what is to be sorted: what the shared totes of a round hold, for whom, and the wall that they stand at. */
@Injectable()
export class SortingQueries {
  async task(tx: Reads, code: string): Promise<SortTaskDto> {
    const round = await one<{ id: number; siteId: number; state: string; pooled: number }>(
      tx,
      'SELECT id, site_id AS siteId, state, pooled FROM `round` WHERE code = ?',
      [code],
    );
    if (!round) throw notFound(`Round ${code}`);
    if (round.pooled !== 1) throw new Problem(409, 'state', `${code} was sorted while it was picked. Its totes go to the packing table`);
    const wall = await this.wallOf(tx, round.id);
    if (!wall) throw new Problem(409, 'state', `${code} is not at a wall yet. Pick it to its end and set it down there`);
    return {
      round: code,
      siteId: round.siteId,
      wall,
      slots: await this.slots(tx, wall.id, round.id),
      orders: await this.orders(tx, round.id),
      goods: await this.goods(tx, round.id),
      spare: await this.spare(tx, round.id),
    };
  }

  /** The wall at which a round stands, or stood; undefined before it is set down at one. */
  private async wallOf(tx: Reads, roundId: number): Promise<WallDto | undefined> {
    const wall = await one<{ id: number; code: string; columns: number | null }>(
      tx,
      `SELECT w.id, w.code, w.wall_columns AS columns FROM tote_use u JOIN place t ON t.id = u.tote_id ${standsAtSql('t', 'w')}
       WHERE u.round_id = ? AND w.kind = 'sorting-wall' ORDER BY u.ended_at IS NULL DESC, t.kind = 'wall-slot' DESC, u.id LIMIT 1`,
      [roundId],
    );
    return wall && { ...wall, columns: wall.columns ?? USUAL_COLUMNS };
  }

  private async slots(tx: Reads, wallId: number, roundId: number): Promise<WallSlotDto[]> {
    const found = await rows<{ placeId: number; code: string; blocked: number; roundId: number | null; orderId: number | null }>(
      tx,
      `SELECT p.id AS placeId, p.code, p.blocked, u.round_id AS roundId, u.order_id AS orderId FROM place p LEFT JOIN tote_use u ON u.open_tote = p.id WHERE p.parent_id = ? AND p.kind = 'wall-slot' ORDER BY p.walk_order, p.id`,
      [wallId],
    );
    return found.map((s, i) => ({
      placeId: s.placeId,
      code: s.code,
      number: i + 1,
      orderId: s.roundId === roundId ? s.orderId : null,
      busy: (s.roundId !== null && s.roundId !== roundId) || (s.roundId === null && s.blocked === 1),
    }));
  }

  private async orders(tx: Reads, roundId: number): Promise<SortOrderDto[]> {
    const found = await rows<Omit<SortOrderDto, 'sorted'> & { sorted: string | null }>(
      tx,
      `SELECT o.id, o.code, o.customer, (SELECT SUM(v.units) FROM tote_use u JOIN reservation v ON v.place_id = u.open_tote JOIN sales_order_line l ON l.id = v.order_line_id AND l.order_id = o.id WHERE u.round_id = x.round_id AND u.order_id = o.id) AS sorted
       FROM round_order x JOIN sales_order o ON o.id = x.order_id WHERE x.round_id = ? ORDER BY o.promised_at, o.id`,
      [roundId],
    );
    return found.map((o) => ({ ...o, sorted: num(o.sorted) }));
  }

  private async goods(tx: Reads, roundId: number): Promise<SortGoodsDto[]> {
    const found = await rows<Omit<SortGoodsDto, 'units'> & { units: string }>(
      tx,
      `SELECT k.order_id AS orderId, v.item_id AS itemId, v.lot_id AS lotId, l.code AS lot, p.id AS toteId, p.code AS tote, SUM(v.units) AS units
       FROM tote_use u JOIN reservation v ON v.place_id = u.open_tote JOIN place p ON p.id = u.tote_id JOIN sales_order_line k ON k.id = v.order_line_id LEFT JOIN lot l ON l.id = v.lot_id
       WHERE u.round_id = ? AND u.order_id IS NULL AND u.set_down_at IS NOT NULL GROUP BY k.order_id, v.item_id, v.lot_id, p.id ORDER BY p.code, v.item_id, v.lot_id, k.order_id`,
      [roundId],
    );
    return found.map((g) => ({ ...g, units: num(g.units) }));
  }

  /** What lies in totes and slots of the round and is held for nobody any more. */
  private async spare(tx: Reads, roundId: number): Promise<SortSpareDto[]> {
    const found = await rows<{ itemId: number; code: string; units: string | number }>(
      tx,
      `SELECT b.item_id AS itemId, p.code, SUM(${spareSql('b')}) AS units FROM tote_use u JOIN place p ON p.id = u.tote_id JOIN balance b ON b.place_id = p.id AND b.units > 0 AND b.stock_condition = 'good'
       WHERE u.round_id = ? AND u.ended_at IS NULL GROUP BY b.item_id, p.id HAVING units > 0 ORDER BY p.code, b.item_id`,
      [roundId],
    );
    return found.map((s) => ({ ...s, units: num(s.units) }));
  }
}
