import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { CalendarQueries } from '../company/index.js';
import { PeopleQueries } from '../identity/index.js';
import { urgentSql } from '../orders/index.js';
import { marks, num, promisedSql, rows } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { FloorQueries } from '../sites/index.js';
import type { BoardItemDto, BoardOrderDto, BoardPickerDto, BoardPlaceDto, BoardStopDto, ReleaseBoardDto } from './board.dto.js';
import { pickable, takeFrom } from './pickable.js';

/** So many orders are looked at together, the soonest first; those behind them come once these are sent. */
const MOST_ORDERS = 1000;

type WaitingOrder = Pick<BoardOrderDto, 'code' | 'version' | 'customer' | 'channel' | 'promisedAt'> & {
  id: number;
  urgent: number;
  total: string;
};
interface WaitingLine {
  orderId: number;
  itemId: number;
  sku: string;
  name: string;
  rotation: 'fifo' | 'fefo';
  units: number;
  weightG: number | null;
  volumeMl: string | null;
}

/** Reads what a person decides from who sends orders to picking: what waits, where it lies, who is there, what leaves when. */
@Injectable()
export class BoardQueries {
  constructor(
    private readonly source: DataSource,
    private readonly floors: FloorQueries,
    private readonly calendars: CalendarQueries,
    private readonly people: PeopleQueries,
    private readonly settings: SettingsService,
  ) {}

  async board(siteId: number, siteIds: readonly number[]): Promise<ReleaseBoardDto> {
    const orders = await this.waiting(siteId, siteIds);
    const lines = await this.lines(
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
        lacks: taken.flatMap(({ line, short }) => (short > 0 ? [{ item: line.name, units: short }] : [])),
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
      roundOrders: await this.settings.get(this.source, 'roundOrders'),
      roundKilos: await this.settings.get(this.source, 'roundKilos'),
      roundLitres: await this.settings.get(this.source, 'roundLitres'),
    };
  }

  /** Open orders that are promised whole and hold goods at the site, the urgent ones first. */
  private waiting(siteId: number, siteIds: readonly number[]): Promise<WaitingOrder[]> {
    return rows<WaitingOrder>(
      this.source,
      `SELECT o.id, o.code, o.version, o.customer, c.name AS channel, o.promised_at AS promisedAt, ${urgentSql('o')} AS urgent, COUNT(*) OVER () AS total
       FROM sales_order o JOIN channel c ON c.id = o.channel_id
       WHERE o.state = 'open' AND o.site_id IN (?)
         AND EXISTS (SELECT 1 FROM sales_order_line l JOIN reservation v ON v.order_line_id = l.id AND v.site_id = ? AND v.place_id IS NULL WHERE l.order_id = o.id)
         AND NOT EXISTS (SELECT 1 FROM sales_order_line l LEFT JOIN item i ON i.id = l.item_id WHERE l.order_id = o.id AND COALESCE(i.never_holds_up, 0) = 0 AND ${promisedSql('l')} < l.units)
       ORDER BY urgent DESC, o.promised_at, o.id LIMIT ${MOST_ORDERS}`,
      [[0, ...siteIds], siteId],
    );
  }

  private lines(siteId: number, orderIds: readonly number[]): Promise<WaitingLine[]> {
    return rows<WaitingLine>(
      this.source,
      `SELECT l.order_id AS orderId, l.item_id AS itemId, i.sku, i.name, i.rotation, v.units, u.weight_g AS weightG, u.length_mm * u.width_mm * u.height_mm / 1000 AS volumeMl
       FROM sales_order_line l JOIN reservation v ON v.order_line_id = l.id AND v.site_id = ? AND v.place_id IS NULL JOIN item i ON i.id = l.item_id LEFT JOIN pack_unit u ON u.item_id = i.id AND u.factor = 1
       WHERE l.order_id IN (${marks(orderIds)}) ORDER BY FIELD(l.order_id, ${marks(orderIds)}), l.line`,
      [siteId, ...orderIds, ...orderIds],
    );
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
    return people.map(({ id, name }) => {
      const own = left.find((l) => l.id === id);
      return { id, name, here: seen.some((s) => s.id === id), stops: num(own?.stops), units: num(own?.units) };
    });
  }
}

const itemsOf = (lines: readonly WaitingLine[]): BoardItemDto[] => [
  ...new Map(lines.map((l) => [l.itemId, { id: l.itemId, sku: l.sku, name: l.name }])).values(),
];
