import { spell } from '../quantity/index.js';
import { accepted, refuse, sentence, stay, unknownCode } from './feedback.js';
import { resolve, type Meaning } from './resolve.js';
import type { Codebook, How, ItemFacts, PlaceFacts, Refusal, ScanInput, Step } from './types.js';

/** One thing to take from one bin. Units are base units. */
export interface PickStop {
  id: number;
  itemId: number;
  lotId: number;
  lot: string | null;
  placeId: number;
  placeCode: string;
  units: number;
  picked: number;
  short: number;
  /** Metres from the stop before. */
  metres: number;
}

export interface PickTask {
  round: string;
  order: string;
  customer: string;
  siteId: number;
  note: string | null;
  stops: PickStop[];
  /** The tote already in use on this round, and those that are in use elsewhere. */
  toteId: number | null;
  busyToteIds: number[];
}

export interface PickCommand {
  kind: 'pick';
  id: string;
  round: string;
  stopId: number;
  units: number;
  totePlaceId: number;
  how: How;
}

export interface ShortCommand {
  kind: 'short';
  id: string;
  round: string;
  stopId: number;
  units: number;
}

/** The finished tote set down where the next person finds it. */
export interface SetDownCommand {
  kind: 'set-down';
  id: string;
  round: string;
  placeId: number;
}

export interface PickState {
  toteId: number | null;
  /** The stop the person has chosen by scanning its bin or item; null means the next in order. */
  stopId: number | null;
  atBin: boolean;
  itemSeen: boolean;
  units: number;
  how: How;
  pending: { id: string; stopId: number; units: number; short: boolean }[];
}

export const startPick: PickState = {
  toteId: null,
  stopId: null,
  atBin: false,
  itemSeen: false,
  units: 0,
  how: 'scanned',
  pending: [],
};

/** What a stop still wants, with what this phone has posted and not yet heard back about. */
export function wantedAt(state: PickState, stop: PickStop): number {
  return state.pending.reduce((left, p) => left - (p.stopId === stop.id ? p.units : 0), stop.units - stop.picked - stop.short);
}

/** The stop at hand: the chosen one while it is open, otherwise the next on the walk. */
export function currentStop(task: PickTask, state: PickState): PickStop | undefined {
  const open = task.stops.filter((s) => wantedAt(state, s) > 0);
  return open.find((s) => s.id === state.stopId) ?? open[0];
}

export function currentTote(task: PickTask, state: PickState): number | null {
  return state.toteId ?? task.toteId;
}

/** The rule for taking goods from a stop into a tote, on the phone and on the server alike. */
export function checkPick(stop: PickStop | undefined, item: ItemFacts | undefined, units: number, wanted: number): Refusal | null {
  if (!stop || !item) return { band: 'not-this', title: 'Not on this round', detail: 'Nothing of this is wanted here' };
  if (!Number.isSafeInteger(units) || units <= 0) {
    return { band: 'too-many', title: 'Nothing counted', detail: `Scan the ${item.name} before the tote` };
  }
  if (units > wanted) {
    return {
      band: 'too-many',
      title: `${sentence(spell(units - wanted, item.packs))} over`,
      detail: `${wanted > 0 ? `Wanted: ${spell(wanted, item.packs)}` : 'No more wanted'}. Put it back in ${stop.placeCode}`,
    };
  }
  return null;
}

/** The rule for the tote: one that no other round is using. */
export function checkTote(task: PickTask, place: PlaceFacts): Refusal | null {
  if (place.kind !== 'tote') return { band: 'not-this', title: place.code, detail: 'Not a tote. Scan the code on the tote' };
  if (place.siteId !== task.siteId) return { band: 'not-this', title: place.code, detail: 'This tote belongs to another site' };
  if (task.busyToteIds.includes(place.id)) {
    return {
      band: 'not-this',
      title: `Tote ${place.code}`,
      detail: 'In use on another order. Take an empty one',
    };
  }
  return null;
}

const SET_DOWN_KINDS: ReadonlySet<string> = new Set(['packing-table']);

type Result = Step<PickState, PickCommand | ShortCommand | SetDownCommand>;
type CodeInput = Extract<ScanInput, { kind: 'code' }>;

/** What one input means while picking. Bin first or item first; pure; O(stops + length of the code). */
export function pick(task: PickTask, book: Codebook, state: PickState, input: ScanInput): Result {
  const stop = currentStop(task, state);
  switch (input.kind) {
    case 'code':
      return onCode(task, book, state, input);
    case 'count': {
      const item = stop && book.items[stop.itemId];
      const pack = item?.packs.find((p) => p.id === input.packId);
      if (!stop || !item || !pack || !state.itemSeen) return stay(state);
      const units = input.count * pack.factor;
      const refusal = units > 0 ? checkPick(stop, item, units, wantedAt(state, stop)) : null;
      return refusal ? refuse(state, refusal, input) : stay({ ...state, units });
    }
    case 'confirm':
      return putInTote(task, book, state, input.id);
    case 'clear':
      return stay({ ...state, stopId: null, atBin: false, itemSeen: false, units: 0 });
    case 'not-here':
      return notHere(task, book, state, input.id);
    case 'condition':
    case 'answer':
    case 'tie':
    case 'check':
      return stay(state);
    case 'settled':
      return stay({ ...state, pending: state.pending.filter((p) => p.id !== input.id) });
    case 'text':
      return stay(state);
  }
}

function onCode(task: PickTask, book: Codebook, state: PickState, input: CodeInput): Result {
  const meaning = resolve(input.code, book);
  switch (meaning.kind) {
    case 'item':
      return onItem(task, book, state, input, meaning);
    case 'place':
      return onPlace(task, book, state, input, meaning.place);
    case 'command':
      if (meaning.command === 'confirm') return putInTote(task, book, state, input.id);
      if (meaning.command === 'not-here') return notHere(task, book, state, input.id);
      return meaning.command === 'undo' ? { ...stay<PickState, PickCommand>(state), undo: true } : stay(state);
    case 'pallet':
      return refuse(state, unknownCode(meaning.sscc), input);
    case 'unknown':
      return refuse(state, unknownCode(meaning.code), input);
  }
}

function onPlace(task: PickTask, book: Codebook, state: PickState, input: CodeInput, place: PlaceFacts): Result {
  if (place.kind === 'tote') return onTote(task, book, state, input, place);
  return SET_DOWN_KINDS.has(place.kind) ? onTable(task, state, input, place) : onBin(task, state, input, place);
}

/** The rule for setting a finished tote down: nothing left to pick, at a packing table of this site. */
export function checkSetDown(siteId: number, place: PlaceFacts | undefined, open: number): Refusal | null {
  if (!place) return { band: 'unknown', title: 'No such place', detail: 'Scan the label of a packing table' };
  if (!SET_DOWN_KINDS.has(place.kind) || place.siteId !== siteId) {
    return {
      band: 'not-this',
      title: place.code,
      detail: 'Set the tote down at a packing table of this site',
    };
  }
  if (open > 0) {
    return {
      band: 'not-this',
      title: place.code,
      detail: `${open} ${open === 1 ? 'stop' : 'stops'} to go before the tote is set down`,
    };
  }
  return null;
}

function onTable(task: PickTask, state: PickState, input: CodeInput, place: PlaceFacts): Result {
  const refusal = checkSetDown(task.siteId, place, task.stops.filter((s) => wantedAt(state, s) > 0).length);
  if (refusal) return refuse(state, refusal, input);
  return {
    state: startPick,
    feedback: accepted(`Set down at ${place.code}`, `${task.order}, ${task.customer}, is ready to pack`),
    commands: [{ kind: 'set-down', id: input.id, round: task.round, placeId: place.id }],
  };
}

function onBin(task: PickTask, state: PickState, input: CodeInput, place: PlaceFacts): Result {
  const open = task.stops.filter((s) => wantedAt(state, s) > 0);
  const stop = [currentStop(task, state), ...open].find((s) => s?.placeId === place.id);
  const current = currentStop(task, state);
  if (!stop) {
    const detail = current ? `Nothing wanted here. Go to ${current.placeCode}` : 'Nothing more to pick';
    return refuse(state, { band: 'not-this', title: place.code, detail }, input);
  }
  if (state.units > 0 && stop.id !== current?.id) {
    return refuse(state, { band: 'not-this', title: place.code, detail: 'Put what you hold into the tote first' }, input);
  }
  return stay({ ...state, stopId: stop.id, atBin: true }, accepted(`Bin ${place.code}`, 'Now the goods'));
}

function onItem(task: PickTask, book: Codebook, state: PickState, input: CodeInput, meaning: Extract<Meaning, { kind: 'item' }>): Result {
  const { item, pack, lot } = meaning;
  const current = currentStop(task, state);
  const matches = (s: PickStop) => s.itemId === item.id && (!lot || s.lot === lot) && wantedAt(state, s) > 0;
  const elsewhere = task.stops.filter(matches);
  const stop =
    current && matches(current) ? current : elsewhere.length === 1 && !state.atBin && state.units === 0 ? elsewhere[0] : undefined;
  if (!stop) return refuse(state, wrongItem(item, lot, current), input);
  const units = (stop.id === current?.id ? state.units : 0) + pack.factor;
  const refusal = checkPick(stop, item, units, wantedAt(state, stop));
  if (refusal) return refuse(state, refusal, input);
  const next: PickState = { ...state, stopId: stop.id, itemSeen: true, units, how: input.how };
  if (units === wantedAt(state, stop) && currentTote(task, state) !== null) return putInTote(task, book, next, input.id);
  return stay(next, accepted(item.name, `${spell(units, item.packs)} of ${spell(wantedAt(state, stop), item.packs)} in hand`));
}

function wrongItem(item: ItemFacts, lot: string | null, current: PickStop | undefined): Refusal {
  if (current && current.itemId === item.id && lot && current.lot !== lot) {
    return {
      band: 'not-this',
      title: `Lot ${lot}`,
      detail: `Take lot ${current.lot ?? ''} of ${item.name}. Put this back`,
    };
  }
  return {
    band: 'not-this',
    title: item.name,
    detail: item.home ? `Belongs in ${item.home}` : 'Not wanted here. It has no home yet',
  };
}

function onTote(task: PickTask, book: Codebook, state: PickState, input: CodeInput, place: PlaceFacts): Result {
  const refusal = checkTote(task, place);
  if (refusal) return refuse(state, refusal, input);
  const next = { ...state, toteId: place.id };
  if (state.units > 0) return putInTote(task, book, next, input.id);
  return stay(next, accepted(`Tote ${place.code}`, `For ${task.order}, ${task.customer}`));
}

function putInTote(task: PickTask, book: Codebook, state: PickState, id: string): Result {
  const stop = currentStop(task, state);
  const item = stop && book.items[stop.itemId];
  const toteId = currentTote(task, state);
  if (!stop || !item) return stay(state);
  const refusal = checkPick(stop, item, state.units, wantedAt(state, stop));
  if (refusal) return refuse(state, refusal, { id });
  if (toteId === null) {
    return refuse(state, { band: 'not-this', title: 'No tote yet', detail: 'Scan the tote that this order goes into' }, { id });
  }
  const tote = Object.values(book.places).find((p) => p.id === toteId)?.code ?? 'the tote';
  return {
    state: {
      ...startPick,
      toteId: state.toteId,
      pending: [...state.pending, { id, stopId: stop.id, units: state.units, short: false }],
    },
    feedback: accepted(spell(state.units, item.packs), `${item.name}, ${stop.placeCode} to tote ${tote}`),
    commands: [
      {
        kind: 'pick',
        id,
        round: task.round,
        stopId: stop.id,
        units: state.units,
        totePlaceId: toteId,
        how: state.how,
      },
    ],
  };
}

function notHere(task: PickTask, book: Codebook, state: PickState, id: string): Result {
  const stop = currentStop(task, state);
  const item = stop && book.items[stop.itemId];
  if (!stop || !item) return stay(state);
  if (state.units > 0) {
    return refuse(
      state,
      {
        band: 'not-this',
        title: 'Goods in hand',
        detail: 'Scan the tote for what you have, then say the rest is not here',
      },
      { id },
    );
  }
  const units = wantedAt(state, stop);
  return {
    state: {
      ...startPick,
      toteId: state.toteId,
      pending: [...state.pending, { id, stopId: stop.id, units, short: true }],
    },
    feedback: accepted(`${spell(units, item.packs)} not here`, `${stop.placeCode} will be checked. Another bin is sought`),
    commands: [{ kind: 'short', id, round: task.round, stopId: stop.id, units }],
  };
}
