import { Injectable } from '@nestjs/common';
import type { Spot, SpotTask } from '@vectrum/core/scan';
import { walkOn } from '@vectrum/core/walk';
import { DataSource } from 'typeorm';
import { num, rows, type Tx } from '../platform/index.js';
import { FloorQueries } from '../sites/index.js';
import type { SpotCountDto } from './counting.dto.js';

/** Reads which bins have to be counted, and what has come of it. */
@Injectable()
export class CountingQueries {
  constructor(
    private readonly source: DataSource,
    private readonly floors: FloorQueries,
  ) {}

  /** The bins of a site that somebody has to count, in the order of a short walk. Blind: it does not say what the books have. */
  async task(tx: Tx, personId: number, siteId: number): Promise<SpotTask> {
    const found = await rows<Omit<Spot, 'isOwn'> & { raisedById: number | null; x: string | null; y: string | null }>(
      tx,
      `SELECT c.id, c.item_id AS itemId, c.lot_id AS lotId, l.code AS lot, c.place_id AS placeId, p.code AS placeCode, c.why, COALESCE(h.name, '') AS \`by\`, c.raised_by_id AS raisedById, p.x_m AS x, p.y_m AS y
       FROM spot_count c JOIN place p ON p.id = c.place_id LEFT JOIN lot l ON l.id = c.lot_id LEFT JOIN person h ON h.id = c.raised_by_id
       WHERE c.site_id = ? AND c.state = 'open' ORDER BY p.walk_order, p.id, c.id`,
      [siteId],
    );
    const start = await this.floors.start(tx, siteId);
    const { order, metres } = walkOn(
      await this.floors.floor(tx, siteId),
      found.map((s) => (s.x === null || s.y === null ? start : { x: num(s.x), y: num(s.y) })),
      start,
      start,
    );
    const spots = order.flatMap((i) => found[i] ?? []);
    return {
      siteId,
      spots: spots.map(({ raisedById, x: _x, y: _y, ...s }) => ({ ...s, isOwn: raisedById === personId })),
      metres: Math.round(metres),
    };
  }

  /** What is to be counted or decided at a site: what was counted first, then the oldest. */
  async list(siteId: number): Promise<SpotCountDto[]> {
    return rows<SpotCountDto>(
      this.source,
      `SELECT c.id, c.state, p.code AS place, i.id AS itemId, i.sku, i.name AS item, l.code AS lot, c.why, c.document, r.name AS raisedBy, c.raised_at AS raisedAt, c.held_units AS held,
         c.counted_units AS counted, c.booked_units AS booked, n.name AS countedBy, c.counted_at AS countedAt, (SELECT t.command_id FROM act_picture t WHERE t.command_id = c.counted_command) AS picture, c.version
       FROM spot_count c JOIN place p ON p.id = c.place_id JOIN item i ON i.id = c.item_id LEFT JOIN lot l ON l.id = c.lot_id LEFT JOIN person r ON r.id = c.raised_by_id LEFT JOIN person n ON n.id = c.counted_by_id
       WHERE c.site_id = ? AND c.state IN ('open','counted') ORDER BY c.state = 'open', c.raised_at, c.id`,
      [siteId],
    );
  }
}
