import { Injectable } from '@nestjs/common';
import { ACCOUNTS } from '@vectrum/core/costing';
import { DataSource } from 'typeorm';
import { dayOf, houseSpan, listVersion, num, one, pageOf, rows, siteDay, type Window } from '../platform/index.js';
import type {
  AccountsDto,
  ExportPreviewDto,
  JournalEntryDto,
  JournalExportDto,
  JournalExportPageDto,
  JournalPageDto,
} from './journal.dto.js';

export interface JournalAsked {
  /** ISO dates; empty where that end is open. */
  from: string;
  to: string;
  account: string;
  document: string;
}

const FIRST = '2000-01-01';
const LAST = '2099-12-31';
const ENTRY = `e.id, e.at, e.document, i.sku, i.name AS item, e.debit, e.credit, e.amount, x.code AS export`;
const FROM = `FROM value_entry e LEFT JOIN item i ON i.id = e.item_id LEFT JOIN journal_export x ON x.id = e.export_id`;
/** Rows that are read at once, so that a month of any size goes out with flat memory. */
const PAGE = 5_000;

/** What a request asks of the journal, checked. */
export function journalAsked(query: Readonly<Record<string, unknown>>): JournalAsked {
  const text = (name: string) => (typeof query[name] === 'string' ? query[name].trim().slice(0, 60) : '');
  return { from: dayOf(query, 'from'), to: dayOf(query, 'to'), account: text('account'), document: text('document') };
}

/** Reads the journal: entries, what stands on each account, and what went out when. Days are those of the house's first site. */
@Injectable()
export class JournalQueries {
  constructor(private readonly source: DataSource) {}

  async list(asked: JournalAsked, window: Window): Promise<JournalPageDto> {
    const span = await houseSpan(this.source, asked.from || FIRST, asked.to || LAST);
    return pageOf<JournalEntryDto>(
      this.source,
      {
        select: ENTRY,
        from: `${FROM} WHERE e.at >= ${span.begins} AND e.at < ${span.ends} AND (? = '' OR e.debit = ? OR e.credit = ?) AND (? = '' OR e.document = ?)`,
        params: [asked.account, asked.account, asked.account, asked.document, asked.document],
        order: 'e.id DESC',
      },
      window,
    );
  }

  /** What was posted to each account in the days that are asked for, and what stands on it at their end. O(entries up to then). */
  async accounts(asked: Pick<JournalAsked, 'from' | 'to'>): Promise<AccountsDto> {
    const span = await houseSpan(this.source, asked.from || FIRST, asked.to || LAST);
    const [sums, own, version, worth, account] = await Promise.all([
      rows<{ account: string; debit: string; credit: string; balance: string }>(
        this.source,
        `SELECT account, SUM(IF(at >= ${span.begins}, debit, 0)) AS debit, SUM(IF(at >= ${span.begins}, credit, 0)) AS credit, SUM(debit) - SUM(credit) AS balance FROM
           (SELECT debit AS account, at, amount AS debit, 0 AS credit FROM value_entry WHERE at < ${span.ends} UNION ALL SELECT credit, at, 0, amount FROM value_entry WHERE at < ${span.ends}) x GROUP BY account`,
      ),
      rows<{ account: string; number: string; name: string }>(this.source, 'SELECT account, number, name FROM own_account'),
      listVersion(this.source, 'own-accounts'),
      one<{ value: string | null }>(this.source, 'SELECT SUM(value) AS value FROM cost_pool'),
      one<{ value: string | null }>(
        this.source,
        `SELECT SUM(IF(debit = 'stock', amount, -amount)) AS value FROM value_entry WHERE debit = 'stock' OR credit = 'stock'`,
      ),
    ]);
    return {
      version,
      accounts: ACCOUNTS.map((name) => {
        const sum = sums.find((s) => s.account === name);
        const mine = own.find((o) => o.account === name);
        return {
          account: name,
          number: mine?.number ?? '',
          name: mine?.name ?? '',
          debit: sum?.debit ?? '0.000000',
          credit: sum?.credit ?? '0.000000',
          balance: sum?.balance ?? '0.000000',
        };
      }),
      stockWorth: worth?.value ?? '0.000000',
      stockAccount: account?.value ?? '0.000000',
    };
  }

  async preview(through: string): Promise<ExportPreviewDto> {
    const { ends } = await houseSpan(this.source, FIRST, through);
    const where = `FROM value_entry e WHERE e.export_id IS NULL AND e.at < ${ends}`;
    const [sum, unnamed] = await Promise.all([
      one<{ entries: string; amount: string | null; from: Date | null; to: Date | null }>(
        this.source,
        `SELECT COUNT(*) AS entries, SUM(e.amount) AS amount, MIN(e.at) AS \`from\`, MAX(e.at) AS \`to\` ${where}`,
      ),
      rows<{ account: string }>(
        this.source,
        `SELECT DISTINCT a.account FROM (SELECT DISTINCT e.debit AS account ${where} UNION SELECT DISTINCT e.credit ${where}) a LEFT JOIN own_account o ON o.account = a.account AND o.number <> '' WHERE o.account IS NULL ORDER BY a.account`,
      ),
    ]);
    return {
      entries: num(sum?.entries),
      amount: sum?.amount ?? '0.000000',
      from: sum?.from ?? null,
      to: sum?.to ?? null,
      unnamed: unnamed.map((u) => u.account),
    };
  }

  exports(window: Window): Promise<JournalExportPageDto> {
    return pageOf<JournalExportDto>(
      this.source,
      {
        select: 'x.code, x.through_on AS throughOn, x.entries, x.amount, p.name AS `by`, x.made_at AS at',
        from: 'FROM journal_export x JOIN person p ON p.id = x.made_by',
        params: [],
        order: 'x.id DESC',
      },
      window,
    );
  }

  /** The entries of an export, as they went out. */
  async *of(exportId: number): AsyncGenerator<JournalEntryDto> {
    for (let after = 0; ;) {
      const page = await rows<JournalEntryDto>(
        this.source,
        `SELECT ${ENTRY} ${FROM} WHERE e.export_id = ? AND e.id > ? ORDER BY e.id LIMIT ${PAGE}`,
        [exportId, after],
      );
      yield* page;
      const last = page.at(-1);
      if (!last || page.length < PAGE) return;
      after = num(last.id);
    }
  }

  /** The day that it is in the house. */
  async today(): Promise<string> {
    return (await siteDay(this.source, null)).today;
  }
}
