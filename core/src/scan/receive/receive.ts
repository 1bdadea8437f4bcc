import { packName, spell } from '../../quantity/index.js';
import { accepted, refuse, stay, unknownCode } from '../feedback.js';
import { codeKey, resolve, type Meaning } from '../resolve.js';
import type { Codebook, PlaceFacts, ScanInput, Step } from '../types.js';
import { answer } from './answers.js';
import { destination, emptyHands, letGo, packCounts, placeOf, post, type Result } from './booking.js';
import { checkReceive, countedUnits, notOnOrder, receivedOn } from './rules.js';
import type { ReceiveCommand, ReceiveLine, ReceivePalletCommand, ReceiveState, ReceiveTask } from './types.js';

/** What one input means while receiving. Pure; O(lines + serials + length of the code). */
export function receive(task: ReceiveTask, book: Codebook, state: ReceiveState, input: ScanInput): Result {
  switch (input.kind) {
    case 'code':
      return onCode(task, book, state, input);
    case 'count':
      return state.hand === null
        ? stay(state)
        : stay({
            ...letGo(state),
            counts: { ...state.counts, [input.packId]: input.count },
            activePackId: input.packId,
            keyed: true,
          });
    case 'text':
      return input.field === 'reason'
        ? stay(state)
        : stay({ ...letGo(state), [input.field]: input.value.trim() === '' ? null : input.value.trim() });
    case 'condition':
      return state.hand === null ? stay(state) : stay({ ...state, condition: input.condition });
    case 'answer':
      return answer(task, book, state, input);
    case 'tie':
      return tie(book, state, input);
    case 'confirm':
      return bookIn(task, book, letGo(state), input);
    case 'clear':
      return stay(emptyHands(state));
    case 'not-here':
    case 'check':
      return stay(state);
    case 'settled':
      return stay({ ...state, pending: state.pending.filter((p) => p.id !== input.id) });
  }
}

type CodeInput = Extract<ScanInput, { kind: 'code' }>;

function onCode(task: ReceiveTask, book: Codebook, asked: ReceiveState, input: CodeInput): Result {
  const key = codeKey(input.code, book.today);
  const tied = Object.hasOwn(asked.tied, key) ? asked.tied[key] : undefined;
  const meaning = resolve(input.code, tied ? { ...book, codes: { ...book.codes, [key]: tied } } : book);
  if (meaning.kind === 'command') return onCard(task, book, asked, input, meaning.command);
  const state = letGo(asked);
  switch (meaning.kind) {
    case 'item':
      return meaning.sscc && task.pallets.some((p) => p.sscc === meaning.sscc)
        ? onPallet(task, state, input, meaning.sscc)
        : onItem(task, book, state, input, meaning);
    case 'pallet':
      return onPallet(task, state, input, meaning.sscc);
    case 'place':
      return onPlace(task, book, state, input, meaning.place);
    case 'unknown':
      return onUnknown(task, book, state, input, meaning.code);
  }
}

function onCard(
  task: ReceiveTask,
  book: Codebook,
  state: ReceiveState,
  input: CodeInput,
  command: Extract<Meaning, { kind: 'command' }>['command'],
): Result {
  switch (command) {
    case 'confirm':
      return bookIn(task, book, letGo(state), input);
    case 'undo':
      return { ...stay<ReceiveState, ReceiveCommand>(state), undo: true };
    case 'damaged':
      return state.hand === null
        ? stay(state)
        : stay({ ...state, condition: 'damaged' }, accepted('Damaged', 'Count what is damaged, then book it in'));
    case 'apart':
    case 'take':
      return answer(task, book, state, { kind: 'answer', id: input.id, answer: command });
    case 'not-here':
      return stay(state);
  }
}

/** A serial number on its own label, once its goods are in hand, is their number; any other unknown code asks what it is. */
function onUnknown(task: ReceiveTask, book: Codebook, state: ReceiveState, input: CodeInput, code: string): Result {
  const item = state.hand && book.items[state.hand.itemId];
  if (item?.tracking === 'serial' && state.lot === null)
    return stay({ ...state, lot: code, how: input.how }, accepted(code, `Number of this ${item.name}`));
  return refuse(
    { ...state, question: { kind: 'unknown-code', code } },
    { ...unknownCode(code), detail: 'On no item or place here. Choose below what it is on, or leave it for the office' },
    input,
  );
}

function lineFor(task: ReceiveTask, state: ReceiveState, itemId: number): ReceiveLine | undefined {
  const lines = task.lines.filter((l) => l.itemId === itemId);
  return lines.find((l) => receivedOn(task, state, l.lineId) < l.ordered) ?? lines.at(-1);
}

function onItem(
  task: ReceiveTask,
  book: Codebook,
  state: ReceiveState,
  input: CodeInput,
  { item, pack, lot, expires, count }: Extract<Meaning, { kind: 'item' }>,
): Result {
  const hand = state.hand;
  const again = hand?.itemId === item.id;
  const inHand = hand && book.items[hand.itemId];
  if (inHand && !again && countedUnits(state, inHand) > 0)
    return refuse(state, { band: 'not-this', title: item.name, detail: `Book in or clear the ${inHand.name} counted first` }, input);
  // A scanned pack has been seen and counts as one, or as many as its label says; a code chosen by hand only says what it is.
  const seen = count ?? (input.how === 'scanned' ? 1 : 0);
  const line = lineFor(task, state, item.id);
  if (!line && !(again && hand.lineId === null)) {
    const question = { kind: 'not-ordered' as const, itemId: item.id, packId: pack.id, count: seen, lot, expires };
    const { asks: _, ...said } = notOnOrder(task, item);
    return refuse({ ...state, question }, said, input);
  }
  const keep =
    again && hand.as !== 'ordered' ? hand : { lineId: line?.lineId ?? null, itemId: item.id, as: 'ordered' as const, reason: null };
  const due = line && task.fillRemaining && count === null ? Math.max(0, line.ordered - receivedOn(task, state, line.lineId)) : 0;
  const next: ReceiveState = {
    ...(again ? state : emptyHands(state)),
    hand: keep,
    activePackId: pack.id,
    counts: due > 0 ? (again ? state.counts : packCounts(due, item.packs)) : scanned(state, again, pack.id, seen),
    keyed: again && state.keyed,
    lot: lot ?? (again ? state.lot : null),
    expires: expires ?? (again ? state.expires : null),
    how: input.how,
  };
  const label = lot ? `Label read: lot ${lot}${expires ? ` and date ${expires}` : ''}` : `Scanned a ${packName(pack, 1)}`;
  const told = again || count !== null ? `${spell(countedUnits(next, item), item.packs)} counted${lot ? `, lot ${lot}` : ''}` : label;
  return stay(next, accepted(item.name, seen > 0 ? told : label));
}

/** The counts after a scan: one more of the pack where it was seen, a fresh pad where other goods are begun. */
function scanned(state: ReceiveState, again: boolean, packId: number, seen: number): Record<number, number> {
  if (seen === 0 && !again) return {};
  return { ...(again ? state.counts : {}), [packId]: (again ? (state.counts[packId] ?? 0) : 0) + seen };
}

function onPallet(task: ReceiveTask, state: ReceiveState, input: CodeInput, sscc: string): Result {
  const pallet = task.pallets.find((p) => p.sscc === sscc);
  if (!pallet)
    return refuse(
      state,
      { band: 'unknown', title: sscc, detail: `No such pallet is announced for ${task.document}. Scan the goods on it` },
      input,
    );
  if (pallet.received || state.pending.some((p) => p.sscc === sscc))
    return refuse(state, { band: 'too-many', title: 'Booked in already', detail: `Pallet ${sscc} came in before. Check its label` }, input);
  const to = placeOf(
    task,
    state.to,
    pallet.contents.map((c) => c.itemId),
  );
  const command: ReceivePalletCommand = {
    kind: 'receive-pallet',
    id: input.id,
    document: task.document,
    sscc,
    toPlaceId: to.id,
    how: input.how,
  };
  const goods = pallet.contents.map((c) => ({ id: input.id, lineId: c.lineId, units: c.units, serial: null, sscc }));
  return {
    state: { ...state, pending: [...state.pending, ...goods] },
    feedback: accepted(
      'Whole pallet',
      `${pallet.contents.length} ${pallet.contents.length === 1 ? 'line' : 'lines'} as announced, to ${to.code}`,
    ),
    commands: [command],
  };
}

function onPlace(task: ReceiveTask, book: Codebook, state: ReceiveState, input: CodeInput, place: PlaceFacts): Result {
  if (place.siteId !== task.dock.siteId)
    return refuse(state, { band: 'not-this', title: place.code, detail: 'This place is at another site' }, input);
  const next = { ...state, to: place.id === task.dock.id ? null : place, how: input.how };
  const item = state.hand && book.items[state.hand.itemId];
  if (item && countedUnits(state, item) > 0) return bookIn(task, book, next, input);
  return stay(next, accepted(place.code, 'Goods go here until another place is scanned'));
}

function bookIn(task: ReceiveTask, book: Codebook, state: ReceiveState, input: { id: string }): Result {
  const hand = state.hand;
  const item = hand && book.items[hand.itemId];
  if (!hand || !item) return stay(state);
  const to = destination(task, state);
  const command: ReceiveCommand = {
    kind: 'receive',
    id: input.id,
    document: task.document,
    lineId: hand.lineId,
    itemId: item.id,
    units: countedUnits(state, item),
    lot: item.tracking === 'none' ? null : state.lot,
    expires: item.tracking === 'lot-expiry' ? state.expires : null,
    toPlaceId: to.id,
    how: state.how,
    as: hand.as,
    condition: state.condition,
    reason: hand.reason,
  };
  const serials = state.pending.flatMap((p) => (p.serial ? [p.serial] : []));
  const before = hand.lineId === null ? 0 : receivedOn(task, state, hand.lineId);
  const refusal = checkReceive({ ...task, serials: [...task.serials, ...serials] }, book, command, before);
  if (refusal) {
    const { asks, ...said } = refusal;
    const question = asks?.kind === 'over' ? { ...asks, units: command.units } : asks?.kind === 'too-old' ? asks : null;
    return refuse({ ...state, question }, said, { id: input.id, code: item.sku });
  }
  return post(state, command, item.name, spell(command.units, item.packs), to.code, {
    serial: item.tracking === 'serial',
    why: task.inspect[item.id],
  });
}

/** From now on the code is this pack; the goods are in hand as if it had been scanned. */
function tie(book: Codebook, state: ReceiveState, input: Extract<ScanInput, { kind: 'tie' }>): Result {
  const asked = state.question;
  const item = book.items[input.itemId];
  const pack = item?.packs.find((p) => p.id === input.packId);
  if (asked?.kind !== 'unknown-code' || !item || !pack) return stay(state);
  const step: Step<ReceiveState, never> = stay(
    { ...letGo(state), tied: { ...state.tied, [codeKey(asked.code, book.today)]: { itemId: item.id, packId: pack.id } } },
    accepted(asked.code, `is a ${packName(pack, 1)} of ${item.name} from now on. Scan it again to count it`),
  );
  return { ...step, commands: [{ kind: 'tie', id: input.id, code: asked.code, itemId: item.id, packId: pack.id }] };
}

/** Lines that are not all here, with what is missing in base units. */
export function shortLines(task: ReceiveTask, state: ReceiveState): { line: ReceiveLine; missing: number }[] {
  return task.lines
    .map((line) => ({ line, missing: line.ordered - receivedOn(task, state, line.lineId) }))
    .filter(({ missing }) => missing > 0);
}
