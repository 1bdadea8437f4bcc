import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { mustHave } from '../identity/index.js';
import { CompanyLetters } from '../letters/index.js';
import { Outbox, PAPER, type Person, rows, task, Work } from '../platform/index.js';
import { Papers } from '../printing/index.js';
import { SettingsService } from '../settings/index.js';
import { writeInvoice } from '../ubl/index.js';
import { InvoicePlans } from './invoice-plans.js';
import { InvoicesQueries } from './invoices.queries.js';
import type { InvoiceDto } from './invoicing.dto.js';
import { sumsDto, text } from './reckoning.js';
import { asRead, shownIn } from './shown.js';
import type { invoicePdf, InvoicePaper } from './invoice.pdf.js';

const PDF = task<typeof invoicePdf>('invoicing/invoicePdf', ...PAPER);

/** Invoices and credit notes as paper and as data (UBL 2.1), and their way to customers by mail. */
@Injectable()
export class InvoicePapers implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly work: Work,
    private readonly settings: SettingsService,
    private readonly queries: InvoicesQueries,
    private readonly plans: InvoicePlans,
    private readonly letters: CompanyLetters,
    private readonly outbox: Outbox,
    private readonly printable: Papers,
  ) {}

  onModuleInit(): void {
    this.printable.register('invoice', 'Invoice', async (person, code) => {
      mustHave(person, 'invoices');
      return this.pdf(await this.queries.sheet(code, person.siteIds));
    });
    this.printable.register('proforma', 'Proforma', (person, code) => {
      if (!person.rights.has('order-desk')) mustHave(person, 'invoices');
      return this.proforma(person, code);
    });
    this.outbox.handle('mail.invoice', async ({ payload, id }) => {
      const invoice = await this.read(String(payload['code']));
      await this.letters.send(
        invoice.kind === 'invoice' ? 'invoice' : 'credit',
        {
          customer: invoice.name,
          invoice: invoice.code,
          amount: `${(invoice.shown ?? invoice).gross.replace('-', '')} ${(invoice.shown ?? invoice).currency}`,
          due: invoice.dueOn,
        },
        {
          id: `invoice-${id}`,
          to: String(payload['to']),
          attachments: [
            { filename: `${invoice.code}.pdf`, content: await this.pdf(invoice) },
            { filename: `${invoice.code}.xml`, content: Buffer.from(await this.xml(invoice)) },
          ],
        },
      );
    });
  }

  /** An invoice or credit note as data, for another system. */
  async document(code: string): Promise<string> {
    return this.xml(await this.read(code));
  }

  /** For whoever acts for the house. */
  private async read(code: string): Promise<InvoiceDto> {
    const sites = await rows<{ id: number }>(this.source, 'SELECT id FROM site');
    return this.queries.sheet(
      code,
      sites.map((s) => s.id),
    );
  }

  /** What an order will come to, as a paper for customs, a bank or a customer who pays first. */
  async proforma(person: Person, code: string): Promise<Buffer> {
    const { billed, lines, sums, issuedOn } = await this.plans.proforma(this.source, person.siteIds, code);
    const paper: InvoicePaper = {
      ...billed,
      shown: null,
      ...sumsDto(sums),
      code,
      kind: 'proforma',
      currency: await this.settings.get(this.source, 'homeCurrency'),
      issuedOn,
      dueOn: issuedOn,
      note: '',
      open: '0.00',
      overdue: false,
      sentAt: null,
      postedBy: '',
      postedAt: new Date(),
      credits: null,
      creditedBy: [],
      payments: [],
      entries: [],
      lines: lines.map((l, i) => ({
        line: i + 1,
        order: code,
        sku: l.sku,
        name: l.name,
        units: l.units,
        words: l.units % l.factor === 0 ? `${l.units / l.factor} × ${l.pack}` : String(l.units),
        price: l.price,
        pack: l.pack,
        discountPercent: l.discountPercent,
        amount: text(l.amount),
        taxCode: l.taxCode,
        taxPercent: l.taxPercent,
        credited: 0,
      })),
    };
    const shown = shownIn(billed.shown, { lines: paper.lines, pricesHoldTax: billed.pricesHoldTax, gross: paper.gross, open: '0.00' });
    return this.work.run(PDF, asRead({ ...paper, shown }), await this.settings.letterhead());
  }

  async pdf(invoice: InvoiceDto): Promise<Buffer> {
    return this.work.run(PDF, asRead(invoice), await this.settings.letterhead());
  }

  async xml(posted: InvoiceDto): Promise<string> {
    const i = asRead(posted);
    const { name, address } = await this.settings.letterhead();
    const blank = { code: '', email: '', phone: '' };
    const nets = await rows<{ line: number; net: string; factor: number }>(
      this.source,
      'SELECT l.line, l.net, l.factor FROM invoice_line l JOIN invoice v ON v.id = l.invoice_id WHERE v.code = ?',
      [i.code],
    );
    return writeInvoice({
      ...i,
      dueOn: i.kind === 'invoice' ? i.dueOn : null,
      seller: { ...blank, name, addressLines: address === '' ? [] : [address] },
      buyer: {
        code: i.account ?? '',
        name: i.name,
        addressLines: [i.addressLine, `${i.postcode} ${i.city}`.trim(), i.country].filter(Boolean),
        email: i.email,
        phone: '',
      },
      buyerTaxNumber: i.taxNumber,
      lines: i.lines.map((l) => ({
        line: l.line,
        units: l.units,
        net: (posted.shown?.lines ?? nets).find((n) => n.line === l.line)?.net ?? l.amount,
        price: l.price,
        factor: nets.find((n) => n.line === l.line)?.factor ?? 1,
        sku: l.sku,
        name: l.name,
        order: l.order,
        taxPercent: l.taxPercent,
      })),
    });
  }
}
