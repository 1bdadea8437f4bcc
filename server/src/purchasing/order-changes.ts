import { type Act, type DocumentChange, insert, realChanges, type Tx } from '../platform/index.js';

/** Decimals are compared by what they are worth: 20.16 and 20.160000 are one price. */
export const samePrice = (a: string | null, b: string | null) => (a === null || b === null ? a === b : Number(a) === Number(b));

/** Keeps what changed on a placed order; changes that change nothing are left out. Returns those that were kept. */
export async function keepChanges(
  tx: Tx,
  act: Act,
  orderId: number,
  changes: readonly DocumentChange[],
  why = '',
): Promise<DocumentChange[]> {
  const kept = realChanges(changes, why);
  for (const { row } of kept) await insert(tx, 'purchase_order_change', { ...row, order_id: orderId, person_id: act.person.id });
  return kept.map((k) => k.change);
}
