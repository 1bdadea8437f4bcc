import { Injectable } from '@nestjs/common';
import { AllocationService, Reservations } from '../allocation/index.js';
import { OrderStates } from '../orders/index.js';
import { ParcelsService } from '../packing/index.js';
import { type Act, notFound, num, one, Outbox, rows, type Tx } from '../platform/index.js';
import { LedgerService } from '../stock/index.js';
import type { ParcelRow } from './lock-parcels.js';

interface LineRow {
  order_line_id: number;
  item_id: number;
  lot_id: number;
  units: number;
}

/** What becomes of a parcel that a carrier takes: its goods leave the ledger, shop and customer are told. */
@Injectable()
export class ShippingService {
  constructor(
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly reservations: Reservations,
    private readonly states: OrderStates,
    private readonly parcels: ParcelsService,
    private readonly outbox: Outbox,
  ) {}

  async send(tx: Tx, act: Act, parcel: ParcelRow, carrier: { name: string; site_id: number }, handOver: string): Promise<void> {
    const order = await one<{
      code: string;
      channel: string;
      base_url: string | null;
      channel_ref: string;
      email: string;
      site_id: number;
    }>(
      tx,
      'SELECT o.code, c.code AS channel, c.base_url, o.channel_ref, o.email, o.site_id FROM sales_order o JOIN channel c ON c.id = o.channel_id WHERE o.id = ?',
      [parcel.order_id],
    );
    if (!order) throw notFound(`The order of ${parcel.code}`);
    const lines = await rows<LineRow>(
      tx,
      'SELECT pl.order_line_id, l.item_id, pl.lot_id, pl.units FROM parcel_line pl JOIN sales_order_line l ON l.id = pl.order_line_id WHERE pl.parcel_id = ? ORDER BY l.item_id, pl.lot_id',
      [parcel.id],
    );
    const customer = await this.ledger.outside(tx, 'customer');
    const { changes } = await this.ledger.post(
      tx,
      act,
      lines.map((l) => ({
        itemId: l.item_id,
        lotId: l.lot_id,
        condition: 'good' as const,
        fromPlaceId: parcel.place_id,
        toPlaceId: customer,
        units: l.units,
      })),
      { task: 'ship', document: order.code, how: null },
    );
    for (const line of lines) {
      await this.states.progress(tx, line.order_line_id, { shipped: line.units });
      const holder = { lineId: line.order_line_id, itemId: line.item_id, siteId: carrier.site_id };
      await this.reservations.free(tx, holder, { placeId: parcel.place_id, lotId: line.lot_id }, line.units);
    }
    await this.parcels.gone(tx, parcel.id, handOver);
    const rest = await one<{ n: string }>(
      tx,
      'SELECT COUNT(*) AS n FROM sales_order_line l LEFT JOIN item i ON i.id = l.item_id WHERE l.order_id = ? AND l.shipped_units < l.units AND COALESCE(i.never_holds_up, 0) = 0',
      [parcel.order_id],
    );
    await this.states.left(tx, parcel.order_id);
    await this.allocation.settle(tx, changes);
    const from = { siteId: carrier.site_id, document: order.code };
    if (order.base_url)
      await this.outbox.send(
        tx,
        `channel:${order.channel}`,
        'channel.shipment',
        {
          channel: order.channel,
          ref: order.channel_ref,
          parcel: parcel.code,
          carrier: carrier.name,
          tracking: parcel.tracking,
          complete: num(rest?.n) === 0,
          lines: await this.lines(tx, parcel.id),
        },
        from,
      );
    if (order.email)
      await this.outbox.send(
        tx,
        `mail:${order.email}`,
        'mail.shipment',
        {
          order: order.code,
          parcel: parcel.code,
          carrier: carrier.name,
          tracking: parcel.tracking,
          to: order.email,
        },
        from,
      );
  }

  /** What is in a parcel, under the codes by which the channel sold it; in single pieces. */
  private async lines(tx: Tx, parcelId: number): Promise<{ sku: string; units: number }[]> {
    const found = await rows<{ sku: string; units: string }>(
      tx,
      'SELECT l.channel_sku AS sku, SUM(pl.units) AS units FROM parcel_line pl JOIN sales_order_line l ON l.id = pl.order_line_id WHERE pl.parcel_id = ? AND l.along = 0 GROUP BY l.channel_sku ORDER BY MIN(l.line)',
      [parcelId],
    );
    return found.map((l) => ({ sku: l.sku, units: num(l.units) }));
  }
}
