import { type DocumentChange, badForm, find, findAll, insert, more, num, one, remove, rows, type Tx, update } from '../platform/index.js';
import { samePrice } from './order-changes.js';
import type { ChargeDto, EditPurchaseOrderLineDto } from './purchasing.dto.js';

async function columnsOf(tx: Tx, line: EditPurchaseOrderLineDto, n: number) {
  const item = await find(tx, 'item', { sku: line.sku.toUpperCase() });
  if (!item) throw badForm({ lines: `Line ${n}: there is no item ${line.sku}` });
  const pack = await find(tx, 'pack_unit', { item_id: item.id, factor: line.factor });
  if (!pack) throw badForm({ lines: `Line ${n}: ${line.sku} has no pack of ${line.factor}` });
  return {
    item_id: item.id,
    pack_unit_id: pack.id,
    packs: line.packs,
    factor: line.factor,
    price: line.price,
    expected_on: line.expectedOn ?? null,
  };
}

/** Writes lines of an order after those that it has. */
export async function addLines(tx: Tx, orderId: number, lines: readonly EditPurchaseOrderLineDto[], after = 0): Promise<void> {
  for (const [i, line] of lines.entries()) {
    const n = after + i + 1;
    await insert(tx, 'purchase_order_line', { order_id: orderId, line: n, ...(await columnsOf(tx, line, n)) });
  }
}

/**
 * Changes the lines of a placed order, one by one in their order: quantity, price and day may change, goods may not; new lines
 * come at the end. What has come, or is closed, stays ordered.
 */
export async function changeLines(tx: Tx, orderId: number, lines: readonly EditPurchaseOrderLineDto[]): Promise<DocumentChange[]> {
  const had = await findAll(tx, 'purchase_order_line', { order_id: orderId }, 'line');
  if (lines.length < had.length) throw badForm({ lines: 'A line of a placed order stays. Close it short where it is not wanted any more' });
  const changes: DocumentChange[] = [];
  for (const [i, was] of had.entries()) {
    const line = lines[i];
    if (!line) continue;
    const next = await columnsOf(tx, line, was.line);
    if (next.item_id !== was.item_id || next.factor !== was.factor)
      throw badForm({ lines: `Line ${was.line}: other goods need a line of their own. Close this one short and add another` });
    if (next.packs * next.factor < was.received_units + was.closed_units)
      throw badForm({ lines: `Line ${was.line}: more than that has come already` });
    changes.push(
      { line: was.line, what: 'quantity', was: was.packs, becomes: next.packs },
      { line: was.line, what: 'day', was: was.expected_on, becomes: next.expected_on },
      ...(samePrice(was.price, next.price) ? [] : [{ line: was.line, what: 'price', was: was.price, becomes: next.price }]),
    );
    await update(tx, 'purchase_order_line', { id: was.id }, { packs: next.packs, price: next.price, expected_on: next.expected_on });
  }
  const added = lines.slice(had.length);
  await addLines(tx, orderId, added, had.length);
  return [...changes, ...added.map((l, i) => ({ line: had.length + i + 1, what: 'goods', was: null, becomes: `${l.packs} of ${l.sku}` }))];
}

const words = (charges: readonly { says: string; amount: string; by: string }[]) =>
  charges.map((c) => `${c.says} ${Number(c.amount).toFixed(2)} by ${c.by}`).join(', ');

/** Replaces the charges of an order; left as they are where the request names none. */
export async function writeCharges(tx: Tx, orderId: number, charges: readonly ChargeDto[] | undefined): Promise<DocumentChange[]> {
  if (!charges) return [];
  const had = await findAll(tx, 'purchase_order_charge', { order_id: orderId }, 'position');
  await remove(tx, 'purchase_order_charge', { order_id: orderId });
  for (const [i, c] of charges.entries())
    await insert(tx, 'purchase_order_charge', {
      order_id: orderId,
      position: i + 1,
      says: c.says.trim(),
      amount: c.amount,
      shared_by: c.by,
    });
  return [{ line: null, what: 'charges', was: words(had.map((c) => ({ ...c, by: c.shared_by }))), becomes: words(charges) }];
}

/** What the state of an order is, from what of it has come and what is still waited for. */
export async function stateOf(tx: Tx, orderId: number): Promise<'placed' | 'part-received' | 'received'> {
  const [sums] = await rows<{ open: string; come: string }>(
    tx,
    'SELECT SUM(open_units > 0) AS open, SUM(received_units) AS come FROM purchase_order_line WHERE order_id = ?',
    [orderId],
  );
  if (Number(sums?.open) === 0) return 'received';
  return Number(sums?.come) > 0 ? 'part-received' : 'placed';
}

/** Counts units onto a line (or off it) and lets its order's state follow. */
export async function countOnLine(tx: Tx, lineId: number, units: number): Promise<void> {
  await update(tx, 'purchase_order_line', { id: lineId }, { received_units: more(units) });
  const line = await one<{ orderId: number }>(tx, 'SELECT order_id AS orderId FROM purchase_order_line WHERE id = ?', [lineId]);
  const orderId = num(line?.orderId);
  const state = await stateOf(tx, orderId);
  await tx.query(
    `UPDATE purchase_order SET state = ?, first_received_at = IF(? = 'placed', NULL, COALESCE(first_received_at, UTC_TIMESTAMP(3))), version = version + 1 WHERE id = ?`,
    [state, state, orderId],
  );
}
