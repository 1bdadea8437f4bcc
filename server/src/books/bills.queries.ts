import { Injectable } from '@nestjs/common';
import { decimalText, dividedBy, micro, times } from '@vectrum/core/money';
import { spell } from '@vectrum/core/quantity';
import { DataSource } from 'typeorm';
import { ItemQueries } from '../catalogue/index.js';
import { notFound, num, one, type Page, pageOf, rows, type Window } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { billLines, type BillLineRow, findingOf } from './bill-lines.js';
import type { BillDto, BillLineDto, BillRowDto, OpenChargeDto, OpenGoodsDto, OpenToBillDto, ValueEntryDto } from './bills.dto.js';

const BILL = `b.code, s.name AS supplier, b.ref, b.state, b.billed_on AS billedOn, b.due_on AS dueOn, b.currency, (SELECT COALESCE(SUM(l.amount), 0) FROM bill_line l WHERE l.bill_id = b.id) AS total`;

/** The sites of the orders that a bill `b` is for: whoever is at one of them sees it. */
const AT_SITES = `EXISTS (SELECT 1 FROM bill_line x LEFT JOIN purchase_order_line y ON y.id = x.order_line_id JOIN purchase_order z ON z.id = COALESCE(y.order_id, x.order_id) WHERE x.bill_id = b.id AND z.site_id IN (?))`;

/** Units of an order line `l` that posted bills hold. */
const BILLED = `COALESCE((SELECT SUM(x.units) FROM bill_line x JOIN bill y ON y.id = x.bill_id WHERE x.order_line_id = l.id AND y.state = 'posted'), 0)`;
/** More lines than any bill has. */
const MOST_GOODS = 500;

/** Reads bills, each line beside what it is for, and what has come and is not billed. */
@Injectable()
export class BillsQueries {
  constructor(
    private readonly source: DataSource,
    private readonly settings: SettingsService,
    private readonly items: ItemQueries,
  ) {}

  /** Those that want a decision first, then the newest. */
  async list(siteIds: readonly number[], window: Window): Promise<Page<BillRowDto>> {
    const list = {
      select: 'b.id',
      from: `FROM bill b WHERE ${AT_SITES}`,
      params: [[0, ...siteIds]],
      order: `FIELD(b.state, 'differs', 'queried', 'posted'), b.id DESC`,
    };
    const page = await pageOf<{ id: number }>(this.source, list, window);
    // Sums are made of those that are shown, not of all.
    const ids = [0, ...page.rows.map((b) => b.id)];
    const found = await rows<BillRowDto>(
      this.source,
      `SELECT ${BILL} FROM bill b JOIN supplier s ON s.id = b.supplier_id WHERE b.id IN (?) ORDER BY FIELD(b.id, ?)`,
      [ids, ids],
    );
    return { rows: found, total: page.total };
  }

  async sheet(code: string, siteIds: readonly number[]): Promise<BillDto> {
    const head = await one<Omit<BillDto, 'lines' | 'entries'> & { id: number }>(
      this.source,
      `SELECT b.id, ${BILL}, s.code AS supplierCode, s.email AS supplierEmail, b.rate, b.note, e.name AS enteredBy, b.entered_at AS enteredAt, p.name AS postedBy, b.posted_at AS postedAt, b.version
       FROM bill b JOIN supplier s ON s.id = b.supplier_id JOIN person e ON e.id = b.entered_by LEFT JOIN person p ON p.id = b.posted_by WHERE b.code = ? AND ${AT_SITES}`,
      [code, [0, ...siteIds]],
    );
    if (!head) throw notFound(`Bill ${code}`);
    const { id, ...rest } = head;
    return { ...rest, lines: await this.lines(id), entries: await this.entries(id) };
  }

  private async lines(billId: number): Promise<BillLineDto[]> {
    const found = await billLines(this.source, billId);
    const tolerance = {
      percent: await this.settings.get(this.source, 'billPercent'),
      amount: await this.settings.get(this.source, 'billAmount'),
    };
    const packs = await this.items.packs(found.flatMap((l) => l.itemId ?? []));
    const words = (l: BillLineRow, units: number | null) => (units === null ? null : spell(units, packs.get(l.itemId ?? 0) ?? []));
    return found.map((l) => {
      const finding = findingOf(l, tolerance);
      return {
        line: l.line,
        order: l.order,
        orderLine: l.orderLine,
        name: l.name,
        words: words(l, l.units),
        amount: l.amount,
        sharedBy: l.sharedBy,
        finding: finding.says,
        expected: finding.expected,
        difference: finding.difference,
        overWords: finding.over > 0 ? words(l, finding.over) : null,
      };
    });
  }

  /** What a bill did to the books, summed by item. */
  private entries(billId: number): Promise<ValueEntryDto[]> {
    return rows<ValueEntryDto>(
      this.source,
      `SELECT e.debit, e.credit, i.sku, SUM(e.amount) AS amount FROM value_entry e LEFT JOIN item i ON i.id = e.item_id WHERE e.bill_id = ? GROUP BY e.debit, e.credit, i.sku ORDER BY MIN(e.id)`,
      [billId],
    );
  }

  /** What of a supplier's goods has come and is not billed, and the charges its orders promise. */
  /** The newest goods of a supplier that came and are not billed, of one order where it is named; and how many lie behind them. */
  async open(supplier: string, siteIds: readonly number[], order: string): Promise<OpenToBillDto> {
    const sites = [0, ...siteIds];
    const found = await one<{ id: number; currency: string }>(this.source, 'SELECT id, currency FROM supplier WHERE code = ?', [supplier]);
    if (!found) throw notFound(`Supplier ${supplier}`);
    const { rows: goods, total } = await pageOf<
      Omit<OpenGoodsDto, 'units' | 'words' | 'amount'> & { itemId: number; units: string; price: string; factor: number }
    >(
      this.source,
      {
        select: `o.code AS \`order\`, l.line, i.id AS itemId, i.sku, i.name, l.price, l.factor,
         l.received_units - ${BILLED} AS units`,
        from: `FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id JOIN item i ON i.id = l.item_id
          WHERE o.supplier_id = ? AND o.site_id IN (?) AND (? = '' OR o.code = ?) AND l.received_units > ${BILLED}`,
        params: [found.id, sites, order, order],
        order: 'o.id DESC, l.line',
      },
      { from: 0, limit: MOST_GOODS },
    );
    const charges = await rows<OpenChargeDto>(
      this.source,
      `SELECT o.code AS \`order\`, c.says, c.amount, c.shared_by AS \`by\` FROM purchase_order_charge c JOIN purchase_order o ON o.id = c.order_id
       WHERE o.supplier_id = ? AND o.site_id IN (?) AND o.state IN ('part-received','received','closed')
         AND NOT EXISTS (SELECT 1 FROM bill_line x JOIN bill y ON y.id = x.bill_id WHERE x.order_id = o.id AND x.says = c.says AND y.state = 'posted') ORDER BY o.id DESC, c.position`,
      [found.id, sites],
    );
    const orders = await rows<{ code: string }>(
      this.source,
      `SELECT code FROM purchase_order WHERE site_id IN (?) AND first_received_at > UTC_TIMESTAMP() - INTERVAL 180 DAY ORDER BY first_received_at DESC LIMIT 500`,
      [sites],
    );
    const packs = await this.items.packs(goods.map((g) => g.itemId));
    return {
      currency: found.currency,
      behind: total - goods.length,
      charges,
      orders: orders.map((o) => o.code),
      goods: goods.map(({ itemId, units, price, factor, ...g }) => ({
        ...g,
        units: num(units),
        words: spell(num(units), packs.get(itemId) ?? []),
        amount: decimalText(dividedBy(times(micro(price), num(units)), factor)),
      })),
    };
  }
}
