import { inPacks, packName, spell, toBase } from '../quantity/index.js';
import { accepted, refuse, sentence, stay, unknownCode } from './feedback.js';
import { resolve, type Meaning } from './resolve.js';
import type { Codebook, How, ItemFacts, PlaceFacts, Refusal, ScanInput, Step } from './types.js';

export interface ReceiveLine {
  line: number;
  itemId: number;
  /** The unit the line was written in. */
  packId: number;
  /** Base units. */
  ordered: number;
  received: number;
}

/** All that a phone needs to receive one purchase order. */
export interface ReceiveTask {
  order: string;
  supplier: string;
  /** How far above the ordered quantity a line may go, in per cent. */
  overPercent: number;
  /** Whether a scan fills in what the line still lacks, instead of counting one. */
  fillRemaining: boolean;
  dock: PlaceFacts;
  lines: ReceiveLine[];
}

export interface ReceiveCommand {
  kind: 'receive';
  id: string;
  order: string;
  line: number;
  itemId: number;
  units: number;
  lot: string | null;
  expires: string | null;
  toPlaceId: number;
  how: How;
}

export interface ReceiveState {
  line: number | null;
  /** Counted so far, by pack unit; empty until somebody counts. */
  counts: Record<number, number>;
  activePackId: number | null;
  /** True once a figure was keyed; until then each scan of a pack counts one, and the first digit begins anew. */
  keyed: boolean;
  lot: string | null;
  expires: string | null;
  how: How;
  /** Where goods go; null means the dock. Stays from line to line. */
  to: PlaceFacts | null;
  /** Posted but not yet confirmed by the server. */
  pending: { id: string; line: number; units: number }[];
}

export const startReceive: ReceiveState = {
  line: null,
  counts: {},
  activePackId: null,
  keyed: false,
  lot: null,
  expires: null,
  how: 'scanned',
  to: null,
  pending: [],
};

/** What has come on a line, with what this phone has posted and not yet heard back about. */
export function receivedOn(task: ReceiveTask, state: ReceiveState, line: number): number {
  const known = task.lines.find((l) => l.line === line)?.received ?? 0;
  return state.pending.reduce((sum, p) => sum + (p.line === line ? p.units : 0), known);
}

/** The most that a line may hold: the ordered quantity and the allowed percentage above, rounded down. */
export function mostAllowed(ordered: number, overPercent: number): number {
  return Math.floor((ordered * (100 + overPercent)) / 100);
}

/** Base units counted in the pad. */
export function countedUnits(state: Pick<ReceiveState, 'counts'>, item: ItemFacts): number {
  return item.packs.reduce((sum, pack) => sum + toBase(state.counts[pack.id] ?? 0, pack.factor), 0);
}

/** The rule for booking goods in, on the phone and on the server alike; null where it may be. */
export function checkReceive(task: ReceiveTask, book: Codebook, command: ReceiveCommand, receivedBefore: number): Refusal | null {
  const line = task.lines.find((l) => l.line === command.line);
  const item = book.items[command.itemId];
  if (!line || !item || line.itemId !== command.itemId) {
    return notOnOrder(task, item);
  }
  if (!Number.isSafeInteger(command.units) || command.units <= 0) {
    return {
      band: 'too-many',
      title: 'Nothing counted',
      detail: `Count the ${item.name} before booking it in`,
    };
  }
  const over = receivedBefore + command.units - line.ordered;
  if (receivedBefore + command.units > mostAllowed(line.ordered, task.overPercent)) {
    const most = Math.max(0, mostAllowed(line.ordered, task.overPercent) - receivedBefore);
    return {
      band: 'too-many',
      title: `${sentence(spell(over, item.packs))} over`,
      detail: `${task.order} has room for ${spell(most, item.packs)} more of ${item.name}. Set the rest apart`,
    };
  }
  if (item.tracking !== 'none' && !command.lot) return lotMissing(item);
  if (item.tracking === 'serial' && command.units !== 1) {
    return { band: 'too-many', title: 'One serial number, one piece', detail: `Book each ${item.name} in with the number on it` };
  }
  if (item.tracking === 'lot-expiry' && !command.expires) {
    return {
      band: 'not-this',
      title: 'Date missing',
      detail: `${item.name} is kept by lot and date. Type the date on the label`,
    };
  }
  return null;
}

function lotMissing(item: ItemFacts): Refusal {
  return {
    band: 'not-this',
    title: item.tracking === 'serial' ? 'Serial number missing' : 'Lot missing',
    detail:
      item.tracking === 'serial'
        ? `Each ${item.name} has a number of its own. Scan or type it`
        : `${item.name} is kept by lot. Scan the label with the lot, or type it`,
  };
}

function notOnOrder(task: ReceiveTask, item: ItemFacts | undefined): Refusal {
  const home = item?.home ? ` Belongs in ${item.home}` : '';
  return {
    band: 'not-this',
    title: item?.name ?? 'Not on this order',
    detail: `Not on ${task.order}.${home}`,
  };
}

type Result = Step<ReceiveState, ReceiveCommand>;

/** What one input means while receiving. Pure; O(lines + length of the code). */
export function receive(task: ReceiveTask, book: Codebook, state: ReceiveState, input: ScanInput): Result {
  switch (input.kind) {
    case 'code':
      return onCode(task, book, state, input);
    case 'count':
      return state.line === null
        ? stay(state)
        : stay({
            ...state,
            counts: { ...state.counts, [input.packId]: input.count },
            activePackId: input.packId,
            keyed: true,
          });
    case 'text':
      return stay({ ...state, [input.field]: input.value.trim() === '' ? null : input.value.trim() });
    case 'confirm':
      return bookIn(task, book, state, input);
    case 'clear':
      return stay({ ...startReceive, to: state.to, pending: state.pending });
    case 'not-here':
      return stay(state);
    case 'settled':
      return stay({ ...state, pending: state.pending.filter((p) => p.id !== input.id) });
  }
}

type CodeInput = Extract<ScanInput, { kind: 'code' }>;

function onCode(task: ReceiveTask, book: Codebook, state: ReceiveState, input: CodeInput): Result {
  const meaning = resolve(input.code, book);
  switch (meaning.kind) {
    case 'item':
      return onItem(task, book, state, input, meaning);
    case 'place':
      return onPlace(task, book, state, input, meaning.place);
    case 'command':
      if (meaning.command === 'confirm') return bookIn(task, book, state, input);
      if (meaning.command === 'undo') return { ...stay<ReceiveState, ReceiveCommand>(state), undo: true };
      return stay(state);
    case 'unknown':
      return refuse(state, unknownCode(meaning.code), input);
  }
}

function lineFor(task: ReceiveTask, state: ReceiveState, itemId: number): ReceiveLine | undefined {
  const lines = task.lines.filter((l) => l.itemId === itemId);
  return lines.find((l) => receivedOn(task, state, l.line) < l.ordered) ?? lines.at(-1);
}

function onItem(
  task: ReceiveTask,
  book: Codebook,
  state: ReceiveState,
  input: CodeInput,
  { item, pack, lot, expires }: Extract<Meaning, { kind: 'item' }>,
): Result {
  const line = lineFor(task, state, item.id);
  if (!line) return refuse(state, notOnOrder(task, item), input);
  const current = task.lines.find((l) => l.line === state.line);
  if (current && current.itemId !== item.id && countedUnits(state, book.items[current.itemId] ?? item) > 0) {
    const other = book.items[current.itemId];
    return refuse(
      state,
      {
        band: 'not-this',
        title: item.name,
        detail: `Book in or clear the ${other?.name ?? 'goods'} counted first`,
      },
      input,
    );
  }
  const again = current?.itemId === item.id;
  // A scanned pack has been seen and counts as one; a code chosen by hand only says what the goods are.
  const seen = input.how === 'scanned' ? 1 : 0;
  const due = task.fillRemaining ? Math.max(0, line.ordered - receivedOn(task, state, line.line)) : 0;
  const filled = due > 0;
  const next: ReceiveState = {
    ...state,
    line: line.line,
    activePackId: pack.id,
    counts: filled ? (again ? state.counts : packCounts(due, item)) : scanned(state, again, pack.id, seen),
    keyed: again && state.keyed,
    lot: lot ?? (again ? state.lot : null),
    expires: expires ?? (again ? state.expires : null),
    how: input.how,
  };
  const label = lot ? `Label read: lot ${lot}${expires ? ` and date ${expires}` : ''}` : `Scanned a ${packName(pack, 1)}`;
  return stay(next, accepted(item.name, again && seen > 0 ? `${spell(countedUnits(next, item), item.packs)} counted` : label));
}

/** The counts after a scan: one more of the pack where it was seen, a fresh pad where other goods are begun. */
function scanned(state: ReceiveState, again: boolean, packId: number, seen: number): Record<number, number> {
  if (seen === 0 && !again) return {};
  return { ...(again ? state.counts : {}), [packId]: (again ? (state.counts[packId] ?? 0) : 0) + seen };
}

function packCounts(units: number, item: ItemFacts): Record<number, number> {
  return Object.fromEntries(inPacks(units, item.packs).map(({ pack, count }) => [pack.id, count]));
}

function onPlace(task: ReceiveTask, book: Codebook, state: ReceiveState, input: CodeInput, place: PlaceFacts): Result {
  if (place.siteId !== task.dock.siteId) {
    return refuse(state, { band: 'not-this', title: place.code, detail: 'This place is at another site' }, input);
  }
  const next = { ...state, to: place.id === task.dock.id ? null : place, how: input.how };
  const line = task.lines.find((l) => l.line === state.line);
  const item = line && book.items[line.itemId];
  if (item && countedUnits(state, item) > 0) return bookIn(task, book, next, input);
  return stay(next, accepted(place.code, 'Goods go here until another place is scanned'));
}

function bookIn(task: ReceiveTask, book: Codebook, state: ReceiveState, input: { id: string; code?: string }): Result {
  const line = task.lines.find((l) => l.line === state.line);
  const item = line && book.items[line.itemId];
  if (!line || !item) return stay(state);
  const to = state.to ?? task.dock;
  const command: ReceiveCommand = {
    kind: 'receive',
    id: input.id,
    order: task.order,
    line: line.line,
    itemId: item.id,
    units: countedUnits(state, item),
    lot: item.tracking === 'none' ? null : state.lot,
    expires: item.tracking === 'lot-expiry' ? state.expires : null,
    toPlaceId: to.id,
    how: state.how,
  };
  const refusal = checkReceive(task, book, command, receivedOn(task, state, line.line));
  if (refusal) return refuse(state, refusal, { id: input.id, code: item.sku });
  return {
    state: {
      ...startReceive,
      to: state.to,
      pending: [...state.pending, { id: input.id, line: line.line, units: command.units }],
    },
    feedback: accepted(`${spell(command.units, item.packs)}`, `${item.name}, to ${to.code}`),
    commands: [command],
  };
}
