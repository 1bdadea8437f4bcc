import { Injectable } from '@nestjs/common';
import { decimalText, dividedBy, micro, times } from '@vectrum/core/money';
import { DataSource } from 'typeorm';
import { num, one, rows } from '../platform/database/tx.js';
import { notFound } from '../platform/problem.js';
import type { PurchaseOrderDto, PurchaseOrderLineDto, PurchaseOrderRowDto } from './purchasing.dto.js';

type LineRow = Omit<PurchaseOrderLineDto, 'ordered' | 'price' | 'priceEach' | 'goods'> & { price: string };

/** Reads purchase orders, with prices both ways for those who may see costs. */
@Injectable()
export class PurchasingQueries {
  constructor(private readonly source: DataSource) {}

  async list(siteIds: readonly number[]): Promise<PurchaseOrderRowDto[]> {
    const found = await rows<
      Omit<PurchaseOrderRowDto, 'late' | 'lines' | 'linesIn'> & {
        late: number | null;
        lines: string;
        linesIn: string;
      }
    >(
      this.source,
      `SELECT o.code, s.name AS supplier, t.name AS site, o.state, o.expected_on AS expectedOn, o.first_received_at AS firstReceivedAt,
         (o.state IN ('placed','part-received') AND o.expected_on < UTC_DATE()) AS late, COUNT(l.id) AS \`lines\`, SUM(l.received_units >= l.packs * l.factor) AS linesIn
       FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id JOIN site t ON t.id = o.site_id LEFT JOIN purchase_order_line l ON l.order_id = o.id
       WHERE o.site_id IN (?) AND o.state NOT IN ('closed','cancelled') AND (o.state <> 'received' OR o.placed_at > UTC_TIMESTAMP() - INTERVAL 60 DAY)
       GROUP BY o.id ORDER BY o.expected_on, o.id LIMIT 500`,
      [[0, ...siteIds]],
    );
    return found.map((o) => ({
      ...o,
      late: num(o.late) === 1,
      lines: num(o.lines),
      linesIn: num(o.linesIn),
    }));
  }

  async sheet(code: string, siteIds: readonly number[], seesCosts: boolean): Promise<PurchaseOrderDto> {
    const order = await one<Omit<PurchaseOrderDto, 'lines' | 'goods'> & { id: number }>(
      this.source,
      `SELECT o.id, o.code, s.code AS supplierCode, s.name AS supplier, s.email AS supplierEmail, s.phone AS supplierPhone, o.site_id AS siteId, t.name AS site, o.state, o.currency,
         o.expected_on AS expectedOn, o.note, p.name AS createdBy, o.created_at AS createdAt, o.placed_at AS placedAt, q.name AS placedBy, o.first_received_at AS firstReceivedAt, o.version
       FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id JOIN site t ON t.id = o.site_id JOIN person p ON p.id = o.created_by LEFT JOIN person q ON q.id = o.placed_by
       WHERE o.code = ? AND o.site_id IN (?)`,
      [code, [0, ...siteIds]],
    );
    if (!order) throw notFound(`Purchase order ${code}`);
    const { id, ...head } = order;
    const lines = await this.lines(id);
    const goods = lines.reduce((sum, l) => sum + times(micro(l.price), l.packs), 0n);
    return {
      ...head,
      ...(seesCosts ? { goods: decimalText(goods) } : {}),
      lines: lines.map((l) => priced(l, seesCosts)),
    };
  }

  private lines(orderId: number): Promise<LineRow[]> {
    return rows<LineRow>(
      this.source,
      `SELECT l.line, i.sku, i.name, i.picture, l.pack_unit_id AS packId, u.name AS pack, u.plural AS packPlural, l.factor, b.name AS unit, b.plural AS units, l.packs, l.received_units AS received, l.price
       FROM purchase_order_line l JOIN item i ON i.id = l.item_id JOIN pack_unit u ON u.id = l.pack_unit_id JOIN pack_unit b ON b.item_id = i.id AND b.factor = 1
       WHERE l.order_id = ? ORDER BY l.line`,
      [orderId],
    );
  }
}

function priced({ price, ...line }: LineRow, seesCosts: boolean): PurchaseOrderLineDto {
  const ordered = line.packs * line.factor;
  if (!seesCosts) return { ...line, ordered };
  const pack = micro(price);
  return {
    ...line,
    ordered,
    price,
    priceEach: decimalText(dividedBy(pack, line.factor)),
    goods: decimalText(times(pack, line.packs)),
  };
}
