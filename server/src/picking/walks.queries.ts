import { Injectable } from '@nestjs/common';
import { minutesLeft } from '@vectrum/core/rounds';
import { DataSource } from 'typeorm';
import { CalendarQueries } from '../company/index.js';
import { num, one, rows } from '../platform/index.js';
import { FloorQueries } from '../sites/index.js';
import { PeoplePaceQueries } from './people-pace.queries.js';
import { PickingQueries } from './picking.queries.js';
import { isOpen } from './stops.js';
import type { WalkDto, WalkPlaceDto, WalksDto } from './walks.dto.js';

interface Walked {
  code: string;
  pickerId: number;
  picker: string;
  begunAt: Date | null;
  promisedAt: Date;
}
const latest = (a: Date | null, b: Date | null): Date | null => (a === null || (b !== null && b > a) ? b : a);
const placeOf = (p: { code: string; x: string | null; y: string | null }): WalkPlaceDto => ({
  code: p.code,
  x: p.x === null ? null : num(p.x),
  y: p.y === null ? null : num(p.y),
});

/** Reads who walks at a site now: where they are, what is ahead of them, and when they will be through. */
@Injectable()
export class WalksQueries {
  constructor(
    private readonly source: DataSource,
    private readonly picking: PickingQueries,
    private readonly floors: FloorQueries,
    private readonly calendars: CalendarQueries,
    private readonly paces: PeoplePaceQueries,
  ) {}

  async at(siteId: number): Promise<WalksDto> {
    const found = await rows<Walked>(
      this.source,
      // Who walks a round, and whoever shares its walk.
      `SELECT r.code, p.id AS pickerId, p.name AS picker, r.begun_at AS begunAt, MIN(o.promised_at) AS promisedAt
       FROM \`round\` r JOIN (SELECT id AS round_id, picker_id AS person_id FROM \`round\` WHERE site_id = ? AND state = 'picking'
         UNION SELECT round_id, person_id FROM round_stop WHERE person_id IS NOT NULL AND units > picked_units + short_units) v ON v.round_id = r.id
         JOIN person p ON p.id = v.person_id JOIN round_order x ON x.round_id = r.id JOIN sales_order o ON o.id = x.order_id
       WHERE r.site_id = ? AND r.state = 'picking' GROUP BY r.id, p.id ORDER BY promisedAt, r.id, p.id = r.picker_id DESC, p.id`,
      [siteId, siteId],
    );
    const table = await this.floors.start(this.source, siteId);
    const paces = await this.paces.at(siteId);
    const board = (await this.calendars.boards([siteId])).get(siteId);
    const walks: WalkDto[] = [];
    for (const { pickerId, promisedAt, ...round } of found) {
      const walk = await this.walk(siteId, round.code, pickerId);
      const secondsAStop = paces.get(pickerId) ?? null;
      const minutes = minutesLeft({ metres: walk.metres, stops: walk.ahead.length, units: walk.units }, secondsAStop);
      walks.push({
        ...round,
        personId: pickerId,
        ...walk,
        secondsAStop: secondsAStop === null ? null : Math.round(secondsAStop),
        endsAt: new Date(Date.now() + minutes * 60_000),
        leavesAt: board?.toCatch(promisedAt) ?? null,
      });
    }
    return { siteId, tableX: table.x, tableY: table.y, walks };
  }

  /** Where somebody's part of a round stands. */
  private async walk(siteId: number, code: string, personId: number) {
    const task = await this.picking.task(this.source, code, personId);
    const own = task.stops.filter((s) => s.by === undefined);
    const open = own.filter(isOpen);
    const ids = [...new Set(open.map((s) => s.placeId))];
    const places = await rows<{ id: number; code: string; x: string | null; y: string | null }>(
      this.source,
      'SELECT id, code, x_m AS x, y_m AS y FROM place WHERE id IN (?)',
      [[0, ...ids]],
    );
    const last = await one<{ at: Date; code: string; x: string | null; y: string | null }>(
      this.source,
      `SELECT m.server_at AS at, p.code, p.x_m AS x, p.y_m AS y FROM movement m JOIN place p ON p.id = m.from_place_id
       WHERE m.document IN (?) AND m.task = 'pick' AND m.person_id = ? AND m.from_place_id <> m.to_place_id ORDER BY m.id DESC LIMIT 1`,
      [['', ...task.orders.map((o) => o.code)], personId],
    );
    const ahead = ids.flatMap((id) => places.filter((p) => p.id === id).map(placeOf));
    const acted = await one<{ at: Date | null }>(this.source, 'SELECT MAX(at) AS at FROM activity WHERE document = ? AND person_id = ?', [
      code,
      personId,
    ]);
    return {
      orders: task.orders.map(({ code: order, customer }) => ({ code: order, customer })),
      stops: own.length,
      stopsDone: own.length - open.length,
      units: open.reduce((n, s) => n + s.units - s.picked - s.short, 0),
      metres: Math.round(await this.metresLeft(siteId, last, ahead)),
      shortStops: own.filter((s) => s.short > 0).length,
      lastAt: latest(acted?.at ?? null, last?.at ?? null),
      at: last ? placeOf(last) : null,
      ahead,
    };
  }

  /** Metres from where somebody is past what is ahead of them, and back to the table. */
  private async metresLeft(siteId: number, from: { x: string | null; y: string | null } | undefined, ahead: readonly WalkPlaceDto[]) {
    const floor = await this.floors.floor(this.source, siteId);
    const table = await this.floors.start(this.source, siteId);
    const begin = from?.x != null && from.y != null ? { x: num(from.x), y: num(from.y) } : table;
    const way = [begin, ...ahead.flatMap(({ x, y }) => (x === null || y === null ? [] : [{ x, y }])), table];
    return way.reduce((sum, p, i) => sum + (i === 0 ? 0 : floor.metresBetween(way[i - 1] ?? p, p)), 0);
  }
}
