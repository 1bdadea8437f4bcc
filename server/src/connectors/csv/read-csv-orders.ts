import { parse } from 'csv-parse/sync';
import { delimiterOf } from '../../exchange/index.js';
import type { IncomingOrder } from '../../orders/index.js';
import { badForm } from '../../platform/index.js';

/** The heads of a file of orders, one row a line; docs/channels.md says what each holds. */
export const CSV_HEADS = [
  'order',
  'customer',
  'street',
  'town',
  'postcode',
  'country',
  'sku',
  'quantity',
  'price',
  'email',
  'note',
  'promised',
] as const;
type Head = (typeof CSV_HEADS)[number];
const NEEDED: readonly Head[] = ['order', 'customer', 'sku', 'quantity'];
const MOST_ROWS = 5_000;

/**
 * Reads a file of orders: rows of one number are one order, in their order. Problem 400 with the row that is wrong. An order is read
 * as a whole or not at all, and one that is wrong holds up no other: its rows come back as text, with what is against them.
 */
export function readCsvOrders(text: string): { orders: IncomingOrder[]; wrong: { raw: string; why: string }[] } {
  const [heads = [], ...rows] = records(text);
  const at = new Map(heads.map((h, i) => [h.trim().toLowerCase(), i]));
  const missing = NEEDED.filter((h) => !at.has(h));
  if (missing.length > 0)
    throw badForm({ file: `The file has no column ${missing.join(', ')}. Its heads are ${CSV_HEADS.join(', ')}, in any order` });
  if (rows.length > MOST_ROWS) throw badForm({ file: `A file of orders has ${MOST_ROWS} rows at most. Send it in parts` });
  const cell = (row: readonly string[], head: Head) => (row[at.get(head) ?? -1] ?? '').trim();
  const byRef = new Map<string, string[][]>();
  for (const row of rows)
    if (row.some((c) => c.trim() !== '')) byRef.set(cell(row, 'order'), [...(byRef.get(cell(row, 'order')) ?? []), row]);
  const orders: IncomingOrder[] = [];
  const wrong: { raw: string; why: string }[] = [];
  for (const [ref, lines] of byRef) {
    const why = faultOf(ref, lines, cell);
    if (why) wrong.push({ raw: [heads, ...lines].map(csvRow).join('\n'), why });
    else orders.push(orderOf(ref, lines, cell));
  }
  return { orders, wrong };
}

function records(text: string): string[][] {
  try {
    return parse(text, { delimiter: delimiterOf(text), relax_column_count: true, skip_empty_lines: true, max_record_size: 100_000 });
  } catch (thrown) {
    throw badForm({ file: `The file cannot be read as CSV: ${thrown instanceof Error ? thrown.message : String(thrown)}` });
  }
}

type Cell = (row: readonly string[], head: Head) => string;

function faultOf(ref: string, lines: readonly (readonly string[])[], cell: Cell): string | null {
  const [first = []] = lines;
  if (ref === '' || ref.length > 60) return 'A row names no order, or one of more than 60 characters';
  if (cell(first, 'customer') === '') return `Order ${ref} names no customer`;
  const country = cell(first, 'country') || 'GB';
  if (!/^[A-Za-z]{2}$/.test(country)) return `Order ${ref}: a country is two letters, such as GB`;
  const promised = cell(first, 'promised');
  if (promised !== '' && !/^\d{4}-\d\d-\d\d(T.*)?$/.test(promised)) return `Order ${ref}: a day is written 2026-05-14`;
  for (const [i, line] of lines.entries()) {
    if (cell(line, 'sku') === '' || cell(line, 'sku').length > 60)
      return `Order ${ref}, row ${i + 1}: no SKU, or one of more than 60 characters`;
    if (!/^[1-9]\d{0,5}$/.test(cell(line, 'quantity'))) return `Order ${ref}, row ${i + 1}: a quantity is a whole number, such as 12`;
    if (!/^\d{0,10}(\.\d{1,6})?$/.test(cell(line, 'price'))) return `Order ${ref}, row ${i + 1}: a price is a number, such as 0.95`;
  }
  return null;
}

function orderOf(ref: string, lines: readonly (readonly string[])[], cell: Cell): IncomingOrder {
  const [first = []] = lines;
  const promised = cell(first, 'promised');
  return {
    ref,
    placedAt: new Date().toISOString(),
    customer: cell(first, 'customer').slice(0, 120),
    email: cell(first, 'email').slice(0, 190),
    address: {
      line: cell(first, 'street').slice(0, 200),
      city: cell(first, 'town').slice(0, 80),
      postcode: cell(first, 'postcode').slice(0, 16),
      country: (cell(first, 'country') || 'GB').toUpperCase(),
    },
    note: cell(first, 'note').slice(0, 300) || null,
    ...(promised === '' ? {} : { promisedAt: promised.length === 10 ? `${promised}T16:00:00Z` : promised }),
    lines: lines.map((l) => ({ sku: cell(l, 'sku'), quantity: Number(cell(l, 'quantity')), price: cell(l, 'price') || '0' })),
  };
}

const csvRow = (cells: readonly string[]) => cells.map((c) => (/[",\n]/.test(c) ? `"${c.replaceAll('"', '""')}"` : c)).join(',');
