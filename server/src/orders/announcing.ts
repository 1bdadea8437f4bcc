import { isUrgent } from '@vectrum/core/orders';
import { Injectable, type OnModuleInit } from '@nestjs/common';
import { Mailer, Outbox, rows, siteDay, timeText, type Tx } from '../platform/index.js';

/** The same rule as `isUrgent`, on `sales_order` under its alias. */
export const urgentSql = (order: string) => `(${order}.priority > 0 OR ${order}.speed = 'express')`;
/** How people say what they want to be told of by mail; under this name among their preferences. */
const WISHES = 'announcements';

/** An order that has just been written down. */
export interface Announced {
  code: string;
  siteId: number;
  customer: string;
  priority: number;
  speed: string;
  promisedAt: Date;
  /** What holds it up; null where nothing does. */
  held: string | null;
  /** Whoever keyed it knows of it. */
  byPersonId: number | null;
}

/** Tells people of new orders by mail, as each has wished: of none, of urgent ones, of all. Screens are told by the tape and the Line. */
@Injectable()
export class Announcing implements OnModuleInit {
  constructor(
    private readonly outbox: Outbox,
    private readonly mailer: Mailer,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('mail.new-order', ({ id, payload }) =>
      this.mailer.send({
        id: `new-order-${id}`,
        to: String(payload['to']),
        subject: String(payload['subject']),
        text: String(payload['text']),
        attachments: [],
      }),
    );
  }

  /** Goes with the transaction that writes the order: a mail for each who has wished it and is at its site. */
  async tell(tx: Tx, order: Announced): Promise<void> {
    const urgent = isUrgent(order);
    const wished = await rows<{ name: string; email: string }>(
      tx,
      `SELECT p.name, p.email FROM preference f JOIN person p ON p.id = f.person_id JOIN person_site s ON s.person_id = p.id AND s.site_id = ?
       WHERE f.name = ? AND JSON_VALUE(f.value, '$.mail') IN (?) AND p.active = 1 AND p.email <> '' AND p.id <> ?`,
      [order.siteId, WISHES, urgent ? ['urgent', 'all'] : ['all'], order.byPersonId ?? 0],
    );
    if (wished.length === 0) return;
    const subject = `${urgent ? 'Urgent: ' : ''}${order.code}, ${order.customer}`;
    const { timeZone } = await siteDay(tx, order.siteId);
    const text = [
      `${order.code} for ${order.customer} has come in. It is promised for ${timeText(order.promisedAt, timeZone)}.`,
      order.held ? `It waits: ${order.held}.` : '',
      'You are told because you wished to be; your own page changes that.',
    ]
      .filter(Boolean)
      .join('\n\n');
    for (const { email } of wished) await this.outbox.send(tx, `mail:${email}`, 'mail.new-order', { to: email, subject, text });
  }
}
