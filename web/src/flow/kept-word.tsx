import { plural } from '../ui/format';
import { thisPage, useQueue } from './queue';

/** Words about what this device keeps; `late` for what asks to be answered. */
export const keptLook = (late = false) => `kept-word ${late ? 'late' : ''}`;

/** How many commands of this device are not sent yet, and whom they wait for. Nothing where all are. */
export function KeptWord() {
  const { unsent, offline, signedOut, heldBack } = useQueue();
  const count = unsent.filter((c) => c.command.kind !== 'refused').length;
  // What is sent as it is scanned needs no word; what an earlier page left does.
  const waits = offline || signedOut || heldBack.length > 0 || unsent.some((c) => c.page !== thisPage);
  if (count === 0 || !waits) return null;
  const why = heldBack.length > 0 ? `, ${heldBack.join(' and ')} must sign in here` : signedOut ? ', sign in to send them' : '';
  return (
    <span role="status" className={keptLook()}>
      {plural(count, 'act', 'acts')} kept here{why}
    </span>
  );
}
