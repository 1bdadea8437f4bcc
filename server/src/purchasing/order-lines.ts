import { Item, PackUnitRow } from '../catalogue/index.js';
import { badForm, rows, type Tx } from '../platform/index.js';
import { type OrderChange, samePrice } from './order-changes.js';
import { PurchaseOrderCharge, PurchaseOrderLine } from './purchase-order.entity.js';
import type { ChargeDto, EditPurchaseOrderLineDto } from './purchasing.dto.js';

async function columnsOf(tx: Tx, line: EditPurchaseOrderLineDto, n: number) {
  const item = await tx.findOneBy(Item, { sku: line.sku.toUpperCase() });
  if (!item) throw badForm({ lines: `Line ${n}: there is no item ${line.sku}` });
  const pack = await tx.findOneBy(PackUnitRow, { itemId: item.id, factor: line.factor });
  if (!pack) throw badForm({ lines: `Line ${n}: ${line.sku} has no pack of ${line.factor}` });
  return {
    itemId: item.id,
    packUnitId: pack.id,
    packs: line.packs,
    factor: line.factor,
    price: line.price,
    expectedOn: line.expectedOn ?? null,
  };
}

/** Writes lines of an order after those that it has. */
export async function addLines(tx: Tx, orderId: number, lines: readonly EditPurchaseOrderLineDto[], after = 0): Promise<void> {
  for (const [i, line] of lines.entries()) {
    const n = after + i + 1;
    await tx.insert(PurchaseOrderLine, { orderId, line: n, ...(await columnsOf(tx, line, n)) });
  }
}

/**
 * Changes the lines of a placed order, one by one in their order: quantity, price and day may change, goods may not; new lines
 * come at the end. What has come, or is closed, stays ordered.
 */
export async function changeLines(tx: Tx, orderId: number, lines: readonly EditPurchaseOrderLineDto[]): Promise<OrderChange[]> {
  const had = await tx.find(PurchaseOrderLine, { where: { orderId }, order: { line: 'ASC' } });
  if (lines.length < had.length) throw badForm({ lines: 'A line of a placed order stays. Close it short where it is not wanted any more' });
  const changes: OrderChange[] = [];
  for (const [i, was] of had.entries()) {
    const line = lines[i];
    if (!line) continue;
    const next = await columnsOf(tx, line, was.line);
    if (next.itemId !== was.itemId || next.factor !== was.factor)
      throw badForm({ lines: `Line ${was.line}: other goods need a line of their own. Close this one short and add another` });
    if (next.packs * next.factor < was.receivedUnits + was.closedUnits)
      throw badForm({ lines: `Line ${was.line}: more than that has come already` });
    changes.push(
      { line: was.line, what: 'quantity', was: was.packs, becomes: next.packs },
      { line: was.line, what: 'day', was: was.expectedOn, becomes: next.expectedOn },
      ...(samePrice(was.price, next.price) ? [] : [{ line: was.line, what: 'price', was: was.price, becomes: next.price }]),
    );
    await tx.update(PurchaseOrderLine, was.id, { packs: next.packs, price: next.price, expectedOn: next.expectedOn });
  }
  const added = lines.slice(had.length);
  await addLines(tx, orderId, added, had.length);
  return [...changes, ...added.map((l, i) => ({ line: had.length + i + 1, what: 'goods', was: null, becomes: `${l.packs} of ${l.sku}` }))];
}

const words = (charges: readonly { says: string; amount: string; sharedBy?: string; by?: string }[]) =>
  charges.map((c) => `${c.says} ${Number(c.amount).toFixed(2)} by ${c.sharedBy ?? c.by ?? ''}`).join(', ');

/** Replaces the charges of an order; left as they are where the request names none. */
export async function writeCharges(tx: Tx, orderId: number, charges: readonly ChargeDto[] | undefined): Promise<OrderChange[]> {
  if (!charges) return [];
  const had = await tx.find(PurchaseOrderCharge, { where: { orderId }, order: { position: 'ASC' } });
  await tx.delete(PurchaseOrderCharge, { orderId });
  for (const [i, c] of charges.entries())
    await tx.insert(PurchaseOrderCharge, { orderId, position: i + 1, says: c.says.trim(), amount: c.amount, sharedBy: c.by });
  return [{ line: null, what: 'charges', was: words(had), becomes: words(charges) }];
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
