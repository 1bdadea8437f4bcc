import { insert, type Tx } from '../platform/index.js';

export interface OrderChange {
  /** The number of a line; null for the order as a whole. */
  line: number | null;
  what: string;
  was: string | number | null;
  becomes: string | number | null;
}

const said = (value: string | number | null) => (value === null || value === '' ? 'nothing' : String(value)).slice(0, 200);

/** Keeps what changed on a sales order, with who and why; changes that change nothing are left out. Returns those that were kept. */
export async function keepChanges(
  tx: Tx,
  orderId: number,
  personId: number | null,
  changes: readonly OrderChange[],
  why = '',
): Promise<OrderChange[]> {
  const kept = changes.filter((c) => said(c.was) !== said(c.becomes));
  for (const c of kept)
    await insert(tx, 'sales_order_change', {
      order_id: orderId,
      line: c.line,
      what: c.what,
      was: said(c.was),
      becomes: said(c.becomes),
      why: why.slice(0, 120),
      person_id: personId,
    });
  return kept;
}
