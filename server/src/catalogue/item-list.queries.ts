import { Injectable } from '@nestjs/common';
import { lacking } from '@vectrum/core/catalogue';
import { DataSource } from 'typeorm';
import { marks, num, one, parsed, type Person, rows } from '../platform/index.js';
import {
  isNarrowed,
  itemOrder,
  itemWhere,
  type ItemFilter,
  type ItemState,
  type Piece,
  sitesOf,
  sortOf,
  STOCK_SORTS,
} from './item-filter.js';
import type { ItemChoicesDto, ItemCountsDto, ItemPageDto, ItemRowDto } from './items.dto.js';
import { BOOKED_COST } from './item.queries.js';

interface Row {
  id: number;
  sku: string;
  name: string;
  className: string;
  kind: string;
  picture: string;
  pictureMark: string | null;
  tracking: string;
  unit: string;
  units: string;
  tags: string | null;
  suppliers: string | null;
  home: string | null;
  cost: string | null;
  bookedCost: string | null;
  onHand: string;
  held: string;
  reserved: string;
  incoming: string;
  lacksBarcode: number;
  lacksCost: number;
  lacksSize: number;
  version: number;
  extra: unknown;
  isStocked: number;
}

/** The list of items, a window at a time: made for 50,000 of them. */
@Injectable()
export class ItemListQueries {
  constructor(private readonly source: DataSource) {}

  /** Rows `from` to `from + limit` of the filtered list. The ids of the window are found first, from indexes; then only they are read. */
  async page(person: Person, filter: ItemFilter, sort: string | undefined, from: number, limit: number): Promise<ItemPageDto> {
    const sites = sitesOf(filter, person.siteIds);
    const counted = this.count(person, filter);
    // Nothing free is found only by looking at every item, so that it is not looked for where there is none.
    const asked =
      filter.state === 'short'
        ? counted.then((n) => (n > from ? this.window(person, filter, sort, from, limit) : []))
        : this.window(person, filter, sort, from, limit);
    const [ids, total] = await Promise.all([asked, counted]);
    return { rows: await this.rowsOf(ids, sites, person.seesCosts), total };
  }

  private async window(person: Person, filter: ItemFilter, sort: string | undefined, from: number, limit: number): Promise<number[]> {
    const where = itemWhere(filter, person.siteIds);
    const { key, down } = sortOf(sort);
    const figure = Object.hasOwn(STOCK_SORTS, key) ? STOCK_SORTS[key] : undefined;
    if (figure) return this.windowByStock(where, figure, down, sitesOf(filter, person.siteIds), from, limit);
    const order = itemOrder(sort, person.seesCosts);
    const found = await rows<{ id: number }>(this.source, `SELECT i.id FROM item i WHERE ${where.sql} ORDER BY ${order} LIMIT ? OFFSET ?`, [
      ...where.params,
      limit,
      from,
    ]);
    return found.map((r) => r.id);
  }

  /**
   * A window of the list by stock. Items that ever had stock are summed from an index; those that never had any have nought,
   * which is the least there can be, and stand as one block behind them (or before them, from the least up).
   */
  private async windowByStock(
    where: Piece,
    figure: string,
    down: boolean,
    siteIds: readonly number[],
    from: number,
    limit: number,
  ): Promise<number[]> {
    const sites = [0, ...siteIds];
    const join = where.sql === '1 = 1' ? '' : 'JOIN item i ON i.id = f.item_id';
    const stocked = (offset: number, n: number) =>
      rows<{ id: number }>(
        this.source,
        `SELECT f.item_id AS id FROM site_stock f ${join} WHERE f.site_id IN (?) AND ${where.sql} GROUP BY f.item_id ORDER BY ${figure} ${down ? 'DESC' : ''}, f.item_id LIMIT ? OFFSET ?`,
        [sites, ...where.params, n, offset],
      );
    const never = (offset: number, n: number) =>
      rows<{ id: number }>(
        this.source,
        `SELECT i.id FROM item i WHERE ${where.sql} AND NOT EXISTS (SELECT 1 FROM site_stock f WHERE f.item_id = i.id AND f.site_id IN (?)) ORDER BY i.id LIMIT ? OFFSET ?`,
        [...where.params, sites, n, offset],
      );
    const counted = one<{ n: string }>(
      this.source,
      `SELECT COUNT(DISTINCT f.item_id) AS n FROM site_stock f ${join} WHERE f.site_id IN (?) AND ${where.sql}`,
      [sites, ...where.params],
    ).then((r) => num(r?.n));
    if (down) {
      const [head, held] = await Promise.all([stocked(from, limit), counted]);
      const tail = head.length < limit ? await never(Math.max(0, from - held), limit - head.length) : [];
      return [...head, ...tail].map((r) => r.id);
    }
    const first = (await this.countWhere(where)) - (await counted);
    const head = from < first ? await never(from, Math.min(limit, first - from)) : [];
    const tail = head.length < limit ? await stocked(Math.max(0, from - first), limit - head.length) : [];
    return [...head, ...tail].map((r) => r.id);
  }

  /** How many items each state would show under the same filter. */
  async counts(person: Person, filter: ItemFilter): Promise<ItemCountsDto> {
    const of = (state: ItemState) => this.count(person, { ...filter, state });
    const [all, short, reorder, backordered, incomplete, noBarcode] = await Promise.all(
      (['all', 'short', 'reorder', 'backordered', 'incomplete', 'no-barcode'] as const).map(of),
    );
    return {
      all: all ?? 0,
      short: short ?? 0,
      reorder: reorder ?? 0,
      backordered: backordered ?? 0,
      incomplete: incomplete ?? 0,
      noBarcode: noBarcode ?? 0,
    };
  }

  /** What the list can be narrowed to. */
  async choices(): Promise<ItemChoicesDto> {
    const [classes, tags, suppliers] = await Promise.all([
      rows<{ word: string }>(this.source, `SELECT DISTINCT class AS word FROM item WHERE class <> '' ORDER BY class LIMIT 500`),
      rows<{ word: string }>(this.source, 'SELECT DISTINCT tag AS word FROM item_tag ORDER BY tag LIMIT 500'),
      rows<{ word: string }>(this.source, 'SELECT code AS word FROM supplier ORDER BY code LIMIT 500'),
    ]);
    const words = (list: { word: string }[]) => list.map((r) => r.word);
    return { classes: words(classes), tags: words(tags), suppliers: words(suppliers) };
  }

  private async count(person: Person, filter: ItemFilter): Promise<number> {
    if (filter.state !== 'short' || isNarrowed(filter)) return this.countWhere(itemWhere(filter, person.siteIds));
    // Of all that ever had stock, those with something free are counted from an index, and the others are the rest.
    const [all, free] = await Promise.all([
      one<{ n: string }>(this.source, 'SELECT COUNT(DISTINCT item_id) AS n FROM site_stock WHERE site_id IN (?)', [
        [0, ...person.siteIds],
      ]).then((r) => num(r?.n)),
      one<{ n: string }>(
        this.source,
        'SELECT COUNT(DISTINCT item_id) AS n FROM site_stock WHERE site_id IN (?) AND on_hand > held + reserved',
        [[0, ...person.siteIds]],
      ),
    ]);
    return all - num(free?.n);
  }

  private async countWhere(where: Piece): Promise<number> {
    return num((await one<{ n: string }>(this.source, `SELECT COUNT(*) AS n FROM item i WHERE ${where.sql}`, where.params))?.n);
  }

  private async rowsOf(ids: readonly number[], siteIds: readonly number[], seesCosts: boolean): Promise<ItemRowDto[]> {
    if (ids.length === 0) return [];
    const inList = marks(ids);
    const sites = [0, ...siteIds];
    const found = await rows<Row>(
      this.source,
      `SELECT i.id, i.sku, i.name, i.class AS className, i.kind, i.picture, pic.mark AS pictureMark, i.tracking, u.name AS unit, u.plural AS units, i.cost, ${BOOKED_COST}, i.version, i.extra, st.item_id IS NOT NULL AS isStocked,
         i.lacks_barcode AS lacksBarcode, i.lacks_cost AS lacksCost, i.lacks_size AS lacksSize,
         COALESCE(st.on_hand, 0) AS onHand, COALESCE(st.held, 0) AS held, COALESCE(st.reserved, 0) AS reserved, COALESCE(inc.units, 0) AS incoming,
         (SELECT GROUP_CONCAT(t.tag ORDER BY t.tag SEPARATOR '\n') FROM item_tag t WHERE t.item_id = i.id) AS tags,
         (SELECT GROUP_CONCAT(s.name ORDER BY s.name SEPARATOR ', ') FROM supplier_item si JOIN supplier s ON s.id = si.supplier_id WHERE si.item_id = i.id) AS suppliers,
         (SELECT p.code FROM item_site h JOIN place p ON p.id = h.home_place_id WHERE h.item_id = i.id AND h.site_id IN (?) ORDER BY h.site_id LIMIT 1) AS home
       FROM item i JOIN pack_unit u ON u.item_id = i.id AND u.factor = 1 LEFT JOIN item_picture pic ON pic.item_id = i.id LEFT JOIN cost_pool v ON v.item_id = i.id
       LEFT JOIN (SELECT item_id, SUM(on_hand) AS on_hand, SUM(held) AS held, SUM(reserved) AS reserved FROM site_stock WHERE site_id IN (?) AND item_id IN (${inList}) GROUP BY item_id) st ON st.item_id = i.id
       LEFT JOIN (SELECT c.item_id, SUM(c.units) AS units FROM
                    (SELECT l.item_id, l.open_units AS units FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id
                     WHERE o.state IN ('placed','part-received') AND o.site_id IN (?) AND l.item_id IN (${inList})
                     UNION ALL SELECT g.item_id, g.units - g.received_units - g.lost_units FROM transfer_goods g JOIN transfer t ON t.id = g.transfer_id
                     WHERE t.state IN ('on-the-road','arriving') AND t.to_site_id IN (?) AND g.item_id IN (${inList})) c GROUP BY c.item_id) inc ON inc.item_id = i.id
       WHERE i.id IN (${inList})`,
      [sites, sites, ...ids, sites, ...ids, sites, ...ids, ...ids],
    );
    const byId = new Map(found.map((r) => [r.id, rowDto(r, seesCosts)]));
    return ids.flatMap((id) => byId.get(id) ?? []);
  }
}

function rowDto({ cost, bookedCost, lacksBarcode, lacksCost, lacksSize, extra, isStocked, ...r }: Row, seesCosts: boolean): ItemRowDto {
  const [onHand, held, reserved] = [num(r.onHand), num(r.held), num(r.reserved)];
  return {
    ...r,
    ...(seesCosts ? { cost, bookedCost } : {}),
    tags: r.tags ? r.tags.split('\n') : [],
    suppliers: r.suppliers ?? '',
    onHand,
    held,
    reserved,
    available: onHand - held - reserved,
    incoming: num(r.incoming),
    isStocked: num(isStocked) === 1,
    extra: extra === null ? {} : parsed<Record<string, string>>(extra),
    lacks: lacking({ barcode: lacksBarcode === 0, cost: lacksCost === 0, size: lacksSize === 0 }),
  };
}
