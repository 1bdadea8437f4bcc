import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { CompanyLetters } from '../letters/index.js';
import { OrderPapers, OrdersQueries } from '../orders/index.js';
import { Outbox, rows } from '../platform/index.js';

/** Mails quotes and confirmations to customers, and that an order is cancelled. */
@Injectable()
export class OrderMail implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly outbox: Outbox,
    private readonly letters: CompanyLetters,
    private readonly orders: OrdersQueries,
    private readonly papers: OrderPapers,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('mail.order-paper', async ({ payload, id }) => {
      const order = await this.order(String(payload['order']));
      const mail = {
        id: `order-paper-${id}`,
        to: String(payload['to']),
        attachments: [{ filename: `${order.code}.pdf`, content: await this.papers.priced(order) }],
      };
      const { customer } = order;
      if (order.state === 'quote') await this.letters.send('quote', { customer, order: order.code, until: order.quotedUntil ?? '' }, mail);
      else await this.letters.send('confirmation', { customer, order: order.channelRef }, mail);
    });
    this.outbox.handle('mail.order-late', async ({ payload, id }) => {
      const { customer, channelRef } = await this.order(String(payload['order']));
      await this.letters.send(
        'late',
        { customer, order: channelRef, promised: String(payload['promised']), expected: String(payload['when']) },
        { id: `order-late-${id}`, to: String(payload['to']), attachments: [] },
      );
    });
    this.outbox.handle('mail.order-cancelled', async ({ payload, id }) => {
      const { customer, channelRef } = await this.order(String(payload['order']));
      await this.letters.send(
        'cancelled',
        { customer, order: channelRef, why: String(payload['why']) },
        { id: `order-cancelled-${id}`, to: String(payload['to']), attachments: [] },
      );
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
