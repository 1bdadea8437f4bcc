import { Injectable } from '@nestjs/common';
import { decimalText, micro } from '@vectrum/core/money';
import { DataSource } from 'typeorm';
import { find, notFound, type Person, rows, siteDay } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { type ShownLine, shownIn } from './shown.js';
import type { StatementDto } from './statement.dto.js';

/** Days past due that a statement tells apart. */
const AGES = [
  { says: 'Not due yet', from: -Infinity },
  { says: 'Up to 30 days overdue', from: 1 },
  { says: '31 to 60 days overdue', from: 31 },
  { says: 'Longer overdue', from: 61 },
] as const;
const DAY_MS = 86_400_000;

interface Said {
  gross: string;
  open: string;
}
interface Open extends Said {
  id: number;
  code: string;
  kind: string;
  issuedOn: string;
  dueOn: string;
  hold: number;
  currency: string | null;
  rate: string | null;
}

/** What a customer with an account owes, document by document and by age. */
@Injectable()
export class StatementQueries {
  constructor(
    private readonly source: DataSource,
    private readonly settings: SettingsService,
  ) {}

  async of(person: Person, account: string): Promise<StatementDto> {
    const customer = await find(this.source, 'customer', { code: account.toUpperCase() });
    if (!customer) throw notFound(`Customer ${account.slice(0, 20)}`);
    const { today } = await siteDay(this.source, null);
    const home = await this.settings.get(this.source, 'homeCurrency');
    const found = await rows<Open>(
      this.source,
      `SELECT id, code, kind, issued_on AS issuedOn, due_on AS dueOn, gross, open_amount AS open, prices_hold_tax AS hold, shown_currency AS currency, shown_rate AS rate FROM invoice WHERE customer_id = ? AND open_amount <> 0 AND site_id IN (?) ORDER BY issued_on, id LIMIT 1000`,
      [customer.id, [0, ...person.siteIds]],
    );
    // Where all that is open is in one currency of theirs, so is the statement.
    const [first] = found;
    const theirs = first?.currency && found.every((i) => i.currency === first.currency) ? first.currency : null;
    const read = theirs === null ? new Map<number, Said>() : await this.inTheirs(theirs, found);
    const open = found.map(({ code, kind, issuedOn, dueOn, ...i }) => {
      const { gross, open } = read.get(i.id) ?? i;
      return { code, kind, issuedOn, dueOn, gross, open };
    });
    const late = (dueOn: string) => Math.round((Date.parse(today) - Date.parse(dueOn)) / DAY_MS);
    const sum = (of: typeof open) => decimalText(of.reduce((all, i) => all + micro(i.open), 0n)).replace(/0000$/, '');
    const ageOf = (i: (typeof open)[number]) => AGES.findLastIndex((a) => late(i.dueOn) >= a.from);
    return {
      account: customer.code,
      name: customer.name,
      email: customer.email,
      address: [customer.address_line, `${customer.postcode} ${customer.city}`.trim(), customer.country].filter(Boolean),
      asOf: today,
      currency: theirs ?? home,
      rows: open.map((i) => ({ ...i, kind: i.kind as 'invoice' | 'credit', daysLate: Math.max(0, late(i.dueOn)) })),
      ages: AGES.map(({ says }, at) => ({ says, amount: sum(open.filter((i) => ageOf(i) === at)) })),
      owed: sum(open),
    };
  }

  /** What each document says in the customer's currency, as the document itself says it. */
  private async inTheirs(currency: string, found: readonly Open[]): Promise<Map<number, Said>> {
    const lines = await rows<ShownLine & { id: number }>(
      this.source,
      'SELECT invoice_id AS id, line, price, amount, tax_code AS taxCode, tax_percent AS taxPercent FROM invoice_line WHERE invoice_id IN (?) ORDER BY invoice_id, line',
      [found.map((i) => i.id)],
    );
    const own = new Map<number, ShownLine[]>();
    for (const line of lines) own.set(line.id, [...(own.get(line.id) ?? []), line]);
    return new Map(
      found.flatMap((i) => {
        const of = { lines: own.get(i.id) ?? [], pricesHoldTax: i.hold === 1, gross: i.gross, open: i.open };
        const said = i.rate ? shownIn({ currency, rate: i.rate }, of) : null;
        return said ? [[i.id, said] as const] : [];
      }),
    );
  }
}
