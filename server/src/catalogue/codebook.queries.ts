import { Injectable } from '@nestjs/common';
import { codeKey, type Codebook, type ItemFacts, type PlaceFacts } from '@vectrum/core/scan';
import { siteDay } from '../sites/site-day.js';
import { marks, rows, type Tx } from '../platform/database/tx.js';

interface PackRow {
  id: number;
  item_id: number;
  name: string;
  plural: string;
  factor: number;
}

/** What codes mean at a site: what phones check scans against, and the server again. */
@Injectable()
export class CodebookQueries {
  /** What the codes of the items and places named mean at a site. */
  async book(tx: Pick<Tx, 'query'>, siteId: number, itemIds: readonly number[], placeIds: readonly number[]): Promise<Codebook> {
    const { today } = await siteDay(tx, siteId);
    const book: Codebook = { today, codes: {}, items: await this.items(tx, siteId, itemIds), places: {} };
    const codes = await rows<{ code: string; packId: number; itemId: number }>(
      tx,
      `SELECT b.code, u.id AS packId, u.item_id AS itemId FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id WHERE u.item_id IN (${marks(itemIds)})`,
      [...itemIds],
    );
    for (const item of Object.values(book.items)) {
      const base = item.packs.find((p) => p.factor === 1);
      if (base) book.codes[item.sku.toUpperCase()] = { itemId: item.id, packId: base.id };
    }
    for (const { code, packId, itemId } of codes) book.codes[codeKey(code, today)] = { itemId, packId };
    const places = await this.places(tx, siteId, placeIds);
    for (const place of places) book.places[place.code.toUpperCase()] = place;
    return book;
  }

  /** Places that people scan at a site, all or those named; docks and totes of other sites too, to be told apart. */
  places(tx: Pick<Tx, 'query'>, siteId: number, placeIds?: readonly number[]): Promise<PlaceFacts[]> {
    return rows<PlaceFacts>(
      tx,
      `SELECT p.id, p.code, p.kind, p.site_id AS siteId, COALESCE(z.rule, 'none') AS rule FROM place p LEFT JOIN place z ON z.id = p.parent_id AND z.kind = 'zone'
       WHERE p.site_id IS NOT NULL AND p.blocked = 0 AND p.kind NOT IN ('site','zone','parcel') AND (p.site_id = ? OR p.kind IN ('dock','tote'))${placeIds ? ` AND p.id IN (${marks(placeIds)})` : ''}`,
      [siteId, ...(placeIds ?? [])],
    );
  }

  async items(tx: Pick<Tx, 'query'>, siteId: number, itemIds?: readonly number[]): Promise<Record<string, ItemFacts>> {
    const only = itemIds ? `WHERE i.id IN (${marks(itemIds)})` : '';
    const params = [...(itemIds ?? [])];
    const found = await rows<Omit<ItemFacts, 'packs'>>(
      tx,
      `SELECT i.id, i.sku, i.name, i.picture, i.tracking, i.storage, i.min_life_days AS minLifeDays, p.code AS home FROM item i LEFT JOIN item_site h ON h.item_id = i.id AND h.site_id = ? LEFT JOIN place p ON p.id = h.home_place_id ${only}`,
      [siteId, ...params],
    );
    const packs = await rows<PackRow>(
      tx,
      `SELECT i.id, i.item_id, i.name, i.plural, i.factor FROM pack_unit i ${itemIds ? `WHERE i.item_id IN (${marks(itemIds)})` : ''} ORDER BY i.factor DESC`,
      params,
    );
    const items: Record<string, ItemFacts> = {};
    for (const item of found) items[item.id] = { ...item, packs: [] };
    for (const { item_id, ...pack } of packs) items[item_id]?.packs.push(pack);
    return items;
  }
}
