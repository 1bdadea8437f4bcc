import { Injectable } from '@nestjs/common';
import type { Sums } from '@vectrum/core/invoicing';
import { microOf } from '@vectrum/core/invoicing';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  addDays,
  badForm,
  badState,
  CommandLog,
  find,
  insert,
  marks,
  mustBeAt,
  nextCode,
  notFound,
  NOW,
  one,
  Outbox,
  type Row,
  rows,
  siteDay,
  type Tx,
  update,
} from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { enterValue } from '../stock/index.js';
import { bare, deliveredLines } from './deliverable.js';
import type { CreditInvoiceDto, InvoiceOrdersDto } from './invoicing.dto.js';
import { creditLine, linesOf, type NewLine, penceIn, sums, type Terms, text } from './reckoning.js';

/** Days within which whoever has no account pays. */
const USUAL_TERMS = 14;

/** Who is invoiced, and how. */
export interface Billed {
  siteId: number;
  customerId: number | null;
  account: string | null;
  name: string;
  email: string;
  addressLine: string;
  city: string;
  postcode: string;
  country: string;
  taxNumber: string;
  termsDays: number;
  pricesHoldTax: boolean;
}

/** Units of an order's line that the customer does not pay for, or gets their money back for. */
export interface Billable {
  orderLineId: number;
  units: number;
}

/** What an invoice over orders would be: nothing is written yet. */
export interface Planned {
  billed: Billed;
  orderIds: number[];
  lines: NewLine[];
  sums: Sums;
  issuedOn: string;
  dueOn: string;
}

/**
 * Invoices what was delivered and credits what was invoiced. A document is made and posted in one: its number, its lines and its
 * entries in the journal are there together or not at all, so that numbers have no gaps. The orders' rows are held meanwhile,
 * so that no unit is ever on two invoices.
 */
@Injectable()
export class InvoicesService {
  constructor(
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly settings: SettingsService,
    private readonly outbox: Outbox,
  ) {}

  invoice(act: Act, input: InvoiceOrdersDto): Promise<{ code: string }> {
    return this.commands.run(act, 'invoice.make', input, async (tx) => {
      const planned = await this.plan(tx, act.person.siteIds, input, 'lock');
      mustBeAt(act.person, planned.billed.siteId);
      const code = await nextCode(tx, 'I');
      await this.write(tx, act, { code, kind: 'invoice', credits: null, again: false, note: input.note?.trim() ?? '' }, planned);
      return { code };
    });
  }

  /** What an invoice over orders would say. With `lock` the orders are held until the transaction ends, in the order of their numbers. */
  async plan(tx: Pick<Tx, 'query'>, siteIds: readonly number[], input: InvoiceOrdersDto, lock?: 'lock'): Promise<Planned> {
    const codes = [...new Set(input.orders.map((o) => o.toUpperCase()))];
    const orders = await rows<{ id: number; code: string }>(
      tx,
      `SELECT id, code FROM sales_order WHERE code IN (${marks(codes)}) AND site_id IN (?) ORDER BY id ${lock ? 'FOR UPDATE' : ''}`,
      [...codes, [0, ...siteIds]],
    );
    const missing = codes.find((c) => !orders.some((o) => o.code === c));
    if (missing) throw notFound(`Order ${missing}`);
    const orderIds = orders.map((o) => o.id);
    const billed = await this.billed(tx, orderIds);
    const lines = linesOf(await deliveredLines(tx, orderIds), await this.terms(tx, input));
    const issuedOn = (await siteDay(tx, billed.siteId)).today;
    return { billed, orderIds, lines, sums: sums(lines, billed.pricesHoldTax), issuedOn, dueOn: addDays(issuedOn, billed.termsDays) };
  }

  /** What all of an order will come to, whatever of it has left: nothing is written, and no freight is known yet. */
  async proforma(tx: Pick<Tx, 'query'>, siteIds: readonly number[], code: string): Promise<Planned> {
    const order = await one<{ id: number }>(tx, 'SELECT id FROM sales_order WHERE code = ? AND site_id IN (?)', [code, [0, ...siteIds]]);
    if (!order) throw notFound(`Order ${code.slice(0, 20)}`);
    const billed = await this.billed(tx, [order.id]);
    const wanted = (await deliveredLines(tx, [order.id])).map((l) => ({ ...l, delivered: l.ordered, invoiced: 0 }));
    if (!wanted.some((l) => l.ordered > 0)) throw badState(`${code} has no goods whose price is known`);
    const lines = linesOf(wanted, { freight: '0', freightTax: { code: '', percent: '0' }, discountPercent: '0' });
    const issuedOn = (await siteDay(tx, billed.siteId)).today;
    return { billed, orderIds: [order.id], lines, sums: sums(lines, billed.pricesHoldTax), issuedOn, dueOn: issuedOn };
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
    const { notes, unbilled, amount } = await this.refundPlan(tx, wanted, 'lock');
    const credits: { id: number; code: string }[] = [];
    for (const { invoice, lines } of notes) credits.push(await this.writeCredit(tx, act, invoice, { lines, reason, again: false }));
    return { credits, unbilled, amount };
  }

  /** What taking goods off would credit, invoice by invoice, and what of them was never invoiced. */
  async refundPlan(
    tx: Pick<Tx, 'query'>,
    wanted: readonly Billable[],
    lock?: 'lock',
  ): Promise<{
    notes: { invoice: Row<'invoice'>; lines: { line: number; units: number }[] }[];
    unbilled: Map<number, number>;
    amount: string;
  }> {
    const left = new Map(wanted.map((w) => [w.orderLineId, w.units]));
    const invoices = await rows<Row<'invoice'>>(
      tx,
      `SELECT v.* FROM invoice v WHERE v.kind = 'invoice' AND v.id IN (SELECT l.invoice_id FROM invoice_line l WHERE l.order_line_id IN (?)) ORDER BY v.id ${lock ? 'FOR UPDATE' : ''}`,
      [[0, ...left.keys()]],
    );
    const notes: { invoice: Row<'invoice'>; lines: { line: number; units: number }[] }[] = [];
    let amount = 0n;
    for (const invoice of invoices) {
      const lines = (await this.creditable(tx, invoice.id)).flatMap((l) => {
        const units = Math.min(left.get(l.order_line_id ?? 0) ?? 0, l.units - Number(l.credited));
        if (units <= 0) return [];
        left.set(l.order_line_id ?? 0, (left.get(l.order_line_id ?? 0) ?? 0) - units);
        return [{ line: l.line, units }];
      });
      if (lines.length === 0) continue;
      notes.push({ invoice, lines });
      const credited = await this.creditLines(tx, invoice, { lines });
      amount -= sums(credited, invoice.prices_hold_tax === 1).gross;
    }
    const unbilled = new Map([...left].filter(([, units]) => units > 0));
    return { notes, unbilled, amount: text(amount + (await this.worthOf(tx, unbilled))) };
  }

  /** What units that were delivered and never invoiced would have come to, with tax. */
  private async worthOf(tx: Pick<Tx, 'query'>, units: ReadonlyMap<number, number>): Promise<bigint> {
    const [first] = units.keys();
    if (first === undefined) return 0n;
    const order = await one<{ id: number; pricesHoldTax: number }>(
      tx,
      'SELECT o.id, h.prices_hold_tax AS pricesHoldTax FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id JOIN channel h ON h.id = o.channel_id WHERE l.id = ?',
      [first],
    );
    const lines = (await deliveredLines(tx, [order?.id ?? 0]))
      .filter((l) => units.has(l.id))
      .map((l) => ({ ...l, delivered: units.get(l.id) ?? 0, invoiced: 0 }));
    if (lines.length === 0) return 0n;
    const none: Terms = { freight: '0', freightTax: { code: '', percent: '0' }, discountPercent: '0' };
    return sums(linesOf(lines, none), order?.pricesHoldTax === 1).gross;
  }

  private async writeCredit(tx: Tx, act: Act, invoice: Row<'invoice'>, input: CreditInvoiceDto): Promise<{ id: number; code: string }> {
    const lines = await this.creditLines(tx, invoice, input);
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

  /** The lines of an invoice with what was credited of each. */
  private creditable(tx: Pick<Tx, 'query'>, invoiceId: number) {
    return rows<Row<'invoice_line'> & { credited: string }>(
      tx,
      `SELECT l.*, COALESCE((SELECT SUM(x.units) FROM invoice_line x WHERE x.credits_line_id = l.id), 0) AS credited FROM invoice_line l WHERE l.invoice_id = ? ORDER BY l.line`,
      [invoiceId],
    );
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

  private async creditLines(tx: Pick<Tx, 'query'>, invoice: Row<'invoice'>, input: Pick<CreditInvoiceDto, 'lines'>): Promise<NewLine[]> {
    const known = await this.creditable(tx, invoice.id);
    if (new Set(input.lines.map((l) => l.line)).size !== input.lines.length)
      throw badForm({ lines: 'A line is credited once in one note' });
    return input.lines.map(({ line: n, units }, i) => {
      const line = known.find((l) => l.line === n);
      if (!line) throw badForm({ [`lines.${i}.line`]: `${invoice.code} has no line ${n}` });
      const credited = Number(line.credited);
      if (credited + units > line.units)
        throw badForm({ [`lines.${i}.units`]: `Of line ${n} only ${line.units - credited} are left to credit` });
      return creditLine(
        {
          id: line.id,
          orderLineId: line.order_line_id,
          sku: line.sku,
          name: line.name,
          units: line.units,
          factor: line.factor,
          pack: line.pack,
          price: line.price,
          discountPercent: line.discount_percent,
          amount: line.amount,
          taxCode: line.tax_code,
          taxPercent: bare(line.tax_percent),
          credited,
        },
        units,
      );
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

  private async terms(tx: Pick<Tx, 'query'>, input: InvoiceOrdersDto): Promise<Terms> {
    const code = input.freightTax?.trim() ?? '';
    const tax =
      code === '' ? null : await one<{ code: string; percent: string }>(tx, 'SELECT code, percent FROM tax_rate WHERE code = ?', [code]);
    if (code !== '' && !tax) throw badForm({ freightTax: `There is no tax rate ${code}. Make it in Setup, Company` });
    return {
      freight: input.freight ?? '0',
      freightTax: tax ? { code: tax.code, percent: bare(tax.percent) } : { code: '', percent: '0' },
      discountPercent: input.discountPercent ?? '0',
    };
  }

  /** Whom the orders are for. One invoice has one customer, one address and one way of saying prices. */
  private async billed(tx: Pick<Tx, 'query'>, orderIds: readonly number[]): Promise<Billed> {
    const found = await rows<Omit<Billed, 'pricesHoldTax'> & { pricesHoldTax: number; orderName: string; orderEmail: string }>(
      tx,
      `SELECT o.site_id AS siteId, c.id AS customerId, c.code AS account, COALESCE(c.name, o.customer) AS name, COALESCE(NULLIF(c.email, ''), o.email) AS email, o.customer AS orderName, o.email AS orderEmail,
         IF(c.id IS NULL, o.address_line, c.address_line) AS addressLine, IF(c.id IS NULL, o.city, c.city) AS city, IF(c.id IS NULL, o.postcode, c.postcode) AS postcode, IF(c.id IS NULL, o.country, c.country) AS country,
         COALESCE(c.tax_number, '') AS taxNumber, COALESCE(c.terms_days, ${USUAL_TERMS}) AS termsDays, h.prices_hold_tax AS pricesHoldTax
       FROM sales_order o JOIN channel h ON h.id = o.channel_id LEFT JOIN customer c ON c.id = o.customer_id WHERE o.id IN (${marks(orderIds)}) ORDER BY o.id`,
      [...orderIds],
    );
    const [first] = found;
    if (!first) throw notFound('That order');
    const same = (o: (typeof found)[number]) =>
      first.customerId !== null
        ? o.customerId === first.customerId
        : o.customerId === null && o.orderName === first.orderName && o.orderEmail === first.orderEmail;
    if (!found.every(same)) throw badForm({ orders: 'These orders are for different customers. Invoice each by itself' });
    if (!found.every((o) => o.pricesHoldTax === first.pricesHoldTax))
      throw badForm({ orders: 'Some of these prices hold the tax and some do not. Invoice them apart' });
    const { orderName: _name, orderEmail: _email, ...billed } = first;
    return { ...billed, pricesHoldTax: first.pricesHoldTax === 1 };
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
});
