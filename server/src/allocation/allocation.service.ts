import { Injectable } from '@nestjs/common';
import { reserve, type WaitingOrder } from '@vectrum/core/allocation';
import { available } from '@vectrum/core/ledger';
import { marks, rows, type Tx } from '../platform/database/tx.js';
import type { SiteChange } from '../stock/ledger.service.js';
import { StockTeller } from './stock-teller.js';

interface SiteStockRow {
  item_id: number;
  on_hand: number;
  held: number;
  reserved: number;
}
interface LineRow {
  id: number;
  item_id: number;
  lacks: number;
  order_id: number;
  priority: number;
  promised_at: Date;
  placed_at: Date;
}

/**
 * The first kind of reservation: order lines hold units at a site, so that they cannot be sold twice. Called after every
 * change of what is available; the site's rows stay locked until the transaction ends.
 */
@Injectable()
export class AllocationService {
  constructor(private readonly teller: StockTeller) {}

  /** Gives what is free to those who wait, takes back what is no longer there, and tells the channels. */
  async settle(tx: Tx, changes: readonly SiteChange[]): Promise<void> {
    const sites = [...new Set(changes.map((c) => c.siteId))].sort((a, b) => a - b);
    for (const siteId of sites) {
      const items = [...new Set(changes.filter((c) => c.siteId === siteId).map((c) => c.itemId))].sort((a, b) => a - b);
      await this.settleSite(tx, siteId, items);
    }
  }

  private async settleSite(tx: Tx, siteId: number, itemIds: readonly number[]): Promise<void> {
    const stock = await rows<SiteStockRow>(
      tx,
      `SELECT item_id, on_hand, held, reserved FROM site_stock WHERE site_id = ? AND item_id IN (${marks(itemIds)}) ORDER BY item_id FOR UPDATE`,
      [siteId, ...itemIds],
    );
    const free = new Map(stock.map((s) => [s.item_id, available({ onHand: s.on_hand, held: s.held, reserved: s.reserved })]));
    for (const [itemId, units] of free) if (units < 0) free.set(itemId, units + (await this.takeBack(tx, siteId, itemId, -units)));
    if ([...free.values()].some((units) => units > 0)) await this.grant(tx, siteId, free);
    await this.teller.tell(tx, siteId, itemIds);
  }

  private async grant(tx: Tx, siteId: number, free: ReadonlyMap<number, number>): Promise<void> {
    const items = [...free.keys()];
    const lines = await rows<LineRow>(
      tx,
      `SELECT l.id, l.item_id, l.units - l.reserved_units AS lacks, o.id AS order_id, o.priority, o.promised_at, o.placed_at
       FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id
       WHERE l.item_id IN (${marks(items)}) AND o.site_id = ? AND o.state IN ('open','held') AND l.reserved_units < l.units ORDER BY o.id, l.line FOR UPDATE`,
      [...items, siteId],
    );
    const waiting = new Map<number, WaitingOrder>();
    for (const l of lines) {
      const order = waiting.get(l.order_id) ?? {
        orderId: l.order_id,
        priority: l.priority,
        promised: l.promised_at.toISOString(),
        placed: l.placed_at.toISOString(),
        lines: [],
      };
      order.lines.push({ lineId: l.id, itemId: l.item_id, short: l.lacks });
      waiting.set(l.order_id, order);
    }
    for (const grant of reserve([...waiting.values()], free)) await this.change(tx, siteId, grant.lineId, grant.itemId, grant.units);
  }

  /** Frees promises that nothing stands behind, last promised first, never those already picked. Returns the units freed. */
  private async takeBack(tx: Tx, siteId: number, itemId: number, units: number): Promise<number> {
    const lines = await rows<{ id: number; spare: number }>(
      tx,
      `SELECT l.id, l.reserved_units - l.picked_units AS spare FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id
       WHERE l.item_id = ? AND o.site_id = ? AND o.state IN ('open','held') AND l.reserved_units > l.picked_units ORDER BY o.priority, o.promised_at DESC, o.id DESC FOR UPDATE`,
      [itemId, siteId],
    );
    let freed = 0;
    for (const line of lines) {
      const part = Math.min(line.spare, units - freed);
      if (part <= 0) break;
      await this.change(tx, siteId, line.id, itemId, -part);
      freed += part;
    }
    return freed;
  }

  /** Reserves units for a line (or frees them, below nought): line and site figure together. */
  async change(tx: Tx, siteId: number, lineId: number, itemId: number, units: number): Promise<void> {
    await tx.query('UPDATE sales_order_line SET reserved_units = reserved_units + ? WHERE id = ?', [units, lineId]);
    await this.changeSite(tx, siteId, itemId, units);
  }

  /** Changes a site's reserved figure alone: for goods that leave the house with their promise kept. */
  async changeSite(tx: Tx, siteId: number, itemId: number, units: number): Promise<void> {
    await tx.query('UPDATE site_stock SET reserved = reserved + ? WHERE site_id = ? AND item_id = ?', [units, siteId, itemId]);
  }
}
