import { Injectable, type OnModuleInit } from '@nestjs/common';
import { CompanyLetters } from '../letters/index.js';
import { Outbox } from '../platform/index.js';

/** Mails to customers that they must not use goods that they have. */
@Injectable()
export class RecallMail implements OnModuleInit {
  constructor(
    private readonly outbox: Outbox,
    private readonly letters: CompanyLetters,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('mail.recall', async ({ payload, id }) => {
      const text = (name: string) => String(payload[name] ?? '');
      await this.letters.send(
        'recall',
        { customer: text('customer'), order: text('order'), goods: text('goods'), units: text('units'), why: text('why') },
        { id: `recall-${id}`, to: text('to'), attachments: [] },
      );
    });
  }
}
