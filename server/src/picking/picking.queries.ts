import { Injectable } from '@nestjs/common';
import type { PickStop } from '@vectrum/core/scan';
import { metresOfWalks, type PlanPoint, walkOn } from '@vectrum/core/walk';
import { DataSource } from 'typeorm';
import { spareSql } from '../allocation/index.js';
import { CalendarQueries } from '../company/index.js';
import { urgentSql } from '../orders/index.js';
import { notFound, num, one, pageOf, rows, type Tx, type Window } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { FloorQueries } from '../sites/index.js';
import type { PickTaskDto, RoundPageDto, RoundRowDto, ToteSpareDto } from './picking.dto.js';

interface StopRow extends Omit<PickStop, 'metres'> {
  roundId: number;
  x: string | null;
  y: string | null;
}

const isOpen = (s: Pick<StopRow, 'units' | 'picked' | 'short'>) => s.units > s.picked + s.short;
const isDrawn = (s: StopRow) => s.x !== null && s.y !== null;
const point = (row: { x: string | null; y: string | null }): PlanPoint => ({ x: num(row.x), y: num(row.y) });

/** Reads rounds: the list, and the task bundle with stops in walking order. */
@Injectable()
export class PickingQueries {
  constructor(
    private readonly source: DataSource,
    private readonly floors: FloorQueries,
    private readonly calendars: CalendarQueries,
    private readonly settings: SettingsService,
  ) {}

  /** Rounds that are not through, urgent ones first, by what their orders were promised. */
  async list(siteIds: readonly number[], personId: number, window: Window): Promise<RoundPageDto> {
    const { rows: found, total } = await pageOf<
      Omit<RoundRowDto, 'mine' | 'urgent' | 'leavesAt' | 'stops' | 'stopsDone' | 'units' | 'metres' | 'shortStops'> & {
        id: number;
        siteId: number;
        pickerId: number | null;
        stops: string;
        stopsDone: string;
        units: string;
        shortStops: string;
        urgent: number;
      }
    >(
      this.source,
      {
        select: `r.id, r.site_id AS siteId, r.code, o.code AS \`order\`, o.customer, r.state, p.name AS picker, r.picker_id AS pickerId, o.promised_at AS promisedAt, ${urgentSql('o')} AS urgent, t.code AS tote, r.created_at AS createdAt,
         COUNT(s.id) AS stops, SUM(s.picked_units + s.short_units >= s.units) AS stopsDone, SUM(s.units) AS units, SUM(s.short_units > 0) AS shortStops`,
        from: `FROM \`round\` r JOIN round_order x ON x.round_id = r.id JOIN sales_order o ON o.id = x.order_id LEFT JOIN person p ON p.id = r.picker_id
         LEFT JOIN (SELECT round_id, MIN(tote_id) AS tote_id FROM tote_use WHERE ended_at IS NULL GROUP BY round_id) u ON u.round_id = r.id LEFT JOIN place t ON t.id = u.tote_id LEFT JOIN round_stop s ON s.round_id = r.id
       WHERE r.site_id IN (?) AND r.state IN ('waiting','picking','set-down') GROUP BY r.id`,
        params: [[0, ...siteIds]],
        order: `${urgentSql('o')} DESC, o.promised_at, r.id`,
      },
      window,
    );
    const walks = await this.metresOf(found);
    const boards = await this.calendars.boards(siteIds);
    const listed = found.map(({ id, siteId, pickerId, ...r }) => ({
      ...r,
      leavesAt: boards.get(siteId)?.toCatch(r.promisedAt) ?? null,
      mine: pickerId === personId,
      urgent: r.urgent === 1,
      stops: num(r.stops),
      stopsDone: num(r.stopsDone),
      units: num(r.units),
      shortStops: num(r.shortStops),
      metres: Math.round(walks.get(id) ?? 0),
    }));
    return { rows: listed, total };
  }

  /** The task for a phone: its stops in walking order, with the metres between them. */
  async task(tx: Pick<Tx, 'query'>, code: string): Promise<PickTaskDto> {
    const round = await one<{ id: number; siteId: number; state: string; order: string; customer: string; note: string | null }>(
      tx,
      `SELECT r.id, r.site_id AS siteId, r.state, o.code AS \`order\`, o.customer, o.note_picker AS note FROM \`round\` r JOIN round_order x ON x.round_id = r.id JOIN sales_order o ON o.id = x.order_id
       WHERE r.code = ? ORDER BY o.id LIMIT 1`,
      [code],
    );
    if (!round) throw notFound(`Round ${code}`);
    const { id, ...head } = round;
    const stops = await this.walked(tx, round.siteId, round.order, await this.stops(tx, [id]));
    const totes = await rows<{ toteId: number; roundId: number }>(
      tx,
      'SELECT u.tote_id AS toteId, u.round_id AS roundId FROM tote_use u JOIN place p ON p.id = u.tote_id WHERE u.ended_at IS NULL AND (p.site_id = ? OR u.round_id = ?) ORDER BY u.id',
      [round.siteId, id],
    );
    return {
      round: code,
      ...head,
      toteId: totes.find((t) => t.roundId === id)?.toteId ?? null,
      mustScanBin: await this.settings.get(tx, 'scanBins'),
      scansEach: await this.settings.get(tx, 'scanEach'),
      busyToteIds: totes.filter((t) => t.roundId !== id).map((t) => t.toteId),
      spare: await this.spare(tx, id),
      stops,
    };
  }

  /** What lies in the totes of a round and is held for no order: taken out of it after it was picked. */
  private async spare(tx: Pick<Tx, 'query'>, roundId: number): Promise<ToteSpareDto[]> {
    const found = await rows<{ itemId: number; code: string; units: string | number }>(
      tx,
      `SELECT b.item_id AS itemId, p.code, SUM(${spareSql('b')}) AS units
       FROM tote_use u JOIN place p ON p.id = u.tote_id JOIN balance b ON b.place_id = p.id AND b.units > 0 AND b.stock_condition = 'good' WHERE u.round_id = ? AND u.ended_at IS NULL GROUP BY b.item_id, p.id HAVING units > 0 ORDER BY p.code, b.item_id`,
      [roundId],
    );
    return found.map((s) => ({ ...s, units: num(s.units) }));
  }

  /** Metres of what is left of each round: from where walks begin past its open stops, and back to where totes are set down. */
  private async metresOf(found: readonly { id: number; siteId: number }[]): Promise<Map<number, number>> {
    const metres = new Map<number, number>();
    const stops = await this.stops(
      this.source,
      found.map((r) => r.id),
    );
    for (const siteId of new Set(found.map((r) => r.siteId))) {
      const [floor, table] = [await this.floors.floor(this.source, siteId), await this.floors.start(this.source, siteId)];
      const here = found.filter((r) => r.siteId === siteId);
      const walks = here.map((r) => stops.filter((s) => s.roundId === r.id && isOpen(s) && isDrawn(s)).map(point));
      metresOfWalks(floor, walks, table, table).forEach((m, i) => metres.set(here[i]?.id ?? 0, walks[i]?.length ? m : 0));
    }
    return metres;
  }

  /**
   * Stops in the order of the shortest walk from where totes are set down past all of them and back: the same order while the round
   * lasts, for everybody on it. What is not on the plan comes last, in its walking order. The metres of the first open stop are those
   * from where somebody picked last.
   */
  private async walked(tx: Pick<Tx, 'query'>, siteId: number, order: string, stops: readonly StopRow[]): Promise<PickStop[]> {
    const [floor, table] = [await this.floors.floor(tx, siteId), await this.floors.start(tx, siteId)];
    const last = await one<{ x: string | null; y: string | null }>(
      tx,
      `SELECT p.x_m AS x, p.y_m AS y FROM movement m JOIN place p ON p.id = m.from_place_id WHERE m.document = ? AND m.task = 'pick' ORDER BY m.id DESC LIMIT 1`,
      [order],
    );
    const placed = stops.filter(isDrawn);
    const walk = walkOn(floor, placed.map(point), table, table);
    let from = last?.x != null && last.y != null ? point(last) : table;
    return [...walk.order.flatMap((i) => placed[i] ?? []), ...stops.filter((s) => !isDrawn(s))].map(({ x, y, roundId: _, ...stop }) => {
      if (!isOpen(stop) || x === null || y === null) return { ...stop, metres: 0 };
      const to = point({ x, y });
      const metres = Math.round(floor.metresBetween(from, to));
      from = to;
      return { ...stop, metres };
    });
  }

  private stops(tx: Pick<Tx, 'query'>, roundIds: readonly number[]): Promise<StopRow[]> {
    return rows<StopRow>(
      tx,
      `SELECT s.id, s.round_id AS roundId, s.item_id AS itemId, s.lot_id AS lotId, l.code AS lot, s.place_id AS placeId, p.code AS placeCode, s.units, s.picked_units AS picked, s.short_units AS short, p.x_m AS x, p.y_m AS y
       FROM round_stop s JOIN place p ON p.id = s.place_id LEFT JOIN lot l ON l.id = s.lot_id WHERE s.round_id IN (?) ORDER BY p.walk_order, s.id`,
      [[0, ...roundIds]],
    );
  }
}
