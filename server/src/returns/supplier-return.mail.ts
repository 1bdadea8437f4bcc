import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { Mailer, Outbox, rows } from '../platform/index.js';
import { ReturnPapers } from './return-papers.js';
import { SupplierReturnQueries } from './supplier-returns.queries.js';

/** Tells a supplier what comes back, and why. */
@Injectable()
export class SupplierReturnMail implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly outbox: Outbox,
    private readonly mailer: Mailer,
    private readonly queries: SupplierReturnQueries,
    private readonly papers: ReturnPapers,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('mail.supplier-return', async ({ payload, id }) => {
      const sites = await rows<{ id: number }>(this.source, 'SELECT id FROM site');
      const reader = { id: 0, name: '', rights: new Set<string>(), siteIds: sites.map((s) => s.id), seesCosts: true, isOwner: false };
      const note = await this.queries.sheet(reader, String(payload['code']));
      await this.mailer.send({
        id: `supplier-return-${id}`,
        to: String(payload['to']),
        subject: `Return ${note.code}`,
        text: `Dear ${note.supplier},\n\nwe send back the goods on the attached note: ${note.reason}.\nWe expect a credit of ${note.currency} ${note.expected ?? ''}.\n`,
        attachments: [{ filename: `${note.code}.pdf`, content: await this.papers.note(note) }],
      });
    });
  }
}
