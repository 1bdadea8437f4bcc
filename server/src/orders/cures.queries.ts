import { kindsFor } from '@vectrum/core/places';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { notFound, num, one, promisedSql, rows, sqlList } from '../platform/index.js';
import { ComingQueries } from './coming.js';
import type { CureDto, LineCuresDto } from './orders.dto.js';

interface Line {
  line: number;
  itemId: number;
  wanted: number;
  /** Held at the site, and not sought by any round yet. */
  held: number;
  lacks: number;
}
interface Lying {
  itemId: number;
  siteId: number;
  site: string;
  place: string;
  kind: string;
  isPickable: number | string;
  condition: string;
  units: number | string;
}

const MOST_COMING = 20;
const SHELVES: ReadonlySet<string> = new Set(kindsFor('shelf'));

/** Why lines of an order cannot be picked yet, and what will cure it: what lies on the dock, in reserve, elsewhere, or is to come. */
@Injectable()
export class CuresQueries {
  constructor(
    private readonly source: DataSource,
    private readonly known: ComingQueries,
  ) {}

  async of(code: string, siteIds: readonly number[]): Promise<LineCuresDto[]> {
    const order = await one<{ id: number; siteId: number }>(
      this.source,
      'SELECT id, site_id AS siteId FROM sales_order WHERE code = ? AND site_id IN (?)',
      [code, [0, ...siteIds]],
    );
    if (!order) throw notFound(`Order ${code}`);
    const found = await rows<{ line: number; itemId: number; wanted: number; held: string | null; promised: string }>(
      this.source,
      `SELECT l.line, l.item_id AS itemId, l.units AS wanted, (SELECT SUM(v.units) FROM reservation v WHERE v.order_line_id = l.id AND v.place_id IS NULL) AS held, ${promisedSql('l')} AS promised
       FROM sales_order_line l WHERE l.order_id = ? AND l.item_id IS NOT NULL AND l.units > l.shipped_units ORDER BY l.line`,
      [order.id],
    );
    const lines = found.map((l): Line => ({ ...l, held: num(l.held), lacks: Math.max(0, l.wanted - num(l.promised)) }));
    const wanting = lines.filter((l) => l.held > 0 || l.lacks > 0);
    if (wanting.length === 0) return [];
    const items = [...new Set(wanting.map((l) => l.itemId))];
    const [lying, claims, coming] = await Promise.all([
      this.lying(items, siteIds),
      this.claims(items, order.siteId),
      this.coming(items, order.siteId),
    ]);
    return wanting.flatMap((line) => {
      const here = lying.filter((b) => b.itemId === line.itemId && b.siteId === order.siteId);
      const pickable = sum(here.filter((b) => num(b.isPickable) === 1 && b.condition === 'good')) - (claims.get(line.itemId) ?? 0);
      const cures = [
        ...this.toBring(here, Math.max(0, line.held - Math.max(0, pickable))),
        ...(line.lacks > 0 ? this.toCome(line, here, lying, order.siteId, coming) : []),
      ];
      return cures.length > 0 || line.lacks > 0 ? [{ line: line.line, lacks: line.lacks, cures }] : [];
    });
  }

  /** What is promised and lies where no picker goes. */
  private toBring(here: readonly Lying[], units: number): CureDto[] {
    const cures: CureDto[] = [];
    let need = units;
    for (const [kind, fits] of [
      ['put-away', (b: Lying) => !SHELVES.has(b.kind)],
      ['refill', (b: Lying) => SHELVES.has(b.kind)],
    ] as const)
      for (const b of here.filter((x) => num(x.isPickable) === 0 && x.condition === 'good' && fits(x))) {
        const part = Math.min(need, num(b.units));
        if (part > 0) cures.push({ kind, units: part, where: b.place, on: null });
        need -= part;
      }
    return cures;
  }

  /** What could fill what a line lacks. */
  private toCome(
    line: Line,
    here: readonly Lying[],
    lying: readonly Lying[],
    siteId: number,
    coming: readonly (CureDto & { itemId: number })[],
  ): CureDto[] {
    const doubted = here
      .filter((b) => b.condition === 'held' && SHELVES.has(b.kind))
      .map((b): CureDto => ({ kind: 'count', units: num(b.units), where: b.place, on: null }));
    const inspected = here
      .filter((b) => b.kind === 'inspection')
      .map((b): CureDto => ({ kind: 'inspect', units: num(b.units), where: b.place, on: null }));
    const elsewhere = new Map<string, number>();
    for (const b of lying)
      if (b.itemId === line.itemId && b.siteId !== siteId && b.condition === 'good')
        elsewhere.set(b.site, (elsewhere.get(b.site) ?? 0) + num(b.units));
    return [
      ...doubted,
      ...inspected,
      ...coming.filter((c) => c.itemId === line.itemId).map(({ itemId: _, ...c }) => c),
      ...[...elsewhere].map(([where, units]): CureDto => ({ kind: 'transfer', units, where, on: null })),
    ];
  }

  private lying(items: readonly number[], siteIds: readonly number[]): Promise<Lying[]> {
    return rows<Lying>(
      this.source,
      `SELECT b.item_id AS itemId, p.site_id AS siteId, s.name AS site, p.code AS place, p.kind, (p.pickable = 1 AND p.blocked = 0) AS isPickable, b.stock_condition AS \`condition\`, b.units
       FROM balance b JOIN place p ON p.id = b.place_id JOIN site s ON s.id = p.site_id WHERE b.item_id IN (?) AND b.bounded = 1 AND b.units > 0 AND p.site_id IN (?) AND p.kind NOT IN ${sqlList(['parcel', ...kindsFor('picked')])} ORDER BY p.walk_order, p.id`,
      [items, [0, ...siteIds]],
    );
  }

  /** What rounds already go for in bins of the site. */
  private async claims(items: readonly number[], siteId: number): Promise<Map<number, number>> {
    const found = await rows<{ itemId: number; units: string }>(
      this.source,
      `SELECT v.item_id AS itemId, SUM(v.units) AS units FROM reservation v JOIN place p ON p.id = v.place_id AND p.kind IN ${sqlList(kindsFor('shelf'))} WHERE v.item_id IN (?) AND v.site_id = ? GROUP BY v.item_id`,
      [items, siteId],
    );
    return new Map(found.map((c) => [c.itemId, num(c.units)]));
  }

  private async coming(items: readonly number[], siteId: number): Promise<(CureDto & { itemId: number })[]> {
    const [site] = await rows<{ id: number; timeZone: string }>(this.source, 'SELECT id, time_zone AS timeZone FROM site WHERE id = ?', [
      siteId,
    ]);
    const coming = site ? await this.known.comingTo([site], items, Date.now()) : [];
    return coming
      .sort((a, b) => a.at - b.at)
      .slice(0, MOST_COMING)
      .map(({ itemId, units, document, kind, on }) => ({
        itemId,
        kind: kind === 'order' ? 'arrival' : 'on-the-road',
        units,
        where: document,
        on,
      }));
  }
}

const sum = (lying: readonly Lying[]) => lying.reduce((n, b) => n + num(b.units), 0);
