import { Injectable } from '@nestjs/common';
import { decimalText, dividedBy, micro, times } from '@vectrum/core/money';
import { holdsWords } from '@vectrum/core/quantity';
import { DataSource } from 'typeorm';
import { notFound, num, one, pageOf, rows, siteDays, type Window } from '../platform/index.js';
import { OrderFiles } from './order-files.service.js';
import type {
  ChargeDto,
  OrderChangeDto,
  PurchaseOrderDto,
  PurchaseOrderLineDto,
  PurchaseOrderPageDto,
  PurchaseOrderRowDto,
} from './purchasing.dto.js';

type LineRow = Omit<PurchaseOrderLineDto, 'ordered' | 'price' | 'priceEach' | 'goods' | 'answer'> & {
  price: string;
  answer: string | null;
  answerPacks: number | null;
  answerPrice: string | null;
  answerOn: string | null;
  answerNote: string;
};
type Head = Omit<PurchaseOrderDto, 'lines' | 'goods' | 'charges' | 'changes' | 'alike' | 'arrivals' | 'files'> & {
  id: number;
  supplierId: number;
};
const ALIKE_DAYS = 14;

/** Reads purchase orders, with prices both ways for those who may see costs. */
@Injectable()
export class PurchasingQueries {
  constructor(
    private readonly source: DataSource,
    private readonly files: OrderFiles,
  ) {}

  /** Orders to suppliers, what forces action first, then those that are over, the newest first. */
  async list(siteIds: readonly number[], seesCosts: boolean, window: Window): Promise<PurchaseOrderPageDto> {
    const days = await siteDays(this.source);
    const { rows: codes, total } = await pageOf<{ id: number }>(
      this.source,
      {
        select: 'o.id',
        from: 'FROM purchase_order o WHERE o.site_id IN (?)',
        params: [[0, ...siteIds]],
        order: `FIELD(o.state, 'part-received', 'placed', 'draft', 'received', 'closed', 'cancelled'), IF(o.state IN ('part-received', 'placed', 'draft'), o.expected_on, NULL), o.id DESC`,
      },
      window,
    );
    const ids = codes.map((c) => c.id);
    const found = await rows<
      Omit<PurchaseOrderRowDto, 'late' | 'lines' | 'linesIn' | 'holds' | 'worth'> & {
        names: string | null;
        worth: string;
        late: number | null;
        lines: string;
        linesIn: string;
      }
    >(
      this.source,
      `SELECT o.code, s.name AS supplier, t.name AS site, o.state, o.answer, o.expected_on AS expectedOn, o.first_received_at AS firstReceivedAt,
         (o.state IN ('placed','part-received') AND o.expected_on < ${days.today('o.site_id')}) AS late, d.code AS door,
         COALESCE((SELECT c.name FROM supplier_contact c WHERE c.supplier_id = s.id AND c.phone <> '' ORDER BY c.position LIMIT 1), s.name) AS ring,
         COALESCE((SELECT c.phone FROM supplier_contact c WHERE c.supplier_id = s.id AND c.phone <> '' ORDER BY c.position LIMIT 1), s.phone) AS phone,
         COUNT(l.id) AS \`lines\`, SUM(l.open_units = 0) AS linesIn, o.currency, COALESCE(SUM(l.price * l.packs), 0) AS worth, b.name AS buyer,
         GROUP_CONCAT(i.name ORDER BY l.line SEPARATOR '\n') AS names
       FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id JOIN site t ON t.id = o.site_id LEFT JOIN place d ON d.id = o.door_id LEFT JOIN purchase_order_line l ON l.order_id = o.id LEFT JOIN item i ON i.id = l.item_id JOIN person b ON b.id = COALESCE(o.placed_by, o.created_by)
       WHERE o.id IN (?) GROUP BY o.id ORDER BY FIELD(o.id, ?)`,
      [
        [0, ...ids],
        [0, ...ids],
      ],
    );
    const listed = found.map(({ names, worth, ...o }) => ({
      ...o,
      ...(seesCosts ? { worth: decimalText(micro(worth)) } : {}),
      holds: holdsWords((names ?? '').split('\n').filter(Boolean)),
      late: num(o.late) === 1,
      lines: num(o.lines),
      linesIn: num(o.linesIn),
    }));
    return { rows: listed, total };
  }

  async sheet(code: string, siteIds: readonly number[], seesCosts: boolean): Promise<PurchaseOrderDto> {
    const order = await one<Head>(
      this.source,
      `SELECT o.id, o.code, s.id AS supplierId, s.code AS supplierCode, s.name AS supplier, s.email AS supplierEmail, s.phone AS supplierPhone, o.site_id AS siteId, t.name AS site, CONCAT_WS(', ', NULLIF(t.address_line, ''), NULLIF(TRIM(CONCAT(t.city, ' ', t.postcode)), '')) AS siteAddress, o.state, o.currency, o.answer, o.answer_note AS answerNote,
         o.expected_on AS expectedOn, d.code AS door, o.note, p.name AS createdBy, o.created_at AS createdAt, o.placed_at AS placedAt, q.name AS placedBy, o.first_received_at AS firstReceivedAt, o.version
       FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id JOIN site t ON t.id = o.site_id JOIN person p ON p.id = o.created_by LEFT JOIN person q ON q.id = o.placed_by LEFT JOIN place d ON d.id = o.door_id
       WHERE o.code = ? AND o.site_id IN (?)`,
      [code, [0, ...siteIds]],
    );
    if (!order) throw notFound(`Purchase order ${code}`);
    const { id, supplierId, ...head } = order;
    const [lines, charges, changes, alike, arrivals, files] = await Promise.all([
      this.lines(id),
      this.charges(id),
      this.changes(id, seesCosts),
      order.state === 'draft' ? this.alike(id, supplierId) : [],
      rows<{ code: string }>(
        this.source,
        'SELECT a.code FROM arrival a JOIN arrival_order x ON x.arrival_id = a.id WHERE x.order_id = ? ORDER BY a.id',
        [id],
      ),
      seesCosts ? this.files.list(id) : [],
    ]);
    const goods = lines.reduce((sum, l) => sum + times(micro(l.price), l.packs), 0n);
    return {
      ...head,
      ...(seesCosts ? { goods: decimalText(goods), charges } : {}),
      changes,
      alike: alike.map((a) => a.code),
      arrivals: arrivals.map((a) => a.code),
      files,
      lines: lines.map((l) => priced(l, seesCosts)),
    };
  }

  private charges(orderId: number): Promise<ChargeDto[]> {
    return rows<ChargeDto>(
      this.source,
      'SELECT says, amount, shared_by AS `by` FROM purchase_order_charge WHERE order_id = ? ORDER BY position',
      [orderId],
    );
  }

  private changes(orderId: number, seesCosts: boolean): Promise<OrderChangeDto[]> {
    return rows<OrderChangeDto>(
      this.source,
      `SELECT c.at, p.name AS \`by\`, c.line, c.what, c.was, c.becomes, c.why FROM purchase_order_change c JOIN person p ON p.id = c.person_id
       WHERE c.order_id = ? AND (? OR c.what NOT IN ('price','charges')) ORDER BY c.id DESC LIMIT 200`,
      [orderId, seesCosts ? 1 : 0],
    );
  }

  /** Orders of the supplier of the last fortnight that hold at least half of this one's goods. */
  private alike(orderId: number, supplierId: number): Promise<{ code: string }[]> {
    return rows<{ code: string }>(
      this.source,
      `SELECT o.code FROM purchase_order o JOIN purchase_order_line l ON l.order_id = o.id JOIN purchase_order_line m ON m.item_id = l.item_id AND m.order_id = ?
       WHERE o.supplier_id = ? AND o.id <> ? AND o.state NOT IN ('cancelled','closed') AND o.created_at > UTC_TIMESTAMP() - INTERVAL ${ALIKE_DAYS} DAY
       GROUP BY o.id HAVING COUNT(DISTINCT l.item_id) * 2 >= (SELECT COUNT(DISTINCT item_id) FROM purchase_order_line WHERE order_id = ?) ORDER BY o.id DESC LIMIT 5`,
      [orderId, supplierId, orderId, orderId],
    );
  }

  private async lines(orderId: number): Promise<LineRow[]> {
    const found = await rows<LineRow>(
      this.source,
      `SELECT l.line, i.sku, i.name, i.picture, l.pack_unit_id AS packId, u.name AS pack, u.plural AS packPlural, l.factor, b.name AS unit, b.plural AS units, l.packs, l.received_units AS received, l.closed_units AS closed,
         (SELECT COALESCE(SUM(r.units), 0) FROM supplier_return_line r JOIN supplier_return t ON t.id = r.return_id WHERE r.order_line_id = l.id AND t.state <> 'taken back') AS returned, l.expected_on AS expectedOn, l.price,
         l.answer, l.answer_packs AS answerPacks, l.answer_price AS answerPrice, l.answer_on AS answerOn, l.answer_note AS answerNote
       FROM purchase_order_line l JOIN item i ON i.id = l.item_id JOIN pack_unit u ON u.id = l.pack_unit_id JOIN pack_unit b ON b.item_id = i.id AND b.factor = 1
       WHERE l.order_id = ? ORDER BY l.line`,
      [orderId],
    );
    return found.map((l) => ({ ...l, returned: num(l.returned) }));
  }
}

function priced(row: LineRow, seesCosts: boolean): PurchaseOrderLineDto {
  const { price, answer, answerPacks, answerPrice, answerOn, answerNote, ...line } = row;
  const said = answer
    ? { says: answer, packs: answerPacks, on: answerOn, note: answerNote, ...(seesCosts ? { price: answerPrice } : {}) }
    : null;
  const ordered = line.packs * line.factor;
  if (!seesCosts) return { ...line, ordered, answer: said };
  const pack = micro(price);
  return {
    ...line,
    ordered,
    answer: said,
    price,
    priceEach: decimalText(dividedBy(pack, line.factor)),
    goods: decimalText(times(pack, line.packs)),
  };
}
