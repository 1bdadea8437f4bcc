import { randomUUID } from 'node:crypto';
import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { Timetables } from '../books/index.js';
import { type Act, Problem, rows, siteSpan } from '../platform/index.js';
import { InvoicesQueries } from './invoices.queries.js';
import { InvoicesService } from './invoices.service.js';

const PAGE = 500;

/** Invoices by timetable: what left before the period began, on one invoice a customer with an account, and on one an order for all others. */
@Injectable()
export class InvoicesByTimetable implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly timetables: Timetables,
    private readonly queries: InvoicesQueries,
    private readonly invoices: InvoicesService,
  ) {}

  onModuleInit(): void {
    this.timetables.register('invoices', (act, before) => this.run(act, before));
  }

  private async run(act: Act, before: string): Promise<string> {
    const groups = await this.groups(act.person.siteIds, before);
    let made = 0;
    let sent = 0;
    const not: string[] = [];
    for (const orders of groups.values()) {
      try {
        const { code } = await this.invoices.invoice({ ...act, key: randomUUID() }, { orders });
        made++;
        // Whoever has no mail address gets it by post.
        await this.invoices.send({ ...act, key: randomUUID() }, code).then(
          () => sent++,
          () => undefined,
        );
      } catch (thrown) {
        if (!(thrown instanceof Problem)) throw thrown;
        not.push(`${orders[0] ?? ''}: ${thrown.detail}`);
      }
    }
    if (made + not.length === 0) return 'Nothing had left that was not invoiced';
    const says = `${made === 1 ? '1 invoice' : `${made} invoices`}, ${sent} by mail`;
    return not.length === 0 ? says : `${says}; not done: ${not.join('; ')}`;
  }

  /** Orders of which something left before a day and is on no invoice, by who pays; those whose prices hold the tax apart. */
  private async groups(siteIds: readonly number[], before: string): Promise<Map<string, string[]>> {
    const codes: string[] = [];
    for (let from = 0; ; from += PAGE) {
      const { rows: page } = await this.queries.open(siteIds, { from, limit: PAGE });
      codes.push(...page.map((o) => o.code));
      if (page.length < PAGE) break;
    }
    const { begins } = await siteSpan(this.source, before, before);
    const due = await rows<{ code: string; payer: string }>(
      this.source,
      `SELECT o.code, CONCAT(COALESCE(CONCAT('account ', o.customer_id), o.code), '/', c.prices_hold_tax) AS payer FROM sales_order o JOIN channel c ON c.id = o.channel_id
       WHERE o.code IN (?) AND COALESCE((SELECT MIN(m.server_at) FROM movement m WHERE m.document = o.code AND m.task = 'ship'), o.shipped_at) < ${begins('o.site_id')} ORDER BY o.id`,
      [['', ...codes]],
    );
    const groups = new Map<string, string[]>();
    for (const { code, payer } of due) groups.set(payer, [...(groups.get(payer) ?? []), code]);
    return groups;
  }
}
