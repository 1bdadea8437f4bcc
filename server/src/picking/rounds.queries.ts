import { Injectable } from '@nestjs/common';
import { metresOfWalks } from '@vectrum/core/walk';
import { DataSource } from 'typeorm';
import { CalendarQueries } from '../company/index.js';
import { urgentSql } from '../orders/index.js';
import { num, pageOf, rows, type Window } from '../platform/index.js';
import { FloorQueries } from '../sites/index.js';
import type { RoundOrderDto, RoundPageDto, RoundRowDto } from './picking.dto.js';
import { distinct, isOpen, pointOf, pooledStops, stopsOf } from './stops.js';

/** The figures of a round, as the database has them. */
type Listed = Pick<RoundRowDto, 'code' | 'state' | 'picker' | 'sentTo' | 'promisedAt' | 'createdAt'> & {
  id: number;
  siteId: number;
  pickerId: number | null;
  sentToId: number | null;
  urgent: number;
  pooled: number;
  isSorted: number;
};

/** Reads the list of rounds. */
@Injectable()
export class RoundsQueries {
  constructor(
    private readonly source: DataSource,
    private readonly floors: FloorQueries,
    private readonly calendars: CalendarQueries,
  ) {}

  /** Rounds that are not through, urgent ones first, by what the most pressing of their orders was promised. */
  async list(siteIds: readonly number[], personId: number, window: Window): Promise<RoundPageDto> {
    const { rows: found, total } = await pageOf<Listed>(
      this.source,
      {
        select: `r.id, r.site_id AS siteId, r.code, r.state, r.pooled, NOT EXISTS (SELECT 1 FROM tote_use u WHERE u.round_id = r.id AND u.order_id IS NULL AND u.ended_at IS NULL) AS isSorted, p.name AS picker, r.picker_id AS pickerId, w.name AS sentTo, r.sent_to_id AS sentToId, MIN(o.promised_at) AS promisedAt, MAX(${urgentSql('o')}) AS urgent, r.created_at AS createdAt`,
        from: `FROM \`round\` r JOIN round_order x ON x.round_id = r.id JOIN sales_order o ON o.id = x.order_id LEFT JOIN person p ON p.id = r.picker_id LEFT JOIN person w ON w.id = r.sent_to_id
       WHERE r.site_id IN (?) AND r.state IN ('waiting','picking','set-down') GROUP BY r.id`,
        params: [[0, ...siteIds]],
        order: 'urgent DESC, promisedAt, r.id',
      },
      window,
    );
    const stops = await stopsOf(
      this.source,
      found.map((r) => r.id),
    );
    const orders = await this.ordersOf(found.map((r) => r.id));
    const walks = await this.metresOf(found, stops);
    const boards = await this.calendars.boards(siteIds);
    const listed = found.map(({ id, siteId, pickerId, sentToId, urgent, pooled, isSorted, ...r }): RoundRowDto => {
      const all = stops.filter((s) => s.roundId === id);
      const own = pooled === 1 ? pooledStops(all) : all;
      return {
        ...r,
        orders: orders.get(id) ?? [],
        leavesAt: boards.get(siteId)?.toCatch(r.promisedAt) ?? null,
        mine: pickerId === personId || (pickerId === null && sentToId === personId),
        urgent: num(urgent) === 1,
        pooled: pooled === 1,
        isSorted: pooled === 1 && num(isSorted) === 1,
        stops: own.length,
        stopsDone: own.filter((s) => !isOpen(s)).length,
        units: own.reduce((n, s) => n + s.units, 0),
        shortStops: own.filter((s) => s.short > 0).length,
        metres: Math.round(walks.get(id) ?? 0),
      };
    });
    return { rows: listed, total };
  }

  private async ordersOf(roundIds: readonly number[]): Promise<Map<number, RoundOrderDto[]>> {
    const found = await rows<{ roundId: number; code: string; customer: string; totes: string | null }>(
      this.source,
      `SELECT x.round_id AS roundId, o.code, o.customer, (SELECT GROUP_CONCAT(t.code ORDER BY u.id) FROM tote_use u JOIN place t ON t.id = u.tote_id WHERE u.round_id = x.round_id AND (u.order_id = o.id OR (u.order_id IS NULL AND r.state = 'picking')) AND u.ended_at IS NULL) AS totes
       FROM round_order x JOIN sales_order o ON o.id = x.order_id JOIN \`round\` r ON r.id = x.round_id WHERE x.round_id IN (?) ORDER BY o.promised_at, o.id`,
      [[0, ...roundIds]],
    );
    const orders = new Map<number, RoundOrderDto[]>();
    for (const { roundId, totes, ...order } of found)
      orders.set(roundId, [...(orders.get(roundId) ?? []), { ...order, totes: totes?.split(',') ?? [] }]);
    return orders;
  }

  /** Metres of what is left of each round: from where walks begin past its open stops, and back to where totes are set down. */
  private async metresOf(
    found: readonly { id: number; siteId: number }[],
    stops: Awaited<ReturnType<typeof stopsOf>>,
  ): Promise<Map<number, number>> {
    const metres = new Map<number, number>();
    for (const siteId of new Set(found.map((r) => r.siteId))) {
      const [floor, table] = [await this.floors.floor(this.source, siteId), await this.floors.start(this.source, siteId)];
      const here = found.filter((r) => r.siteId === siteId);
      const walks = here.map((r) => distinct(stops.filter((s) => s.roundId === r.id && isOpen(s))).map(pointOf));
      metresOfWalks(floor, walks, table, table).forEach((m, i) => metres.set(here[i]?.id ?? 0, walks[i]?.length ? m : 0));
    }
    return metres;
  }
}
