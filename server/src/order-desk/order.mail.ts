import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { OrderPapers, OrdersQueries } from '../orders/index.js';
import { Mailer, Outbox, rows } from '../platform/index.js';

/** Mails quotes and confirmations to customers, and that an order is cancelled. */
@Injectable()
export class OrderMail implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly outbox: Outbox,
    private readonly mailer: Mailer,
    private readonly orders: OrdersQueries,
    private readonly papers: OrderPapers,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('mail.order-paper', async ({ payload, id }) => {
      const order = await this.order(String(payload['order']));
      const isQuote = order.state === 'quote';
      await this.mailer.send({
        id: `order-paper-${id}`,
        to: String(payload['to']),
        subject: isQuote ? `Our quote ${order.code}` : `Your order ${order.channelRef}`,
        text: isQuote
          ? `Dear ${order.customer},\n\nour quote ${order.code} is attached${order.quotedUntil ? `; it holds until ${order.quotedUntil}` : ''}. Answer this mail and we take it as your order.\n`
          : `Dear ${order.customer},\n\nwe have your order ${order.channelRef}. What it holds and costs is attached.\n`,
        attachments: [{ filename: `${order.code}.pdf`, content: await this.papers.priced(order) }],
      });
    });
    this.outbox.handle('mail.order-late', async ({ payload, id }) => {
      const order = await this.order(String(payload['order']));
      const when = String(payload['when']);
      await this.mailer.send({
        id: `order-late-${id}`,
        to: String(payload['to']),
        subject: `Your order ${order.channelRef} will be later than we said`,
        text: `Dear ${order.customer},\n\nwe promised your order ${order.channelRef} for ${String(payload['promised'])}. Goods for it are late on their way to us${when ? `; we expect to have them on ${when} and send them at once` : ', and we do not know yet when they come'}.\n\nIf you would rather have what is here already, or something else, answer this mail.\n`,
        attachments: [],
      });
    });
    this.outbox.handle('mail.order-cancelled', async ({ payload, id }) => {
      const order = await this.order(String(payload['order']));
      await this.mailer.send({
        id: `order-cancelled-${id}`,
        to: String(payload['to']),
        subject: `Your order ${order.channelRef} is cancelled`,
        text: `Dear ${order.customer},\n\nyour order ${order.channelRef} is cancelled, and nothing more of it will be sent.\n\n${String(payload['why'])}\n`,
        attachments: [],
      });
    });
  }

  private async order(code: string) {
    const sites = await rows<{ id: number }>(this.source, 'SELECT id FROM site');
    return this.orders.sheet(
      code,
      sites.map((s) => s.id),
    );
  }
}
