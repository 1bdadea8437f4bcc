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
