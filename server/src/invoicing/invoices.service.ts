import { Injectable } from '@nestjs/common';
import type { Sums } from '@vectrum/core/invoicing';
import { microOf } from '@vectrum/core/invoicing';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  find,
  insert,
  mustBeAt,
  nextCode,
  notFound,
  NOW,
  one,
  Outbox,
  type Row,
  siteDay,
  type Tx,
  update,
} from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { enterValue } from '../stock/index.js';
import { type Billable, type Billed, InvoicePlans, type Planned } from './invoice-plans.js';
import type { CreditInvoiceDto, InvoiceOrdersDto } from './invoicing.dto.js';
import { type NewLine, penceIn, sums, text } from './reckoning.js';

/**
 * Invoices what was delivered and credits what was invoiced. A document is made and posted in one: its number, its lines and its
 * entries in the journal are there together or not at all, so that numbers have no gaps. The orders' rows are held meanwhile,
 * so that no unit is ever on two invoices.
 */
@Injectable()
export class InvoicesService {
  constructor(
    private readonly commands: CommandLog,
    private readonly plans: InvoicePlans,
    private readonly activity: ActivityService,
    private readonly settings: SettingsService,
    private readonly outbox: Outbox,
  ) {}

  invoice(act: Act, input: InvoiceOrdersDto): Promise<{ code: string }> {
    return this.commands.run(act, 'invoice.make', input, async (tx) => {
      const planned = await this.plans.plan(tx, act.person.siteIds, input, 'lock');
      mustBeAt(act.person, planned.billed.siteId);
      const code = await nextCode(tx, 'I');
      await this.write(tx, act, { code, kind: 'invoice', credits: null, again: false, note: input.note?.trim() ?? '' }, planned);
      return { code };
    });
  }

  /** Takes back lines of an invoice, or a part of their units. */
  credit(act: Act, code: string, input: CreditInvoiceDto): Promise<{ code: string }> {
    return this.commands.run(act, 'invoice.credit', { code, input }, async (tx) => {
      const invoice = await this.locked(tx, act, code);
      if (invoice.kind !== 'invoice') throw badState(`${code} is a credit note itself`);
      const { code: credit } = await this.writeCredit(tx, act, invoice, input);
      return { code: credit };
    });
  }

  /**
   * Takes goods off what a customer pays, in the caller's transaction, which holds the order: what is invoiced of them is credited,
   * on a note for each invoice; the rest is told, and must not be invoiced. `amount` is all of it, with tax.
   */
  async refund(
    tx: Tx,
    act: Act,
    wanted: readonly Billable[],
    reason: string,
  ): Promise<{ credits: { id: number; code: string }[]; unbilled: Map<number, number>; amount: string }> {
    const { notes, unbilled, amount } = await this.plans.refundPlan(tx, wanted, 'lock');
    const credits: { id: number; code: string }[] = [];
    for (const { invoice, lines } of notes) credits.push(await this.writeCredit(tx, act, invoice, { lines, reason, again: false }));
    return { credits, unbilled, amount };
  }

  private async writeCredit(tx: Tx, act: Act, invoice: Row<'invoice'>, input: CreditInvoiceDto): Promise<{ id: number; code: string }> {
    const lines = await this.plans.creditLines(tx, invoice, input);
    const code = await nextCode(tx, 'C');
    const issuedOn = (await siteDay(tx, invoice.site_id)).today;
    const billed = billedOf(invoice);
    const foot = sums(lines, billed.pricesHoldTax);
    const id = await this.write(
      tx,
      act,
      { code, kind: 'credit', credits: invoice, again: input.again, note: input.reason.trim() },
      { billed, orderIds: [], lines, sums: foot, issuedOn, dueOn: issuedOn },
    );
    return { id, code };
  }

  /** Sends it by mail, as paper and as data; again where it was sent before. */
  send(act: Act, code: string): Promise<void> {
    return this.commands.run(act, 'invoice.send', { code }, async (tx) => {
      const invoice = await this.locked(tx, act, code);
      if (invoice.email === '') throw badForm({ email: `${invoice.name} has no mail address. Print ${code}, and send it by post` });
      await this.outbox.send(
        tx,
        `mail:${invoice.email}`,
        'mail.invoice',
        { code, to: invoice.email },
        { siteId: invoice.site_id, document: code },
      );
      await update(tx, 'invoice', { id: invoice.id }, { sent_at: NOW });
      await this.activity.record(tx, act, {
        kind: 'invoice',
        glyph: 'go',
        title: `${code} sent to ${invoice.email}`,
        document: code,
        siteId: invoice.site_id,
      });
    });
  }

  private async locked(tx: Tx, act: Act, code: string): Promise<Row<'invoice'>> {
    const invoice = await find(tx, 'invoice', { code: code.toUpperCase() }, 'lock');
    if (!invoice) throw notFound(`Invoice ${code}`);
    mustBeAt(act.person, invoice.site_id);
    return invoice;
  }

  private async write(
    tx: Tx,
    act: Act,
    head: { code: string; kind: 'invoice' | 'credit'; credits: Row<'invoice'> | null; again: boolean; note: string },
    { billed, lines, sums: foot, issuedOn, dueOn }: Planned,
  ): Promise<number> {
    const id = await insert(tx, 'invoice', {
      code: head.code,
      kind: head.kind,
      site_id: billed.siteId,
      customer_id: billed.customerId,
      name: billed.name,
      email: billed.email,
      address_line: billed.addressLine,
      city: billed.city,
      postcode: billed.postcode,
      country: billed.country,
      tax_number: billed.taxNumber,
      currency: await this.settings.get(tx, 'homeCurrency'),
      shown_currency: billed.shown?.currency ?? null,
      shown_rate: billed.shown?.rate ?? null,
      prices_hold_tax: billed.pricesHoldTax ? 1 : 0,
      issued_on: issuedOn,
      due_on: dueOn,
      note: head.note,
      net: text(foot.net),
      tax: text(foot.tax),
      gross: text(foot.gross),
      credits_id: head.credits?.id ?? null,
      reopens: head.again ? 1 : 0,
      posted_by: act.person.id,
    });
    for (const [i, l] of lines.entries())
      await insert(tx, 'invoice_line', {
        invoice_id: id,
        line: i + 1,
        order_line_id: l.orderLineId,
        credits_line_id: l.creditsLineId,
        sku: l.sku,
        name: l.name,
        units: l.units,
        factor: l.factor,
        pack: l.pack,
        price: l.price,
        discount_percent: l.discountPercent,
        amount: text(l.amount),
        net: text(foot.lines[i] ?? 0n),
        tax_code: l.taxCode,
        tax_percent: l.taxPercent,
      });
    await this.enter(tx, { invoice_id: id, document: head.code }, lines, foot);
    if (head.credits) await this.useCredit(tx, id, head.credits, foot);
    await this.tellSystem(tx, head.code, billed.siteId, lines);
    await this.activity.record(tx, act, {
      kind: 'invoice',
      glyph: head.kind === 'invoice' ? 'full' : 'undo',
      title: head.kind === 'invoice' ? `${head.code}: ${billed.name} invoiced` : `${head.code}: ${head.credits?.code ?? ''} credited`,
      detail: head.note,
      document: head.code,
      siteId: billed.siteId,
    });
    return id;
  }

  /** A trade customer whose own system ordered has the document there too. */
  private async tellSystem(tx: Tx, code: string, siteId: number, lines: readonly NewLine[]): Promise<void> {
    const channel = await one<{ code: string }>(
      tx,
      `SELECT c.code FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id JOIN channel c ON c.id = o.channel_id WHERE l.id IN (?) AND c.kind = 'trade' AND c.base_url IS NOT NULL LIMIT 1`,
      [[0, ...lines.flatMap((l) => (l.orderLineId === null ? [] : [l.orderLineId]))]],
    );
    if (channel)
      await this.outbox.send(
        tx,
        `channel:${channel.code}`,
        'channel.invoice',
        { channel: channel.code, ref: code },
        { siteId, document: code },
      );
  }

  /** What the customer owes, beside what was sold, carried and taxed. A credit note's amounts are below nought, and go the other way. */
  private async enter(tx: Tx, about: { invoice_id: number; document: string }, lines: readonly NewLine[], foot: Sums): Promise<void> {
    const net = (of: (l: NewLine) => boolean) => lines.reduce((sum, l, i) => (of(l) ? sum + (foot.lines[i] ?? 0n) : sum), 0n);
    await enterValue(tx, about, 'trade debtors', 'sales', microOf(net((l) => l.sku !== '')));
    await enterValue(tx, about, 'trade debtors', 'freight charged', microOf(net((l) => l.sku === '')));
    await enterValue(tx, about, 'trade debtors', 'sales tax', microOf(foot.tax));
  }

  /** A credit note pays its invoice as far as that is open; what is over stays to be paid back. Both stand at what is left of them. */
  private async useCredit(tx: Tx, creditId: number, invoice: Row<'invoice'>, foot: Sums): Promise<void> {
    const open = penceIn(invoice.gross) - penceIn(invoice.paid);
    const used = -foot.gross < open ? -foot.gross : open;
    if (used <= 0n) return;
    await tx.query('UPDATE invoice SET paid = paid + ? WHERE id = ?', [text(used), invoice.id]);
    await tx.query('UPDATE invoice SET paid = paid - ? WHERE id = ?', [text(used), creditId]);
  }
}

const billedOf = (i: Row<'invoice'>): Billed => ({
  siteId: i.site_id,
  customerId: i.customer_id,
  account: null,
  name: i.name,
  email: i.email,
  addressLine: i.address_line,
  city: i.city,
  postcode: i.postcode,
  country: i.country,
  taxNumber: i.tax_number,
  termsDays: 0,
  pricesHoldTax: i.prices_hold_tax === 1,
  // A credit note takes back at the rate at which it was invoiced.
  shown: i.shown_currency && i.shown_rate ? { currency: i.shown_currency, rate: i.shown_rate } : null,
});
