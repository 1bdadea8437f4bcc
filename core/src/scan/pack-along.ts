import { spell } from '../quantity/index.js';
import { accepted, refuse, stay } from './feedback.js';
import type { Moment } from './flow.js';
import {
  insertsLeft,
  leftToPack,
  type PackingCommand,
  type PackKit,
  type PackState,
  type PackTask,
  parcelInUse,
  toPack,
} from './pack-task.js';
import type { ItemFacts, Step } from './types.js';

type Result = Step<PackState, PackingCommand>;
type Now = Moment<PackTask, PackState>;

/** The code of a kit: all the parts of one go into the box together. Where a part is missing, or is proved piece by piece, they are scanned one by one. */
export function wholeKit(now: Now, item: ItemFacts, kits: number): Result {
  const { task, state, book } = now;
  if (state.outOf !== null)
    return refuse(state, { band: 'not-this', title: item.name, detail: 'Out of a parcel its parts come one by one. Scan each' }, now);
  const own = task.kits?.filter((k) => k.itemId === item.id) ?? [];
  const lacks = (kit: PackKit) => kit.parts.find((p) => leftOf(now, p.line) < p.each * kits);
  const kit = own.find((k) => !lacks(k)) ?? own[0];
  if (!kit) return stay(state);
  const nameOf = (line: number) => {
    const itemId = task.lines.find((l) => l.line === line)?.itemId;
    return itemId === undefined ? 'a part that is not here' : (book.items[itemId]?.name ?? 'a part');
  };
  if (kit.parts.every((p) => leftOf(now, p.line) === 0))
    return refuse(state, { band: 'too-many', title: item.name, detail: `${task.order} has all of it in its parcels` }, now);
  const short = lacks(kit);
  if (short)
    return refuse(
      state,
      { band: 'not-this', title: 'Not whole', detail: `It lacks ${nameOf(short.line)}. Scan its parts one by one` },
      now,
    );
  const single = kit.parts.find((p) => {
    const part = book.items[task.lines.find((l) => l.line === p.line)?.itemId ?? 0];
    return part?.asksSerial === true || part?.scanEach === true;
  });
  if (single)
    return refuse(
      state,
      { band: 'not-this', title: item.name, detail: `Each ${nameOf(single.line)} is scanned. Scan its parts one by one` },
      now,
    );
  const lines = kit.parts.map((p) => ({ line: p.line, units: p.each * kits }));
  const left = leftToPack(task, state) - lines.reduce((n, l) => n + l.units, 0);
  return {
    state: { ...state, line: null },
    feedback: accepted(`${spell(kits, item.packs)} of ${item.name}`, left > 0 ? `${left} more to scan` : 'all of it is in'),
    commands: [
      { kind: 'pack-kit', id: now.id, order: task.order, parcel: parcelInUse(task, state), kit: kit.line, kits, lines, how: now.how },
    ],
  };
}

const leftOf = (now: Now, line: number): number => {
  const found = now.task.lines.find((l) => l.line === line);
  return found ? toPack(now.state, found) : 0;
};

/** The inserts that are left stay behind: there are none to hand, or they are not wanted. The order does not wait for them. */
export function leaveOut({ task, state, book, id }: Now): Result {
  const lines = insertsLeft(task, state);
  if (lines.length === 0)
    return stay(state, {
      band: 'not-this',
      title: 'Nothing to leave out',
      detail: 'No insert waits. Goods that were ordered are parked, or changed by the order desk',
    });
  const names = lines.map(({ line }) => book.items[task.lines.find((l) => l.line === line)?.itemId ?? 0]?.name ?? 'an insert');
  return {
    state: { ...state, line: null },
    feedback: accepted('Left out', `${names.join(', ')}: the packing list says so`),
    commands: [{ kind: 'leave-out', id, order: task.order, lines }],
  };
}
