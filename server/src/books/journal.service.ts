import { Injectable, type OnModuleInit } from '@nestjs/common';
import { ACCOUNTS } from '@vectrum/core/costing';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  addDays,
  badForm,
  badState,
  CommandLog,
  houseSpan,
  insert,
  insertMany,
  nextCode,
  replaceList,
} from '../platform/index.js';
import { markExported } from '../stock/index.js';
import type { MapAccountsDto } from './journal.dto.js';
import { JournalQueries } from './journal.queries.js';
import { Timetables } from './timetables.js';

/** The journal's way out of the house: each entry goes once, under the number of the export that took it. */
@Injectable()
export class JournalService implements OnModuleInit {
  constructor(
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly queries: JournalQueries,
    private readonly timetables: Timetables,
  ) {}

  onModuleInit(): void {
    this.timetables.register('export', async (act, before) => {
      const through = addDays(before, -1);
      const { entries } = await this.queries.preview(through);
      if (entries === 0) return `Nothing was posted up to ${through} that did not go out before`;
      const { code } = await this.export(act, through);
      return `${code}: ${entries === 1 ? '1 entry' : `${entries} entries`} up to ${through}`;
    });
  }

  /** Says which accounts of the company's own chart the house's stand for. */
  map(act: Act, version: number, input: MapAccountsDto): Promise<void> {
    return this.commands.run(act, 'own-accounts', { version, input }, async (tx) => {
      await replaceList(tx, 'own-accounts', version);
      const stray = input.accounts.findIndex((a) => !(ACCOUNTS as readonly string[]).includes(a.account));
      if (stray >= 0) throw badForm({ [`accounts.${stray}.account`]: `There is no account ${input.accounts[stray]?.account ?? ''}` });
      const names = input.accounts.map((a) => a.account);
      if (new Set(names).size !== names.length) throw badForm({ accounts: 'An account is named twice' });
      await tx.query('DELETE FROM own_account');
      const kept = input.accounts.filter((a) => a.number.trim() !== '');
      if (kept.length > 0)
        await insertMany(
          tx,
          'own_account',
          ['account', 'number', 'name'],
          kept.map((a) => [a.account, a.number.trim(), a.name.trim()]),
        );
      await this.activity.record(tx, act, { kind: 'journal', glyph: 'full', title: 'Accounts named' });
    });
  }

  /**
   * Takes all entries up to the end of a day that have not gone out. They are marked, not counted: an entry that was under way
   * while another export ran goes out with the next, and none goes twice.
   */
  export(act: Act, through: string): Promise<{ code: string }> {
    return this.commands.run(act, 'journal.export', { through }, async (tx) => {
      if (through > (await this.queries.today())) throw badForm({ through: 'That day is not over. Choose one that is, or today' });
      const { unnamed } = await this.queries.preview(through);
      if (unnamed.length > 0) throw badForm({ through: `Say first which accounts of yours these are: ${unnamed.join(', ')}` });
      const code = await nextCode(tx, 'J');
      const id = await insert(tx, 'journal_export', { code, through_on: through, entries: 0, amount: '0', made_by: act.person.id });
      const taken = await markExported(tx, id, (await houseSpan(tx, through, through)).ends);
      if (taken === 0) throw badState('Nothing has been posted up to that day that did not go out before');
      await tx.query(
        'UPDATE journal_export SET entries = ?, amount = (SELECT SUM(amount) FROM value_entry WHERE export_id = ?) WHERE id = ?',
        [taken, id, id],
      );
      await this.activity.record(tx, act, {
        kind: 'journal',
        glyph: 'go',
        title: `${code}: the journal to ${through} went out`,
        detail: `${taken} entries`,
        document: code,
      });
      return { code };
    });
  }
}
