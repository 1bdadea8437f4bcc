import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { notFound, num, one, rows } from '../platform/index.js';
import type { PlaceDto, PlacePageDto, PlaceSheetDto, PlaceStockDto, ZoneDto } from './sites.dto.js';

type Row = Omit<PlaceDto, 'pickable' | 'blocked' | 'fixedOrder' | 'items'> & {
  pickable: number;
  blocked: number;
  fixedOrder: number;
  items: string;
};
const dto = (r: Row): PlaceDto => ({
  ...r,
  pickable: r.pickable === 1,
  blocked: r.blocked === 1,
  fixedOrder: r.fixedOrder === 1,
  items: num(r.items),
});
const FIELDS = `p.id, p.site_id AS siteId, s.name AS site, p.code, p.kind, p.pickable, p.blocked, z.code AS zone, p.walk_order AS walkOrder, p.fixed_order AS fixedOrder, p.holds_ml AS holdsMl, p.holds_g AS holdsG, p.version,
  (SELECT COUNT(*) FROM balance b WHERE b.place_id = p.id AND b.units > 0) AS items`;
const FROM = `place p JOIN site s ON s.id = p.site_id LEFT JOIN place z ON z.id = p.parent_id AND z.kind = 'zone'`;
const SHOWN = `p.kind NOT IN ('site','zone','parcel')`;
const ORDERS: Readonly<Record<string, string>> = {
  walk: 'p.site_id, p.walk_order, p.code',
  code: 'p.code',
  '-code': 'p.code DESC',
};

export interface PlaceFilter {
  search?: string;
  kind?: string;
  siteId?: number;
  zone?: string;
  /** `free`, `used`, `blocked` or everything. */
  state?: string;
  sort?: string;
}

/** Reads places: the list, a window at a time; one with what lies there; the zones. */
@Injectable()
export class PlacesQueries {
  constructor(private readonly source: DataSource) {}

  async page(siteIds: readonly number[], filter: PlaceFilter, from: number, limit: number): Promise<PlacePageDto> {
    const where = [`p.site_id IN (?)`, SHOWN];
    const params: unknown[] = [[0, ...siteIds]];
    const add = (sql: string, ...values: unknown[]) => {
      where.push(sql);
      params.push(...values);
    };
    if (filter.search) add('p.code LIKE ?', `${filter.search.replace(/[\\%_]/g, '\\$&')}%`);
    if (filter.kind) add('p.kind = ?', filter.kind);
    if (filter.siteId) add('p.site_id = ?', filter.siteId);
    if (filter.zone) add(`p.parent_id = (SELECT id FROM place WHERE kind = 'zone' AND code = ?)`, filter.zone);
    if (filter.state === 'blocked') add('p.blocked = 1');
    if (filter.state === 'free') add('NOT EXISTS (SELECT 1 FROM balance b WHERE b.place_id = p.id AND b.units > 0)');
    if (filter.state === 'used') add('EXISTS (SELECT 1 FROM balance b WHERE b.place_id = p.id AND b.units > 0)');
    const sql = where.join(' AND ');
    const order = ORDERS[filter.sort !== undefined && Object.hasOwn(ORDERS, filter.sort) ? filter.sort : 'walk'];
    const [found, total] = await Promise.all([
      rows<Row>(
        this.source,
        `SELECT ${FIELDS} FROM (SELECT p.id FROM place p WHERE ${sql} ORDER BY ${order} LIMIT ? OFFSET ?) w JOIN ${FROM.replace('place p', 'place p ON p.id = w.id')} ORDER BY ${order}`,
        [...params, limit, from],
      ),
      one<{ n: string }>(this.source, `SELECT COUNT(*) AS n FROM place p WHERE ${sql}`, params),
    ]);
    return { rows: found.map(dto), total: num(total?.n) };
  }

  async sheet(siteIds: readonly number[], code: string): Promise<PlaceSheetDto> {
    const found = await one<Row & { aisle: string | null; x: string | null; y: string | null; ml: string | null; g: string | null }>(
      this.source,
      `SELECT ${FIELDS}, a.label AS aisle, p.x_m AS x, p.y_m AS y,
         (SELECT SUM(b.units * u.length_mm * u.width_mm * u.height_mm / 1000) FROM balance b JOIN pack_unit u ON u.item_id = b.item_id AND u.factor = 1 WHERE b.place_id = p.id AND b.units > 0) AS ml,
         (SELECT SUM(b.units * u.weight_g) FROM balance b JOIN pack_unit u ON u.item_id = b.item_id AND u.factor = 1 WHERE b.place_id = p.id AND b.units > 0) AS g
       FROM ${FROM} LEFT JOIN plan_shape a ON a.id = p.aisle_id WHERE p.code = ? AND p.site_id IN (?)`,
      [code, [0, ...siteIds]],
    );
    if (!found) throw notFound(`Place ${code}`);
    const stock = await rows<PlaceStockDto>(
      this.source,
      `SELECT b.item_id AS itemId, b.lot_id AS lotId, i.sku, i.name, i.picture, l.code AS lot, b.stock_condition AS \`condition\`, b.units FROM balance b JOIN item i ON i.id = b.item_id LEFT JOIN lot l ON l.id = b.lot_id
       WHERE b.place_id = ? AND b.units > 0 ORDER BY i.name`,
      [found.id],
    );
    const { ml, g, x, y, ...rest } = found;
    const shares = [found.holdsMl ? num(ml) / found.holdsMl : null, found.holdsG ? num(g) / found.holdsG : null].filter((s) => s !== null);
    return {
      ...dto(rest),
      aisle: found.aisle,
      x: x === null ? null : num(x),
      y: y === null ? null : num(y),
      fullPercent: shares.length === 0 ? null : Math.round(Math.max(...shares) * 100),
      stock,
    };
  }

  async zones(siteIds: readonly number[]): Promise<ZoneDto[]> {
    const found = await rows<Omit<ZoneDto, 'bins'> & { bins: string }>(
      this.source,
      `SELECT z.code, z.name, z.rule, z.site_id AS siteId, z.version, (SELECT COUNT(*) FROM place p WHERE p.parent_id = z.id) AS bins FROM place z WHERE z.kind = 'zone' AND z.site_id IN (?) ORDER BY z.code`,
      [[0, ...siteIds]],
    );
    return found.map((z) => ({ ...z, bins: num(z.bins) }));
  }
}
