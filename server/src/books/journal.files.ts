import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { listTable, Lists, windows } from '../exchange/index.js';
import { mustBeEverywhere } from '../identity/index.js';
import { find, notFound, type Person, Problem, rows } from '../platform/index.js';
import { JournalQueries } from './journal.queries.js';
import { valueAsked, ValueQueries } from './value.queries.js';

/** Amounts of the whole house. */
async function mustSeeAll(source: DataSource, person: Person): Promise<void> {
  if (!person.seesCosts) throw new Problem(403, 'not-allowed', 'What goods cost is for those who may see costs');
  await mustBeEverywhere(source, person);
}

/** An export of the journal as a file, in the company's own account numbers; had again under its number, it is the same. */
@Injectable()
export class JournalFiles {
  constructor(lists: Lists, source: DataSource, journal: JournalQueries, value: ValueQueries) {
    lists.register(
      'stock-value',
      async (person, query) => {
        await mustSeeAll(source, person);
        return listTable(
          'stock-value',
          windows((from, limit) => value.list(valueAsked(query), { from, limit })),
          [
            ['Item', (r) => r.key],
            ['Name', (r) => r.name],
            ['Lot', (r) => r.lot],
            ['Units', (r) => r.units],
            ['Value', (r) => r.value],
            ['Of one', (r) => r.each],
          ],
        );
      },
      'invoices',
    );
    lists.register(
      'journal',
      async (person, query) => {
        await mustSeeAll(source, person);
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
