import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { JournalQueries, JournalService } from '../books/index.js';
import { CustomersService } from '../customers/index.js';
import { InvoicesService, PaymentsService } from '../invoicing/index.js';
import { type Act, addDays, one, siteDay } from '../platform/index.js';
import { DemoLeaving } from './leaving.js';
import { actAs } from './morning.js';

const fresh = (act: Act): Act => ({ ...act, key: randomUUID() });

/** The company's own chart, as its bookkeeper has it. */
const CHART: readonly (readonly [account: string, number: string, name: string])[] = [
  ['stock', '1000', 'Stock'],
  ['opening', '3900', 'Opening balances'],
  ['not billed yet', '2109', 'Goods received not invoiced'],
  ['bills to pay', '2100', 'Trade creditors'],
  ['cost of goods', '5000', 'Cost of goods sold'],
  ['count difference', '5110', 'Stock differences'],
  ['scrap', '5120', 'Scrap'],
  ['own use', '5130', 'Used by the house'],
  ['assembly', '5140', 'Assembly'],
  ['in transit', '1010', 'Goods between sites'],
  ['trade debtors', '1100', 'Trade debtors'],
  ['sales', '4000', 'Sales'],
  ['freight charged', '4900', 'Carriage charged'],
  ['sales tax', '2200', 'Output tax'],
  ['bank', '1200', 'Current account'],
];

const ABROAD = {
  code: 'VELDROOS',
  name: 'Imkerij Veldroos',
  email: 'inkoop@veldroos.example',
  phone: '',
  addressLine: 'Klaverpad 12',
  city: 'Oudlinden',
  postcode: '7399 KV',
  country: 'NL',
  note: '',
  termsDays: 30,
  wholeOnly: false,
  taxCode: 'ZERO',
  currency: 'EUR',
  addresses: [],
  prices: [],
};

/** What left in the weeks before: some of it invoiced, paid, overdue or credited, some waiting for its invoice. */
@Injectable()
export class DemoBooks {
  constructor(
    private readonly source: DataSource,
    private readonly leaving: DemoLeaving,
    private readonly customers: CustomersService,
    private readonly invoices: InvoicesService,
    private readonly payments: PaymentsService,
    private readonly journal: JournalService,
    private readonly journals: JournalQueries,
  ) {}

  async keep(): Promise<void> {
    const beth = await actAs(this.source, 'Beth');
    await this.source.query(
      `UPDATE item SET tax_code = 'STD' WHERE tax_code IS NULL AND EXISTS (SELECT 1 FROM tax_rate WHERE code = 'STD')`,
    );
    const { version } = await this.journals.accounts({ from: '', to: '' });
    await this.journal.map(fresh(beth), version, { accounts: CHART.map(([account, number, name]) => ({ account, number, name })) });
    const { today } = await siteDay(this.source, 1);

    await this.invoiced(beth, [await this.leaving.left('MOORFOOT', 46, [['BOK-MEAD', 6, '9.50'], ['BOK-QUEN', 4, '11.00']])], 45); // prettier-ignore
    const paid = await this.invoiced(beth, [await this.leaving.left('WICKHILL', 24, [['BOK-KIDS', 10, '6.80']])], 23);
    const part = await this.invoiced(beth, [await this.leaving.left('ALDERBEES', 9, [['JKT-M', 2, '48.00'], ['JKT-L', 1, '48.00']])], 8); // prettier-ignore
    await this.payments.note(fresh(beth), {
      paidOn: addDays(today, -3),
      amount: await this.gross(paid),
      says: `Wick Hill Farm Shop ${paid}`,
      bankRef: 'BK-90412',
    });
    await this.payments.note(fresh(beth), {
      paidOn: addDays(today, -1),
      amount: '25.00',
      says: 'MOORFOOT HONEY ON ACCOUNT',
      bankRef: 'BK-90431',
    });
    await this.invoices.credit(fresh(beth), part, {
      reason: 'One jacket came with a torn veil',
      again: false,
      lines: [{ line: 1, units: 1 }],
    });
    // What waits for its invoice: two deliveries of one customer, and one that is delivered in part.
    await this.leaving.left('THORNLEA', 2, [['BOK-KIDS', 6, '6.80']]);
    await this.leaving.left('THORNLEA', 1, [['BOK-MEAD', 4, '9.50'], ['JKT-S', 2, '46.00']]); // prettier-ignore
    await this.leaving.left('WICKHILL', 1, [['BOK-QUEN', 6, '11.00']], 4);
  }

  /** A farm shop over the sea, which is invoiced in a currency of its own and pays no sales tax here. */
  async abroad(): Promise<void> {
    const [orla, beth] = await Promise.all([actAs(this.source, 'Orla'), actAs(this.source, 'Beth')]);
    await this.customers.add(fresh(orla), ABROAD);
    const order = await this.leaving.left(ABROAD.code, 5, [['TOOL-JH', 12, '7.90'], ['BOK-QUEN', 5, '11.00']]); // prettier-ignore
    await this.invoiced(beth, [order], 4);
  }

  private async invoiced(act: Act, orders: string[], daysAgo: number): Promise<string> {
    const { code } = await this.invoices.invoice(fresh(act), { orders, freight: '6.50', freightTax: 'STD' });
    await this.source.query(
      'UPDATE invoice SET issued_on = issued_on - INTERVAL ? DAY, due_on = due_on - INTERVAL ? DAY, posted_at = posted_at - INTERVAL ? DAY, sent_at = posted_at WHERE code = ?',
      [daysAgo, daysAgo, daysAgo, code],
    );
    return code;
  }

  private async gross(code: string): Promise<string> {
    return (await one<{ gross: string }>(this.source, 'SELECT gross FROM invoice WHERE code = ?', [code]))?.gross ?? '0';
  }
}
