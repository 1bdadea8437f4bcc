import { Injectable } from '@nestjs/common';
import type { ItemFacts, PlaceFacts } from '@vectrum/core/scan';
import { marks, prepared, type Tx } from '../platform/index.js';

interface PackRow {
  id: number;
  item_id: number;
  name: string;
  plural: string;
  factor: number;
}

/** Items and places as the floor's rules see them: what phones check scans against, and the server again. */
@Injectable()
export class CodebookQueries {
  /** One item, as the rules see it. */
  async item(tx: Pick<Tx, 'query'>, siteId: number, itemId: number): Promise<ItemFacts | undefined> {
    return (await this.items(tx, siteId, [itemId]))[itemId];
  }

  /** One place that may be scanned at a site. */
  async place(tx: Pick<Tx, 'query'>, siteId: number, placeId: number): Promise<PlaceFacts | undefined> {
    return (await this.places(tx, siteId, [placeId]))[0];
  }

  /** Places that people scan at a site, all or those named; docks and totes of other sites too, to be told apart. */
  places(tx: Pick<Tx, 'query'>, siteId: number, placeIds?: readonly number[]): Promise<PlaceFacts[]> {
    return prepared<PlaceFacts[]>(
      tx,
      `SELECT p.id, p.code, p.kind, p.site_id AS siteId, COALESCE(z.rule, 'none') AS rule FROM place p LEFT JOIN place z ON z.id = p.parent_id AND z.kind = 'zone'
       WHERE p.site_id IS NOT NULL AND p.blocked = 0 AND p.kind NOT IN ('site','zone','parcel') AND (p.site_id = ? OR p.kind IN ('dock','tote'))${placeIds ? ` AND p.id IN (${marks(placeIds)})` : ''}`,
      [siteId, ...(placeIds ?? [])],
    );
  }

  async items(tx: Pick<Tx, 'query'>, siteId: number, itemIds?: readonly number[]): Promise<Record<string, ItemFacts>> {
    const only = itemIds ? `WHERE i.id IN (${marks(itemIds)})` : '';
    const params = [...(itemIds ?? [])];
    const found = await prepared<(Omit<ItemFacts, 'packs' | 'scanEach' | 'asksSerial'> & { scanEach: number; asksSerial: number })[]>(
      tx,
      `SELECT i.id, i.sku, i.name, i.picture, i.tracking, i.storage, i.min_life_days AS minLifeDays, i.scan_each AS scanEach, i.serial_at_packing AS asksSerial, p.code AS home FROM item i LEFT JOIN item_site h ON h.item_id = i.id AND h.site_id = ? LEFT JOIN place p ON p.id = h.home_place_id ${only}`,
      [siteId, ...params],
    );
    const packs = await prepared<PackRow[]>(
      tx,
      `SELECT i.id, i.item_id, i.name, i.plural, i.factor FROM pack_unit i ${itemIds ? `WHERE i.item_id IN (${marks(itemIds)})` : ''} ORDER BY i.factor DESC`,
      params,
    );
    const items: Record<string, ItemFacts> = {};
    for (const { scanEach, asksSerial, ...item } of found)
      items[item.id] = {
        ...item,
        ...(scanEach === 1 ? { scanEach: true } : {}),
        ...(asksSerial === 1 && item.tracking !== 'serial' ? { asksSerial: true } : {}),
        packs: [],
      };
    for (const { item_id, ...pack } of packs) items[item_id]?.packs.push(pack);
    return items;
  }
}
