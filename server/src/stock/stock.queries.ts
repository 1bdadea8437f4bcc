import { Injectable } from '@nestjs/common';
import { available, whyAvailable, type WhyTerm } from '@vectrum/core/ledger';
import { DataSource } from 'typeorm';
import { num, one, promisedSql, rows, sqlList } from '../platform/index.js';
import { onRoadSql } from './on-road.js';
import type { BinStockDto, ItemStockDto, MovementDto, MovementPageDto, StockFigureDto } from './stock.dto.js';
import { whyHeld, whyIncoming, whyProjected, whyReserved } from './why.js';
import { ordersIn } from '@vectrum/core/orders';

const PROMISABLE = sqlList(ordersIn('promisable'));
const PROMISED = promisedSql('l');

const TASK_WORDS: Readonly<Record<string, string>> = {
  open: 'Opening stock',
  receive: 'Received',
  ship: 'Shipped',
  box: 'Packed in',
  count: 'Counted',
  'send-back': 'Sent back',
  'take-over': 'Taken over',
  undo: 'Undone',
};
const MOST_DOCUMENTS = 4;
/** Orders that hold some are what the sum is made of: all that a screen can show are named. */
const MOST_HOLDERS = 40;
const PAGE = 50;
export const FIGURES = ['on-hand', 'available', 'held', 'reserved', 'incoming', 'projected'] as const;
export type Figure = (typeof FIGURES)[number];

/** Read models of stock: by site, by bin, and the sum behind each figure. */
@Injectable()
export class StockQueries {
  constructor(private readonly source: DataSource) {}

  async ofItem(itemId: number, siteIds: readonly number[]): Promise<ItemStockDto> {
    return { sites: await this.figures(itemId, siteIds), bins: await this.bins(itemId, siteIds) };
  }

  async figures(itemId: number, siteIds: readonly number[]): Promise<StockFigureDto[]> {
    const found = await rows<{
      siteId: number;
      site: string;
      onHand: number;
      held: number;
      reserved: number;
      incoming: string;
      waiting: string;
    }>(
      this.source,
      `SELECT s.id AS siteId, s.name AS site, COALESCE(st.on_hand, 0) AS onHand, COALESCE(st.held, 0) AS held, COALESCE(st.reserved, 0) AS reserved,
         COALESCE((SELECT SUM(l.open_units) FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id
                   WHERE l.item_id = ? AND o.site_id = s.id AND o.state IN ('placed','part-received')), 0)
           + ${onRoadSql('?', 's.id')} AS incoming,
         COALESCE((SELECT SUM(l.units - ${PROMISED}) FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id
                   WHERE l.item_id = ? AND o.site_id = s.id AND o.state IN ${PROMISABLE}), 0) AS waiting
       FROM site s LEFT JOIN site_stock st ON st.site_id = s.id AND st.item_id = ? WHERE s.id IN (?) ORDER BY s.id`,
      [itemId, itemId, itemId, itemId, [0, ...siteIds]],
    );
    return found.map((f) => {
      const [incoming, waiting] = [num(f.incoming), num(f.waiting)];
      return { ...f, incoming, waiting, available: available(f), projected: available(f) + incoming - waiting };
    });
  }

  bins(itemId: number, siteIds: readonly number[]): Promise<BinStockDto[]> {
    return rows<BinStockDto>(
      this.source,
      `SELECT p.site_id AS siteId, p.code AS place, p.kind, l.code AS lot, l.expires_on AS expires, b.stock_condition AS \`condition\`, b.units
       FROM balance b JOIN place p ON p.id = b.place_id LEFT JOIN lot l ON l.id = b.lot_id
       WHERE b.item_id = ? AND b.units > 0 AND p.site_id IN (?) ORDER BY p.site_id, p.walk_order, p.code`,
      [itemId, [0, ...siteIds]],
    );
  }

  /** The sum behind a figure at a site, with the documents of each term. */
  async why(figure: Figure, itemId: number, siteId: number): Promise<WhyTerm[]> {
    switch (figure) {
      case 'on-hand':
        return this.whyOnHand(itemId, siteId);
      case 'available':
        return this.whyAvailable(itemId, siteId);
      case 'held':
        return whyHeld(this.source, itemId, siteId);
      case 'reserved':
        return whyReserved(this.source, itemId, siteId);
      case 'incoming':
        return whyIncoming(this.source, itemId, siteId);
      case 'projected': {
        const figures = (await this.figures(itemId, [siteId]))[0];
        return figures ? whyProjected(this.source, itemId, siteId, figures) : [];
      }
    }
  }

  private async whyAvailable(itemId: number, siteId: number): Promise<WhyTerm[]> {
    const figures = (await this.figures(itemId, [siteId]))[0] ?? { onHand: 0, held: 0, reserved: 0 };
    const moved = await rows<{ document: string }>(
      this.source,
      `SELECT DISTINCT m.document FROM movement m JOIN place t ON t.id = m.to_place_id JOIN place f ON f.id = m.from_place_id
       WHERE m.item_id = ? AND m.document IS NOT NULL AND (t.site_id = ? OR f.site_id = ?) AND NOT (t.site_id <=> f.site_id) ORDER BY m.id DESC LIMIT ?`,
      [itemId, siteId, siteId, MOST_DOCUMENTS],
    );
    const reserved = await rows<{ code: string; units: number }>(
      this.source,
      `SELECT o.code, SUM(v.units) AS units FROM reservation v JOIN sales_order_line l ON l.id = v.order_line_id JOIN sales_order o ON o.id = l.order_id
       WHERE v.item_id = ? AND v.site_id = ? GROUP BY l.id ORDER BY o.promised_at LIMIT ${MOST_HOLDERS}`,
      [itemId, siteId],
    );
    const marked = await rows<{ code: string; units: number }>(
      this.source,
      `SELECT document AS code, units FROM earmark WHERE item_id = ? AND site_id = ? AND units > 0 ORDER BY id LIMIT ${MOST_HOLDERS}`,
      [itemId, siteId],
    );
    return whyAvailable(figures, {
      onHand: moved.map((m) => m.document),
      reserved: [...reserved, ...marked].map((r) => `${r.code} ${r.units}`),
    });
  }

  /** The sum behind "on hand" at a site: everything that ever came and went, by what it was for. */
  private async whyOnHand(itemId: number, siteId: number): Promise<WhyTerm[]> {
    const sums = await rows<{ task: string; units: string }>(
      this.source,
      `SELECT m.task, SUM(IF(t.site_id <=> ?, m.units, 0) - IF(f.site_id <=> ?, m.units, 0)) AS units
       FROM movement m JOIN place t ON t.id = m.to_place_id JOIN place f ON f.id = m.from_place_id
       WHERE m.item_id = ? AND NOT (t.site_id <=> f.site_id) AND (t.site_id = ? OR f.site_id = ?) GROUP BY m.task ORDER BY m.task`,
      [siteId, siteId, itemId, siteId, siteId],
    );
    const terms: WhyTerm[] = [];
    for (const sum of sums) {
      const units = num(sum.units);
      if (units === 0) continue;
      terms.push({
        sign: units < 0 ? '−' : terms.length === 0 ? '' : '+',
        term: TASK_WORDS[sum.task] ?? sum.task,
        units: Math.abs(units),
        documents: await this.documents(itemId, siteId, sum.task),
      });
    }
    const total = await one<{ on_hand: number }>(this.source, 'SELECT on_hand FROM site_stock WHERE site_id = ? AND item_id = ?', [
      siteId,
      itemId,
    ]);
    return [...terms, { sign: '=', term: 'On hand', units: total?.on_hand ?? 0, documents: [] }];
  }

  private async documents(itemId: number, siteId: number, task: string): Promise<string[]> {
    const found = await rows<{ document: string }>(
      this.source,
      `SELECT DISTINCT m.document FROM movement m JOIN place t ON t.id = m.to_place_id JOIN place f ON f.id = m.from_place_id
       WHERE m.item_id = ? AND m.task = ? AND m.document IS NOT NULL AND (t.site_id = ? OR f.site_id = ?) ORDER BY m.id DESC LIMIT ?`,
      [itemId, task, siteId, siteId, MOST_DOCUMENTS],
    );
    return found.map((d) => d.document);
  }

  /** What moved, newest first, a page at a time. */
  async movements(itemId: number, siteIds: readonly number[], before: number | null): Promise<MovementPageDto> {
    const found = await rows<MovementDto>(
      this.source,
      `SELECT m.id, m.server_at AS at, f.code AS \`from\`, t.code AS \`to\`, m.units, l.code AS lot, m.stock_condition AS \`condition\`, m.task, m.document, p.name AS who, m.how, m.reverses_id AS reverses, m.reason,
         (SELECT x.command_id FROM act_picture x WHERE x.command_id = m.command_id) AS picture
       FROM movement m JOIN place f ON f.id = m.from_place_id JOIN place t ON t.id = m.to_place_id
       LEFT JOIN lot l ON l.id = m.lot_id LEFT JOIN person p ON p.id = m.person_id
       WHERE m.item_id = ? AND m.id < ? AND (f.site_id IN (?) OR t.site_id IN (?)) ORDER BY m.id DESC LIMIT ?`,
      [itemId, before ?? Number.MAX_SAFE_INTEGER, [0, ...siteIds], [0, ...siteIds], PAGE],
    );
    return { rows: found, before: found.length === PAGE ? String(found.at(-1)?.id) : null };
  }
}
