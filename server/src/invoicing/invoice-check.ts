import type { DataSource } from 'typeorm';
import { rows } from '../platform/index.js';
import { deliveredLines } from './deliverable.js';

const CHECKS: readonly { says: string; sql: string }[] = [
  {
    says: 'What a customer owes by the journal differs from the document',
    sql: `SELECT v.code AS what FROM invoice v LEFT JOIN (SELECT invoice_id, SUM(IF(debit = 'trade debtors', amount, 0)) - SUM(IF(credit = 'trade debtors', amount, 0)) AS owed FROM value_entry
        WHERE invoice_id IS NOT NULL AND debit NOT IN ('bank','exchange difference') AND credit NOT IN ('bank','exchange difference') GROUP BY invoice_id) e ON e.invoice_id = v.id WHERE v.gross <> COALESCE(e.owed, 0)`,
  },
  {
    says: 'The lines of a document do not come to its sum',
    sql: `SELECT v.code AS what FROM invoice v JOIN (SELECT invoice_id, SUM(net) AS net, SUM(amount) AS amount FROM invoice_line GROUP BY invoice_id) l ON l.invoice_id = v.id
      WHERE v.net <> l.net OR l.amount <> IF(v.prices_hold_tax = 1, v.gross, v.net)`,
  },
  {
    says: 'A payment gives more or less than it says',
    sql: `SELECT CONCAT('payment ', p.id) AS what FROM payment p LEFT JOIN (SELECT payment_id, SUM(amount) AS given FROM payment_share GROUP BY payment_id) s ON s.payment_id = p.id WHERE IF(p.taken_back_at IS NULL, p.used - p.gained, 0) <> COALESCE(s.given, 0)`,
  },
  {
    says: 'The open documents and free payments do not come to what customers owe by the journal',
    sql: `SELECT 'trade debtors' AS what FROM DUAL WHERE (SELECT COALESCE(SUM(open_amount), 0) FROM invoice) - (SELECT COALESCE(SUM(free_amount), 0) FROM payment)
      <> (SELECT COALESCE(SUM(IF(debit = 'trade debtors', amount, -amount)), 0) FROM value_entry WHERE debit = 'trade debtors' OR credit = 'trade debtors')`,
  },
  {
    says: 'Numbers of documents have a gap',
    sql: `SELECT LEFT(code, 1) AS what FROM invoice GROUP BY LEFT(code, 1), kind HAVING MAX(CAST(SUBSTRING(code, 3) AS UNSIGNED)) - MIN(CAST(SUBSTRING(code, 3) AS UNSIGNED)) + 1 <> COUNT(*)`,
  },
];

/** Proves the promises of invoices, payments and their entries over the whole database. Nothing is mended. */
export async function checkInvoices(source: DataSource): Promise<string[]> {
  const findings: string[] = [];
  for (const { says, sql } of CHECKS)
    for (const { what } of (await rows<{ what: string }>(source, sql)).slice(0, 5)) findings.push(`${says}: ${what}`);
  const invoiced = await rows<{ id: number }>(
    source,
    'SELECT DISTINCT n.order_id AS id FROM invoice_line l JOIN sales_order_line n ON n.id = l.order_line_id',
  );
  for (let from = 0; from < invoiced.length; from += 500) {
    const lines = await deliveredLines(
      source,
      invoiced.slice(from, from + 500).map((o) => o.id),
    );
    for (const l of lines.filter((x) => x.invoiced > x.delivered || x.invoiced < 0))
      findings.push(`More is invoiced than was delivered: ${l.order} line ${l.line}`);
  }
  return findings;
}
