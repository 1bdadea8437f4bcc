import { Injectable, type OnModuleInit } from '@nestjs/common';
import { micro, moneyText } from '@vectrum/core/money';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { mustHave } from '../identity/index.js';
import { CompanyLetters } from '../letters/index.js';
import { type Act, badForm, CommandLog, Outbox, PAPER, type Person, rows, task, Work } from '../platform/index.js';
import { Papers } from '../printing/index.js';
import { SettingsService } from '../settings/index.js';
import type { StatementDto } from './statement.dto.js';
import type { statementPdf } from './statement.pdf.js';
import { StatementQueries } from './statement.queries.js';

const PDF = task<typeof statementPdf>('invoicing/statementPdf', ...PAPER);

/** Statements as paper, and their way to customers by mail. */
@Injectable()
export class Statements implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly queries: StatementQueries,
    private readonly work: Work,
    private readonly settings: SettingsService,
    private readonly letters: CompanyLetters,
    private readonly outbox: Outbox,
    private readonly printable: Papers,
    private readonly activity: ActivityService,
  ) {}

  onModuleInit(): void {
    this.printable.register('statement', 'Statement', (person, account) => {
      mustHave(person, 'invoices');
      return this.pdf(person, account);
    });
    this.outbox.handle('mail.statement', async ({ payload, id }) => {
      const sites = await rows<{ id: number }>(this.source, 'SELECT id FROM site');
      const house = { id: 0, name: '', rights: new Set<string>(), siteIds: sites.map((s) => s.id), seesCosts: true, isOwner: false };
      const statement = await this.queries.of(house, String(payload['account']));
      await this.letters.send(
        'statement',
        { customer: statement.name, amount: moneyText(micro(statement.owed), statement.currency), day: statement.asOf },
        {
          id: `statement-${id}`,
          to: String(payload['to']),
          attachments: [{ filename: `statement-${statement.account}.pdf`, content: await this.drawn(statement) }],
        },
      );
    });
  }

  async pdf(person: Person, account: string): Promise<Buffer> {
    return this.drawn(await this.queries.of(person, account));
  }

  send(act: Act, account: string): Promise<void> {
    return this.commands.run(act, 'statement.send', { account }, async (tx) => {
      const { email, name, account: code } = await this.queries.of(act.person, account);
      if (email === '') throw badForm({ email: `${name} has no mail address. Print the statement, and send it by post` });
      await this.outbox.send(tx, `mail:${email}`, 'mail.statement', { account: code, to: email }, { siteId: null, document: code });
      await this.activity.record(tx, act, { kind: 'invoice', glyph: 'go', title: `Statement sent to ${name}`, detail: email });
    });
  }

  private async drawn(statement: StatementDto): Promise<Buffer> {
    return this.work.run(PDF, statement, await this.settings.letterhead());
  }
}
