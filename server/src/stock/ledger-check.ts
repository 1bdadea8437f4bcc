import { kindsFor } from '@vectrum/core/places';
import type { DataSource } from 'typeorm';
import { num, promisedSql, rows, sqlList } from '../platform/index.js';

/** One thing that is wrong with the ledger, in words. */
export type LedgerFinding = string;

interface Check {
  says: string;
  sql: string;
}

const CHECKS: readonly Check[] = [
  {
    says: 'The balances of an item do not sum to nought over all places',
    sql: 'SELECT i.sku AS what, SUM(b.units) AS units FROM balance b JOIN item i ON i.id = b.item_id GROUP BY b.item_id HAVING SUM(b.units) <> 0',
  },
  {
    says: 'A balance differs from the sum of its movements',
    sql: `SELECT CONCAT(i.sku, ' in ', p.code) AS what, b.units - m.units AS units FROM balance b JOIN item i ON i.id = b.item_id JOIN place p ON p.id = b.place_id
      JOIN (SELECT item_id, place_id, lot_id, stock_condition, SUM(units) AS units FROM
              (SELECT item_id, to_place_id AS place_id, lot_id, COALESCE(to_condition, stock_condition) AS stock_condition, units FROM movement UNION ALL SELECT item_id, from_place_id, lot_id, stock_condition, -units FROM movement) x
            GROUP BY item_id, place_id, lot_id, stock_condition) m
        ON m.item_id = b.item_id AND m.place_id = b.place_id AND m.lot_id = b.lot_id AND m.stock_condition = b.stock_condition WHERE b.units <> m.units`,
  },
  {
    says: 'Movements have no balance',
    sql: `SELECT i.sku AS what, SUM(m.units) AS units FROM movement m JOIN item i ON i.id = m.item_id LEFT JOIN balance b ON b.item_id = m.item_id AND b.place_id = m.to_place_id AND b.lot_id = m.lot_id AND b.stock_condition = COALESCE(m.to_condition, m.stock_condition) WHERE b.item_id IS NULL GROUP BY i.sku`,
  },
  {
    says: 'A place in the house is below nought',
    sql: `SELECT CONCAT(i.sku, ' in ', p.code) AS what, b.units FROM balance b JOIN item i ON i.id = b.item_id JOIN place p ON p.id = b.place_id WHERE b.units < 0 AND p.site_id IS NOT NULL`,
  },
  {
    says: 'A balance is kept for another site than that of its place',
    sql: `SELECT CONCAT(i.sku, ' in ', p.code) AS what, b.units FROM balance b JOIN item i ON i.id = b.item_id JOIN place p ON p.id = b.place_id WHERE NOT (b.site_id <=> p.site_id)`,
  },
  {
    says: 'A site’s figures differ from its balances',
    sql: `SELECT CONCAT(i.sku, ' at site ', s.site_id) AS what, s.on_hand - COALESCE(b.units, 0) AS units FROM site_stock s JOIN item i ON i.id = s.item_id
      LEFT JOIN (SELECT p.site_id, b.item_id, SUM(b.units) AS units, SUM(IF(b.stock_condition = 'good', 0, b.units)) AS held FROM balance b JOIN place p ON p.id = b.place_id WHERE p.site_id IS NOT NULL GROUP BY p.site_id, b.item_id) b
        ON b.site_id = s.site_id AND b.item_id = s.item_id WHERE s.on_hand <> COALESCE(b.units, 0) OR s.held <> COALESCE(b.held, 0)`,
  },
  {
    says: 'A site’s reserved figure differs from its reservations and earmarks',
    sql: `SELECT CONCAT(i.sku, ' at site ', s.site_id) AS what, s.reserved - COALESCE(v.units, 0) AS units FROM site_stock s JOIN item i ON i.id = s.item_id
      LEFT JOIN (SELECT site_id, item_id, SUM(units) AS units FROM (SELECT site_id, item_id, units FROM reservation UNION ALL SELECT site_id, item_id, units FROM earmark) r GROUP BY site_id, item_id) v
        ON v.site_id = s.site_id AND v.item_id = s.item_id WHERE s.reserved <> COALESCE(v.units, 0)`,
  },
  {
    says: 'A line is promised more than it wants',
    sql: `SELECT CONCAT(o.code, ' line ', l.line) AS what, ${promisedSql('l')} - l.units AS units FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id WHERE l.item_id IS NOT NULL AND ${promisedSql('l')} > l.units`,
  },
  {
    says: 'More is held for orders in a tote than is in it, or a closed parcel holds what is not held for its order',
    sql: `SELECT CONCAT(i.sku, ' in ', p.code) AS what, SUM(x.units) AS units FROM
      (SELECT place_id, item_id, lot_id, units FROM balance WHERE stock_condition = 'good' UNION ALL SELECT place_id, item_id, lot_id, -CAST(units AS SIGNED) FROM reservation WHERE place_id IS NOT NULL) x
      JOIN place p ON p.id = x.place_id AND p.kind IN ${sqlList(['parcel', ...kindsFor('picked')])} JOIN item i ON i.id = x.item_id GROUP BY x.place_id, x.item_id, x.lot_id HAVING SUM(x.units) < 0 OR (SUM(x.units) <> 0 AND EXISTS (SELECT 1 FROM parcel c WHERE c.place_id = x.place_id AND c.state NOT IN ('open','void')))`,
  },
  {
    says: 'Goods are held at one site in a place of another',
    sql: `SELECT CONCAT(i.sku, ' in ', p.code) AS what, v.units FROM reservation v JOIN place p ON p.id = v.place_id AND p.site_id <> v.site_id JOIN item i ON i.id = v.item_id`,
  },
  {
    says: 'A place stands at another site than what it is in',
    sql: `SELECT p.code AS what, p.site_id AS units FROM place p JOIN place q ON q.id = p.parent_id WHERE p.site_id <> q.site_id`,
  },
  {
    says: 'More is reserved at a site than good stock is there',
    sql: `SELECT CONCAT(i.sku, ' at site ', s.site_id) AS what, s.reserved - (s.on_hand - s.held) AS units FROM site_stock s JOIN item i ON i.id = s.item_id WHERE s.reserved > s.on_hand - s.held`,
  },
  {
    says: 'What is valued differs from what is in the house and ours',
    sql: `SELECT i.sku AS what, COALESCE(c.units, 0) - COALESCE(b.units, 0) AS units FROM item i LEFT JOIN cost_pool c ON c.item_id = i.id
      LEFT JOIN (SELECT item_id, SUM(units) AS units FROM balance WHERE bounded = 1 AND stock_condition <> 'apart' GROUP BY item_id) b ON b.item_id = i.id WHERE COALESCE(c.units, 0) <> COALESCE(b.units, 0)`,
  },
  {
    says: 'Layers differ from what is valued',
    sql: `SELECT i.sku AS what, c.units - COALESCE(l.units, 0) AS units FROM cost_pool c JOIN item i ON i.id = c.item_id
      LEFT JOIN (SELECT item_id, SUM(units_left) AS units FROM cost_layer GROUP BY item_id) l ON l.item_id = c.item_id WHERE c.units <> COALESCE(l.units, 0)`,
  },
  {
    says: 'The value of an item differs from its entries',
    sql: `SELECT i.sku AS what, c.value - COALESCE(e.value, 0) AS units FROM cost_pool c JOIN item i ON i.id = c.item_id
      LEFT JOIN (SELECT item_id, SUM(IF(debit = 'stock', amount, 0)) - SUM(IF(credit = 'stock', amount, 0)) AS value FROM value_entry GROUP BY item_id) e ON e.item_id = c.item_id WHERE c.value <> COALESCE(e.value, 0)`,
  },
];

const MOST_SHOWN = 5;

/** Proves the ledger's promises over the whole database. Returns what is wrong; nothing is mended. */
export async function checkLedger(source: DataSource): Promise<LedgerFinding[]> {
  const findings: LedgerFinding[] = [];
  for (const check of CHECKS) {
    const found = await rows<{ what: string; units: string }>(source, check.sql);
    for (const row of found.slice(0, MOST_SHOWN)) findings.push(`${check.says}: ${row.what}, ${num(row.units)} units`);
    if (found.length > MOST_SHOWN) findings.push(`${check.says}: ${found.length - MOST_SHOWN} more`);
  }
  return findings;
}
