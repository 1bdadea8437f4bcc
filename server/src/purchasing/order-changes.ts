import { type Act, insert, type Tx } from '../platform/index.js';

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
    await insert(tx, 'purchase_order_change', {
      order_id: orderId,
      line: c.line,
      what: c.what,
      was: said(c.was),
      becomes: said(c.becomes),
      why: why.slice(0, 120),
      person_id: act.person.id,
    });
  return kept;
}
