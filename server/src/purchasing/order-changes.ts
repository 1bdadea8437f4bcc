import type { Act, Tx } from '../platform/index.js';

export interface OrderChange {
  /** The number of a line; null for the order as a whole. */
  line: number | null;
  what: string;
  was: string | number | null;
  becomes: string | number | null;
}

const said = (value: string | number | null) => (value === null || value === '' ? 'nothing' : String(value)).slice(0, 200);

/** Decimals are compared by what they are worth: 20.16 and 20.160000 are one price. */
export const samePrice = (a: string | null, b: string | null) => (a === null || b === null ? a === b : Number(a) === Number(b));

/** Keeps what changed on a placed order; changes that change nothing are left out. Returns those that were kept. */
export async function keepChanges(tx: Tx, act: Act, orderId: number, changes: readonly OrderChange[], why = ''): Promise<OrderChange[]> {
  const kept = changes.filter((c) => said(c.was) !== said(c.becomes));
  for (const c of kept)
    await tx.query('INSERT INTO purchase_order_change (order_id, line, what, was, becomes, why, person_id) VALUES (?, ?, ?, ?, ?, ?, ?)', [
      orderId,
      c.line,
      c.what,
      said(c.was),
      said(c.becomes),
      why.slice(0, 120),
      act.person.id,
    ]);
  return kept;
}
