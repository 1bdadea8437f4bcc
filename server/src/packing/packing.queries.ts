import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { onShelfSql, spareSql } from '../allocation/index.js';
import { CalendarQueries } from '../company/index.js';
import { badState, notFound, num, one, pageOf, type Person, rows, type Tx, type Window } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { standsAtSql } from '../sites/index.js';
import type {
  BenchParcelDto,
  BenchPageDto,
  BenchRowDto,
  CartonDto,
  PackKitDto,
  PackLineDto,
  PackTaskDto,
  SpareDto,
} from './packing.dto.js';

export interface BenchOrder {
  id: number;
  code: string;
  site_id: number;
  state: string;
  customer: string;
  note_packer: string | null;
  note_seen_by: number | null;
  parked_why: string | null;
}

/** Reads what waits to be packed, and the task of one order. */
@Injectable()
export class PackingQueries {
  constructor(
    private readonly source: DataSource,
    private readonly settings: SettingsService,
    private readonly calendars: CalendarQueries,
  ) {}

  /** Orders whose goods stand at a table, by what they were promised. */
  async queue(siteIds: readonly number[], window: Window): Promise<BenchPageDto> {
    const { rows: found, total } = await pageOf<
      Omit<BenchRowDto, 'pieces' | 'note' | 'leavesAt'> & { siteId: number; pieces: string; note: number }
    >(
      this.source,
      {
        select: `o.code AS \`order\`, MIN(t.site_id) AS siteId, o.customer, MIN(IF(u.id IS NULL, NULL, t.code)) AS tote, MIN(IF(u.id IS NULL, NULL, b.code)) AS \`table\`, o.promised_at AS promisedAt, (o.note_packer IS NOT NULL) AS note, o.parked_why AS parked, MIN(u.set_down_at) AS since, SUM(v.units) AS pieces`,
        from: `FROM sales_order o JOIN sales_order_line l ON l.order_id = o.id JOIN reservation v ON v.order_line_id = l.id AND v.place_id IS NOT NULL JOIN place t ON t.id = v.place_id LEFT JOIN tote_use u ON u.open_tote = v.place_id AND u.order_id = o.id AND u.set_down_at IS NOT NULL ${standsAtSql('t', 'b')}
       WHERE o.state = 'picked' AND (u.id IS NOT NULL OR ${onShelfSql('v', 't')}) AND t.site_id IN (?) GROUP BY o.id`,
        params: [[0, ...siteIds]],
        order: 'o.parked_at IS NOT NULL, o.promised_at, o.id',
      },
      window,
    );
    const boards = await this.calendars.boards(siteIds);
    const listed = found.map(({ siteId, ...o }) => ({
      ...o,
      leavesAt: boards.get(siteId)?.toCatch(o.promisedAt) ?? null,
      pieces: num(o.pieces),
      note: num(o.note) === 1,
    }));
    return { rows: listed, total };
  }

  /** The order that leaves soonest of those at a table that want this item and nothing else; null where there is none. */
  async singleLine(siteIds: readonly number[], itemId: number): Promise<string | null> {
    const found = await one<{ code: string }>(
      this.source,
      `SELECT o.code FROM sales_order o JOIN sales_order_line l ON l.order_id = o.id JOIN reservation v ON v.order_line_id = l.id JOIN place t ON t.id = v.place_id LEFT JOIN tote_use u ON u.open_tote = v.place_id AND u.order_id = o.id AND u.set_down_at IS NOT NULL
       WHERE o.state = 'picked' AND o.parked_at IS NULL AND l.item_id = ? AND (u.id IS NOT NULL OR ${onShelfSql('v', 't')}) AND t.site_id IN (?)
         AND NOT EXISTS (SELECT 1 FROM sales_order_line k WHERE k.order_id = o.id AND k.id <> l.id) ORDER BY o.promised_at, o.id LIMIT 1`,
      [itemId, [0, ...siteIds]],
    );
    return found?.code ?? null;
  }

  /** The order behind a scanned docket, order number, tote or parcel. */
  async orderOf(tx: Pick<Tx, 'query'>, code: string): Promise<BenchOrder> {
    const order = await one<BenchOrder>(
      tx,
      `SELECT o.id, o.code, COALESCE((SELECT MIN(t.site_id) FROM tote_use u JOIN place t ON t.id = u.tote_id WHERE u.order_id = o.id AND u.ended_at IS NULL AND u.set_down_at IS NOT NULL), (SELECT MIN(v.site_id) FROM sales_order_line l JOIN reservation v ON v.order_line_id = l.id AND v.place_id IS NOT NULL WHERE l.order_id = o.id), o.site_id) AS site_id, o.state, o.customer, o.note_packer, o.note_seen_by, o.parked_why
       FROM sales_order o WHERE o.code = ? OR o.id = (SELECT u.order_id FROM tote_use u JOIN place t ON t.id = u.tote_id WHERE t.code = ? AND u.ended_at IS NULL AND u.set_down_at IS NOT NULL LIMIT 1) OR o.id = (SELECT p.order_id FROM parcel p WHERE p.code = ?) OR o.id = (SELECT p.order_id FROM parcel p WHERE p.tracking = ? LIMIT 1)
       ORDER BY o.code = ? DESC LIMIT 1`,
      [code, code, code, code, code],
    );
    if (!order) {
      const early = await one<{ round: string; pooled: number }>(
        tx,
        'SELECT r.code AS round, r.pooled FROM tote_use u JOIN place t ON t.id = u.tote_id JOIN `round` r ON r.id = u.round_id WHERE t.code = ? AND u.ended_at IS NULL LIMIT 1',
        [code],
      );
      if (early)
        throw badState(
          `${code} waits for more goods of ${early.round}: ${early.pooled === 1 ? 'sort it' : 'pick it and set it down'} first`,
        );
      throw notFound(`${code} holds no order to pack. It`);
    }
    return order;
  }

  /** The badge by which somebody acknowledges a note; null where the house wants none, or they have none. */
  async noteBadge(tx: Pick<Tx, 'query'>, personId: number): Promise<string | null> {
    if (!(await this.settings.get(tx, 'noteByBadge'))) return null;
    return (await one<{ badge: string | null }>(tx, 'SELECT badge_code AS badge FROM person WHERE id = ?', [personId]))?.badge ?? null;
  }

  async task(tx: Pick<Tx, 'query'>, code: string, person: Pick<Person, 'id' | 'seesCosts'>): Promise<PackTaskDto & { siteId: number }> {
    const order = await this.orderOf(tx, code);
    const head = await one<{ channel: string; promisedAt: Date; tote: string | null }>(
      tx,
      `SELECT c.name AS channel, o.promised_at AS promisedAt,
         (SELECT t.code FROM tote_use u JOIN place t ON t.id = u.tote_id WHERE u.order_id = o.id AND u.ended_at IS NULL AND u.set_down_at IS NOT NULL ORDER BY u.id LIMIT 1) AS tote
       FROM sales_order o JOIN channel c ON c.id = o.channel_id WHERE o.id = ?`,
      [order.id],
    );
    const all = await this.parcels(tx, order.id);
    const board = (await this.calendars.boards([order.site_id])).get(order.site_id);
    const promisedAt = head?.promisedAt ?? new Date();
    return {
      siteId: order.site_id,
      order: order.code,
      customer: order.customer,
      note: order.note_packer,
      noteSeen: order.note_seen_by !== null,
      noteBadge: await this.noteBadge(tx, person.id),
      lines: await this.lines(tx, order),
      kits: await this.kits(tx, order.id),
      spare: await this.spare(tx, order.id),
      serials: await rows<{ line: number; parcel: number; serial: string }>(
        tx,
        'SELECT l.line, p.number AS parcel, s.serial FROM parcel_serial s JOIN parcel p ON p.id = s.parcel_id JOIN sales_order_line l ON l.id = s.order_line_id WHERE p.order_id = ? ORDER BY s.id',
        [order.id],
      ),
      parcels: await Promise.all(
        all
          .filter((p) => p.state !== 'gone' && p.state !== 'void')
          .map(async (p) => ({ number: p.number, code: p.code, open: p.state === 'open', contents: await this.contents(tx, p.id) })),
      ),
      channel: head?.channel ?? '',
      tote: head?.tote ?? null,
      promisedAt,
      leavesAt: board?.toCatch(promisedAt) ?? null,
      state: order.state,
      allParcels: all.map(({ id: _, ...p }) => p),
      cartons: await this.cartons(tx, order.site_id, person.seesCosts),
      weightPercent: await this.settings.get(tx, 'weightPercent'),
      weightGrams: await this.settings.get(tx, 'weightGrams'),
      labelsByThemselves: await this.settings.get(tx, 'labelsByThemselves'),
      wantsPictures: await this.settings.get(tx, 'parcelPictures'),
    };
  }

  /** The lines whose goods are at the table, in totes or in parcels that have not left. */
  async lines(tx: Pick<Tx, 'query'>, order: Pick<BenchOrder, 'id'>): Promise<PackLineDto[]> {
    const trust = await this.settings.get(tx, 'trustTotes');
    const found = await rows<{
      [K in Exclude<keyof PackLineDto, 'sizeMm' | 'trusted' | 'insert'> | 'neverHoldsUp' | 'unproved' | 'l' | 'w' | 'h']:
        string | number | null;
    }>(
      tx,
      `SELECT l.line, l.item_id AS itemId, SUM(v.units) AS picked, SUM(IF(p.kind = 'parcel', v.units, 0)) AS packed, GROUP_CONCAT(DISTINCT IF(p.kind = 'parcel' OR w.id IS NOT NULL, NULL, p.code) ORDER BY p.walk_order SEPARATOR ', ') AS shelf, u.weight_g AS unitG, u.length_mm * u.width_mm * u.height_mm / 1000 AS unitMl, GREATEST(u.length_mm, u.width_mm, u.height_mm) AS longestMm, u.length_mm AS l, u.width_mm AS w, u.height_mm AS h, i.keep_upright AS keepUpright, i.fragile, i.never_holds_up AS neverHoldsUp,
         MAX(p.kind <> 'parcel' AND (i.scan_each = 1 OR i.serial_at_packing = 1 OR w.id IS NULL OR NOT EXISTS (SELECT 1 FROM movement m WHERE m.to_place_id = v.place_id AND m.item_id = l.item_id AND m.lot_id = v.lot_id AND m.task IN ('pick','sort') AND m.server_at >= w.begun_at)
           OR EXISTS (SELECT 1 FROM movement m WHERE m.to_place_id = v.place_id AND m.item_id = l.item_id AND m.lot_id = v.lot_id AND m.task IN ('pick','sort') AND m.reverses_id IS NULL AND COALESCE(m.how, 'typed') <> 'scanned' AND m.server_at >= w.begun_at))) AS unproved
       FROM sales_order_line l JOIN reservation v ON v.order_line_id = l.id JOIN place p ON p.id = v.place_id JOIN pack_unit u ON u.item_id = l.item_id AND u.factor = 1 JOIN item i ON i.id = l.item_id
         LEFT JOIN tote_use w ON w.open_tote = v.place_id
       WHERE l.order_id = ? AND (p.kind = 'parcel' OR (w.set_down_at IS NOT NULL AND w.order_id IS NOT NULL) OR ${onShelfSql('v', 'p')}) GROUP BY l.id ORDER BY l.line`,
      [order.id],
    );
    const known = (value: string | number | null) => (value === null ? null : num(value));
    return found.map((l) => ({
      line: num(l.line),
      itemId: num(l.itemId),
      picked: num(l.picked),
      packed: num(l.packed),
      unitG: known(l.unitG),
      unitMl: known(l.unitMl),
      longestMm: known(l.longestMm),
      sizeMm: l.l === null || l.w === null || l.h === null ? null : [num(l.l), num(l.w), num(l.h)],
      keepUpright: num(l.keepUpright) === 1,
      fragile: num(l.fragile) === 1,
      insert: num(l.neverHoldsUp) === 1,
      trusted: trust && num(l.unproved) === 0,
      shelf: l.shelf === null ? null : String(l.shelf),
    }));
  }

  /** What was ordered as a kit, with the lines of its parts and how many make one. */
  async kits(tx: Pick<Tx, 'query'>, orderId: number): Promise<PackKitDto[]> {
    const parts = await rows<{ kit: number; itemId: number; line: number; each: string }>(
      tx,
      `SELECT k.line AS kit, k.item_id AS itemId, l.line, l.units / (k.quantity * k.factor) AS \`each\` FROM sales_order_line l JOIN sales_order_line k ON k.order_id = l.order_id AND k.line = l.kit_line
       WHERE l.order_id = ? AND k.item_id IS NOT NULL AND k.quantity > 0 AND l.units > 0 ORDER BY k.line, l.line`,
      [orderId],
    );
    const kits = new Map<number, PackKitDto>();
    for (const { kit, itemId, line, each } of parts) {
      const known = kits.get(kit) ?? { line: kit, itemId, parts: [] };
      known.parts.push({ line, each: num(each) });
      kits.set(kit, known);
    }
    // What no longer makes whole kits, since some of a part was taken off it, goes in part by part.
    return [...kits.values()].filter((k) => k.parts.every((p) => Number.isSafeInteger(p.each)));
  }

  parcels(tx: Pick<Tx, 'query'>, orderId: number): Promise<(BenchParcelDto & { id: number })[]> {
    return rows(
      tx,
      `SELECT p.id, p.number, p.code, p.state, p.tracking, c.name AS carrier, p.weight_g AS weightG, p.carton,
         IF(p.state = 'label-asked', (SELECT x.last_error FROM outbox x WHERE x.kind = 'carrier.label' AND x.state = 'failing' AND x.receiver LIKE CONCAT('carrier:%/', p.code) LIMIT 1), NULL) AS problem,
         IF(p.state = 'labelled', x.state, NULL) AS print, IF(p.state = 'labelled' AND x.state = 'failing', x.last_error, NULL) AS printProblem
       FROM parcel p LEFT JOIN carrier c ON c.id = p.carrier_id
         LEFT JOIN outbox x ON x.id = (SELECT MAX(y.id) FROM outbox y WHERE y.kind = 'print.label' AND y.document = (SELECT o.code FROM sales_order o WHERE o.id = p.order_id) AND JSON_VALUE(y.payload, '$.parcel') = p.code)
       WHERE p.order_id = ? ORDER BY p.number`,
      [orderId],
    );
  }

  async contents(tx: Pick<Tx, 'query'>, parcelId: number): Promise<{ line: number; units: number }[]> {
    const found = await rows<{ line: number; units: string }>(
      tx,
      'SELECT l.line, SUM(pl.units) AS units FROM parcel_line pl JOIN sales_order_line l ON l.id = pl.order_line_id WHERE pl.parcel_id = ? GROUP BY l.id ORDER BY l.line',
      [parcelId],
    );
    return found.map((c) => ({ line: c.line, units: num(c.units) }));
  }

  /** What lies in totes and open parcels of an order that wants it no longer. */
  async spare(tx: Pick<Tx, 'query'>, orderId: number): Promise<SpareDto[]> {
    const found = await rows<{ itemId: number; code: string; units: string | number }>(
      tx,
      `SELECT b.item_id AS itemId, p.code, SUM(${spareSql('b')}) AS units
       FROM (SELECT open_tote AS id FROM tote_use WHERE order_id = ? AND open_tote IS NOT NULL UNION SELECT place_id FROM parcel WHERE order_id = ? AND state IN ('open','void')) c
         JOIN place p ON p.id = c.id JOIN balance b ON b.place_id = p.id AND b.units > 0 AND b.stock_condition = 'good' GROUP BY b.item_id, p.id HAVING units > 0 ORDER BY p.code, b.item_id`,
      [orderId, orderId],
    );
    return found.map((s) => ({ ...s, units: num(s.units) }));
  }

  private async cartons(tx: Pick<Tx, 'query'>, siteId: number, seesCosts: boolean): Promise<CartonDto[]> {
    const found = await rows<Omit<CartonDto, 'costShare' | 'cost'> & { cost: string }>(
      tx,
      'SELECT c.code, c.length_mm AS lengthMm, c.width_mm AS widthMm, c.height_mm AS heightMm, c.tare_g AS tareG, c.most_g AS mostG, c.cost, IF(c.item_id IS NULL, k.units, COALESCE(t.on_hand, 0)) AS `left` FROM carton c LEFT JOIN carton_stock k ON k.carton = c.code AND k.site_id = ? LEFT JOIN site_stock t ON t.item_id = c.item_id AND t.site_id = ? ORDER BY c.length_mm * c.width_mm * c.height_mm, c.code',
      [siteId, siteId],
    );
    const dearest = Math.max(...found.map((c) => Number(c.cost)), 0);
    return found.map(({ cost, ...c }) => ({
      ...c,
      costShare: dearest > 0 ? Math.round((1000 * Number(cost)) / dearest) : 0,
      ...(seesCosts ? { cost } : {}),
    }));
  }
}
