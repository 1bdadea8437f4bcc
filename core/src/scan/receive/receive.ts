import { hasCheckDigit } from '../../barcode/index.js';
import { commaLot, lotWords, packName, spell } from '../../quantity/index.js';
import { accepted, refuse, stay, unknownCode } from '../feedback.js';
import { flowOf } from '../flow.js';
import { codeKey, type Meaning } from '../resolve.js';
import type { ItemFacts, Codebook, PlaceFacts } from '../types.js';
import { answer } from './answers.js';
import { emptyHands, letGo, letGoAt, packCounts, placeOf, thenOn, type Now, type Result } from './booking.js';
import { bookIn } from './book-in.js';
import { toOther, otherOf } from './others.js';
import { countedUnits, notOnOrder, palletIsIn, receivedOn } from './rules.js';
import { bookWhole } from './whole.js';
import { startReceive, type DockCommand, type ReceiveInput, type ReceiveLine, type ReceiveState, type ReceiveTask } from './types.js';

/** The longest lot that is kept. */
const MOST_LOT = 20;

/** Receiving: goods are counted by pack, then booked in against their line or set apart. */
export const receive = flowOf<ReceiveTask, ReceiveState, ReceiveInput, DockCommand>({
  kind: 'receive',
  start: startReceive,
  owns: ['receive', 'receive-pallet', 'receive-whole', 'tie', 'close-arrival'],
  emptied: emptyHands,
  // What was counted was counted here, whatever else comes in meanwhile: too many is asked about when it is booked in.
  strays: () => null,
  bookNow: ({ book, state }) => ({ ...book, codes: withTied(book.codes, state) }),
  item: (now, meaning) => {
    const asked = letGoAt(now);
    const before = bookedBefore(asked, meaning);
    if (before) return thenOn(before, asked, (next) => onItem(next, meaning));
    return meaning.sscc && now.task.pallets.some((p) => p.sscc === meaning.sscc) ? onPallet(asked, meaning.sscc) : onItem(asked, meaning);
  },
  place: (now, place) => onPlace(letGoAt(now), place),
  pallet: (now, sscc) => onPallet(letGoAt(now), sscc),
  unknown: (now, code) => onUnknown(letGoAt(now), code),
  cards: {
    confirm: (now) => bookIn(letGoAt(now)),
    damaged: ({ state }) =>
      state.hand === null
        ? stay(state)
        : stay({ ...state, condition: 'damaged' }, accepted('Damaged', 'Count what is damaged, then book it in')),
    apart: (now) => answer(now, { id: now.id, answer: 'apart' }),
    take: (now) => answer(now, { id: now.id, answer: 'take' }),
  },
  inputs: {
    count: ({ state }, input) =>
      state.hand === null
        ? stay(state)
        : stay({ ...letGo(state), counts: { ...state.counts, [input.packId]: input.count }, activePackId: input.packId, keyed: true }),
    text: ({ state }, input) => stay({ ...letGo(state), [input.field]: input.value.trim() === '' ? null : input.value.trim() }),
    condition: ({ state }, input) => stay(state.hand === null ? state : { ...state, condition: input.condition }),
    answer,
    tie,
    confirm: (now) => bookIn(letGoAt(now)),
    whole: (now) => bookWhole(letGoAt(now)),
    close: ({ task, state, id }, input) => ({
      state: emptyHands(state),
      feedback: accepted(
        `${task.document} closed`,
        shortLines(task, state).length === 0 ? 'All that was due is here' : 'What is missing is short',
      ),
      commands: [{ kind: 'close-arrival', id, document: task.document, paper: input.paper.trim() }],
    }),
  },
});

type ItemMeaning = Extract<Meaning, { kind: 'item' }>;

/** The book's codes with those that were tied just now, here or on their way to be known. */
function withTied(codes: Codebook['codes'], state: ReceiveState): Codebook['codes'] {
  return Object.keys(state.tied).length === 0 ? codes : { ...codes, ...state.tied };
}

/**
 * The counted goods booked in, since other goods are scanned: another item, lot or numbered piece. Undefined where nothing is
 * counted, the same goods are counted on, or the house wants a key pressed.
 */
function bookedBefore(now: Now, meaning: Pick<ItemMeaning, 'item' | 'lot'>): Result | undefined {
  const { task, book, state } = now;
  const inHand = state.hand && book.items[state.hand.itemId];
  if (!task.nextBooks || now.how !== 'scanned' || !inHand || countedUnits(state, inHand) === 0) return undefined;
  const isSame = inHand.id === meaning.item.id && (!meaning.lot || !state.lot || meaning.lot === state.lot);
  return isSame ? undefined : bookIn(now);
}

/** A serial number on its own label, once its goods are in hand, is their number; any other unknown code asks what it is. */
function onUnknown(given: Now, code: string): Result {
  const other = otherOf(given.task, code);
  if (other) return toOther(given, other, null);
  const { task, book, state, ...now } = given;
  const item = state.hand && book.items[state.hand.itemId];
  const isNext = task.nextBooks && item?.tracking === 'serial' && state.lot !== null && state.lot !== code && now.how === 'scanned';
  const piece = item?.packs.find((p) => p.factor === 1);
  // A run of numbered pieces: the next number books in the piece before it.
  if (isNext && piece && countedUnits(state, item) === 1)
    return thenOn(bookIn(given), given, (next) =>
      onItem(next, { kind: 'item', item, pack: piece, lot: code, expires: null, count: null, sscc: null, serial: null }),
    );
  if (item?.tracking === 'serial' && state.lot === null)
    return stay({ ...state, lot: code, how: now.how }, accepted(code, `Number of this ${item.name}`));
  if (item && state.lot === null && isLotLabel(item, code) && now.how === 'scanned')
    return stay({ ...state, lot: code, how: now.how }, accepted(code, `Lot of this ${item.name}`));
  if (item && isNumber(item, code)) return keyedNumber(given, item, Number(code));
  return refuse(
    { ...state, question: { kind: 'unknown-code', code } },
    { ...unknownCode(code), detail: 'On no item or place here. Choose below what it is on, or leave it for the office' },
    now,
  );
}

/** A label with nothing but the lot on it. What reads as a number of goods (GTIN) is none: that goods are not known is asked about. */
const isLotLabel = (item: ItemFacts, code: string): boolean =>
  (item.tracking === 'lot' || item.tracking === 'lot-expiry') &&
  code.length <= MOST_LOT &&
  !/^\d{1,3}$/.test(code) &&
  !/^\d{12,14}$/.test(code) &&
  !(/^\d{8}$/.test(code) && hasCheckDigit(code));

/** Digits that a hand keyed and ended with Enter, with goods in hand: how many there are. Pieces with numbers are counted one by one. */
const isNumber = (item: ItemFacts, code: string): boolean => item.tracking !== 'serial' && /^\d{1,5}$/.test(code);

/** A number keyed for the goods in hand; said once more, with Enter behind it, it is booked in. */
function keyedNumber(now: Now, item: ItemFacts, count: number): Result {
  const { state } = now;
  const packId = state.activePackId ?? item.packs.at(-1)?.id ?? 0;
  if (state.keyed && state.counts[packId] === count) return bookIn(now);
  const next = { ...state, counts: { ...state.counts, [packId]: count }, activePackId: packId, keyed: true };
  return stay(next, accepted(item.name, `${spell(countedUnits(next, item), item.packs)} counted`));
}

function lineFor(task: ReceiveTask, state: ReceiveState, itemId: number): ReceiveLine | undefined {
  const lines = task.lines.filter((l) => l.itemId === itemId);
  return lines.find((l) => receivedOn(task, state, l.lineId) < l.ordered) ?? lines.at(-1);
}

function onItem({ task, book, state, ...now }: Now, { item, pack, lot, expires, count }: ItemMeaning): Result {
  const hand = state.hand;
  const again = hand?.itemId === item.id;
  const inHand = hand && book.items[hand.itemId];
  const counted = inHand ? countedUnits(state, inHand) : 0;
  if (inHand && !again && counted > 0)
    return refuse(state, { band: 'not-this', title: item.name, detail: `Book in or clear the ${inHand.name} counted first` }, now);
  // What was counted of one lot, or is one numbered piece, is never booked in as another.
  if (again && lot && state.lot && lot !== state.lot && counted > 0)
    return refuse(
      state,
      { band: 'not-this', title: lot, detail: `Book in or clear the ${spell(counted, item.packs)} of ${state.lot} first` },
      now,
    );
  // A scanned pack has been seen and counts as one, or as many as its label says; a code chosen by hand only says what it is.
  const seen = count ?? (now.how === 'scanned' ? 1 : 0);
  const line = lineFor(task, state, item.id);
  if (!line && !(again && hand.lineId === null)) {
    const question = { kind: 'not-ordered' as const, itemId: item.id, packId: pack.id, count: seen, lot, expires };
    const { asks: _, ...said } = notOnOrder(task, item);
    return refuse({ ...state, question }, said, now);
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
    how: now.how,
  };
  const named = now.how === 'scanned' ? `Scanned a ${packName(pack, 1)}` : `A ${packName(pack, 1)}, chosen by hand`;
  const label = lot ? `Label read: ${lotWords(item, lot)}${expires ? ` and date ${expires}` : ''}` : named;
  const told = again || count !== null ? `${spell(countedUnits(next, item), item.packs)} counted${commaLot(item, lot)}` : label;
  return stay(next, accepted(item.name, seen > 0 ? told : label));
}

/** The counts after a scan: one more of the pack where it was seen, a fresh pad where other goods are begun. */
function scanned(state: ReceiveState, again: boolean, packId: number, seen: number): Record<number, number> {
  if (seen === 0 && !again) return {};
  return { ...(again ? state.counts : {}), [packId]: (again ? (state.counts[packId] ?? 0) : 0) + seen };
}

function onPallet(given: Now, sscc: string): Result {
  const { task, state, ...now } = given;
  const other = otherOf(task, sscc);
  if (other) return toOther(given, other, given.code ?? null);
  const pallet = task.pallets.find((p) => p.sscc === sscc);
  if (!pallet)
    return refuse(
      state,
      { band: 'unknown', title: sscc, detail: `No such pallet is announced for ${task.document}. Scan the goods on it` },
      now,
    );
  if (palletIsIn(pallet, state))
    return refuse(state, { band: 'too-many', title: 'Booked in already', detail: `Pallet ${sscc} came in before. Check its label` }, now);
  const to = placeOf(
    task,
    state.to,
    pallet.contents.map((c) => c.itemId),
  );
  const lines = pallet.contents.length;
  return {
    state,
    feedback: accepted('Whole pallet', `${lines} ${lines === 1 ? 'line' : 'lines'} as announced, to ${to.code}`),
    commands: [{ kind: 'receive-pallet', id: now.id, document: task.document, sscc, toPlaceId: to.id, how: now.how }],
  };
}

function onPlace(now: Now, place: PlaceFacts): Result {
  const { task, book, state } = now;
  if (place.siteId !== task.dock.siteId)
    return refuse(state, { band: 'not-this', title: place.code, detail: 'This place is at another site' }, now);
  const next = { ...state, to: place.id === task.dock.id ? null : place, how: now.how };
  const item = state.hand && book.items[state.hand.itemId];
  if (item && countedUnits(state, item) > 0) return bookIn({ ...now, state: next });
  return stay(next, accepted(place.code, 'Goods go here until another place is scanned'));
}

/** From now on the code is this pack; the goods are in hand as if it had been scanned. */
function tie({ book, state, id }: Now, input: Extract<ReceiveInput, { kind: 'tie' }>): Result {
  const asked = state.question;
  const item = book.items[input.itemId];
  const pack = item?.packs.find((p) => p.id === input.packId);
  if (asked?.kind !== 'unknown-code' || !item || !pack) return stay(state);
  return {
    state: { ...letGo(state), tied: { ...state.tied, [codeKey(asked.code, book.today)]: { itemId: item.id, packId: pack.id } } },
    feedback: accepted(asked.code, `is a ${packName(pack, 1)} of ${item.name} from now on. Scan it again to count it`),
    commands: [{ kind: 'tie', id, code: asked.code, itemId: item.id, packId: pack.id }],
  };
}

/** Lines that are not all here, with what is missing in base units. */
export function shortLines(task: ReceiveTask, state: ReceiveState): { line: ReceiveLine; missing: number }[] {
  return task.lines
    .map((line) => ({ line, missing: line.ordered - receivedOn(task, state, line.lineId) }))
    .filter(({ missing }) => missing > 0);
}
