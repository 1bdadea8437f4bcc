import type { StopId } from '../ids/index.js';
import { isFor } from '../places/index.js';
import { lotWords, spell } from '../quantity/index.js';
import { accepted, refuse, sentence, stay } from './feedback.js';
import { flowOf } from './flow.js';
import { onCart } from './pick-cart.js';
import { checkPick, checkSetDown } from './pick-rules.js';
import { onOtherLot, onReason, otherOf, otherRefusal, wrongLot } from './pick-lots.js';
import { emptied, isWhole, onFull, onTote, type PickMoment, type PickStep, putInTote } from './pick-put.js';
import {
  currentStop,
  inHandAt,
  isAtBin,
  isLotSeen,
  isSetDown,
  othersStops,
  type PickCommands,
  type PickInput,
  type PickState,
  type PickStop,
  type PickTask,
  startPick,
  wantedAt,
} from './pick-task.js';
import type { Meaning } from './resolve.js';
import type { ItemFacts, PlaceFacts, Refusal } from './types.js';

type Result = PickStep;
type Now = PickMoment;

/** Picking: bin first or goods first, then into the tote. */
export const pick = flowOf<PickTask, PickState, PickInput, PickCommands>({
  kind: 'pick',
  start: startPick,
  owns: ['take', 'help', 'cart', 'tote', 'pick', 'short', 'set-down'],
  emptied,
  strays: takenByOthers,
  item: onItem,
  place: (now, place) => {
    if (isFor(place.kind, 'collect')) return onTote(now, place);
    // Goods that wait on a cart may be picked from it, as from any bin.
    if (place.kind === 'cart' && !now.task.stops.some((s) => s.placeId === place.id && wantedAt(now.state, s) > 0))
      return onCart(now, place);
    return isFor(place.kind, 'set-down') || isFor(place.kind, 'sort') ? onTable(now, place) : onBin(now, place);
  },
  unknown: onLotCode,
  // By cards alone: too few here, and confirmed that none is. The same card twice may be a scanner that reads twice.
  cards: { confirm: (now) => (now.state.asksAt === null ? putInTote(now) : onThere(now, 0)), 'not-here': (now) => notHere(now, undefined) },
  inputs: {
    count: onCount,
    confirm: (now) => putInTote(now),
    lot: (now, input) => onLot(now, input.lot),
    reason: (now, input) => onReason(now, input.reason),
    'not-here': (now, input) => notHere(now, input.stopId),
    full: onFull,
    take: onTake,
    help: onHelp,
    there: (now, input) => onThere(now, input.units),
  },
});

/** Somebody else has picked, meanwhile, what this person holds. */
function takenByOthers({ task, book, state }: Now): Refusal | null {
  const hand = state.hand;
  if (!hand || hand.units === 0) return null;
  const stop = task.stops.find((s) => s.id === hand.stopId);
  const item = stop && book.items[stop.itemId];
  const wanted = stop ? wantedAt(state, stop) : 0;
  if (hand.units <= wanted) return null;
  const rest = wanted > 0 && item ? `Only ${spell(wanted, item.packs)} wanted by now` : 'No more wanted by now';
  return {
    band: 'too-many',
    title: item?.name ?? 'Not on this round',
    detail: `${rest}. Put it back in ${stop?.placeCode ?? 'its bin'} and scan again`,
  };
}

function onCount({ task, book, state, ...now }: Now, input: Extract<PickInput, { kind: 'count' }>): Result {
  const stop = currentStop(task, state);
  const item = stop && book.items[stop.itemId];
  const pack = item?.packs.find((p) => p.id === input.packId);
  const hand = state.hand;
  if (!stop || !item || !pack || hand?.stopId !== stop.id) return stay(state);
  if (task.scansEach || item.scanEach)
    return refuse(state, { band: 'not-this', title: 'Each piece is scanned', detail: `Scan the next ${item.name}` }, now);
  const before = hand.packId === pack.id ? hand.before : hand.units;
  const units = before + input.count * pack.factor;
  const wanted = wantedAt(state, stop);
  const refusal = units > 0 ? (checkPick(stop, item, units, wanted) ?? otherRefusal(stop, item, hand.other?.lotId, units)) : null;
  if (refusal) return refuse(state, refusal, now);
  const next: PickState = { ...state, hand: { ...hand, packId: pack.id, before, units, keyed: true } };
  return isWhole({ task, book, state: next, ...now }, stop) ? putInTote({ task, book, state: next, ...now }) : stay(next);
}

function onTable({ task, state, ...now }: Now, place: PlaceFacts): Result {
  const refusal = checkSetDown(task, place, task.stops.filter((s) => wantedAt(state, s) > 0).length);
  if (refusal) return refuse(state, refusal, now);
  if (isSetDown(task, state)) return refuse(state, { band: 'not-this', title: place.code, detail: 'Set down already' }, now);
  return {
    state: { ...startPick, pending: state.pending },
    feedback: accepted(`Set down at ${place.code}`, readyWords(task)),
    commands: [{ kind: 'set-down', id: now.id, round: task.round, placeId: place.id }],
  };
}

function readyWords({ orders, pooled }: PickTask): string {
  const [first] = orders;
  if (pooled) return `${first?.customer ?? 'All of it'}: ready to sort`;
  if (!first) return 'Ready to pack';
  return orders.length === 1 ? `${first.code}, ${first.customer}, is ready to pack` : `${orders.length} orders are ready to pack`;
}

function onBin({ task, book, state, ...now }: Now, place: PlaceFacts): Result {
  const open = task.stops.filter((s) => wantedAt(state, s) > 0);
  const current = currentStop(task, state);
  const stop = [current, ...open].find((s) => s?.placeId === place.id);
  if (!stop) {
    const detail = current ? `Nothing wanted here. Go to ${current.placeCode}` : 'Nothing more to pick';
    return refuse(state, { band: 'not-this', title: place.code, detail }, now);
  }
  if (inHandAt(state, current) > 0 && stop.id !== current?.id) {
    return refuse(state, { band: 'not-this', title: place.code, detail: 'Put what you hold into the tote first' }, now);
  }
  const hand = state.hand?.stopId === stop.id ? state.hand : null;
  const next: PickState = { ...state, stopId: stop.id, atBin: place.id, hand, asksAt: null };
  // Goods that were scanned before their bin are in the tote with it.
  if (isWhole({ task, book, state: next, ...now }, stop)) return putInTote({ task, book, state: next, ...now });
  return stay(next, accepted(`Bin ${place.code}`, hand ? 'Now the rest, or the tote' : 'Now the goods'));
}

function onItem(now: Now, { item, pack, lot }: Extract<Meaning, { kind: 'item' }>): Result {
  const { task, state } = now;
  const current = currentStop(task, state);
  const isOf = (s: PickStop) => s.itemId === item.id && wantedAt(state, s) > 0;
  const matches = (s: PickStop) => isOf(s) && (!lot || s.lot === lot);
  const all = task.stops.filter(matches);
  // To where a colleague goes nobody is sent, unless it is the only place left.
  const own = all.filter((s) => s.by === undefined);
  const elsewhere = own.length > 0 ? own : all;
  const free = !isAtBin(state, current) && inHandAt(state, current) === 0;
  const stop = current && matches(current) ? current : elsewhere.length === 1 && free ? elsewhere[0] : undefined;
  const other = !stop && current && lot && isOf(current) && isAtBin(state, current) ? otherOf(current, lot) : undefined;
  if (current && other) {
    const held = state.hand?.other?.lotId === other.lotId ? inHandAt(state, current) : 0;
    const refusal = checkPick(current, item, held + pack.factor, wantedAt(state, current));
    if (refusal) return refuse(state, refusal, now);
    const hand = {
      stopId: current.id,
      units: held + pack.factor,
      how: now.how,
      packId: pack.id,
      before: held,
      keyed: false,
      lotSeen: true,
    };
    return onOtherLot(now, current, item, other, hand);
  }
  if (!stop) return refuse(state, wrongItem(item, lot, current), now);
  const inHand = inHandAt(state, stop);
  if (lot && state.hand?.other && inHand > 0 && lot === stop.lot) {
    const detail = `You hold ${lotWords(item, state.hand.other.lot)}. Put that into the tote first`;
    return refuse(state, { band: 'not-this', title: sentence(lotWords(item, lot)), detail }, now);
  }
  const units = inHand + pack.factor;
  const wanted = wantedAt(state, stop);
  const refusal =
    checkPick(stop, item, units, wanted) ?? otherRefusal(stop, item, inHand > 0 ? state.hand?.other?.lotId : undefined, units);
  if (refusal) return refuse(state, refusal, now);
  const held = state.hand?.stopId === stop.id ? state.hand : null;
  const before = held?.packId === pack.id ? held.before : inHand;
  const lotSeen = stop.lot === null || lot === stop.lot || (held?.lotSeen ?? false);
  const next: PickState = {
    ...state,
    stopId: stop.id,
    asksAt: null,
    hand: {
      stopId: stop.id,
      units,
      how: now.how,
      packId: pack.id,
      before,
      keyed: false,
      lotSeen,
      ...(held?.other ? { other: held.other } : {}),
    },
  };
  if (isWhole({ ...now, state: next }, stop)) return putInTote({ ...now, state: next });
  return stay(next, accepted(item.name, `${spell(units, item.packs)} of ${spell(wanted, item.packs)} in hand`));
}

/** A code that nothing here knows: the lot or serial number on goods in hand, where that is still to be seen. */
function onLotCode(now: Now, code: string): Result | undefined {
  const stop = currentStop(now.task, now.state);
  const isWanted = stop !== undefined && inHandAt(now.state, stop) > 0 && !isLotSeen(now.state, stop);
  return isWanted ? onLot(now, code) : undefined;
}

function onLot(now: Now, code: string): Result {
  const { task, book, state } = now;
  const stop = currentStop(task, state);
  const item = stop && book.items[stop.itemId];
  const hand = state.hand;
  if (!stop || !item || !hand || hand.stopId !== stop.id || stop.lot === null) return stay(state);
  const lot = code.trim();
  const other = isAtBin(state, stop) ? otherOf(stop, lot) : undefined;
  if (other) return onOtherLot(now, stop, item, other, hand);
  if (lot.toUpperCase() !== stop.lot.toUpperCase()) return refuse(state, wrongLot(stop, item, lot), now);
  const next: PickState = { ...state, hand: { ...hand, lotSeen: true, how: now.how } };
  if (isWhole({ ...now, state: next }, stop)) return putInTote({ ...now, state: next });
  return stay(next, accepted(`Lot ${stop.lot}`, `${spell(hand.units, item.packs)} of ${item.name} in hand`));
}

function wrongItem(item: ItemFacts, lot: string | null, current: PickStop | undefined): Refusal {
  if (current && current.itemId === item.id && lot && current.lot !== lot) return wrongLot(current, item, lot);
  return { band: 'not-this', title: item.name, detail: item.home ? `Belongs in ${item.home}` : 'Not wanted here. It has no home yet' };
}

/** The round is this person's from now on, begun or left by somebody else. */
function onTake({ task, state, id }: Now): Result {
  if (isSetDown(task, state) || state.pending.some((c) => c.kind === 'take')) return stay(state);
  const feedback = accepted(`${task.round} is yours`, task.picker ? `${task.picker} walked it before` : 'Take your totes');
  return { state, feedback, commands: [{ kind: 'take', id, round: task.round }] };
}

/** A colleague's walk is shared: half of what is ahead of them is this person's from now on. */
function onHelp({ task, state, id }: Now): Result {
  const [first] = othersStops(task, state);
  if (!first || isSetDown(task, state) || state.pending.some((c) => c.kind === 'help')) return stay(state);
  const feedback = accepted(`You walk with ${first.by ?? ''}`, 'Half of what is ahead of them is yours');
  return { state, feedback, commands: [{ kind: 'help', id, round: task.round }] };
}

/** The shelf is empty, or holds too few: how many are there is counted next. */
function notHere({ task, book, state, ...now }: Now, seen: StopId | undefined): Result {
  const stop = currentStop(task, state);
  const item = stop && book.items[stop.itemId];
  // The key was for another stop than the one that a colleague's work has brought up meanwhile.
  if (!stop || !item || (seen !== undefined && seen !== stop.id)) return stay(state);
  if (inHandAt(state, stop) > 0) {
    const detail = 'Put what you have into the tote, then say the rest is not here';
    return refuse(state, { band: 'not-this', title: 'Goods in hand', detail }, { id: now.id });
  }
  return stay({ ...state, asksAt: stop.id });
}

/** How many somebody has seen of what a stop wants: those stay to be taken, the rest is missing. */
function onThere({ task, book, state, ...now }: Now, there: number): Result {
  const stop = currentStop(task, state);
  const item = stop && book.items[stop.itemId];
  if (!stop || !item || state.asksAt !== stop.id || !Number.isSafeInteger(there) || there < 0) return stay(state);
  const wanted = wantedAt(state, stop);
  if (there >= wanted) {
    const detail = `${sentence(spell(wanted, item.packs))} wanted, so that is enough. Scan the goods`;
    return stay({ ...state, asksAt: null }, { band: 'not-this', title: stop.placeCode, detail });
  }
  const units = wanted - there;
  const rest = there > 0 ? `Take the ${spell(there, item.packs)}` : 'Another bin is sought';
  return {
    state: there > 0 ? { ...state, asksAt: null } : emptied(state),
    feedback: accepted(`${sentence(spell(units, item.packs))} not here`, `${stop.placeCode} will be checked. ${rest}`),
    commands: [{ kind: 'short', id: now.id, round: task.round, stopId: stop.id, units, there }],
  };
}
