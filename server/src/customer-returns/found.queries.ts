import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { keyOfCode } from '../catalogue/index.js';
import { likeAny, rows } from '../platform/index.js';
import type { ReturnFoundDto } from './customer-returns.dto.js';

/** Candidates that are shown, and how far back orders of an item are looked for. */
const MOST = 12;
const DAYS = 400;

const GOODS = `(SELECT GROUP_CONCAT(DISTINCT i.name ORDER BY i.name SEPARATOR ', ') FROM sales_order_line l JOIN item i ON i.id = l.item_id WHERE l.order_id = o.id AND l.shipped_units > 0)`;
const FOUND = `(SELECT r.code FROM customer_return r WHERE r.order_id = o.id AND r.state IN ('announced','here') ORDER BY r.state = 'here' DESC, r.id LIMIT 1) AS code, o.code AS \`order\`, o.customer, COALESCE(LEFT(${GOODS}, 200), '') AS goods,
  COALESCE((SELECT MAX(p.handed_over_at) FROM parcel p WHERE p.order_id = o.id), o.shipped_at) AS leftAt`;

/** Finds what goods at the dock may belong to, by whatever is on them or known of them. */
@Injectable()
export class FoundQueries {
  constructor(private readonly source: DataSource) {}

  /**
   * By the code on our paper, an order, its channel's number, a parcel, a tracking number, a number on a piece; otherwise by goods
   * or customer, the newest first. What is named exactly is alone.
   */
  async find(text: string, siteIds: readonly number[]): Promise<ReturnFoundDto[]> {
    const word = text.trim();
    if (word === '') return [];
    const sites = [0, ...siteIds];
    const upper = word.toUpperCase();
    const ofReturn = await rows<Omit<ReturnFoundDto, 'named'>>(
      this.source,
      `SELECT r.code, o.code AS \`order\`, r.customer, COALESCE(LEFT((SELECT GROUP_CONCAT(i.name ORDER BY l.line SEPARATOR ', ') FROM customer_return_line l JOIN item i ON i.id = l.item_id WHERE l.return_id = r.id), 200), '') AS goods, o.shipped_at AS leftAt
       FROM customer_return r LEFT JOIN sales_order o ON o.id = r.order_id WHERE (r.code = ? OR (r.channel_ref = ? AND r.channel_ref <> '')) AND r.site_id IN (?) LIMIT ${MOST}`,
      [upper, word, sites],
    );
    if (ofReturn.length > 0) return ofReturn.map((f) => ({ ...f, named: true }));
    const exact = await this.orders(
      `o.id IN (SELECT id FROM sales_order WHERE code = ? OR channel_ref = ? UNION SELECT order_id FROM parcel WHERE code = ? OR tracking = ?
        UNION SELECT p.order_id FROM parcel_serial s JOIN parcel p ON p.id = s.parcel_id WHERE s.serial = ?
        UNION SELECT p.order_id FROM lot t JOIN item i ON i.id = t.item_id AND i.tracking = 'serial' JOIN parcel_line pl ON pl.lot_id = t.id JOIN parcel p ON p.id = pl.parcel_id WHERE t.code = ?)`,
      [upper, word, upper, word, upper, word],
      sites,
    );
    if (exact.length > 0) return exact.map((f) => ({ ...f, named: true }));
    const ofGoods = await this.orders(
      `o.placed_at > UTC_TIMESTAMP() - INTERVAL ${DAYS} DAY AND o.id IN (SELECT l.order_id FROM sales_order_line l WHERE l.shipped_units > 0 AND l.item_id IN
        (SELECT id FROM item WHERE sku = ? UNION SELECT u.item_id FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id WHERE b.code = ?))`,
      [upper, keyOfCode(word)],
      sites,
    );
    return ofGoods.length > 0 || word.length < 3 ? ofGoods : this.orders('o.customer LIKE ?', [likeAny(word)], sites);
  }

  private async orders(where: string, params: readonly unknown[], sites: readonly number[]): Promise<ReturnFoundDto[]> {
    const found = await rows<Omit<ReturnFoundDto, 'named'>>(
      this.source,
      `SELECT ${FOUND} FROM sales_order o WHERE ${where} AND o.site_id IN (?) AND EXISTS (SELECT 1 FROM sales_order_line g WHERE g.order_id = o.id AND g.shipped_units > 0) ORDER BY o.id DESC LIMIT ${MOST}`,
      [...params, sites],
    );
    return found.map((f) => ({ ...f, named: false }));
  }
}
