import { Injectable } from '@nestjs/common';
import { kindsFor } from '@vectrum/core/places';
import { spell } from '@vectrum/core/quantity';
import { ALL_ORDERS, type PickStop } from '@vectrum/core/scan';
import { DataSource } from 'typeorm';
import { CodebookQueries } from '../catalogue/index.js';
import { CalendarQueries } from '../company/index.js';
import { notFound, one, rows } from '../platform/index.js';
import { PickingQueries } from './picking.queries.js';
import type { RoundSheetDto, SheetOrderDto, SheetStopDto } from './sheet.dto.js';

/** Reads one round as the office sees it, and as it is printed. */
@Injectable()
export class SheetQueries {
  constructor(
    private readonly source: DataSource,
    private readonly picking: PickingQueries,
    private readonly codebook: CodebookQueries,
    private readonly calendars: CalendarQueries,
  ) {}

  async sheet(code: string, siteIds: readonly number[]): Promise<RoundSheetDto> {
    const head = await one<
      Omit<RoundSheetDto, 'leavesAt' | 'metres' | 'orders' | 'holders' | 'stops' | 'tables' | 'pooled'> & { id: number }
    >(
      this.source,
      `SELECT r.id, r.code, r.site_id AS siteId, t.name AS site, r.state, p.name AS picker, w.name AS sentTo, c.code AS cart, r.created_at AS createdAt, r.begun_at AS begunAt, r.finished_at AS finishedAt,
         (SELECT MIN(o.promised_at) FROM round_order x JOIN sales_order o ON o.id = x.order_id WHERE x.round_id = r.id) AS promisedAt
       FROM \`round\` r JOIN site t ON t.id = r.site_id LEFT JOIN person p ON p.id = r.picker_id LEFT JOIN person w ON w.id = r.sent_to_id LEFT JOIN place c ON c.id = r.cart_id WHERE r.code = ? AND r.site_id IN (?)`,
      [code, [0, ...siteIds]],
    );
    if (!head) throw notFound(`Round ${code}`);
    const task = await this.picking.task(this.source, code);
    const { id, ...shown } = head;
    const codes = new Map(task.orders.map((o) => [o.id, o.code]));
    const items = await this.codebook.items(
      this.source,
      head.siteId,
      task.stops.map((s) => s.itemId),
    );
    const ahead = await this.picking.ahead(this.source, code);
    const ownerOf = (s: PickStop) =>
      ahead.find((a) => a.id === s.id) ?? ahead.find((a) => a.placeId === s.placeId && a.itemId === s.itemId && a.lotId === s.lotId);
    const stops = task.stops.map((s): SheetStopDto => ({
      id: s.id,
      order: codes.get(s.orderId) ?? '',
      place: s.placeCode,
      sku: items[s.itemId]?.sku ?? '',
      item: items[s.itemId]?.name ?? '',
      lot: s.lot,
      wanted: spell(s.units, items[s.itemId]?.packs ?? []),
      units: s.units,
      picked: s.picked,
      short: s.short,
      by: s.by ?? null,
      byId: s.units > s.picked + s.short ? (ownerOf(s)?.ownerId ?? null) : null,
    }));
    const totes = await rows<{ orderId: number | null; code: string }>(
      this.source,
      'SELECT u.order_id AS orderId, t.code FROM tote_use u JOIN place t ON t.id = u.tote_id JOIN `round` r ON r.id = u.round_id WHERE r.code = ? ORDER BY u.id',
      [code],
    );
    const tables = await rows<{ code: string }>(
      this.source,
      'SELECT code FROM place WHERE site_id = ? AND kind IN (?) AND blocked = 0 ORDER BY walk_order, id',
      [head.siteId, kindsFor(task.pooled ? 'sort' : 'set-down')],
    );
    const board = (await this.calendars.boards([head.siteId])).get(head.siteId);
    const withTotes = (order: Pick<SheetOrderDto, 'id' | 'code' | 'customer' | 'note'>): SheetOrderDto => ({
      id: order.id,
      code: order.code,
      customer: order.customer,
      note: order.note,
      totes: totes.filter((t) => (t.orderId ?? ALL_ORDERS) === order.id).map((t) => t.code),
    });
    return {
      ...shown,
      pooled: task.pooled,
      leavesAt: board?.toCatch(head.promisedAt) ?? null,
      metres: task.stops.reduce((n, s) => n + s.metres, 0),
      orders: (await this.picking.orders(this.source, id)).map(withTotes),
      holders: task.orders.map(withTotes),
      stops,
      tables: tables.map((t) => t.code),
    };
  }
}
