import { insert, NOW, one, rows, type Tx, update } from '../platform/index.js';

/** Why an order may wait for somebody: an unknown code, its address, payment, stock, a check, or what a person says. */
export const HOLD_KINDS = ['code', 'address', 'payment', 'stock', 'check', 'other'] as const;
export type HoldKind = (typeof HOLD_KINDS)[number];
/** Those that follow from the order itself: they come and go with what is wrong with it. */
export const OWN_HOLDS: readonly HoldKind[] = ['code', 'address'];

export interface Hold {
  kind: HoldKind;
  reason: string;
  /** Who is to see to it; null where anybody of the order desk may. */
  ownerId?: number | null;
  setBy?: number | null;
}

interface OrderFacts {
  id: number;
  addressLine: string;
  postcode: string;
}

/** What holds an order by itself: codes that nobody knows, and an address to which nothing can be sent. */
export function ownHolds(address: Pick<OrderFacts, 'addressLine' | 'postcode'>, unknown: readonly string[]): Hold[] {
  const holds: Hold[] = [];
  if (unknown.length > 0) holds.push({ kind: 'code', reason: `Unknown code ${unknown.join(', ')}. Link it to an item`.slice(0, 200) });
  if (address.addressLine.trim() === '' || address.postcode.trim() === '')
    holds.push({ kind: 'address', reason: 'No postcode or street. Ask the customer' });
  return holds;
}

export async function addHold(tx: Tx, orderId: number, { kind, reason, ownerId, setBy }: Hold): Promise<void> {
  await insert(tx, 'order_hold', { order_id: orderId, kind, reason, owner_id: ownerId ?? null, set_by: setBy ?? null });
}

/** Clears the holds of an order that are open and of these kinds, or this one. Returns how many there were. */
export async function clearHolds(
  tx: Tx,
  orderId: number,
  which: { kinds: readonly HoldKind[] } | { id: number },
  by: number | null,
  why: string,
): Promise<number> {
  return update(
    tx,
    'order_hold',
    { order_id: orderId, cleared_at: null, ...('id' in which ? { id: which.id } : { kind: which.kinds }) },
    { cleared_at: NOW, cleared_by: by, cleared_why: why.slice(0, 200) },
  );
}

/** Brings the holds that follow from an order in step with it: what is mended goes, what is wrong by now is added. */
export async function followOwnHolds(tx: Tx, order: OrderFacts, by: number | null): Promise<void> {
  const unknown = await rows<{ code: string }>(
    tx,
    'SELECT channel_sku AS code FROM sales_order_line WHERE order_id = ? AND item_id IS NULL AND quantity > 0 ORDER BY line',
    [order.id],
  );
  const due = ownHolds(
    order,
    unknown.map((u) => u.code),
  );
  const open = await rows<{ id: number; kind: HoldKind; reason: string }>(
    tx,
    'SELECT id, kind, reason FROM order_hold WHERE order_id = ? AND cleared_at IS NULL AND kind IN (?)',
    [order.id, OWN_HOLDS],
  );
  for (const hold of open)
    if (!due.some((d) => d.kind === hold.kind && d.reason === hold.reason)) await clearHolds(tx, order.id, { id: hold.id }, by, 'mended');
  for (const hold of due)
    if (!open.some((o) => o.kind === hold.kind && o.reason === hold.reason)) await addHold(tx, order.id, { ...hold, setBy: by });
  await sayHeld(tx, order.id);
}

/** Writes what holds an order into its row, where every list reads it; null where nothing does. Returns it. */
export async function sayHeld(tx: Tx, orderId: number): Promise<string | null> {
  const open = await one<{ says: string | null }>(
    tx,
    `SELECT GROUP_CONCAT(reason ORDER BY id SEPARATOR '. ') AS says FROM order_hold WHERE order_id = ? AND cleared_at IS NULL`,
    [orderId],
  );
  const says = open?.says?.slice(0, 200) ?? null;
  await update(tx, 'sales_order', { id: orderId }, { hold_reason: says });
  return says;
}
