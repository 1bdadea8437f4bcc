import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { listTable, Lists } from '../exchange/index.js';
import { find, notFound, rows } from '../platform/index.js';
import { JournalQueries } from './journal.queries.js';

/** An export of the journal as a file, in the company's own account numbers; had again under its number, it is the same. */
@Injectable()
export class JournalFiles {
  constructor(lists: Lists, source: DataSource, journal: JournalQueries) {
    lists.register(
      'journal',
      async (_person, query) => {
        const code = (query['export'] ?? '').toUpperCase();
        const made = await find(source, 'journal_export', { code });
        if (!made) throw notFound(`Export ${code || 'of the journal without a number'}`);
        const own = await rows<{ account: string; number: string; name: string }>(source, 'SELECT account, number, name FROM own_account');
        const number = (account: string) => own.find((o) => o.account === account)?.number ?? '';
        return listTable('journal', journal.of(made.id), [
          ['Export', () => made.code],
          ['Entry', (e) => Number(e.id)],
          ['Posted', (e) => e.at],
          ['Document', (e) => e.document],
          ['Debit account', (e) => number(e.debit)],
          ['Debit', (e) => e.debit],
          ['Credit account', (e) => number(e.credit)],
          ['Credit', (e) => e.credit],
          ['Amount', (e) => e.amount],
          ['SKU', (e) => e.sku],
        ]);
      },
      'invoices',
    );
  }
}
