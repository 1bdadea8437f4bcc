import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { OrderPapers, OrdersQueries } from '../orders/index.js';
import { Mailer, Outbox, rows } from '../platform/index.js';

/** Tells the customer that the parcel is on its way, with the packing list. */
@Injectable()
export class ShipmentMail implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly outbox: Outbox,
    private readonly mailer: Mailer,
    private readonly orders: OrdersQueries,
    private readonly papers: OrderPapers,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('mail.shipment', async ({ payload, id }) => {
      const sites = await rows<{ id: number }>(this.source, 'SELECT id FROM site');
      const order = await this.orders.sheet(
        String(payload['order']),
        sites.map((s) => s.id),
      );
      await this.mailer.send({
        id: `shipment-${id}`,
        to: String(payload['to']),
        subject: `Your order ${order.channelRef} is on its way`,
        text: `Dear ${order.customer},\n\nParcel ${String(payload['parcel'])} left us with ${String(payload['carrier'])}.\nTracking number: ${String(payload['tracking'])}\n\nThe packing list is attached.\n`,
        attachments: [{ filename: `${order.code}.pdf`, content: await this.papers.packingList(order) }],
      });
    });
  }
}
