import { hitBy, projectionOf } from '@vectrum/core/promise';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { type Coming, ComingQueries } from '../orders/index.js';
import { badForm, daySpan, isDay, notFound, one, rows } from '../platform/index.js';
import type { HitDto, ProjectionDto, ProjectionFlowDto } from './order-desk.dto.js';

const HALF_DAY_MS = 12 * 3_600_000;

/** What may be promised of an item over time, and whom it hits where goods come later than they should. */
@Injectable()
export class ProjectionQueries {
  constructor(
    private readonly source: DataSource,
    private readonly known: ComingQueries,
  ) {}

  /** Stock, what comes and goes, and what may still be promised from each instant on, of an item at a site. */
  async of(sku: string, siteId: number): Promise<ProjectionDto> {
    const item = await one<{ id: number; name: string }>(this.source, 'SELECT id, name FROM item WHERE sku = ?', [sku]);
    if (!item) throw notFound(`Item ${sku}`);
    const now = Date.now();
    const { free, coming, going } = await this.all([item.id], siteId, now);
    const { steps } = projectionOf(now, free(siteId, item.id), coming, going);
    const flow = ({ at, units, document, who }: Pick<Coming, 'at' | 'units' | 'document' | 'who'>, sign: 1 | -1): ProjectionFlowDto => ({
      at: new Date(Math.max(now, at)),
      units: sign * units,
      document,
      who,
    });
    return {
      sku,
      name: item.name,
      free: free(siteId, item.id),
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
    const { free, coming, going } = await this.all(items, order.siteId, now);
    const later = daySpan(order.zone, on).from.getTime() + HALF_DAY_MS;
    const hit = new Map<number, number | null>();
    for (const itemId of items) {
      const own = <T extends { itemId: number }>(list: readonly T[]) => list.filter((x) => x.itemId === itemId);
      const moved = own(coming).map((c) => (c.document === code ? { ...c, at: later } : c));
      const promises = own(going).map((g) => ({
        id: g.orderId ?? 0,
        priority: g.priority,
        due: g.at,
        placed: g.placed.getTime(),
        units: g.units,
      }));
      for (const { id, freeAt } of hitBy(now, free(order.siteId, itemId), own(coming), moved, promises)) {
        // A transfer or an assembly was promised nothing.
        if (id === 0) continue;
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

  private async all(items: readonly number[], siteId: number, now: number) {
    const sites = await rows<{ id: number; timeZone: string }>(this.source, 'SELECT id, time_zone AS timeZone FROM site WHERE id = ?', [
      siteId,
    ]);
    const [free, coming, going] = await Promise.all([
      this.known.freeAt([siteId], items),
      this.known.comingTo(sites, items, now),
      this.known.goingFrom([siteId], items, now),
    ]);
    return { free, coming, going: going.map((g) => ({ ...g, at: g.due.getTime() })) };
  }
}
