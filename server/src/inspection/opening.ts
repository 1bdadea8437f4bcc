import type { Condition } from '@vectrum/core/ledger';
import type { ReceiveAs } from '@vectrum/core/scan';
import { insert, nextCode, type Tx, update } from '../platform/index.js';
import type { Coming, DueInspection, InspectionDue } from './due.queries.js';

/** What the dock is about to book in. */
interface Taken {
  itemId: number;
  as: ReceiveAs;
  condition: Condition;
}

/** Whether goods as they were taken in would be stock, and so may have to be looked at first. */
const wouldBeStock = (t: Taken) => t.as !== 'apart' && t.condition === 'good';

/**
 * Holds what must be looked at: such goods come in as to be inspected, and an inspection of their delivery is opened, or
 * opened again where all of it had been judged.
 */
export async function heldForInspection<T extends Taken>(
  due: InspectionDue,
  tx: Tx,
  coming: Coming & { arrivalId: number },
  taken: readonly T[],
): Promise<T[]> {
  const items = taken.filter(wouldBeStock).map((t) => t.itemId);
  const looked = await due.of(tx, coming, items, true);
  for (const [itemId, why] of looked) await open(due, tx, coming, itemId, why);
  return taken.map((t) => (wouldBeStock(t) && looked.has(t.itemId) ? { ...t, condition: 'to-inspect' as const } : t));
}

async function open(due: InspectionDue, tx: Tx, coming: Coming & { arrivalId: number }, itemId: number, is: DueInspection): Promise<void> {
  const again = await update(tx, 'inspection', { arrival_id: coming.arrivalId, item_id: itemId }, { closed_at: null, passed: null });
  if (again > 0) return;
  await insert(tx, 'inspection', {
    code: await nextCode(tx, 'Q'),
    site_id: coming.siteId,
    arrival_id: coming.arrivalId,
    item_id: itemId,
    why: is.why.slice(0, 120),
    checks: JSON.stringify(await due.checks(tx, is.checklistId)),
  });
}
