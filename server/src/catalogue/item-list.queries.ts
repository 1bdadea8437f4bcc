import { Injectable } from '@nestjs/common';
import { lacking } from '@vectrum/core/catalogue';
import { DataSource } from 'typeorm';
import type { Person } from '../platform/act.js';
import { marks, num, one, rows } from '../platform/database/tx.js';
import { itemOrder, itemWhere, sitesOf, stockJoin, type ItemFilter, type ItemState } from './item-filter.js';
import type { ItemChoicesDto, ItemCountsDto, ItemPageDto, ItemRowDto } from './items.dto.js';

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
  onHand: string;
  held: string;
  reserved: string;
  incoming: string;
  lacksBarcode: number;
  lacksCost: number;
  lacksSize: number;
  version: number;
}

/** The list of items, a window at a time: made for 50,000 of them. */
@Injectable()
export class ItemListQueries {
  constructor(private readonly source: DataSource) {}

  /** Rows `from` to `from + limit` of the filtered list. The ids of the window are found first, from indexes; then only they are read. */
  async page(person: Person, filter: ItemFilter, sort: string | undefined, from: number, limit: number): Promise<ItemPageDto> {
    const where = itemWhere(filter, person.siteIds);
    const order = itemOrder(sort, person.seesCosts);
    const sites = sitesOf(filter, person.siteIds);
    const join = order.byStock ? stockJoin(sites) : { sql: '', params: [] };
    const [ids, total] = await Promise.all([
      rows<{ id: number }>(this.source, `SELECT i.id FROM item i ${join.sql} WHERE ${where.sql} ORDER BY ${order.sql} LIMIT ? OFFSET ?`, [
        ...join.params,
        ...where.params,
        limit,
        from,
      ]),
      this.count(where),
    ]);
    return {
      rows: await this.rowsOf(
        ids.map((r) => r.id),
        sites,
        person.seesCosts,
      ),
      total,
    };
  }

  /** How many items each state would show under the same filter. */
  async counts(person: Person, filter: ItemFilter): Promise<ItemCountsDto> {
    const of = (state: ItemState) => this.count(itemWhere({ ...filter, state }, person.siteIds));
    const [all, short, backordered, incomplete, noBarcode] = await Promise.all(
      (['all', 'short', 'backordered', 'incomplete', 'no-barcode'] as const).map(of),
    );
    return { all: all ?? 0, short: short ?? 0, backordered: backordered ?? 0, incomplete: incomplete ?? 0, noBarcode: noBarcode ?? 0 };
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

  private async count(where: { sql: string; params: unknown[] }): Promise<number> {
    return num((await one<{ n: string }>(this.source, `SELECT COUNT(*) AS n FROM item i WHERE ${where.sql}`, where.params))?.n);
  }

  private async rowsOf(ids: readonly number[], siteIds: readonly number[], seesCosts: boolean): Promise<ItemRowDto[]> {
    if (ids.length === 0) return [];
    const inList = marks(ids);
    const sites = [0, ...siteIds];
    const found = await rows<Row>(
      this.source,
      `SELECT i.id, i.sku, i.name, i.class AS className, i.kind, i.picture, pic.mark AS pictureMark, i.tracking, u.name AS unit, u.plural AS units, i.cost, i.version,
         i.lacks_barcode AS lacksBarcode, i.lacks_cost AS lacksCost, i.lacks_size AS lacksSize,
         COALESCE(st.on_hand, 0) AS onHand, COALESCE(st.held, 0) AS held, COALESCE(st.reserved, 0) AS reserved, COALESCE(inc.units, 0) AS incoming,
         (SELECT GROUP_CONCAT(t.tag ORDER BY t.tag SEPARATOR '\n') FROM item_tag t WHERE t.item_id = i.id) AS tags,
         (SELECT GROUP_CONCAT(s.name ORDER BY s.name SEPARATOR ', ') FROM supplier_item si JOIN supplier s ON s.id = si.supplier_id WHERE si.item_id = i.id) AS suppliers,
         (SELECT p.code FROM item_site h JOIN place p ON p.id = h.home_place_id WHERE h.item_id = i.id AND h.site_id IN (?) ORDER BY h.site_id LIMIT 1) AS home
       FROM item i JOIN pack_unit u ON u.item_id = i.id AND u.factor = 1 LEFT JOIN item_picture pic ON pic.item_id = i.id
       LEFT JOIN (SELECT item_id, SUM(on_hand) AS on_hand, SUM(held) AS held, SUM(reserved) AS reserved FROM site_stock WHERE site_id IN (?) AND item_id IN (${inList}) GROUP BY item_id) st ON st.item_id = i.id
       LEFT JOIN (SELECT l.item_id, SUM(GREATEST(0, CAST(l.packs * l.factor AS SIGNED) - CAST(l.received_units AS SIGNED))) AS units
                  FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id
                  WHERE o.state IN ('placed','part-received') AND o.site_id IN (?) AND l.item_id IN (${inList}) GROUP BY l.item_id) inc ON inc.item_id = i.id
       WHERE i.id IN (${inList})`,
      [sites, sites, ...ids, sites, ...ids, ...ids],
    );
    const byId = new Map(found.map((r) => [r.id, rowDto(r, seesCosts)]));
    return ids.flatMap((id) => byId.get(id) ?? []);
  }
}

function rowDto({ cost, lacksBarcode, lacksCost, lacksSize, ...r }: Row, seesCosts: boolean): ItemRowDto {
  const [onHand, held, reserved] = [num(r.onHand), num(r.held), num(r.reserved)];
  return {
    ...r,
    ...(seesCosts ? { cost } : {}),
    tags: r.tags ? r.tags.split('\n') : [],
    suppliers: r.suppliers ?? '',
    onHand,
    held,
    reserved,
    available: onHand - held - reserved,
    incoming: num(r.incoming),
    lacks: lacking({ barcode: lacksBarcode === 0, cost: lacksCost === 0, size: lacksSize === 0 }),
  };
}
