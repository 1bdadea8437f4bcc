import { Injectable } from '@nestjs/common';
import { spell } from '@vectrum/core/quantity';
import { DataSource } from 'typeorm';
import { ItemQueries } from '../catalogue/index.js';
import { likeAny, notFound, num, one, pageOf, rows, siteDays, type Window } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { bare, type DeliveredLine, deliveredLines, IS_GOODS, TO_INVOICE } from './deliverable.js';
import { InvoicePlans } from './invoice-plans.js';
import { shownIn } from './shown.js';
import type {
  CheckLineDto,
  InvoiceDto,
  InvoiceLineDto,
  InvoiceOrdersDto,
  InvoicePageDto,
  InvoiceRowDto,
  OpenOrderPageDto,
  PreviewDto,
} from './invoicing.dto.js';
import type { TaxDto } from './margin.dto.js';
import { lineAmount, penceIn, sumsDto, text } from './reckoning.js';
import { taxesOf } from './taxes.js';

/** What the list of invoices shows. */
export const INVOICE_SHOWS = ['all', 'open', 'overdue', 'credits'] as const;
export type InvoiceShow = (typeof INVOICE_SHOWS)[number];

/** Reads what is to be invoiced, and invoices. */
@Injectable()
export class InvoicesQueries {
  constructor(
    private readonly source: DataSource,
    private readonly items: ItemQueries,
    private readonly settings: SettingsService,
    private readonly plans: InvoicePlans,
  ) {}

  /** Orders of which something was delivered and is not invoiced: by customer, those that have waited longest first. */
  async open(siteIds: readonly number[], window: Window): Promise<OpenOrderPageDto> {
    const { rows: page, total } = await pageOf<{ id: number }>(
      this.source,
      {
        select: 'o.id',
        from: `FROM sales_order o LEFT JOIN customer c ON c.id = o.customer_id WHERE o.site_id IN (?) AND o.state NOT IN ('quote', 'cancelled')
          AND EXISTS (SELECT 1 FROM sales_order_line s WHERE s.order_id = o.id AND s.shipped_units > 0)
          AND EXISTS (SELECT 1 FROM sales_order_line l JOIN item i ON i.id = l.item_id WHERE l.order_id = o.id AND ${IS_GOODS} AND ${TO_INVOICE} > 0)`,
        params: [[0, ...siteIds]],
        order: `COALESCE(c.name, o.customer), COALESCE(o.shipped_at, o.placed_at), o.id`,
      },
      window,
    );
    const ids = page.map((o) => o.id);
    const heads = await rows<{ id: number; code: string; account: string | null; customer: string; site: string; shippedAt: Date | null }>(
      this.source,
      `SELECT o.id, o.code, c.code AS account, COALESCE(c.name, o.customer) AS customer, t.name AS site, COALESCE((SELECT MIN(p.handed_over_at) FROM parcel p WHERE p.order_id = o.id), o.shipped_at) AS shippedAt
       FROM sales_order o JOIN site t ON t.id = o.site_id LEFT JOIN customer c ON c.id = o.customer_id WHERE o.id IN (?) ORDER BY FIELD(o.id, ?)`,
      [
        [0, ...ids],
        [0, ...ids],
      ],
    );
    const lines = ids.length === 0 ? [] : await deliveredLines(this.source, ids);
    return {
      rows: heads.map(({ id, ...head }) => {
        const own = lines.filter((l) => l.orderId === id);
        const due = own.filter((l) => l.delivered > l.invoiced);
        return {
          ...head,
          lines: due.length,
          differing: own.filter((l) => differs(l) !== '').length,
          amount: text(due.reduce((sum, l) => sum + lineAmount(l, l.delivered - l.invoiced, '0'), 0n)),
          complete: own.every((l) => l.delivered >= l.ordered),
        };
      }),
      total,
    };
  }

  /** The invoice over orders as it would be, each line beside what was ordered; what differs first. */
  async preview(siteIds: readonly number[], input: InvoiceOrdersDto): Promise<PreviewDto> {
    const planned = await this.plans.plan(this.source, siteIds, input);
    const goods = await deliveredLines(this.source, planned.orderIds);
    const packs = await this.items.packs(goods.map((g) => g.itemId));
    const words = (l: DeliveredLine, units: number) => spell(units, packs.get(l.itemId) ?? []);
    const amounts = new Map(planned.lines.map((l) => [l.orderLineId, l.amount]));
    const lines = goods.map((l): CheckLineDto => ({
      order: l.order,
      line: l.line,
      sku: l.sku,
      name: l.name,
      ordered: l.ordered,
      delivered: l.delivered,
      invoiced: l.invoiced,
      toInvoice: Math.max(0, l.delivered - l.invoiced),
      orderedWords: words(l, l.ordered),
      deliveredWords: words(l, l.delivered),
      toInvoiceWords: words(l, Math.max(0, l.delivered - l.invoiced)),
      price: l.price,
      pack: l.pack,
      amount: text(amounts.get(l.id) ?? 0n),
      taxCode: l.taxCode,
      taxPercent: l.taxPercent,
      differs: differs(l),
    }));
    const { billed, dueOn } = planned;
    const shown = shownIn(billed.shown, {
      lines: planned.lines.map((l, i) => ({ ...l, line: i + 1, amount: text(l.amount) })),
      pricesHoldTax: billed.pricesHoldTax,
      gross: text(planned.sums.gross),
      open: '0.00',
    });
    return {
      inTheirs: shown?.gross ?? null,
      theirCurrency: shown?.currency ?? null,
      customer: billed.name,
      account: billed.account,
      pricesHoldTax: billed.pricesHoldTax,
      currency: await this.settings.get(this.source, 'homeCurrency'),
      dueOn,
      ...sumsDto(planned.sums),
      lines: lines.sort((a, b) => Number(b.differs !== '') - Number(a.differs !== '')),
    };
  }

  async list(siteIds: readonly number[], show: InvoiceShow, search: string, window: Window): Promise<InvoicePageDto> {
    const days = await siteDays(this.source);
    const late = `v.open_amount > 0 AND v.due_on < ${days.today('v.site_id')}`;
    const of = { all: '1 = 1', open: 'v.open_amount <> 0', overdue: late, credits: `v.kind = 'credit'` }[show];
    const words = search.split(/\s+/).filter(Boolean).slice(0, 4);
    const where = `FROM invoice v WHERE v.site_id IN (?)`;
    const { rows: found, total } = await pageOf<Omit<InvoiceRowDto, 'overdue'> & { overdue: number }>(
      this.source,
      {
        select: `v.code, v.kind, v.name, v.issued_on AS issuedOn, v.due_on AS dueOn, v.currency, v.gross, v.open_amount AS open, ${late} AS overdue, v.sent_at AS sentAt`,
        from: `${where} AND ${of}${words.map(() => ` AND CONCAT_WS(' ', v.code, v.name) LIKE ?`).join('')}`,
        params: [[0, ...siteIds], ...words.map(likeAny)],
        order: show === 'overdue' ? 'v.due_on, v.id' : 'v.id DESC',
      },
      window,
    );
    const owed = await one<{ owed: string | null; overdue: string | null }>(
      this.source,
      `SELECT SUM(v.open_amount) AS owed, SUM(IF(${late}, v.open_amount, 0)) AS overdue ${where} AND v.open_amount <> 0`,
      [[0, ...siteIds]],
    );
    return {
      rows: found.map((v) => ({ ...v, overdue: num(v.overdue) === 1 })),
      total,
      owed: owed?.owed ?? '0.00',
      overdue: owed?.overdue ?? '0.00',
    };
  }

  async sheet(code: string, siteIds: readonly number[]): Promise<InvoiceDto> {
    const days = await siteDays(this.source);
    const head = await one<
      Omit<InvoiceDto, 'lines' | 'taxes' | 'payments' | 'entries' | 'creditedBy' | 'pricesHoldTax' | 'overdue' | 'shown'> & {
        id: number;
        shownCurrency: string | null;
        shownRate: string | null;
        pricesHoldTax: number;
        overdue: number;
      }
    >(
      this.source,
      `SELECT v.id, v.code, v.kind, v.name, c.code AS account, v.email, v.address_line AS addressLine, v.city, v.postcode, v.country, v.tax_number AS taxNumber, v.currency, v.prices_hold_tax AS pricesHoldTax, v.shown_currency AS shownCurrency, v.shown_rate AS shownRate,
         v.issued_on AS issuedOn, v.due_on AS dueOn, v.note, v.net, v.tax, v.gross, v.open_amount AS open, v.open_amount > 0 AND v.due_on < ${days.today('v.site_id')} AS overdue, v.sent_at AS sentAt, p.name AS postedBy, v.posted_at AS postedAt, w.code AS credits
       FROM invoice v JOIN person p ON p.id = v.posted_by LEFT JOIN customer c ON c.id = v.customer_id LEFT JOIN invoice w ON w.id = v.credits_id WHERE v.code = ? AND v.site_id IN (?)`,
      [code, [0, ...siteIds]],
    );
    if (!head) throw notFound(`Invoice ${code}`);
    const { id, pricesHoldTax, overdue, shownCurrency, shownRate, ...rest } = head;
    const [lines, taxes, payments, entries, credits] = await Promise.all([
      this.lines(id),
      this.taxes(id),
      rows<InvoiceDto['payments'][number]>(
        this.source,
        'SELECT p.id AS paymentId, p.paid_on AS paidOn, s.amount, p.says FROM payment_share s JOIN payment p ON p.id = s.payment_id WHERE s.invoice_id = ? ORDER BY p.paid_on, p.id',
        [id],
      ),
      rows<InvoiceDto['entries'][number]>(this.source, 'SELECT debit, credit, amount FROM value_entry WHERE invoice_id = ? ORDER BY id', [
        id,
      ]),
      rows<{ code: string }>(this.source, 'SELECT code FROM invoice WHERE credits_id = ? ORDER BY id', [id]),
    ]);
    return {
      ...rest,
      pricesHoldTax: pricesHoldTax === 1,
      shown: shownIn(shownCurrency && shownRate ? { currency: shownCurrency, rate: shownRate } : null, {
        lines,
        pricesHoldTax: pricesHoldTax === 1,
        gross: rest.gross,
        open: rest.open,
      }),
      overdue: num(overdue) === 1,
      creditedBy: credits.map((c) => c.code),
      lines,
      taxes,
      payments,
      entries,
    };
  }

  /** Net and tax by rate over the documents of some days, each reckoned as it was posted; both days count. */
  async taxesBetween(siteIds: readonly number[], from: string, to: string): Promise<TaxDto> {
    const lines = await rows<{ id: number; amount: string; taxCode: string; percent: string; hold: number }>(
      this.source,
      `SELECT v.id, l.amount, l.tax_code AS taxCode, l.tax_percent AS percent, v.prices_hold_tax AS hold FROM invoice v JOIN invoice_line l ON l.invoice_id = v.id
       WHERE v.site_id IN (?) AND (? = '' OR v.issued_on >= ?) AND (? = '' OR v.issued_on <= ?) ORDER BY v.id, l.line`,
      [[0, ...siteIds], from, from || '2000-01-01', to, to || '2099-12-31'],
    );
    const documents = new Map<number, typeof lines>();
    for (const line of lines) documents.set(line.id, [...(documents.get(line.id) ?? []), line]);
    const sums = new Map<string, { taxCode: string; percent: string; net: bigint; tax: bigint }>();
    for (const own of documents.values())
      for (const t of taxesOf(own)) {
        const key = `${t.taxCode}/${t.percent}`;
        const was = sums.get(key) ?? { taxCode: t.taxCode, percent: t.percent, net: 0n, tax: 0n };
        sums.set(key, { ...was, net: was.net + penceIn(t.net), tax: was.tax + penceIn(t.tax) });
      }
    const all = [...sums.values()].sort((a, b) => Number(b.percent) - Number(a.percent));
    return {
      rows: all.map((t) => ({ ...t, net: text(t.net), tax: text(t.tax) })),
      net: text(all.reduce((sum, t) => sum + t.net, 0n)),
      tax: text(all.reduce((sum, t) => sum + t.tax, 0n)),
    };
  }

  private async lines(id: number): Promise<InvoiceLineDto[]> {
    const found = await rows<Omit<InvoiceLineDto, 'words'> & { itemId: number | null; credited: string | number }>(
      this.source,
      `SELECT l.line, o.code AS \`order\`, l.sku, l.name, l.units, l.price, l.pack, l.discount_percent AS discountPercent, l.amount, l.tax_code AS taxCode, l.tax_percent AS taxPercent, i.id AS itemId,
         COALESCE((SELECT SUM(x.units) FROM invoice_line x WHERE x.credits_line_id = l.id), 0) AS credited
       FROM invoice_line l LEFT JOIN sales_order_line n ON n.id = l.order_line_id LEFT JOIN sales_order o ON o.id = n.order_id LEFT JOIN item i ON i.id = n.item_id WHERE l.invoice_id = ? ORDER BY l.line`,
      [id],
    );
    const packs = await this.items.packs(found.flatMap((l) => l.itemId ?? []));
    return found.map(({ itemId, credited, ...l }) => ({
      ...l,
      words: itemId === null ? '' : spell(l.units, packs.get(itemId) ?? []),
      discountPercent: bare(l.discountPercent),
      taxPercent: bare(l.taxPercent),
      credited: num(credited),
    }));
  }

  /** The taxes of a document as they were reckoned: the net of each rate stands in its lines, the tax is the rest of the sums. */
  private async taxes(id: number): Promise<InvoiceDto['taxes']> {
    const lines = await rows<{ amount: string; taxCode: string; percent: string; hold: number }>(
      this.source,
      'SELECT l.amount, l.tax_code AS taxCode, l.tax_percent AS percent, v.prices_hold_tax AS hold FROM invoice_line l JOIN invoice v ON v.id = l.invoice_id WHERE l.invoice_id = ? ORDER BY l.line',
      [id],
    );
    return taxesOf(lines);
  }
}

function differs(l: DeliveredLine): string {
  if (l.delivered > l.ordered) return `${l.delivered - l.ordered} more than ordered`;
  if (l.delivered === 0) return 'not delivered yet';
  return l.delivered < l.ordered ? `${l.ordered - l.delivered} still to come` : '';
}
