import { Injectable } from '@nestjs/common';
import { available } from '@vectrum/core/ledger';
import { AllocationService } from '../allocation/index.js';
import { marks, Outbox, rows, type Tx, update } from '../platform/index.js';

interface ListingRow {
  id: number;
  channel: string;
  channel_sku: string;
  factor: number;
  keep_back: number;
  told_units: number | null;
  on_hand: number;
  held: number;
  reserved: number;
}

/** Tells channels what they may sell: whole listing units of what is available, less what is kept back. */
@Injectable()
export class StockTeller {
  constructor(
    private readonly outbox: Outbox,
    allocation: AllocationService,
  ) {
    allocation.whenSettled((tx, siteId, itemIds) => this.tell(tx, siteId, itemIds));
  }

  private async tell(tx: Tx, siteId: number, itemIds: readonly number[]): Promise<void> {
    const listings = await rows<ListingRow>(
      tx,
      `SELECT l.id, c.code AS channel, l.channel_sku, l.factor, l.keep_back, l.told_units, COALESCE(s.on_hand, 0) AS on_hand, COALESCE(s.held, 0) AS held, COALESCE(s.reserved, 0) AS reserved
       FROM listing l JOIN channel c ON c.id = l.channel_id LEFT JOIN site_stock s ON s.site_id = c.site_id AND s.item_id = l.item_id
       WHERE c.site_id = ? AND c.base_url IS NOT NULL AND l.item_id IN (${marks(itemIds)}) ORDER BY l.id`,
      [siteId, ...itemIds],
    );
    for (const l of listings) {
      const units = Math.max(
        0,
        Math.floor((available({ onHand: l.on_hand, held: l.held, reserved: l.reserved }) - l.keep_back) / l.factor),
      );
      if (units === l.told_units) continue;
      await update(tx, 'listing', { id: l.id }, { told_units: units });
      await this.outbox.send(tx, `channel:${l.channel}`, 'shop.stock', { channel: l.channel, sku: l.channel_sku, units }, { siteId });
    }
  }
}
