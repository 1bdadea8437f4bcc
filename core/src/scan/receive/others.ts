import { accepted, refuse, stay } from '../feedback.js';
import { spell } from '../../quantity/index.js';
import { bookIn } from './book-in.js';
import { emptyHands, thenOn, type Now, type Result } from './booking.js';
import { countedUnits } from './rules.js';
import type { OtherDelivery, ReceiveTask } from './types.js';

/** The other delivery that a paper or a pallet belongs to; undefined for this one's own and for what is on none. O(deliveries). */
export function otherOf(task: ReceiveTask, code: string): OtherDelivery | undefined {
  const wanted = code.trim().toUpperCase();
  if (wanted === task.document || task.pallets.some((p) => p.sscc === wanted)) return undefined;
  return task.others?.find((o) => o.code === wanted || o.also.includes(wanted));
}

/**
 * Goes on with another delivery, and says so. What was counted of this one is booked in first, or stops it where the house
 * wants a key pressed: nothing counted is taken along or lost. `scan`: the code that means goods there, such as a pallet's.
 */
export function toOther(now: Now, other: OtherDelivery, scan: string | null): Result {
  const { task, book, state } = now;
  const item = state.hand && book.items[state.hand.itemId];
  const units = item ? countedUnits(state, item) : 0;
  if (!item || units === 0) return opened(now, other, scan);
  if (task.nextBooks && now.how === 'scanned') return thenOn(bookIn(now), now, (next) => opened(next, other, scan));
  return refuse(
    state,
    {
      band: 'not-this',
      title: other.code,
      detail: `Book in or clear the ${spell(units, item.packs)} of ${item.name} first. Then scan it again`,
    },
    now,
  );
}

const opened = ({ state }: Now, other: OtherDelivery, scan: string | null): Result => ({
  ...stay(emptyHands(state), accepted(other.code, `Going on with it: ${other.supplier}`)),
  opens: { document: other.code, scan },
});
