import { Injectable } from '@nestjs/common';
import { ordersIn } from '@vectrum/core/orders';
import { DataSource } from 'typeorm';
import { notFound, num, one, promisedSql, rows, sqlList } from '../platform/index.js';
import type { LineHoldersDto } from './order-desk.dto.js';

/** Who holds what a line lacks, so that somebody can decide whose it is to be. */
@Injectable()
export class HoldersQueries {
  constructor(private readonly source: DataSource) {}

  /** Orders that nobody picks yet and that hold goods of a line's item at its site, those promised last first. */
  async of(code: string, line: number, siteIds: readonly number[]): Promise<LineHoldersDto> {
    const wanted = await one<{ orderId: number; itemId: number | null; siteId: number; lacks: string }>(
      this.source,
      `SELECT o.id AS orderId, l.item_id AS itemId, o.site_id AS siteId, CAST(l.units AS SIGNED) - ${promisedSql('l')} AS lacks FROM sales_order o JOIN sales_order_line l ON l.order_id = o.id AND l.line = ? WHERE o.code = ? AND o.site_id IN (?)`,
      [line, code, [0, ...siteIds]],
    );
    if (!wanted) throw notFound(`Line ${line} of ${code}`);
    const holders = await rows<{ code: string; customer: string; promisedAt: Date; line: number; units: number }>(
      this.source,
      `SELECT o.code, o.customer, o.promised_at AS promisedAt, l.line, v.units FROM reservation v JOIN sales_order_line l ON l.id = v.order_line_id JOIN sales_order o ON o.id = l.order_id
       WHERE v.item_id = ? AND v.site_id = ? AND v.place_id IS NULL AND o.id <> ? AND o.state IN ${sqlList(ordersIn('promisable'))} ORDER BY o.priority, o.promised_at DESC, o.id DESC LIMIT 50`,
      [wanted.itemId ?? 0, wanted.siteId, wanted.orderId],
    );
    return { lacks: Math.max(0, num(wanted.lacks)), holders };
  }
}
