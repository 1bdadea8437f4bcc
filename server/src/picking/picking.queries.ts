import { Injectable } from '@nestjs/common';
import type { Bundle, PickStop, PickTask } from '@vectrum/core/scan';
import type { PlanPoint } from '@vectrum/core/walk';
import { DataSource } from 'typeorm';
import { inSnapshot, num, one, rows, type Tx } from '../platform/database/tx.js';
import { appliedTo } from '../activity/applied.js';
import { notFound } from '../platform/problem.js';
import { FloorQueries } from '../sites/floor.queries.js';
import type { RoundRowDto } from './picking.dto.js';

interface StopRow extends Omit<PickStop, 'metres'> {
  x: string | null;
  y: string | null;
}

const point = (row: { x: string | null; y: string | null }): PlanPoint => ({ x: num(row.x), y: num(row.y) });

/** Reads rounds: the list, and the task bundle with stops in walking order. */
@Injectable()
export class PickingQueries {
  constructor(
    private readonly source: DataSource,
    private readonly floors: FloorQueries,
  ) {}

  async list(siteIds: readonly number[], personId: number): Promise<RoundRowDto[]> {
    const found = await rows<
      Omit<RoundRowDto, 'mine' | 'stops' | 'stopsDone' | 'units' | 'metres' | 'shortStops'> & {
        id: number;
        siteId: number;
        pickerId: number | null;
        stops: string;
        stopsDone: string;
        units: string;
        shortStops: string;
      }
    >(
      this.source,
      `SELECT r.id, r.site_id AS siteId, r.code, o.code AS \`order\`, o.customer, r.state, p.name AS picker, r.picker_id AS pickerId, o.promised_at AS promisedAt, t.code AS tote, r.created_at AS createdAt,
         COUNT(s.id) AS stops, SUM(s.picked_units + s.short_units >= s.units) AS stopsDone, SUM(s.units) AS units, SUM(s.short_units > 0) AS shortStops
       FROM pick_round r JOIN sales_order o ON o.id = r.order_id LEFT JOIN person p ON p.id = r.picker_id LEFT JOIN place t ON t.id = r.tote_id LEFT JOIN pick_stop s ON s.round_id = r.id
       WHERE r.site_id IN (?) AND r.state IN ('waiting','picking','set-down') GROUP BY r.id ORDER BY o.promised_at, r.id LIMIT 200`,
      [[0, ...siteIds]],
    );
    const floors = new Map(
      await Promise.all(
        [...new Set(found.map((r) => r.siteId))].map(async (id) => [id, await this.floors.floor(this.source, id)] as const),
      ),
    );
    const walks = await Promise.all(
      found.map(async (r) => floors.get(r.siteId)?.metresOf((await this.stops(this.source, r.id)).map(point)) ?? 0),
    );
    return found.map(({ id: _id, siteId: _site, pickerId, ...r }, i) => ({
      ...r,
      mine: pickerId === personId,
      stops: num(r.stops),
      stopsDone: num(r.stopsDone),
      units: num(r.units),
      shortStops: num(r.shortStops),
      metres: Math.round(walks[i] ?? 0),
    }));
  }

  /** The task for a phone, as it stands at one moment. */
  bundle(code: string): Promise<PickTask & Bundle & { state: string }> {
    return inSnapshot(this.source, async (tx) => {
      const { roundId: _round, orderId: _order, ...task } = await this.task(tx, code);
      return { ...task, applied: await appliedTo(tx, [task.order, task.round]) };
    });
  }

  async task(tx: Pick<Tx, 'query'>, code: string): Promise<PickTask & { roundId: number; orderId: number; state: string }> {
    const round = await one<{
      id: number;
      order_id: number;
      site_id: number;
      state: string;
      order: string;
      customer: string;
      note: string | null;
      tote_id: number | null;
    }>(
      tx,
      `SELECT r.id, r.order_id, r.site_id, r.state, o.code AS \`order\`, o.customer, o.note_picker AS note, r.tote_id FROM pick_round r JOIN sales_order o ON o.id = r.order_id WHERE r.code = ?`,
      [code],
    );
    if (!round) throw notFound(`Round ${code}`);
    const stops = await this.stops(tx, round.id);
    const floor = await this.floors.floor(tx, round.site_id);
    const start = await this.floors.start(tx, round.site_id);
    const busy = await rows<{ tote_id: number }>(
      tx,
      `SELECT DISTINCT tote_id FROM pick_round WHERE tote_id IS NOT NULL AND state IN ('picking','set-down') AND id <> ?`,
      [round.id],
    );
    return {
      roundId: round.id,
      orderId: round.order_id,
      state: round.state,
      round: code,
      order: round.order,
      customer: round.customer,
      siteId: round.site_id,
      note: round.note,
      toteId: round.tote_id,
      busyToteIds: busy.map((b) => b.tote_id),
      stops: stops.map(({ x, y, ...stop }, i) => ({
        ...stop,
        metres: Math.round(floor.metresBetween(i === 0 ? start : point(stops[i - 1] ?? { x, y }), point({ x, y }))),
      })),
    };
  }

  private stops(tx: Pick<Tx, 'query'>, roundId: number): Promise<StopRow[]> {
    return rows<StopRow>(
      tx,
      `SELECT s.id, s.item_id AS itemId, s.lot_id AS lotId, l.code AS lot, s.place_id AS placeId, p.code AS placeCode, s.units, s.picked_units AS picked, s.short_units AS short, p.x_m AS x, p.y_m AS y
       FROM pick_stop s JOIN place p ON p.id = s.place_id LEFT JOIN lot l ON l.id = s.lot_id WHERE s.round_id = ? ORDER BY p.walk_order, s.id`,
      [roundId],
    );
  }
}
