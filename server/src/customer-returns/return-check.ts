import type { DataSource } from 'typeorm';
import { rows } from '../platform/index.js';

const CHECKS: readonly { says: string; sql: string }[] = [
  {
    says: 'More of an order’s line is back than left',
    sql: `SELECT CONCAT(o.code, ' line ', l.line) AS what FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id JOIN customer_return_line r ON r.order_line_id = l.id
      JOIN came_back c ON c.line_id = r.id AND c.undone_at IS NULL AND c.given_back_id IS NULL GROUP BY l.id HAVING SUM(c.units) > MAX(l.shipped_units)`,
  },
  {
    says: 'What came back is not what was moved',
    sql: `SELECT r.code AS what FROM came_back c JOIN customer_return_line l ON l.id = c.line_id JOIN customer_return r ON r.id = l.return_id JOIN movement m ON m.id = c.movement_id
      WHERE m.units <> c.units OR m.item_id <> l.item_id OR m.lot_id <> c.lot_id OR (c.undone_at IS NULL) = EXISTS (SELECT 1 FROM movement x WHERE x.reverses_id = m.id)`,
  },
  {
    says: 'Goods came back dearer than they left',
    sql: `SELECT o.code AS what FROM customer_return r JOIN sales_order o ON o.id = r.order_id JOIN movement m ON m.document = r.code AND m.task IN ('come-back','undo') JOIN value_entry e ON e.movement_id = m.id AND 'cost of goods' IN (e.debit, e.credit)
      GROUP BY o.id HAVING SUM(IF(e.credit = 'cost of goods', e.amount, -e.amount)) > (SELECT SUM(g.amount) FROM movement s JOIN value_entry g ON g.movement_id = s.id AND g.debit = 'cost of goods' WHERE s.document = MAX(o.code) AND s.task = 'ship')`,
  },
  {
    says: 'More is paid back for an order’s line than is back',
    sql: `SELECT CONCAT(o.code, ' line ', l.line) AS what FROM return_refund f JOIN sales_order_line l ON l.id = f.order_line_id JOIN sales_order o ON o.id = l.order_id GROUP BY l.id HAVING SUM(f.units) > MAX(IF(EXISTS (SELECT 1 FROM sales_order_line p WHERE p.order_id = l.order_id AND p.kit_line = l.line), l.quantity * l.factor, l.shipped_units))`,
  },
];

/** Proves the promises of customers' returns over the whole database. Nothing is mended. */
export async function checkReturns(source: DataSource): Promise<string[]> {
  const findings: string[] = [];
  for (const { says, sql } of CHECKS)
    for (const { what } of (await rows<{ what: string }>(source, sql)).slice(0, 5)) findings.push(`${says}: ${what}`);
  return findings;
}
