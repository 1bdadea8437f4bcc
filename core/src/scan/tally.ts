import { commaLot, lotWords, spell } from '../quantity/index.js';
import { accepted, refuse, sentence, stay, unknownCode } from './feedback.js';
import { flowOf, type Moment } from './flow.js';
import type { Meaning } from './resolve.js';
import {
  binAt,
  checkTally,
  checkTallyBin,
  countedOf,
  handWords,
  isDone,
  leftWords,
  lotsListed,
  nextBin,
  uncounted,
} from './tally-rules.js';
import {
  type AnyTallyCommand,
  startTally,
  type TallyBin,
  type TallyHand,
  type TallyInput,
  type TallyState,
  type TallyTask,
} from './tally-task.js';
import type { ItemFacts, PlaceFacts, Refusal, Step } from './types.js';

type Result = Step<TallyState, AnyTallyCommand>;
type Now = Moment<TallyTask, TallyState>;

const notThis = (title: string, detail: string): Refusal => ({ band: 'not-this', title, detail });
/** A lot on a label of its own is no longer than that. */
const MOST_LOT = 20;

/**
 * Counting the bins of a count, one after the other: the bin, then each of its goods with a number or scanned piece by piece. What
 * is in hand is counted with the next scan of something else; what was counted may be said again until the count is closed.
 */
export const tally = flowOf<TallyTask, TallyState, TallyInput, AnyTallyCommand>({
  kind: 'tally',
  start: startTally,
  owns: ['tally', 'tally-bin', 'tally-code'],
  emptied: (state) => ({ ...state, hand: null, code: null, leaving: false }),
  strays({ task, state }) {
    if (state.hand === null) return null;
    const bin = binAt(task, state);
    if (!bin) return notThis('Not in this count any more', 'The bin was taken out of the count, or the count is over. Go on to the next');
    return bin.isMine ? null : notThis(bin.code, `${bin.by ?? 'Somebody else'} counts it by now. Go on to the next`);
  },
  item: onItem,
  place: onPlace,
  unknown: onUnknown,
  cards: { confirm, 'not-here': onEmpty, damaged: (now) => condition(now, true) },
  inputs: {
    number: (now, input) => onNumber(now, input.units),
    confirm,
    text: ({ state }, input) => stay(state.hand ? { ...state, hand: { ...state.hand, [input.field]: input.value.trim() || null } } : state),
    condition: (now, input) => condition(now, input.isDamaged),
    choose: (now, { itemId, lot, isDamaged }) => {
      const item = now.book.items[itemId];
      return item ? begin(now, item, { lot, expires: null, isDamaged, units: 0 }) : stay(now.state);
    },
    'code-number': onCodeNumber,
    finish: onFinish,
    empty: onEmpty,
  },
});

function onPlace(now: Now, place: PlaceFacts): Result {
  const { task, book, state } = now;
  const bin = task.bins.find((b) => b.placeId === place.id);
  const refusal = checkTallyBin(task, state, place.code, bin);
  if (refusal || !bin) return refuse(state, refusal ?? notThis(place.code, 'It is not in this count'), now);
  if (state.at === place.id) return state.hand ? confirm(now) : stay(state, atBin(book.items, bin, state));
  const unsaid = unsaidOf(now);
  if (unsaid) return refuse(state, unsaid, now);
  const before = binAt(task, state);
  const left = before ? leftBeside(before, state) : [];
  if (before && left.length > 0 && !state.leaving)
    return refuse(
      { ...state, leaving: true },
      notThis(before.code, `${leftWords(book, left)} on its list is not counted. Count it, or scan ${place.code} again to come back later`),
      now,
    );
  const arrived: TallyState = { ...startTally, at: place.id, pending: state.pending };
  const went = before && !isDone(before, state) && left.length === 0 ? leave(now, before) : null;
  return { state: arrived, feedback: atBin(book.items, bin, arrived, went?.says), commands: went ? [went.command] : counted(now) };
}

/** What a bin's list names that is neither counted nor in hand. */
const leftBeside = (bin: TallyBin, state: TallyState) =>
  uncounted(bin, state).filter(
    (l) =>
      state.hand === null ||
      state.hand.units === 0 ||
      l.itemId !== state.hand.itemId ||
      l.lot !== state.hand.lot ||
      l.isDamaged !== state.hand.isDamaged,
  );

/** The command that a bin is left with once all of its list is counted, with the goods in hand. */
function leave(now: Now, bin: TallyBin): { command: AnyTallyCommand; says: string } {
  const { task, state, id, how } = now;
  const [last] = counted(now);
  const says = `${bin.code} is counted`;
  if (last?.kind === 'tally') return { command: { ...last, isLast: true }, says };
  return { command: { kind: 'tally-bin', id, document: task.document, placeId: state.at ?? 0, how }, says };
}

/** Why what was scanned so far cannot be counted yet, such as a lot that nobody has said; null where it can be, or there is nothing. */
function unsaidOf({ task, book, state }: Now): Refusal | null {
  const item = state.hand && book.items[state.hand.itemId];
  const bin = binAt(task, state);
  return state.hand && item && bin && state.hand.units > 0 ? checkTally(task, bin, item, state.hand, state.hand.units) : null;
}

/** The command that what was scanned so far leads to; none where nothing was. */
function counted({ task, book, state, id, at }: Now): AnyTallyCommand[] {
  const { hand } = state;
  const item = hand && book.items[hand.itemId];
  const bin = binAt(task, state);
  if (!hand || !item || !bin || hand.units === 0 || checkTally(task, bin, item, hand, hand.units)) return [];
  const { itemId, lot, expires, isDamaged, units, how } = hand;
  const agoMs = at > 0 && hand.at > 0 ? Math.max(0, at - hand.at) : 0;
  return [
    { kind: 'tally', id, document: task.document, placeId: bin.placeId, itemId, lot, expires, isDamaged, units, isLast: false, agoMs, how },
  ];
}

function atBin(items: Readonly<Record<string, ItemFacts>>, bin: TallyBin, state: TallyState, before?: string) {
  const left = uncounted(bin, state).length;
  const list = left === 0 ? 'Nothing on its list. Count what lies there, or say that it is empty' : `${left} on its list`;
  const says = isDone(bin, state) ? 'Counted already. Say again what was wrong' : list;
  return accepted(`Bin ${bin.code}`, before ? `${before}. ${says}` : says);
}

function onItem(now: Now, { item, pack, lot, expires, count }: Extract<Meaning, { kind: 'item' }>): Result {
  const { task, book, state } = now;
  const bin = binAt(task, state);
  if (!bin) {
    const next = nextBin(task, state);
    return refuse(state, notThis(item.name, next ? `Scan the bin first: ${next.code}` : 'All bins of yours are counted'), now);
  }
  const { hand } = state;
  const units = pack.factor * (count ?? 1);
  const isOn = hand?.itemId === item.id && (lot === null || hand.lot === null || hand.lot === lot) && item.tracking !== 'serial';
  if (isOn) return further(now, item, { ...hand, lot: hand.lot ?? lot, expires: hand.expires ?? expires }, units);
  const unsaid = unsaidOf(now);
  if (unsaid) return refuse(state, unsaid, now);
  const begun = begin(now, item, { lot, expires, isDamaged: false, units });
  // What was in hand is counted with it.
  const [before] = counted(now);
  if (!before || begun.commands.some((c) => c.kind !== 'refused')) return begun;
  const said = hand && book.items[hand.itemId] ? `${sentence(handWords(book.items[hand.itemId], hand))} counted. ` : '';
  return { ...begun, feedback: begun.feedback && { ...begun.feedback, detail: said + begun.feedback.detail }, commands: [before] };
}

/** Goods are taken in hand. A piece with a number of its own is counted with its scan. */
function begin(now: Now, item: ItemFacts, given: Pick<TallyHand, 'lot' | 'expires' | 'isDamaged' | 'units'>): Result {
  const { task, state } = now;
  const bin = binAt(task, state);
  if (!bin) return stay(state);
  // Of goods without lots nothing is to be chosen.
  const lot = item.tracking === 'none' ? null : given.lot;
  const goods = { itemId: item.id, lot, isDamaged: given.isDamaged };
  const refusal = lot === null && item.tracking !== 'none' ? null : checkTally(task, bin, item, goods, 0);
  if (refusal) return refuse(state, refusal, now);
  const before = countedOf(bin, state, goods);
  if (item.tracking === 'serial' && lot !== null) return piece(now, item, lot, given.isDamaged, before);
  const units = (given.units > 0 ? (before ?? 0) : 0) + given.units;
  const hand: TallyHand = { ...goods, expires: given.expires, units: item.tracking === 'serial' ? 0 : units, at: now.at, how: now.how };
  return stay({ ...state, hand, code: null, leaving: false }, accepted(item.name, beginWords(now, bin, item, hand, before)));
}

function beginWords({ task, state }: Now, bin: TallyBin, item: ItemFacts, hand: TallyHand, before: number | null): string {
  if (item.tracking === 'serial') return 'Scan the number of each piece';
  if (item.tracking !== 'none' && hand.lot === null)
    return lotsListed(bin, state, item.id).length > 0 ? 'Choose the lot below, or scan it' : 'Scan the lot, or type it';
  const on = before !== null && hand.units > 0 ? `, ${before} of them before` : '';
  const so = hand.units > 0 ? `${sentence(handWords(item, hand))} so far${on}. ` : '';
  return so + (task.scanEach ? 'Scan every piece' : 'Scan on, or key how many there are');
}

function piece(now: Now, item: ItemFacts, lot: string, isDamaged: boolean, before: number | null): Result {
  const { task, state, id, how } = now;
  const words = sentence(lotWords(item, lot));
  if (before === 1) return refuse(state, { band: 'too-many', title: words, detail: `This ${item.name} is counted here already` }, now);
  return {
    state: {
      ...state,
      hand: { itemId: item.id, lot: null, expires: null, isDamaged, units: 0, at: now.at, how },
      code: null,
      leaving: false,
    },
    feedback: accepted(words, `${item.name}, counted`),
    commands: [
      {
        kind: 'tally',
        id,
        document: task.document,
        placeId: state.at ?? 0,
        itemId: item.id,
        lot,
        expires: null,
        isDamaged,
        units: 1,
        isLast: false,
        agoMs: 0,
        how,
      },
    ],
  };
}

function further(now: Now, item: ItemFacts, hand: TallyHand, more: number): Result {
  const units = hand.units + more;
  const next = { ...hand, units, at: now.at, how: now.how };
  const detail = `${sentence(spell(units, item.packs))} so far. ${hand.lot === null && item.tracking !== 'none' ? 'Say which lot it is' : 'Scan on, or go on to the next'}`;
  return stay({ ...now.state, hand: next, leaving: false }, accepted(item.name, detail));
}

function condition({ state }: Now, isDamaged: boolean): Result {
  if (!state.hand) return stay(state);
  return stay({ ...state, hand: { ...state.hand, isDamaged } }, accepted(isDamaged ? 'Damaged' : 'Good', 'Count those of this kind apart'));
}

function onNumber(now: Now, units: number): Result {
  const { task, book, state, id } = now;
  const bin = binAt(task, state);
  const item = state.hand ? book.items[state.hand.itemId] : undefined;
  if (!bin || !state.hand || !item) return stay(state);
  if (task.scanEach && units > 1 && units !== state.hand.units)
    return refuse(state, notThis(item.name, 'In this count every piece is scanned'), now);
  const refusal = checkTally(task, bin, item, state.hand, units);
  if (refusal) return refuse(state, refusal, now);
  const { itemId, lot, expires, isDamaged } = state.hand;
  return {
    state: { ...state, hand: null, leaving: false },
    feedback: accepted(spell(units, item.packs), `${item.name}${commaLot(item, lot)}, counted in ${bin.code}`),
    commands: [
      {
        kind: 'tally',
        id,
        document: task.document,
        placeId: bin.placeId,
        itemId,
        lot,
        expires,
        isDamaged,
        units,
        isLast: false,
        agoMs: 0,
        how: 'typed',
      },
    ],
  };
}

/** What was scanned so far is all of it; with nothing in hand, the bin is. */
function confirm(now: Now): Result {
  const { task, book, state } = now;
  const { hand } = state;
  if (!hand) return onFinish(now);
  const item = book.items[hand.itemId];
  const bin = binAt(task, state);
  if (item?.tracking === 'serial') return stay({ ...state, hand: null });
  const refusal =
    hand.units === 0
      ? notThis(item?.name ?? '', 'Nothing of it is counted yet. Scan it, or key how many there are; nought where none is there')
      : item && bin && checkTally(task, bin, item, hand, hand.units);
  if (refusal) return refuse(state, refusal, now);
  return {
    state: { ...state, hand: null, leaving: false },
    feedback: accepted(handWords(item, hand), `${item?.name ?? ''}${commaLot(item, hand.lot)}, counted in ${bin?.code ?? ''}`),
    commands: counted(now),
  };
}

function onFinish(now: Now): Result {
  const { task, book, state } = now;
  const bin = binAt(task, state);
  if (!bin) return stay(state);
  const left = leftBeside(bin, state);
  if (left.length > 0 && !state.leaving)
    return refuse(
      { ...state, leaving: true },
      notThis(bin.code, `${leftWords(book, left)} on its list is not counted. Press again where none of it is there`),
      now,
    );
  const { command } = leave(now, bin);
  const after: TallyState = { ...startTally, pending: [...state.pending, command] };
  const next = nextBin(task, after);
  return {
    state: { ...after, pending: state.pending },
    feedback: accepted(`${bin.code} is counted`, next ? `Next: ${next.code}` : 'That was the last of your bins'),
    commands: [command],
  };
}

/** Nothing lies in the bin at hand, or in the next on the walk. */
function onEmpty(now: Now): Result {
  const { task, state, id } = now;
  const bin = nextBin(task, state);
  if (!bin) return refuse(state, notThis('All bins of yours are counted', 'Nothing is left that could be empty'), now);
  if (state.hand && state.hand.units === 0) return onNumber(now, 0);
  const there = bin.lines.some((l) => (countedOf(bin, state, l) ?? 0) > 0) || (state.hand?.units ?? 0) > 0;
  if (there) return refuse(state, notThis(bin.code, 'Something was counted in it. Finish it, or count that again'), now);
  const command: AnyTallyCommand = {
    kind: 'tally-bin',
    id,
    document: task.document,
    placeId: bin.placeId,
    how: state.at === bin.placeId ? 'scanned' : 'typed',
  };
  const next = nextBin(task, { ...startTally, pending: [...state.pending, command] });
  return {
    state: { ...startTally, pending: state.pending },
    feedback: accepted(`${bin.code} is empty`, next ? `Next: ${next.code}` : 'That was the last of your bins'),
    commands: [command],
  };
}

/** A plain label with a lot or number on it, once its goods are in hand; any other is kept for the office with how many there are. */
function onUnknown(now: Now, code: string): Result {
  const { task, book, state } = now;
  const bin = binAt(task, state);
  const item = state.hand ? book.items[state.hand.itemId] : undefined;
  if (!bin) return refuse(state, { ...unknownCode(code), detail: 'On no item or place here. Scan the bin first' }, now);
  if (state.hand && item && item.tracking !== 'none' && code.length <= MOST_LOT && state.hand.lot === null) {
    if (item.tracking === 'serial')
      return piece(now, item, code, state.hand.isDamaged, countedOf(bin, state, { ...state.hand, lot: code }));
    return stay({ ...state, hand: { ...state.hand, lot: code } }, accepted(code, `Lot of this ${item.name}`));
  }
  // Digits that a hand keyed and ended with Enter: how many there are.
  if (state.hand && item && item.tracking !== 'serial' && /^\d{1,5}$/.test(code)) return onNumber(now, Number(code));
  return refuse(
    { ...state, code },
    { ...unknownCode(code), detail: 'On no item or place here. Say how many there are, and the office finds out what it is' },
    now,
  );
}

function onCodeNumber(now: Now, { units }: { units: number }): Result {
  const { task, state, id } = now;
  if (state.code === null || state.at === null || !Number.isSafeInteger(units) || units < 1) return stay(state);
  return {
    state: { ...state, code: null },
    feedback: accepted(state.code, `${units} of it, kept for the office`),
    commands: [{ kind: 'tally-code', id, document: task.document, placeId: state.at, code: state.code, units, how: now.how }],
  };
}
