import { type DocumentChange, insert, realChanges, type Tx } from '../platform/index.js';

/** Keeps what changed on a sales order, with who and why; changes that change nothing are left out. Returns those that were kept. */
export async function keepChanges(
  tx: Tx,
  orderId: number,
  personId: number | null,
  changes: readonly DocumentChange[],
  why = '',
): Promise<DocumentChange[]> {
  const kept = realChanges(changes, why);
  for (const { row } of kept) await insert(tx, 'sales_order_change', { ...row, order_id: orderId, person_id: personId });
  return kept.map((k) => k.change);
}
