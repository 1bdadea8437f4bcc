import { Injectable } from '@nestjs/common';
import { available, channelUnits } from '@vectrum/core/ledger';
import { DataSource } from 'typeorm';
import { AllocationService } from '../allocation/index.js';
import { marks, NOW, num, one, rows, type Tx, update } from '../platform/index.js';

/** A listing with what may be sold of it by now, and what its channel was told last. */
export interface DueListing {
  id: number;
  sku: string;
  units: number;
  told: number | null;
}
interface ListingRow {
  id: number;
  itemId: number;
  sku: string;
  factor: number;
  keepBack: number;
  told: number | null;
  share: number;
  scarceUnder: number;
  onHand: string | number | null;
  held: string | number | null;
  reserved: string | number | null;
}

const LISTED = `SELECT l.id, l.item_id AS itemId, l.channel_sku AS sku, l.factor, l.keep_back AS keepBack, l.told_units AS told, c.share_percent AS share, c.scarce_under AS scarceUnder,
    SUM(s.on_hand) AS onHand, SUM(s.held) AS held, SUM(s.reserved) AS reserved
  FROM listing l JOIN channel c ON c.id = l.channel_id LEFT JOIN channel_site x ON x.channel_id = c.id LEFT JOIN site_stock s ON s.site_id = x.site_id AND s.item_id = l.item_id`;

/**
 * What channels may sell. Whatever changes stock marks the listings that it concerns, in its own transaction; the figure is worked out
 * when it is pushed, from what is committed by then, so that a change is never missed and many at once are told as one.
 */
@Injectable()
export class ChannelStock {
  constructor(
    private readonly source: DataSource,
    allocation: AllocationService,
  ) {
    allocation.whenSettled((tx, siteId, itemIds) => this.mark(tx, siteId, itemIds));
  }

  private async mark(tx: Tx, siteId: number, itemIds: readonly number[]): Promise<void> {
    const kits = await rows<{ id: number }>(tx, `SELECT DISTINCT item_id AS id FROM item_part WHERE part_item_id IN (${marks(itemIds)})`, [
      ...itemIds,
    ]);
    const concerned = [...itemIds, ...kits.map((k) => k.id)];
    await tx.query(
      `UPDATE listing l JOIN channel c ON c.id = l.channel_id AND c.base_url IS NOT NULL SET l.due = 1
       WHERE l.due = 0 AND l.item_id IN (${marks(concerned)}) AND EXISTS (SELECT 1 FROM channel_site x WHERE x.channel_id = c.id AND x.site_id = ?)`,
      [...concerned, siteId],
    );
  }

  /** Listings of a channel whose figure may have changed, with the figure now; they are due no more. */
  async takeDue(channelId: number, most: number): Promise<DueListing[]> {
    const due = await rows<{ id: number }>(this.source, 'SELECT id FROM listing WHERE channel_id = ? AND due = 1 ORDER BY id LIMIT ?', [
      channelId,
      most,
    ]);
    if (due.length === 0) return [];
    const ids = due.map((d) => d.id);
    // First said to be told, then read: what changes in between makes it due again.
    await update(this.source, 'listing', { id: ids }, { due: 0 });
    return (await rows<ListingRow>(this.source, `${LISTED} WHERE l.id IN (?) GROUP BY l.id ORDER BY l.id`, [ids])).map(
      figure(await this.kits(channelId)),
    );
  }

  /** All listings of a channel with what may be sold of each. */
  async all(channelId: number): Promise<DueListing[]> {
    return (await rows<ListingRow>(this.source, `${LISTED} WHERE l.channel_id = ? GROUP BY l.id ORDER BY l.id`, [channelId])).map(
      figure(await this.kits(channelId)),
    );
  }

  /** How many of each kit its parts allow, at the sites that a channel sells from. */
  async kits(channelId: number): Promise<Map<number, number>> {
    const found = await rows<{ itemId: number; units: string | number }>(
      this.source,
      `SELECT p.item_id AS itemId, MIN(FLOOR(GREATEST(0, COALESCE(f.free, 0)) / p.units)) AS units FROM item k JOIN item_part p ON p.item_id = k.id
       LEFT JOIN (SELECT s.item_id, SUM(CAST(s.on_hand AS SIGNED) - s.held - s.reserved) AS free FROM site_stock s JOIN channel_site x ON x.site_id = s.site_id AND x.channel_id = ? GROUP BY s.item_id) f ON f.item_id = p.part_item_id
       WHERE k.kind = 'kit' GROUP BY p.item_id`,
      [channelId],
    );
    return new Map(found.map((k) => [k.itemId, num(k.units)]));
  }

  /** The channel has taken the figure. */
  async told(listingId: number, units: number): Promise<void> {
    await update(this.source, 'listing', { id: listingId }, { told_units: units, told_at: NOW });
  }

  /** These could not be told: they are due again. */
  async again(ids: readonly number[]): Promise<void> {
    if (ids.length > 0) await update(this.source, 'listing', { id: ids }, { due: 1 });
  }

  /** All of a channel is told anew: after an outage, or where it believes something else. */
  async tellAll(tx: Pick<Tx, 'query'>, channelId: number): Promise<number> {
    return update(tx, 'listing', { channel_id: channelId }, { due: 1, told_units: null });
  }

  /** Keeps what a channel believes, as it was asked. */
  async believes(channelId: number, beliefs: readonly { sku: string; units: number }[]): Promise<void> {
    for (const { sku, units } of beliefs)
      await update(this.source, 'listing', { channel_id: channelId, channel_sku: sku }, { believed_units: units, believed_at: NOW });
  }

  /** Whether anything waits to be told to a channel. */
  async waits(channelId: number): Promise<number> {
    const row = await one<{ n: string }>(this.source, 'SELECT COUNT(*) AS n FROM listing WHERE channel_id = ? AND due = 1', [channelId]);
    return num(row?.n);
  }
}

/** A kit is sold by what its parts allow, whatever lies here of it put together. */
const figure =
  (kits: ReadonlyMap<number, number>) =>
  (row: ListingRow): DueListing => {
    const { id, itemId, sku, factor, keepBack, told, share, scarceUnder, onHand, held, reserved } = row;
    const free = kits.get(itemId) ?? available({ onHand: num(onHand), held: num(held), reserved: num(reserved) });
    return { id, sku, told, units: channelUnits(free, { factor, keepBack, share, scarceUnder }) };
  };
