import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { SettingsService } from '../company/settings.service.js';
import { rows } from '../platform/database/tx.js';
import { Mailer } from '../platform/mailer.js';
import { Outbox } from '../platform/outbox.js';
import { purchaseOrderPdf } from '../printing/purchase-order.pdf.js';
import { PurchasingQueries } from './purchasing.queries.js';

/** Sends a placed purchase order to the supplier as a PDF. */
@Injectable()
export class PurchaseOrderMail implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly outbox: Outbox,
    private readonly mailer: Mailer,
    private readonly orders: PurchasingQueries,
    private readonly settings: SettingsService,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('mail.purchase-order', async ({ payload, id }) => {
      const sites = await rows<{ id: number }>(this.source, 'SELECT id FROM site');
      const order = await this.orders.sheet(
        String(payload['code']),
        sites.map((s) => s.id),
        true,
      );
      await this.mailer.send({
        id: `purchase-order-${id}`,
        to: String(payload['to']),
        subject: `Purchase order ${order.code}`,
        text: `Dear ${order.supplier},\n\nOur purchase order ${order.code} is attached. Delivery to ${order.site}${order.expectedOn ? `, expected ${order.expectedOn}` : ''}.\nEach line has a barcode: print it on the label of the goods if you can.\n`,
        attachments: [{ filename: `${order.code}.pdf`, content: await purchaseOrderPdf(order, await this.settings.letterhead()) }],
      });
    });
  }
}
