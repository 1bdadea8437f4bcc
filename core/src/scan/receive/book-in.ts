import { spell } from '../../quantity/index.js';
import { refuse, stay } from '../feedback.js';
import type { ItemFacts } from '../types.js';
import { destination, post, type Now, type Result } from './booking.js';
import { checkReceive, countedUnits, lineOf, receivedOn, serialsOnTheWay, unopened } from './rules.js';
import type { ReceiveAs, ReceiveCommand, ReceiveState, ReceiveTask } from './types.js';

/** So many pieces that nobody ordered are asked about, where they are also ten times what was ordered: a slip of the hand is likelier. */
const SO_MANY = 1_000;
const TIMES_ORDERED = 10;

/** Whether what is taken in beyond any order is so much that it is asked about once more. */
export function isSoMany(task: ReceiveTask, state: ReceiveState, units: number, as: ReceiveAs): boolean {
  if (as !== 'unordered' && as !== 'extra') return false;
  const line = lineOf(task, state.hand?.lineId ?? null);
  const beyond = units - (line ? Math.max(0, line.ordered - receivedOn(task, state, line.lineId)) : 0);
  return beyond >= SO_MANY && beyond >= TIMES_ORDERED * (line?.ordered ?? 0);
}

/** Asks whether so many came. */
export function askWhetherSoMany({ task, state, id }: Now, item: ItemFacts, units: number, as: ReceiveAs): Result {
  const line = lineOf(task, state.hand?.lineId ?? null);
  const asked = line ? `${line.order} asked for ${spell(line.ordered, item.packs)} of ${item.name}` : `Nobody ordered ${item.name}`;
  return refuse(
    { ...state, question: { kind: 'so-many', units, as } },
    { band: 'too-many', title: `${spell(units, item.packs)}?`, detail: `${asked}. Say yes if so many came, or count again` },
    { id, code: item.sku },
  );
}

/** Books in what was counted, or asks about what the rules refuse. `sure`: that so many came has been said. */
export function bookIn(now: Now, sure = false): Result {
  const { task, book, state, id } = now;
  const hand = state.hand;
  const item = hand && book.items[hand.itemId];
  if (!hand || !item) return stay(state);
  const units = countedUnits(state, item);
  if (!sure && isSoMany(task, state, units, hand.as)) return askWhetherSoMany(now, item, units, hand.as);
  const to = destination(task, state);
  const command: ReceiveCommand = {
    kind: 'receive',
    id,
    document: task.document,
    lineId: hand.lineId,
    itemId: item.id,
    units,
    lot: item.tracking === 'none' ? null : state.lot,
    expires: item.tracking === 'lot-expiry' ? state.expires : null,
    toPlaceId: to.id,
    how: state.how,
    as: hand.as,
    condition: state.condition,
    reason: hand.reason,
  };
  const before = hand.lineId === null ? 0 : receivedOn(task, state, hand.lineId);
  const refusal = checkReceive({ ...task, serials: [...task.serials, ...serialsOnTheWay(state)] }, book, command, before);
  if (refusal) {
    const { asks, ...said } = refusal;
    const question = asks?.kind === 'over' ? overQuestion(state, item, command.units, asks) : asks?.kind === 'too-old' ? asks : null;
    return refuse({ ...state, question }, said, { id, code: item.sku });
  }
  return post(state, command, item.name, spell(command.units, item.packs), to.code, task.inspect[item.id]);
}

/** How much of too many may stay: a sealed pack is not opened for what a tolerance allows, and for what is ordered only if asked. */
function overQuestion(state: ReceiveState, item: ItemFacts, units: number, { most: room, rest }: { most: number; rest: number }) {
  const most = unopened(state, item, room);
  return { kind: 'over', most, open: rest > most ? rest : null, units } as const;
}
