import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { keyOfCode } from '../catalogue/index.js';
import { likeAny, likeBeginning, one, rows } from '../platform/index.js';
import { FindDto, FoundDto } from './desk.dto.js';

/** Orders that are shown, and how many of the newest are gone through for part of a name. */
const MOST = 6;
const NEWEST = 5_000;

/** The any-field: a scanned code opens its record, a word lists what it is in. */
@Injectable()
export class FindQueries {
  constructor(private readonly source: DataSource) {}

  /** What a text names, with addresses that a browser can follow whatever letters a code has. */
  async find(text: string, siteIds: readonly number[]): Promise<FindDto> {
    const { opens, found } = await this.named(text, siteIds);
    return { opens: opens && address(opens), found: found.map((f) => ({ ...f, link: address(f.link) })) };
  }

  private async named(text: string, siteIds: readonly number[]): Promise<FindDto> {
    const word = text.trim();
    if (word === '') return { opens: null, found: [] };
    const exact = await this.exact(word, siteIds);
    if (exact) return { opens: exact.link, found: [exact] };
    // Each asks something else of the database, at the same time as the others.
    const found = await Promise.all([
      this.ask(
        `SELECT 'Item' AS kind, sku AS code, name AS title, CONCAT('/shelves/items/', sku) AS link FROM item WHERE name LIKE ? OR sku LIKE ? ORDER BY name LIMIT ${MOST}`,
        word,
        2,
      ),
      this.orders(word, siteIds),
      this.ask(
        `SELECT 'Purchase' AS kind, o.code, s.name AS title, CONCAT('/inbound/', o.code) AS link FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id WHERE (s.name LIKE ? OR o.code LIKE ?) AND o.site_id IN (?) ORDER BY o.id DESC LIMIT ${MOST}`,
        word,
        2,
        siteIds,
      ),
      this.ask(
        `SELECT 'Arrival' AS kind, a.code, COALESCE(s.name, 'Sender not known') AS title, CONCAT('/inbound/arrivals/', a.code) AS link FROM arrival a LEFT JOIN supplier s ON s.id = a.supplier_id WHERE (a.code LIKE ? OR a.paper LIKE ?) AND a.site_id IN (?) ORDER BY a.id DESC LIMIT ${MOST}`,
        word,
        2,
        siteIds,
      ),
      this.ask(
        `SELECT 'Supplier' AS kind, code, name AS title, CONCAT('/inbound/suppliers/', code) AS link FROM supplier WHERE name LIKE ? OR code LIKE ? ORDER BY name LIMIT ${MOST}`,
        word,
        2,
      ),
      this.ask(
        `SELECT 'Bin' AS kind, p.code, p.kind AS title, CONCAT('/shelves/places/', p.code) AS link FROM place p WHERE p.code LIKE ? AND p.site_id IN (?) ORDER BY p.code LIMIT ${MOST}`,
        word,
        1,
        siteIds,
      ),
      // A serial number that was scanned at packing leads to whom the piece went.
      rows<FoundDto>(
        this.source,
        `SELECT 'Order' AS kind, o.code, CONCAT(o.customer, ', serial number ', s.serial) AS title, CONCAT('/orders/', o.code) AS link FROM parcel_serial s JOIN parcel p ON p.id = s.parcel_id JOIN sales_order o ON o.id = p.order_id WHERE s.serial = ? AND o.site_id IN (?) LIMIT ${MOST}`,
        [word.toUpperCase(), [0, ...siteIds]],
      ),
      rows<FoundDto>(
        this.source,
        `SELECT 'Lot' AS kind, l.code, i.name AS title, CONCAT('/shelves/trace?sku=', i.sku, '&lot=', l.code) AS link FROM lot l JOIN item i ON i.id = l.item_id WHERE l.code LIKE ? ORDER BY l.code = ? DESC, l.id DESC LIMIT ${MOST}`,
        [likeBeginning(word), word],
      ),
    ]);
    return { opens: null, found: found.flat() };
  }

  private ask(sql: string, word: string, times: number, siteIds?: readonly number[]): Promise<FoundDto[]> {
    return rows<FoundDto>(this.source, sql, [...Array.from({ length: times }, () => likeAny(word)), ...(siteIds ? [[0, ...siteIds]] : [])]);
  }

  /**
   * Orders by how their number or their channel's begins, or by their customer: among the newest by any part of the name, beyond
   * them by whole words and their beginnings, which have an index. Years of orders are never gone through.
   */
  private async orders(word: string, siteIds: readonly number[]): Promise<FoundDto[]> {
    const sites = [0, ...siteIds];
    const [begins, any] = [likeBeginning(word), likeAny(word)];
    const found = new Map<string, FoundDto>();
    const take = async (from: string, params: unknown[]) => {
      if (found.size >= MOST) return;
      const some = await rows<FoundDto>(
        this.source,
        `SELECT 'Order' AS kind, o.code, o.customer AS title, CONCAT('/orders/', o.code) AS link FROM sales_order o ${from} AND o.site_id IN (?) ORDER BY o.id DESC LIMIT ${MOST}`,
        [...params, sites],
      );
      for (const order of some) if (found.size < MOST) found.set(order.code, order);
    };
    await take('WHERE o.code LIKE ?', [begins]);
    await take('WHERE o.channel_ref LIKE ?', [begins]);
    await take('WHERE o.id > CAST((SELECT MAX(id) FROM sales_order) AS SIGNED) - ? AND o.customer LIKE ?', [NEWEST, any]);
    const words = word.match(/[\p{L}\p{N}]{3,}/gu)?.map((w) => `+${w}*`) ?? [];
    if (words.length > 0) await take('WHERE MATCH (o.customer) AGAINST (? IN BOOLEAN MODE)', [words.join(' ')]);
    return [...found.values()];
  }

  private async exact(word: string, siteIds: readonly number[]): Promise<FoundDto | undefined> {
    const sites = [0, ...siteIds];
    const code = keyOfCode(word);
    return one<FoundDto>(
      this.source,
      `SELECT 'Item' AS kind, i.sku AS code, i.name AS title, CONCAT('/shelves/items/', i.sku) AS link FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id JOIN item i ON i.id = u.item_id WHERE b.code = ?
       UNION ALL SELECT 'Item', sku, name, CONCAT('/shelves/items/', sku) FROM item WHERE sku = ?
       UNION ALL SELECT 'Order', code, customer, CONCAT('/orders/', code) FROM sales_order WHERE code = ? AND site_id IN (?)
       UNION ALL SELECT 'Order', code, customer, CONCAT('/orders/', code) FROM sales_order WHERE channel_ref = ? AND site_id IN (?)
       UNION ALL SELECT 'Purchase', code, '', CONCAT('/inbound/', code) FROM purchase_order WHERE code = ? AND site_id IN (?)
       UNION ALL SELECT 'Arrival', code, '', CONCAT('/inbound/arrivals/', code) FROM arrival WHERE code = ? AND site_id IN (?)
       UNION ALL SELECT 'Inspection', n.code, i.name, CONCAT('/inbound/inspection/', n.code) FROM inspection n JOIN item i ON i.id = n.item_id WHERE n.code = ? AND n.site_id IN (?)
       UNION ALL SELECT 'Return', code, '', CONCAT('/inbound/returns/', code) FROM supplier_return WHERE code = ? AND site_id IN (?)
       UNION ALL SELECT 'Return', code, customer, CONCAT('/orders/returns/', code) FROM customer_return WHERE code = ? AND site_id IN (?)
       UNION ALL SELECT 'Count', code, title, CONCAT('/shelves/counts/', code) FROM stock_count WHERE code = ? AND site_id IN (?)
       UNION ALL SELECT 'Assembly', code, note, CONCAT('/shelves/builds/', code) FROM build WHERE code = ? AND site_id IN (?)
       UNION ALL SELECT 'Transfer', code, note, CONCAT('/shelves/transfers/', code) FROM transfer WHERE code = ? AND (from_site_id IN (?) OR to_site_id IN (?))
       UNION ALL SELECT 'Supplier', code, name, CONCAT('/inbound/suppliers/', code) FROM supplier WHERE code = ?
       UNION ALL SELECT 'Bin', code, kind, CONCAT('/shelves/places/', code) FROM place WHERE code = ? AND site_id IN (?) LIMIT 1`,
      [
        code,
        code,
        code,
        sites,
        word,
        sites,
        code,
        sites,
        code,
        sites,
        code,
        sites,
        code,
        sites,
        code,
        sites,
        code,
        sites,
        code,
        sites,
        code,
        sites,
        sites,
        code,
        code,
        sites,
      ],
    );
  }
}

/** A SKU may hold spaces, slashes and number signs: its part of an address is written as one. */
function address(link: string): string {
  const items = '/shelves/items/';
  const lots = '/shelves/trace?sku=';
  if (link.startsWith(lots)) {
    const [sku = '', lot = ''] = link.slice(lots.length).split(/&lot=(?=[^]*$)/);
    return `${lots}${encodeURIComponent(sku)}&lot=${encodeURIComponent(lot)}`;
  }
  return link.startsWith(items) ? items + encodeURIComponent(link.slice(items.length)) : link;
}
