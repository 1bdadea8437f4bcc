import { Injectable } from '@nestjs/common';
import { kindsFor } from '@vectrum/core/places';
import { DataSource } from 'typeorm';
import { spareSql } from '../allocation/index.js';
import { CalendarQueries } from '../company/index.js';
import { PeopleQueries } from '../identity/index.js';
import { marks, num, rows, sqlList } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { FloorQueries } from '../sites/index.js';
import type {
  BoardItemDto,
  BoardLackDto,
  BoardOrderDto,
  BoardPickerDto,
  BoardPlaceDto,
  BoardStopDto,
  PickerDto,
  ReleaseBoardDto,
} from './board.dto.js';
import { PeoplePaceQueries } from './people-pace.queries.js';
import { pickable, takeFrom } from './pickable.js';
import { picksAt } from './picks-at.js';
import { largestWall } from './walls.js';
import { type WaitingLine, WaitingQueries } from './waiting.queries.js';

/** Reads what a person decides from who sends orders to picking: what waits, where it lies, who is there, what leaves when. */
@Injectable()
export class BoardQueries {
  constructor(
    private readonly source: DataSource,
    private readonly waiting: WaitingQueries,
    private readonly floors: FloorQueries,
    private readonly calendars: CalendarQueries,
    private readonly people: PeopleQueries,
    private readonly settings: SettingsService,
    private readonly paces: PeoplePaceQueries,
  ) {}

  async board(siteId: number, siteIds: readonly number[]): Promise<ReleaseBoardDto> {
    const orders = await this.waiting.orders(this.source, siteId, siteIds);
    const lines = await this.waiting.lines(
      this.source,
      siteId,
      orders.map((o) => o.id),
    );
    const board = (await this.calendars.boards([siteId])).get(siteId);
    const stock = await pickable(
      this.source,
      siteId,
      lines.map((l) => l.itemId),
      'seen',
    );
    const lies = await this.whereLying(siteId, [...new Set(lines.map((l) => l.itemId))]);
    const byOrder = new Map<number, WaitingLine[]>(orders.map((o) => [o.id, []]));
    for (const line of lines) byOrder.get(line.orderId)?.push(line);
    const listed = orders.map(({ id, urgent, total: _, ...o }): BoardOrderDto => {
      const own = byOrder.get(id) ?? [];
      const taken = own.map((line) => ({ line, ...takeFrom(stock, line) }));
      const sum = (of: (l: WaitingLine) => number) => own.reduce((n, l) => n + of(l), 0);
      return {
        ...o,
        urgent: num(urgent) === 1,
        leavesAt: board?.toCatch(o.promisedAt) ?? o.promisedAt,
        units: sum((l) => l.units),
        weightG: sum((l) => l.units * num(l.weightG)),
        volumeMl: Math.round(sum((l) => l.units * num(l.volumeMl))),
        stops: taken.flatMap(({ line, choices }) =>
          choices.map((c): BoardStopDto => ({ placeId: c.placeId, itemId: line.itemId, units: c.units })),
        ),
        lacks: taken.flatMap(({ line, short }) => (short > 0 ? [{ item: line.name, units: short, lies: lies(line.itemId) }] : [])),
      };
    });
    const { departures } = await this.calendars.openDay([siteId]);
    return {
      siteId,
      table: await this.floors.start(this.source, siteId),
      orders: listed,
      total: num(orders[0]?.total ?? 0),
      places: await this.places(listed.flatMap((o) => o.stops.map((s) => s.placeId))),
      items: itemsOf(lines),
      vans: departures.map(({ at, name, carrier }) => ({ at, name, carrier })),
      pickers: await this.pickers(siteId),
      picks: await picksAt(this.source, siteId),
      wallSlots: await largestWall(this.source, siteId),
      roundOrders: await this.settings.get(this.source, 'roundOrders'),
      roundKilos: await this.settings.get(this.source, 'roundKilos'),
      roundLitres: await this.settings.get(this.source, 'roundLitres'),
    };
  }

  /** Who may pick at a site. */
  async whoPicks(siteId: number): Promise<PickerDto[]> {
    return (await this.people.allowedAt(this.source, siteId, 'pick')).map(({ id, name }) => ({ id, name }));
  }

  /** Says of an item where more of it lies than pickers go to. */
  private async whereLying(siteId: number, itemIds: readonly number[]): Promise<(itemId: number) => BoardLackDto['lies']> {
    const found = await rows<{ itemId: number; isShelf: number }>(
      this.source,
      `SELECT b.item_id AS itemId, MAX(p.kind IN ${sqlList(kindsFor('shelf'))}) AS isShelf FROM balance b JOIN place p ON p.id = b.place_id
       WHERE b.item_id IN (${marks(itemIds)}) AND b.stock_condition = 'good' AND b.bounded = 1 AND b.units > 0 AND p.site_id = ? AND p.pickable = 0 AND (p.kind IN ${sqlList([...kindsFor('shelf'), ...kindsFor('wait')])} OR (p.kind IN ${sqlList(kindsFor('picked'))} AND ${spareSql('b')} > 0)) GROUP BY b.item_id`,
      [...itemIds, siteId],
    );
    const shelves = new Map(found.map((f) => [f.itemId, num(f.isShelf) === 1]));
    return (itemId) => (shelves.get(itemId) === undefined ? 'nowhere' : shelves.get(itemId) ? 'reserve' : 'standing');
  }

  private async places(ids: readonly number[]): Promise<BoardPlaceDto[]> {
    const found = await rows<Omit<BoardPlaceDto, 'x' | 'y'> & { x: string | null; y: string | null }>(
      this.source,
      `SELECT p.id, p.code, COALESCE(z.code, '') AS zone, p.x_m AS x, p.y_m AS y FROM place p LEFT JOIN place z ON z.id = p.parent_id AND z.kind = 'zone' WHERE p.id IN (?) ORDER BY p.walk_order, p.id`,
      [[0, ...ids]],
    );
    return found.map((p) => ({ ...p, x: p.x === null ? null : num(p.x), y: p.y === null ? null : num(p.y) }));
  }

  /** Who may pick at the site, whether they have done anything today, and what they have still to walk. */
  private async pickers(siteId: number): Promise<BoardPickerDto[]> {
    const people = await this.people.allowedAt(this.source, siteId, 'pick');
    const left = await rows<{ id: number; stops: string; units: string }>(
      this.source,
      `SELECT COALESCE(r.picker_id, r.sent_to_id) AS id, COUNT(*) AS stops, SUM(s.units - s.picked_units - s.short_units) AS units FROM \`round\` r JOIN round_stop s ON s.round_id = r.id AND s.units > s.picked_units + s.short_units
       WHERE r.site_id = ? AND r.state IN ('waiting','picking') AND COALESCE(r.picker_id, r.sent_to_id) IS NOT NULL GROUP BY 1`,
      [siteId],
    );
    const seen = await rows<{ id: number }>(
      this.source,
      'SELECT DISTINCT person_id AS id FROM activity WHERE at > UTC_TIMESTAMP() - INTERVAL 12 HOUR AND site_id = ? AND person_id IS NOT NULL',
      [siteId],
    );
    const paces = await this.paces.at(siteId);
    return people.map(({ id, name }) => {
      const own = left.find((l) => l.id === id);
      return {
        id,
        name,
        secondsAStop: paces.get(id) ?? null,
        here: seen.some((s) => s.id === id),
        stops: num(own?.stops),
        units: num(own?.units),
      };
    });
  }
}

const itemsOf = (lines: readonly WaitingLine[]): BoardItemDto[] => [
  ...new Map(lines.map((l) => [l.itemId, { id: l.itemId, sku: l.sku, name: l.name }])).values(),
];
