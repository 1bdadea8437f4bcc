import { Injectable } from '@nestjs/common';
import type { Sums } from '@vectrum/core/invoicing';
import { addDays, badForm, badState, marks, notFound, one, type Row, rows, siteDay, type Tx } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { bare, deliveredLines } from './deliverable.js';
import type { CreditInvoiceDto, InvoiceOrdersDto } from './invoicing.dto.js';
import { creditLine, linesOf, type NewLine, sums, type Terms, text } from './reckoning.js';

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
  /** The currency that the document is said in, and home money for one of it; null for the house's own. */
  shown: { currency: string; rate: string } | null;
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

/** What invoices and credit notes would say: everything is read, and nothing written. */
@Injectable()
export class InvoicePlans {
  constructor(private readonly settings: SettingsService) {}

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
    const rest = await this.notInvoiced(tx, left);
    return { notes, unbilled: rest.units, amount: text(amount + rest.worth) };
  }

  /** Of units that no invoice has left to credit, those that are still to be invoiced, and what they would have come to, with tax. */
  private async notInvoiced(
    tx: Pick<Tx, 'query'>,
    left: ReadonlyMap<number, number>,
  ): Promise<{ units: Map<number, number>; worth: bigint }> {
    const order = await one<{ id: number; pricesHoldTax: number }>(
      tx,
      'SELECT o.id, h.prices_hold_tax AS pricesHoldTax FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id JOIN channel h ON h.id = o.channel_id WHERE l.id IN (?) LIMIT 1',
      [[0, ...left.keys()]],
    );
    const lines = (await deliveredLines(tx, [order?.id ?? 0])).flatMap((l) => {
      // What was credited by hand before is on an invoice, and is not to be invoiced either.
      const units = Math.min(left.get(l.id) ?? 0, l.delivered - l.invoiced);
      return units > 0 ? [{ ...l, delivered: units, invoiced: 0 }] : [];
    });
    if (lines.length === 0) return { units: new Map(), worth: 0n };
    const none: Terms = { freight: '0', freightTax: { code: '', percent: '0' }, discountPercent: '0' };
    return {
      units: new Map(lines.map((l) => [l.id, l.delivered])),
      worth: sums(linesOf(lines, none), order?.pricesHoldTax === 1).gross,
    };
  }

  /** The lines of an invoice with what was credited of each. */
  creditable(tx: Pick<Tx, 'query'>, invoiceId: number) {
    return rows<Row<'invoice_line'> & { credited: string }>(
      tx,
      `SELECT l.*, COALESCE((SELECT SUM(x.units) FROM invoice_line x WHERE x.credits_line_id = l.id), 0) AS credited FROM invoice_line l WHERE l.invoice_id = ? ORDER BY l.line`,
      [invoiceId],
    );
  }

  /** The lines of a credit note over lines of an invoice, or a part of their units. Problem 400 with what is against each. */
  async creditLines(tx: Pick<Tx, 'query'>, invoice: Row<'invoice'>, input: Pick<CreditInvoiceDto, 'lines'>): Promise<NewLine[]> {
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

  /** The currency of a customer at the rate of the day; null where it is the house's. Problem 400 where nobody has said a rate. */
  private async shown(tx: Pick<Tx, 'query'>, currency: string | null): Promise<Billed['shown']> {
    if (currency === null || currency === (await this.settings.get(tx, 'homeCurrency'))) return null;
    const kept = await one<{ rate: string }>(tx, 'SELECT rate FROM currency WHERE code = ?', [currency]);
    if (!kept || Number(kept.rate) <= 0) throw badForm({ orders: `Nobody has said a rate for ${currency}. Say it in Setup, Company` });
    return { currency, rate: kept.rate };
  }

  /** Whom the orders are for. One invoice has one customer, one address and one way of saying prices. */
  private async billed(tx: Pick<Tx, 'query'>, orderIds: readonly number[]): Promise<Billed> {
    const found = await rows<
      Omit<Billed, 'pricesHoldTax' | 'shown'> & { theirs: string | null; pricesHoldTax: number; orderName: string; orderEmail: string }
    >(
      tx,
      `SELECT c.currency AS theirs, o.site_id AS siteId, c.id AS customerId, c.code AS account, COALESCE(c.name, o.customer) AS name, COALESCE(NULLIF(c.email, ''), o.email) AS email, o.customer AS orderName, o.email AS orderEmail,
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
    const { orderName: _name, orderEmail: _email, theirs, ...billed } = first;
    return { ...billed, pricesHoldTax: first.pricesHoldTax === 1, shown: await this.shown(tx, theirs) };
  }
}
