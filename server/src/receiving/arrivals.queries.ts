import { Injectable } from '@nestjs/common';
import { eachOf } from '@vectrum/core/costing';
import { decimalText, dividedBy, micro } from '@vectrum/core/money';
import { spell } from '@vectrum/core/quantity';
import { DataSource } from 'typeorm';
import { ItemQueries } from '../catalogue/index.js';
import { notFound, num, one, pageOf, rows, siteDays, type Window } from '../platform/index.js';
import type { AnnouncedDto, ArrivalDto, ArrivalPageDto, ArrivalRowDto, LandedDto, ReceiptDto } from './arrival.dto.js';

type RowOf = Omit<ArrivalRowDto, 'late' | 'orders' | 'pallets' | 'palletsIn' | 'receipts' | 'aside'> &
  Record<'late' | 'orders' | 'pallets' | 'palletsIn' | 'receipts' | 'aside', string | number | null>;
type Figures<T, K extends keyof T> = Omit<T, K> & { [key in K]: string | number };

const ORDERS =
  '(SELECT GROUP_CONCAT(o.code ORDER BY o.id) FROM arrival_order x JOIN purchase_order o ON o.id = x.order_id WHERE x.arrival_id = a.id)';
const listed = (codes: string | number | null) => (codes ? String(codes).split(',') : []);

/** Reads arrivals: what is announced, what stands at the door and for how long, what was booked in, by whom and when. */
@Injectable()
export class ArrivalsQueries {
  constructor(
    private readonly source: DataSource,
    private readonly items: ItemQueries,
  ) {}

  /** What is at the door, then what is announced, then what was received, the newest first. */
  async list(siteIds: readonly number[], window: Window): Promise<ArrivalPageDto> {
    const days = await siteDays(this.source);
    const { rows: page, total } = await pageOf<{ id: number }>(
      this.source,
      {
        select: 'a.id',
        from: 'FROM arrival a WHERE a.site_id IN (?)',
        params: [[0, ...siteIds]],
        order: `FIELD(a.state, 'open', 'announced', 'closed'), IF(a.state = 'closed', NULL, COALESCE(a.opened_at, a.expected_on)), a.closed_at DESC, a.id`,
      },
      window,
    );
    const ids = page.map((a) => a.id);
    const found = await rows<RowOf>(
      this.source,
      `SELECT a.code, d.code AS door, COALESCE(s.name, 'Sender not known') AS supplier, t.name AS site, a.state, a.expected_on AS expectedOn, a.state = 'announced' AND a.expected_on < ${days.today('a.site_id')} AS late,
         a.opened_at AS openedAt, a.closed_at AS closedAt, p.name AS closedBy, ${ORDERS} AS orders,
         (SELECT COUNT(DISTINCT g.sscc) FROM announced_goods g WHERE g.arrival_id = a.id) AS pallets, (SELECT COUNT(*) FROM received_pallet r WHERE r.arrival_id = a.id) AS palletsIn,
         (SELECT COUNT(*) FROM receipt r WHERE r.arrival_id = a.id AND r.undone_at IS NULL) AS receipts,
         (SELECT COUNT(*) FROM receipt r WHERE r.arrival_id = a.id AND r.undone_at IS NULL AND r.stock_condition IN ('damaged','apart')) AS aside
       FROM arrival a LEFT JOIN supplier s ON s.id = a.supplier_id JOIN site t ON t.id = a.site_id LEFT JOIN place d ON d.id = a.door_id LEFT JOIN person p ON p.id = a.closed_by
       WHERE a.id IN (?) ORDER BY FIELD(a.id, ?)`,
      [
        [0, ...ids],
        [0, ...ids],
      ],
    );
    const arrivals = found.map((a) => ({
      ...a,
      late: num(a.late) === 1,
      orders: listed(a.orders),
      pallets: num(a.pallets),
      palletsIn: num(a.palletsIn),
      receipts: num(a.receipts),
      aside: num(a.aside),
    }));
    return { rows: arrivals, total };
  }

  async sheet(code: string, siteIds: readonly number[], seesCosts: boolean): Promise<ArrivalDto> {
    const head = await one<Omit<ArrivalDto, 'orders' | 'receipts' | 'announced'> & { id: number; orders: string | null }>(
      this.source,
      `SELECT a.id, a.code, a.site_id AS siteId, d.code AS door, s.code AS supplierCode, COALESCE(s.name, 'Sender not known') AS supplier, COALESCE(s.phone, '') AS supplierPhone, COALESCE(s.email, '') AS supplierEmail, t.name AS site, a.state,
         a.expected_on AS expectedOn, a.paper, a.advice, a.opened_at AS openedAt, o.name AS openedBy, a.closed_at AS closedAt, c.name AS closedBy, ${ORDERS} AS orders
       FROM arrival a LEFT JOIN supplier s ON s.id = a.supplier_id JOIN site t ON t.id = a.site_id LEFT JOIN place d ON d.id = a.door_id LEFT JOIN person o ON o.id = a.opened_by LEFT JOIN person c ON c.id = a.closed_by
       WHERE a.code = ? AND a.site_id IN (?)`,
      [code, [0, ...siteIds]],
    );
    if (!head) throw notFound(`Arrival ${code}`);
    const { id, orders, ...rest } = head;
    return { ...rest, orders: listed(orders), receipts: await this.receipts(id, seesCosts), announced: await this.announced(id) };
  }

  private async receipts(arrivalId: number, seesCosts: boolean): Promise<ReceiptDto[]> {
    const found = await rows<Figures<Omit<ReceiptDto, 'words'> & { itemId: number }, 'pictured' | 'undone'>>(
      this.source,
      `SELECT r.id, r.at, p.name AS \`by\`, i.id AS itemId, i.sku, i.name, i.picture, r.units, l.code AS lot, l.expires_on AS expires, q.code AS place, o.code AS \`order\`, n.line,
         r.taken_as AS takenAs, r.stock_condition AS \`condition\`, r.reason, m.how, x.receipt_id IS NOT NULL AS pictured, r.undone_at IS NOT NULL AS undone
       FROM receipt r JOIN movement m ON m.id = r.movement_id JOIN place q ON q.id = m.to_place_id JOIN item i ON i.id = r.item_id JOIN person p ON p.id = r.person_id
         LEFT JOIN lot l ON l.id = r.lot_id LEFT JOIN purchase_order_line n ON n.id = r.order_line_id LEFT JOIN purchase_order o ON o.id = n.order_id LEFT JOIN receipt_picture x ON x.receipt_id = r.id
       WHERE r.arrival_id = ? ORDER BY r.id DESC LIMIT 500`,
      [arrivalId],
    );
    const words = await this.words(found);
    const costs = seesCosts ? await this.landed(arrivalId) : new Map<number, LandedDto>();
    return found.map(({ itemId, ...r }) => ({
      ...r,
      id: num(r.id),
      words: words(itemId, r.units),
      pictured: num(r.pictured) === 1,
      undone: num(r.undone) === 1,
      ...landedOf(costs.get(num(r.id))),
    }));
  }

  /** What each receipt of an arrival has cost, and what that is made of. */
  private async landed(arrivalId: number): Promise<Map<number, LandedDto>> {
    const found = await rows<{
      receiptId: number;
      units: number;
      value: string;
      says: string | null;
      document: string | null;
      amount: string | null;
    }>(
      this.source,
      `SELECT r.id AS receiptId, c.units, c.value, p.says, p.document, p.amount FROM receipt r JOIN cost_layer c ON c.movement_id = r.movement_id LEFT JOIN cost_layer_part p ON p.layer_id = c.id
       WHERE r.arrival_id = ? ORDER BY r.id, p.id`,
      [arrivalId],
    );
    const costs = new Map<number, LandedDto>();
    for (const id of new Set(found.map((f) => num(f.receiptId)))) {
      const own = found.filter((f) => num(f.receiptId) === id);
      const { units = 1, value = '0' } = own[0] ?? {};
      const told = own.flatMap((f) =>
        f.says !== null && f.amount !== null ? [{ says: f.says, document: f.document, amount: f.amount }] : [],
      );
      const each = eachOf(
        told.map((p) => micro(p.amount)),
        units,
      );
      const parts = told.map((p, i) => ({ ...p, each: decimalText(each[i] ?? 0n) }));
      costs.set(id, { value, each: decimalText(dividedBy(micro(value), units)), parts });
    }
    return costs;
  }

  private async announced(arrivalId: number): Promise<AnnouncedDto[]> {
    const found = await rows<Figures<Omit<AnnouncedDto, 'words'> & { itemId: number; units: number }, 'received'>>(
      this.source,
      `SELECT g.sscc, i.id AS itemId, i.sku, i.name, g.units, g.lot_code AS lot, g.expires_on AS expires, o.code AS \`order\`, p.sscc IS NOT NULL AS received
       FROM announced_goods g JOIN item i ON i.id = g.item_id LEFT JOIN purchase_order_line n ON n.id = g.order_line_id LEFT JOIN purchase_order o ON o.id = n.order_id
         LEFT JOIN received_pallet p ON p.arrival_id = g.arrival_id AND p.sscc = g.sscc WHERE g.arrival_id = ? ORDER BY g.sscc, g.id LIMIT 500`,
      [arrivalId],
    );
    const words = await this.words(found);
    return found.map(({ itemId, units, ...g }) => ({ ...g, words: words(itemId, units), received: num(g.received) === 1 }));
  }

  private async words(found: readonly { itemId: number }[]): Promise<(itemId: number, units: number) => string> {
    const packs = await this.items.packs([...new Set(found.map((f) => f.itemId))]);
    return (itemId, units) => spell(units, packs.get(itemId) ?? []);
  }
}

const landedOf = (landed: LandedDto | undefined) => (landed ? { landed } : {});
