import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { marks, num, one, rows } from '../platform/database/tx.js';
import { notFound } from '../platform/problem.js';
import type { ItemDto, ItemRowDto, PackDto } from './catalogue.dto.js';

const MOST = 500;

interface ItemFactsRow {
  id: number;
  sku: string;
  name: string;
  className: string;
  picture: string;
  tracking: string;
  rotation: string;
  cost: string | null;
  neverHoldsUp: number;
  home: string | null;
  version: number;
}

/** Reads items, their pack units and what they lack. */
@Injectable()
export class ItemQueries {
  constructor(private readonly source: DataSource) {}

  async list(siteIds: readonly number[], search: string): Promise<ItemRowDto[]> {
    const like = `%${search.replace(/[\\%_]/g, '\\$&')}%`;
    const found = await rows<{
      id: number;
      sku: string;
      name: string;
      className: string;
      picture: string;
      unit: string;
      units: string;
      cost: string | null;
      onHand: string;
      reserved: string;
      held: string;
      incoming: string;
      bare: string;
      unsized: string;
    }>(
      this.source,
      `SELECT i.id, i.sku, i.name, i.class AS className, i.picture, u.name AS unit, u.plural AS units, i.cost,
         COALESCE(st.on_hand, 0) AS onHand, COALESCE(st.reserved, 0) AS reserved, COALESCE(st.held, 0) AS held, COALESCE(inc.units, 0) AS incoming,
         (SELECT COUNT(*) FROM barcode b JOIN pack_unit q ON q.id = b.pack_unit_id WHERE q.item_id = i.id) = 0 AS bare,
         (u.weight_g IS NULL OR u.length_mm IS NULL) AS unsized
       FROM item i JOIN pack_unit u ON u.item_id = i.id AND u.factor = 1
       LEFT JOIN (SELECT item_id, SUM(on_hand) AS on_hand, SUM(reserved) AS reserved, SUM(held) AS held FROM site_stock WHERE site_id IN (?) GROUP BY item_id) st ON st.item_id = i.id
       LEFT JOIN (SELECT l.item_id, SUM(GREATEST(0, CAST(l.packs * l.factor AS SIGNED) - CAST(l.received_units AS SIGNED))) AS units FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id
                  WHERE o.state IN ('placed','part-received') AND o.site_id IN (?) GROUP BY l.item_id) inc ON inc.item_id = i.id
       WHERE i.name LIKE ? OR i.sku LIKE ? OR i.class LIKE ? ORDER BY i.class, i.name LIMIT ?`,
      [[0, ...siteIds], [0, ...siteIds], like, like, like, MOST],
    );
    return found.map((r) => ({
      sku: r.sku,
      name: r.name,
      className: r.className,
      picture: r.picture,
      unit: r.unit,
      units: r.units,
      onHand: num(r.onHand),
      reserved: num(r.reserved),
      available: num(r.onHand) - num(r.held) - num(r.reserved),
      incoming: num(r.incoming),
      lacks: lacking(num(r.bare) === 1, r.cost, num(r.unsized) === 1),
    }));
  }

  async sheet(sku: string, seesCosts: boolean): Promise<ItemDto> {
    const item = await one<ItemFactsRow>(
      this.source,
      `SELECT i.id, i.sku, i.name, i.class AS className, i.picture, i.tracking, i.rotation, i.cost, i.never_holds_up AS neverHoldsUp, p.code AS home, i.version
       FROM item i LEFT JOIN place p ON p.id = i.home_place_id WHERE i.sku = ?`,
      [sku],
    );
    if (!item) throw notFound(`Item ${sku}`);
    const packs = (await this.packs([item.id])).get(item.id) ?? [];
    const base = packs.find((p) => p.factor === 1);
    const { cost, ...rest } = item;
    return {
      ...rest,
      ...(seesCosts ? { cost } : {}),
      neverHoldsUp: item.neverHoldsUp === 1,
      packs,
      lacks: lacking(
        packs.every((p) => p.barcodes.length === 0),
        cost,
        base?.weightG === null || base?.lengthMm === null,
      ),
    };
  }

  /** Pack units with their barcodes, largest first, by item. */
  async packs(itemIds: readonly number[]): Promise<Map<number, PackDto[]>> {
    const found = await rows<Omit<PackDto, 'barcodes'> & { itemId: number; codes: string | null }>(
      this.source,
      `SELECT u.id, u.item_id AS itemId, u.name, u.plural, u.factor, u.weight_g AS weightG, u.length_mm AS lengthMm, u.width_mm AS widthMm, u.height_mm AS heightMm,
         GROUP_CONCAT(b.code ORDER BY b.id SEPARATOR '\n') AS codes
       FROM pack_unit u LEFT JOIN barcode b ON b.pack_unit_id = u.id WHERE u.item_id IN (${marks(itemIds)}) GROUP BY u.id ORDER BY u.factor DESC`,
      [...itemIds],
    );
    const byItem = new Map<number, PackDto[]>();
    for (const { itemId, codes, ...pack } of found) {
      byItem.set(itemId, [...(byItem.get(itemId) ?? []), { ...pack, barcodes: codes ? codes.split('\n') : [] }]);
    }
    return byItem;
  }
}

function lacking(bare: boolean, cost: string | null, unsized: boolean): string[] {
  return [...(bare ? ['barcode'] : []), ...(cost === null ? ['cost'] : []), ...(unsized ? ['size or weight'] : [])];
}
