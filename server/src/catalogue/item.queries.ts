import { Injectable } from '@nestjs/common';
import { buildable, lacking } from '@vectrum/core/catalogue';
import { DataSource } from 'typeorm';
import { marks, notFound, num, one, parsed, type Person, rows } from '../platform/index.js';
import type { ItemDto, ItemPartDto, ItemSiteDto, PackDto } from './items.dto.js';

interface ItemFactsRow {
  id: number;
  sku: string;
  name: string;
  className: string;
  kind: string;
  picture: string;
  pictureMark: string | null;
  tracking: string;
  rotation: string;
  storage: string;
  minLifeDays: number | null;
  taxCode: string | null;
  cost: string | null;
  bookedCost: string | null;
  labour: string | null;
  neverHoldsUp: number;
  scanEach: number;
  serialAtPacking: number;
  keepUpright: number;
  fragile: number;
  extra: unknown;
  lacksBarcode: number;
  lacksCost: number;
  lacksSize: number;
  version: number;
}

/** What a unit of an item costs in the books, over its pool `v`. */
export const BOOKED_COST = 'IF(v.units > 0, ROUND(v.value / v.units, 6), NULL) AS bookedCost';

/** Reads one item whole: its pack units, what it is at each site, its parts, what it lacks. */
@Injectable()
export class ItemQueries {
  constructor(private readonly source: DataSource) {}

  async idOf(sku: string): Promise<number> {
    const item = await one<{ id: number }>(this.source, 'SELECT id FROM item WHERE sku = ?', [sku]);
    if (!item) throw notFound(`Item ${sku}`);
    return item.id;
  }

  async sheet(person: Person, sku: string): Promise<ItemDto> {
    const item = await one<ItemFactsRow>(
      this.source,
      `SELECT i.id, i.sku, i.name, i.class AS className, i.kind, i.picture, p.mark AS pictureMark, i.tracking, i.rotation, i.storage, i.min_life_days AS minLifeDays, i.tax_code AS taxCode, i.cost, ${BOOKED_COST}, i.labour,
         i.never_holds_up AS neverHoldsUp, i.scan_each AS scanEach, i.serial_at_packing AS serialAtPacking, i.keep_upright AS keepUpright, i.fragile, i.extra, i.lacks_barcode AS lacksBarcode, i.lacks_cost AS lacksCost, i.lacks_size AS lacksSize, i.version
       FROM item i LEFT JOIN item_picture p ON p.item_id = i.id LEFT JOIN cost_pool v ON v.item_id = i.id WHERE i.sku = ?`,
      [sku],
    );
    if (!item) throw notFound(`Item ${sku}`);
    const [packs, sites, parts, tags, usedIn] = await Promise.all([
      this.packs([item.id]),
      this.sites(item.id, person),
      this.parts(item.id, person.siteIds),
      rows<{ tag: string }>(this.source, 'SELECT tag FROM item_tag WHERE item_id = ? ORDER BY tag', [item.id]),
      rows<{ sku: string }>(
        this.source,
        'SELECT i.sku FROM item_part p JOIN item i ON i.id = p.item_id WHERE p.part_item_id = ? ORDER BY i.sku',
        [item.id],
      ),
    ]);
    const { cost, bookedCost, labour, lacksBarcode, lacksCost, lacksSize, extra, ...rest } = item;
    return {
      ...rest,
      ...(person.seesCosts ? { cost, bookedCost, labour } : {}),
      extra: parsed<Record<string, string>>(extra),
      neverHoldsUp: item.neverHoldsUp === 1,
      scanEach: item.scanEach === 1,
      serialAtPacking: item.serialAtPacking === 1,
      keepUpright: item.keepUpright === 1,
      fragile: item.fragile === 1,
      packs: packs.get(item.id) ?? [],
      sites,
      parts,
      tags: tags.map((t) => t.tag),
      usedIn: usedIn.map((u) => u.sku),
      buildable: item.kind === 'single' ? null : buildable(parts),
      lacks: lacking({ barcode: lacksBarcode === 0, cost: lacksCost === 0, size: lacksSize === 0 }),
    };
  }

  private async sites(itemId: number, person: Person): Promise<ItemSiteDto[]> {
    const found = await rows<ItemSiteDto & { cost: string | null }>(
      this.source,
      `SELECT s.id AS siteId, s.name AS site, p.code AS home, x.cost, x.reorder_point AS reorderPoint, x.order_up_to AS orderUpTo, x.refill_below AS refillBelow, x.refill_up_to AS refillUpTo
       FROM site s LEFT JOIN item_site x ON x.site_id = s.id AND x.item_id = ? LEFT JOIN place p ON p.id = x.home_place_id WHERE s.id IN (?) ORDER BY s.id`,
      [itemId, [0, ...person.siteIds]],
    );
    return found.map(({ cost, ...s }) => ({ ...s, ...(person.seesCosts ? { cost } : {}) }));
  }

  private async parts(itemId: number, siteIds: readonly number[]): Promise<ItemPartDto[]> {
    const found = await rows<Omit<ItemPartDto, 'available'> & { available: string }>(
      this.source,
      `SELECT i.sku, i.name, p.units, IF(p.units = 1, u.name, u.plural) AS unit, COALESCE(SUM(s.on_hand - s.held - s.reserved), 0) AS available
       FROM item_part p JOIN item i ON i.id = p.part_item_id JOIN pack_unit u ON u.item_id = i.id AND u.factor = 1
       LEFT JOIN site_stock s ON s.item_id = i.id AND s.site_id IN (?) WHERE p.item_id = ? GROUP BY i.id ORDER BY i.sku`,
      [[0, ...siteIds], itemId],
    );
    return found.map((p) => ({ ...p, available: num(p.available) }));
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
