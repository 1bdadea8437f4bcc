import { Injectable } from '@nestjs/common';
import type { ItemId, LineId, LotId, PlaceId, SiteId } from '@vectrum/core/ids';
import { insertMany, prepared, Problem, rows, type Tx, update } from '../platform/index.js';
import { LedgerService } from '../stock/index.js';

/** What an order line holds. */
export interface Holder {
  lineId: LineId;
  itemId: ItemId;
  siteId: SiteId;
}

/** Where what is held lies: a bin and lot, a tote, a parcel. Null is the site as a whole: it may be taken from anywhere there. */
export type Spot = { placeId: PlaceId; lotId: LotId } | null;

/**
 * The rows of what is promised. They follow the goods: from the site as a whole to a bin and lot, into a tote, into a parcel,
 * until these leave the house. The site's reserved figure is their sum, and is changed with them and by nothing else.
 */
@Injectable()
export class Reservations {
  constructor(private readonly ledger: LedgerService) {}

  /** Promises units of a site to a line. */
  async hold(tx: Tx, holder: Holder, units: number): Promise<void> {
    await this.changeSite(tx, holder, units);
    await this.add(tx, holder, null, units);
  }

  /** Promises units of a site to many lines at once: a statement for each item, and one for 500 lines. */
  async holdAll(tx: Tx, siteId: SiteId, grants: readonly { lineId: LineId; itemId: ItemId; units: number }[]): Promise<void> {
    const items = new Map<ItemId, number>();
    for (const { itemId, units } of grants) items.set(itemId, (items.get(itemId) ?? 0) + units);
    for (const [itemId, units] of [...items].sort(([a], [b]) => a - b)) await this.changeSite(tx, { siteId, itemId }, units);
    if (grants.length > 0)
      await insertMany(
        tx,
        'reservation',
        ['order_line_id', 'site_id', 'item_id', 'place_id', 'lot_id', 'units'],
        grants.map((g) => [g.lineId, siteId, g.itemId, null, 0, g.units]),
        'ON DUPLICATE KEY UPDATE units = units + VALUES(units)',
      );
  }

  /** Frees units that a line holds there, or lets them go with the goods that leave the house. */
  async free(tx: Tx, holder: Holder, spot: Spot, units: number): Promise<void> {
    await this.changeSite(tx, holder, -units);
    await this.take(tx, holder, spot, units);
  }

  /** What is held follows the goods from one spot to another at the same site. */
  async move(tx: Tx, holder: Holder, from: Spot, to: Spot, units: number): Promise<void> {
    await this.take(tx, holder, from, units);
    await this.add(tx, holder, to, units);
  }

  /** A container has come to another site, and what is held in it with it. `places` is it and all that stands in it. */
  async moveSite(tx: Tx, places: readonly PlaceId[], to: SiteId): Promise<void> {
    const held = await rows<{ siteId: number; itemId: number; units: string }>(
      tx,
      'SELECT site_id AS siteId, item_id AS itemId, SUM(units) AS units FROM reservation WHERE place_id IN (?) AND site_id <> ? GROUP BY site_id, item_id ORDER BY site_id, item_id',
      [[0, ...places], to],
    );
    for (const { siteId, itemId, units } of held) {
      await this.changeSite(tx, { siteId, itemId }, -Number(units));
      await this.changeSite(tx, { siteId: to, itemId }, Number(units));
    }
    await update(tx, 'reservation', { place_id: [0, ...places] }, { site_id: to });
  }

  private async add(tx: Tx, { lineId, siteId, itemId }: Holder, spot: Spot, units: number): Promise<void> {
    if (spot) await mustStandAt(tx, spot.placeId, siteId);
    await prepared(
      tx,
      'INSERT INTO reservation (order_line_id, site_id, item_id, place_id, lot_id, units) VALUES (?, ?, ?, ?, ?, ?) ON DUPLICATE KEY UPDATE units = units + VALUES(units)',
      [lineId, siteId, itemId, spot?.placeId ?? null, spot?.lotId ?? 0, units],
    );
  }

  private async take(tx: Tx, { lineId, siteId }: Holder, spot: Spot, units: number): Promise<void> {
    const key = [lineId, siteId, spot?.placeId ?? 0, spot?.lotId ?? 0];
    const where = 'order_line_id = ? AND site_id = ? AND place_key = ? AND lot_id = ?';
    // All of it goes, more often than not.
    const gone = await prepared<{ affectedRows: number }>(tx, `DELETE FROM reservation WHERE ${where} AND units = ?`, [...key, units]);
    if (gone.affectedRows > 0) return;
    const done = await prepared<{ affectedRows: number }>(tx, `UPDATE reservation SET units = units - ? WHERE ${where} AND units > ?`, [
      units,
      ...key,
      units,
    ]);
    if (done.affectedRows === 0)
      throw new Problem(409, 'stock', 'These goods are not held for this order any more. Look at the order again');
  }

  private async changeSite(tx: Tx, { siteId, itemId }: Pick<Holder, 'siteId' | 'itemId'>, units: number): Promise<void> {
    await this.ledger.reserved(tx, siteId, itemId, units);
  }
}

/** Where goods are put may have been carried to another site since it was looked at; its row is held from here on. */
async function mustStandAt(tx: Tx, placeId: PlaceId, siteId: SiteId): Promise<void> {
  const [place] = await prepared<{ code: string; site_id: number | null }[]>(
    tx,
    'SELECT code, site_id FROM place WHERE id = ? LOCK IN SHARE MODE',
    [placeId],
  );
  if (place?.site_id !== siteId)
    throw new Problem(409, 'stock', `${place?.code ?? 'That place'} is at another site by now. Nothing was moved; look where it is`);
}
