import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { keyOfCode } from '../catalogue/index.js';
import { one, rows } from '../platform/index.js';
import { FindDto, FoundDto } from './desk.dto.js';

/** The any-field: a scanned code opens its record, a word lists what it is in. */
@Injectable()
export class FindQueries {
  constructor(private readonly source: DataSource) {}

  async find(text: string, siteIds: readonly number[]): Promise<FindDto> {
    const word = text.trim();
    if (word === '') return { opens: null, found: [] };
    const exact = await this.exact(word, siteIds);
    if (exact) return { opens: exact.link, found: [exact] };
    const like = `%${word.replace(/[\\%_]/g, '\\$&')}%`;
    const found = await rows<FoundDto>(
      this.source,
      `(SELECT 'Item' AS kind, sku AS code, name AS title, CONCAT('/shelves/items/', sku) AS link FROM item WHERE name LIKE ? OR sku LIKE ? ORDER BY name LIMIT 6)
       UNION ALL (SELECT 'Order', code, customer, CONCAT('/orders/', code) FROM sales_order WHERE (customer LIKE ? OR code LIKE ? OR channel_ref LIKE ?) AND site_id IN (?) ORDER BY id DESC LIMIT 6)
       UNION ALL (SELECT 'Purchase', o.code, s.name, CONCAT('/inbound/', o.code) FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id WHERE (s.name LIKE ? OR o.code LIKE ?) AND o.site_id IN (?) ORDER BY o.id DESC LIMIT 6)
       UNION ALL (SELECT 'Arrival', a.code, COALESCE(s.name, 'Sender not known'), CONCAT('/inbound/arrivals/', a.code) FROM arrival a LEFT JOIN supplier s ON s.id = a.supplier_id WHERE (a.code LIKE ? OR a.paper LIKE ?) AND a.site_id IN (?) ORDER BY a.id DESC LIMIT 6)
       UNION ALL (SELECT 'Supplier', code, name, CONCAT('/inbound/suppliers/', code) FROM supplier WHERE name LIKE ? OR code LIKE ? ORDER BY name LIMIT 6)
       UNION ALL (SELECT 'Bin', p.code, p.kind, CONCAT('/shelves/places/', p.code) FROM place p WHERE p.code LIKE ? AND p.site_id IN (?) ORDER BY p.code LIMIT 6)`,
      [
        like,
        like,
        like,
        like,
        like,
        [0, ...siteIds],
        like,
        like,
        [0, ...siteIds],
        like,
        like,
        [0, ...siteIds],
        like,
        like,
        like,
        [0, ...siteIds],
      ],
    );
    return { opens: null, found };
  }

  private async exact(word: string, siteIds: readonly number[]): Promise<FoundDto | undefined> {
    const sites = [0, ...siteIds];
    const code = keyOfCode(word);
    return one<FoundDto>(
      this.source,
      `SELECT 'Item' AS kind, i.sku AS code, i.name AS title, CONCAT('/shelves/items/', i.sku) AS link FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id JOIN item i ON i.id = u.item_id WHERE b.code = ?
       UNION ALL SELECT 'Item', sku, name, CONCAT('/shelves/items/', sku) FROM item WHERE sku = ?
       UNION ALL SELECT 'Order', code, customer, CONCAT('/orders/', code) FROM sales_order WHERE code = ? AND site_id IN (?)
       UNION ALL SELECT 'Purchase', code, '', CONCAT('/inbound/', code) FROM purchase_order WHERE code = ? AND site_id IN (?)
       UNION ALL SELECT 'Arrival', code, '', CONCAT('/inbound/arrivals/', code) FROM arrival WHERE code = ? AND site_id IN (?)
       UNION ALL SELECT 'Inspection', n.code, i.name, CONCAT('/inbound/inspection/', n.code) FROM inspection n JOIN item i ON i.id = n.item_id WHERE n.code = ? AND n.site_id IN (?)
       UNION ALL SELECT 'Return', code, '', CONCAT('/inbound/returns/', code) FROM supplier_return WHERE code = ? AND site_id IN (?)
       UNION ALL SELECT 'Supplier', code, name, CONCAT('/inbound/suppliers/', code) FROM supplier WHERE code = ?
       UNION ALL SELECT 'Bin', code, kind, CONCAT('/shelves/places/', code) FROM place WHERE code = ? AND site_id IN (?) LIMIT 1`,
      [code, code, code, sites, code, sites, code, sites, code, sites, code, sites, code, code, sites],
    );
  }
}
