import { ordersIn } from '@vectrum/core/orders';
import { hitBy, projectionOf } from '@vectrum/core/promise';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { addDays, badForm, daySpan, dayIn, isDay, notFound, num, one, promisedSql, rows, sqlList } from '../platform/index.js';
import type { HitDto, ProjectionDto, ProjectionFlowDto } from './order-desk.dto.js';

const LIVE = sqlList(ordersIn('live'));
/** What is to come on a day is counted on from the middle of it. */
const HALF_DAY_MS = 12 * 3_600_000;

interface Coming {
  siteId: number;
  itemId: number;
  at: number;
  units: number;
  document: string;
  who: string;
}
interface Going extends Coming {
  id: number;
  priority: number;
  placed: number;
}

/** What may be promised of an item over time, and whom it hits where goods come later than they should. */
@Injectable()
export class ProjectionQueries {
  constructor(private readonly source: DataSource) {}

  /** Stock, what comes and goes, and what may still be promised from each instant on, of an item at a site. */
  async of(sku: string, siteId: number): Promise<ProjectionDto> {
    const item = await one<{ id: number; name: string }>(this.source, 'SELECT id, name FROM item WHERE sku = ?', [sku]);
    if (!item) throw notFound(`Item ${sku}`);
    const now = Date.now();
    const [free, coming, going] = await Promise.all([
      this.free([item.id], siteId),
      this.coming([item.id], siteId),
      this.going([item.id], siteId),
    ]);
    const { steps } = projectionOf(now, free.get(item.id) ?? 0, coming, going);
    const flow = ({ at, units, document, who }: Coming, sign: 1 | -1): ProjectionFlowDto => ({
      at: new Date(Math.max(now, at)),
      units: sign * units,
      document,
      who,
    });
    return {
      sku,
      name: item.name,
      free: free.get(item.id) ?? 0,
      steps: steps.map((s) => ({ at: new Date(s.at), units: s.units })),
      flows: [...coming.map((c) => flow(c, 1)), ...going.map((g) => flow(g, -1))].sort((a, b) => a.at.getTime() - b.at.getTime()),
    };
  }

  /** The orders that are kept as things stand and would be broken if a purchase order came on another day; in turn, with when each could go. */
  async hits(code: string, on: string, siteIds: readonly number[]): Promise<HitDto[]> {
    if (!isDay(on)) throw badForm({ on: 'Choose a day' });
    const order = await one<{ id: number; siteId: number; zone: string }>(
      this.source,
      `SELECT o.id, o.site_id AS siteId, s.time_zone AS zone FROM purchase_order o JOIN site s ON s.id = o.site_id WHERE o.code = ? AND o.site_id IN (?) AND o.state IN ('placed','part-received')`,
      [code, [0, ...siteIds]],
    );
    if (!order) throw notFound(`An order ${code} that is still to come`);
    const lines = await rows<{ itemId: number }>(
      this.source,
      'SELECT DISTINCT item_id AS itemId FROM purchase_order_line WHERE order_id = ? AND open_units > 0',
      [order.id],
    );
    const items = lines.map((l) => l.itemId);
    if (items.length === 0) return [];
    const now = Date.now();
    const [free, coming, going] = await Promise.all([
      this.free(items, order.siteId),
      this.coming(items, order.siteId),
      this.going(items, order.siteId),
    ]);
    const later = daySpan(order.zone, on).from.getTime() + HALF_DAY_MS;
    const hit = new Map<number, number | null>();
    for (const itemId of items) {
      const own = <T extends { itemId: number }>(list: readonly T[]) => list.filter((x) => x.itemId === itemId);
      const moved = own(coming).map((c) => (c.document === code ? { ...c, at: later } : c));
      const promises = own(going).map((g) => ({ id: g.id, priority: g.priority, due: g.at, placed: g.placed, units: g.units }));
      for (const { id, freeAt } of hitBy(now, free.get(itemId) ?? 0, own(coming), moved, promises)) {
        const known = hit.get(id);
        hit.set(id, known === null || freeAt === null ? null : Math.max(known ?? 0, freeAt));
      }
    }
    return this.named(hit);
  }

  private async named(hit: ReadonlyMap<number, number | null>): Promise<HitDto[]> {
    if (hit.size === 0) return [];
    const found = await rows<{ id: number; code: string; customer: string; email: string; phone: string; promisedAt: Date }>(
      this.source,
      'SELECT id, code, customer, email, phone, promised_at AS promisedAt FROM sales_order WHERE id IN (?) ORDER BY promised_at, id',
      [[...hit.keys()]],
    );
    return found.map(({ id, ...o }) => {
      const freeAt = hit.get(id) ?? null;
      return { ...o, freeAt: freeAt === null ? null : new Date(freeAt) };
    });
  }

  /** What is free by now: what others hold is not there to be promised, and what lacks is counted when it is due. */
  private async free(items: readonly number[], siteId: number): Promise<Map<number, number>> {
    const found = await rows<{ itemId: number; units: string | number }>(
      this.source,
      'SELECT item_id AS itemId, CAST(on_hand AS SIGNED) - held - reserved AS units FROM site_stock WHERE site_id = ? AND item_id IN (?)',
      [siteId, items],
    );
    return new Map(found.map((f) => [f.itemId, num(f.units)]));
  }

  private async coming(items: readonly number[], siteId: number): Promise<Coming[]> {
    const found = await rows<{ itemId: number; document: string; on: string; who: string; units: string; zone: string }>(
      this.source,
      `SELECT l.item_id AS itemId, o.code AS document, o.expected_on AS \`on\`, s.name AS who, SUM(l.open_units) AS units, w.time_zone AS zone
       FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id JOIN supplier s ON s.id = o.supplier_id JOIN site w ON w.id = o.site_id
       WHERE l.item_id IN (?) AND o.site_id = ? AND o.state IN ('placed','part-received') AND l.open_units > 0 AND o.expected_on IS NOT NULL GROUP BY o.id, l.item_id`,
      [items, siteId],
    );
    return found.map(({ itemId, document, on, who, units, zone }) => {
      const today = dayIn(zone, new Date());
      // What should have been here is not: it is counted on for tomorrow.
      const day = on < today ? addDays(today, 1) : on;
      return { siteId, itemId, document, who, units: num(units), at: daySpan(zone, day).from.getTime() + HALF_DAY_MS };
    });
  }

  private async going(items: readonly number[], siteId: number): Promise<Going[]> {
    const found = await rows<{
      id: number;
      itemId: number;
      document: string;
      who: string;
      due: Date;
      placed: Date;
      priority: number;
      units: string;
    }>(
      this.source,
      `SELECT o.id, l.item_id AS itemId, o.code AS document, o.customer AS who, o.promised_at AS due, o.placed_at AS placed, o.priority, SUM(l.units - ${promisedSql('l')}) AS units
       FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id WHERE l.item_id IN (?) AND o.site_id = ? AND o.state IN ${LIVE} AND ${promisedSql('l')} < l.units GROUP BY o.id, l.item_id`,
      [items, siteId],
    );
    return found.map(({ due, placed, units, ...g }) => ({ ...g, siteId, at: due.getTime(), placed: placed.getTime(), units: num(units) }));
  }
}
