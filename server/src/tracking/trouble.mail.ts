import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { CompanyLetters } from '../letters/index.js';
import { one, Outbox } from '../platform/index.js';

/** A claim's kind as it stands in a sentence about a parcel. */
const IS: Readonly<Record<string, string>> = { delayed: 'delayed', damaged: 'damaged', returned: 'coming back to us', lost: 'lost' };

/** Tells a customer that something is wrong with a parcel on its way. */
@Injectable()
export class TroubleMail implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly outbox: Outbox,
    private readonly letters: CompanyLetters,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('mail.parcel-trouble', async ({ payload, id }) => {
      const claim = await one<{ kind: string; parcel: string; tracking: string; customer: string; order: string; carrier: string }>(
        this.source,
        `SELECT k.kind, p.code AS parcel, COALESCE(p.tracking, '') AS tracking, o.customer, o.channel_ref AS \`order\`, COALESCE(c.name, 'The carrier') AS carrier
         FROM claim k JOIN parcel p ON p.id = k.parcel_id JOIN sales_order o ON o.id = p.order_id LEFT JOIN carrier c ON c.id = p.carrier_id WHERE k.id = ?`,
        [payload['claim']],
      );
      if (!claim) return;
      const { kind, ...values } = claim;
      await this.letters.send(
        'trouble',
        { ...values, what: IS[kind] ?? kind, note: String(payload['note']) },
        { id: `parcel-trouble-${id}`, to: String(payload['to']), attachments: [] },
      );
    });
  }
}
