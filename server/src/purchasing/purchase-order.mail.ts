import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { Mailer, Outbox, rows } from '../platform/index.js';
import { OrderDocuments } from './order-documents.js';
import { PurchasingQueries } from './purchasing.queries.js';

/** Mails placed and changed purchase orders to the supplier, and what is asked about an answer. */
@Injectable()
export class PurchaseOrderMail implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly outbox: Outbox,
    private readonly mailer: Mailer,
    private readonly orders: PurchasingQueries,
    private readonly documents: OrderDocuments,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('mail.purchase-order', async ({ payload, id }) => {
      const order = await this.order(String(payload['code']));
      const changed = payload['changed'] === true;
      await this.mailer.send({
        id: `purchase-order-${id}`,
        to: String(payload['to']),
        subject: `Purchase order ${order.code}${changed ? ', changed' : ''}`,
        text: `Dear ${order.supplier},\n\nOur purchase order ${order.code} is attached${changed ? ' as it is now; it takes the place of the one before' : ''}. Delivery to ${order.site}${order.expectedOn ? `, expected ${order.expectedOn}` : ''}.\nEach line has a barcode: print it on the label of the goods if you can. The XML file is the same order as a UBL 2.1 Order for your system.\n`,
        attachments: [
          { filename: `${order.code}.pdf`, content: await this.documents.pdf(order) },
          { filename: `${order.code}.xml`, content: Buffer.from(await this.documents.ubl(order)), contentType: 'application/xml' },
        ],
      });
    });
    this.outbox.handle('mail.order-query', async ({ payload, id }) => {
      const order = await this.order(String(payload['code']));
      await this.mailer.send({
        id: `order-query-${id}`,
        to: String(payload['to']),
        subject: `Your answer to ${order.code}`,
        text: `Dear ${order.supplier},\n\nwe cannot take your answer to our order ${order.code} as it stands.\n\n${String(payload['note'])}\n`,
        attachments: [{ filename: `${order.code}.pdf`, content: await this.documents.pdf(order) }],
      });
    });
  }

  private async order(code: string) {
    const sites = await rows<{ id: number }>(this.source, 'SELECT id FROM site');
    return this.orders.sheet(
      code,
      sites.map((s) => s.id),
      true,
    );
  }
}
