import type { StopId } from '../ids/index.js';
import { isFor } from '../places/index.js';
import { spell } from '../quantity/index.js';
import { accepted, refuse, stay } from './feedback.js';
import { flowOf, type Moment } from './flow.js';
import { checkPick, checkSetDown, checkTote } from './pick-rules.js';
import {
  currentStop,
  currentTote,
  inHandAt,
  isAtBin,
  isFrom,
  isLotSeen,
  isSetDown,
  type PickCommand,
  type PickInput,
  type PickState,
  type PickStop,
  type PickTask,
  type SetDownCommand,
  type ShortCommand,
  startPick,
  type TakeCommand,
  wantedAt,
} from './pick-task.js';
import type { Meaning } from './resolve.js';
import type { ItemFacts, PlaceFacts, Refusal, Step } from './types.js';

type Command = TakeCommand | PickCommand | ShortCommand | SetDownCommand;
type Result = Step<PickState, Command>;
type Now = Moment<PickTask, PickState>;

/** The state once goods are in the tote or let go: the tote in use stays, and the person where they stand. */
const emptied = (state: PickState): PickState => ({ ...startPick, toteId: state.toteId, atBin: state.atBin, pending: state.pending });

/** Picking: bin first or goods first, then into the tote. */
export const pick = flowOf<PickTask, PickState, PickInput, Command>({
  kind: 'pick',
  start: startPick,
  owns: ['take', 'pick', 'short', 'set-down'],
  emptied,
  strays: takenByOthers,
  item: onItem,
  place: (now, place) => {
    if (isFor(place.kind, 'collect')) return onTote(now, place);
    return isFor(place.kind, 'set-down') ? onTable(now, place) : onBin(now, place);
  },
  unknown: onLotCode,
  cards: { confirm: putInTote, 'not-here': (now) => notHere(now, undefined) },
  inputs: {
    count: onCount,
    confirm: putInTote,
    lot: (now, input) => onLot(now, input.lot),
    'not-here': (now, input) => notHere(now, input.stopId),
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
  if (task.scansEach) return refuse(state, { band: 'not-this', title: 'Each piece is scanned', detail: `Scan the next ${item.name}` }, now);
  const before = hand.packId === pack.id ? hand.before : hand.units;
  const units = before + input.count * pack.factor;
  const wanted = wantedAt(state, stop);
  const refusal = units > 0 ? checkPick(stop, item, units, wanted) : null;
  if (refusal) return refuse(state, refusal, now);
  const next: PickState = { ...state, hand: { ...hand, packId: pack.id, before, units, keyed: true } };
  return isWhole({ task, book, state: next, ...now }, stop) ? putInTote({ task, book, state: next, ...now }) : stay(next);
}

/** Whether all that a stop wants is in hand, seen at its bin where that is asked for, and a tote is there to take it. */
const isWhole = ({ task, state }: Now, stop: PickStop): boolean =>
  inHandAt(state, stop) === wantedAt(state, stop) &&
  currentTote(task, state) !== null &&
  isFrom(task, state, stop) &&
  isLotSeen(state, stop);

function onTable({ task, state, ...now }: Now, place: PlaceFacts): Result {
  const refusal = checkSetDown(task.siteId, place, task.stops.filter((s) => wantedAt(state, s) > 0).length);
  if (refusal) return refuse(state, refusal, now);
  if (isSetDown(task, state)) return refuse(state, { band: 'not-this', title: place.code, detail: 'The tote is set down already' }, now);
  return {
    state: { ...startPick, pending: state.pending },
    feedback: accepted(`Set down at ${place.code}`, `${task.order}, ${task.customer}, is ready to pack`),
    commands: [{ kind: 'set-down', id: now.id, round: task.round, placeId: place.id }],
  };
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
  const next: PickState = { ...state, stopId: stop.id, atBin: place.id, hand };
  // Goods that were scanned before their bin are in the tote with it.
  if (isWhole({ task, book, state: next, ...now }, stop)) return putInTote({ task, book, state: next, ...now });
  return stay(next, accepted(`Bin ${place.code}`, hand ? 'Now the rest, or the tote' : 'Now the goods'));
}

function onItem(now: Now, { item, pack, lot }: Extract<Meaning, { kind: 'item' }>): Result {
  const { task, state } = now;
  const current = currentStop(task, state);
  const matches = (s: PickStop) => s.itemId === item.id && (!lot || s.lot === lot) && wantedAt(state, s) > 0;
  const elsewhere = task.stops.filter(matches);
  const free = !isAtBin(state, current) && inHandAt(state, current) === 0;
  const stop = current && matches(current) ? current : elsewhere.length === 1 && free ? elsewhere[0] : undefined;
  if (!stop) return refuse(state, wrongItem(item, lot, current), now);
  const inHand = inHandAt(state, stop);
  const units = inHand + pack.factor;
  const wanted = wantedAt(state, stop);
  const refusal = checkPick(stop, item, units, wanted);
  if (refusal) return refuse(state, refusal, now);
  const held = state.hand?.stopId === stop.id ? state.hand : null;
  const before = held?.packId === pack.id ? held.before : inHand;
  const lotSeen = stop.lot === null || lot === stop.lot || (held?.lotSeen ?? false);
  const next: PickState = {
    ...state,
    stopId: stop.id,
    hand: { stopId: stop.id, units, how: now.how, packId: pack.id, before, keyed: false, lotSeen },
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
  if (lot.toUpperCase() !== stop.lot.toUpperCase()) return refuse(state, wrongItem(item, lot, stop), now);
  const next: PickState = { ...state, hand: { ...hand, lotSeen: true, how: now.how } };
  if (isWhole({ ...now, state: next }, stop)) return putInTote({ ...now, state: next });
  return stay(next, accepted(`Lot ${stop.lot}`, `${spell(hand.units, item.packs)} of ${item.name} in hand`));
}

function wrongItem(item: ItemFacts, lot: string | null, current: PickStop | undefined): Refusal {
  if (current && current.itemId === item.id && lot && current.lot !== lot) {
    return { band: 'not-this', title: `Lot ${lot}`, detail: `Take lot ${current.lot ?? ''} of ${item.name}. Put this back` };
  }
  return { band: 'not-this', title: item.name, detail: item.home ? `Belongs in ${item.home}` : 'Not wanted here. It has no home yet' };
}

function onTote(now: Now, place: PlaceFacts): Result {
  const { task, state } = now;
  const refusal = checkTote(task, place);
  if (refusal) return refuse(state, refusal, now);
  const next = { ...state, toteId: place.id };
  if (state.hand && state.hand.units > 0) return putInTote({ ...now, state: next });
  const feedback = accepted(`Tote ${place.code}`, `For ${task.order}, ${task.customer}`);
  if (task.state !== 'waiting' || state.pending.length > 0) return stay(next, feedback);
  // Whoever may not have this round hears it here, before the first goods are in the hand.
  return { state: next, feedback, commands: [{ kind: 'take', id: now.id, round: task.round }] };
}

function putInTote({ task, book, state, ...now }: Now): Result {
  const stop = currentStop(task, state);
  const item = stop && book.items[stop.itemId];
  const toteId = currentTote(task, state);
  if (!stop || !item) return stay(state);
  const units = inHandAt(state, stop);
  const refusal = checkPick(stop, item, units, wantedAt(state, stop));
  if (refusal) return refuse(state, refusal, { id: now.id });
  if (!isLotSeen(state, stop)) {
    return refuse(
      state,
      { band: 'not-this', title: 'Which lot is it?', detail: `Scan ${stop.lot ?? ''} on the goods, or choose it` },
      { id: now.id },
    );
  }
  if (!isFrom(task, state, stop)) {
    return refuse(
      state,
      { band: 'not-this', title: `Bin ${stop.placeCode}`, detail: 'Scan the bin that you took it from' },
      { id: now.id },
    );
  }
  if (toteId === null) {
    return refuse(state, { band: 'not-this', title: 'No tote yet', detail: 'Scan the tote that this order goes into' }, { id: now.id });
  }
  const tote = Object.values(book.places).find((p) => p.id === toteId)?.code ?? 'the tote';
  return {
    state: emptied(state),
    feedback: accepted(spell(units, item.packs), `${item.name}, ${stop.placeCode} to tote ${tote}`),
    commands: [
      {
        kind: 'pick',
        id: now.id,
        round: task.round,
        stopId: stop.id,
        itemId: stop.itemId,
        lotId: stop.lotId,
        fromPlaceId: stop.placeId,
        units,
        totePlaceId: toteId,
        how: state.hand?.how ?? now.how,
      },
    ],
  };
}

function notHere({ task, book, state, ...now }: Now, seen: StopId | undefined): Result {
  const stop = currentStop(task, state);
  const item = stop && book.items[stop.itemId];
  // The key was for another stop than the one that a colleague's work has brought up meanwhile.
  if (!stop || !item || (seen !== undefined && seen !== stop.id)) return stay(state);
  if (inHandAt(state, stop) > 0) {
    const detail = 'Scan the tote for what you have, then say the rest is not here';
    return refuse(state, { band: 'not-this', title: 'Goods in hand', detail }, { id: now.id });
  }
  const units = wantedAt(state, stop);
  return {
    state: emptied(state),
    feedback: accepted(`${spell(units, item.packs)} not here`, `${stop.placeCode} will be checked. Another bin is sought`),
    commands: [{ kind: 'short', id: now.id, round: task.round, stopId: stop.id, units }],
  };
}
