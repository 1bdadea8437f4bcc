import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { AllocationService, Reservations } from '../allocation/index.js';
import { OrderStates } from '../orders/index.js';
import { inTransaction, num, one, rows } from '../platform/index.js';
import { LedgerService } from '../stock/index.js';
import { DemoDesk } from './desk.js';
import { actAs } from './morning.js';

/** Orders that left in the weeks before. */
@Injectable()
export class DemoLeaving {
  constructor(
    private readonly source: DataSource,
    private readonly desk: DemoDesk,
    private readonly ledger: LedgerService,
    private readonly states: OrderStates,
    private readonly reservations: Reservations,
    private readonly allocation: AllocationService,
  ) {}

  /** An order that left the house some days ago, all of it or so many units of its first line. Its goods come from where they lie. */
  async left(
    account: string,
    daysAgo: number,
    goods: readonly [sku: string, quantity: number, price: string][],
    onlyUnits?: number,
  ): Promise<string> {
    const orla = await actAs(this.source, 'Orla');
    const code = await this.desk.order(
      orla,
      account,
      goods.map(([sku, quantity, price]) => [sku, 1, String(quantity), price]),
      {},
    );
    await inTransaction(this.source, async (tx) => {
      const lines = await rows<{ id: number; orderId: number; itemId: number; siteId: number; units: number }>(
        tx,
        'SELECT l.id, o.id AS orderId, l.item_id AS itemId, o.site_id AS siteId, l.units FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id WHERE o.code = ? ORDER BY l.item_id FOR UPDATE',
        [code],
      );
      const toPlaceId = await this.ledger.outside(tx, 'customer');
      for (const line of lines) {
        const units = onlyUnits ?? num(line.units);
        const from = await one<{ placeId: number }>(
          tx,
          `SELECT b.place_id AS placeId FROM balance b JOIN place p ON p.id = b.place_id WHERE b.item_id = ? AND p.site_id = ? AND p.kind IN ('pick-face', 'reserve') AND b.stock_condition = 'good' AND b.lot_id = 0 AND b.units >= ? ORDER BY b.units DESC LIMIT 1`,
          [line.itemId, line.siteId, units],
        );
        if (!from) throw new Error(`The demo has too little of item ${line.itemId} to ship ${code}`);
        const movement = { itemId: line.itemId, lotId: 0, condition: 'good' as const, fromPlaceId: from.placeId, toPlaceId, units };
        const { changes } = await this.ledger.post(tx, orla, [movement], { task: 'ship', document: code, how: null });
        await this.states.progress(tx, line.id, { picked: units, packed: units, shipped: units });
        await this.reservations.free(tx, { lineId: line.id, itemId: line.itemId, siteId: line.siteId }, null, units);
        await this.allocation.settle(tx, changes);
      }
      await this.states.left(tx, lines[0]?.orderId ?? 0);
    });
    await this.source.query(
      'UPDATE sales_order SET placed_at = placed_at - INTERVAL ? DAY, promised_at = promised_at - INTERVAL ? DAY, shipped_at = shipped_at - INTERVAL ? DAY WHERE code = ?',
      [daysAgo + 1, onlyUnits ? 0 : daysAgo, daysAgo, code],
    );
    return code;
  }
}
