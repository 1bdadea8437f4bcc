import { spell } from '../../quantity/index.js';
import { accepted, refuse, stay } from '../feedback.js';
import type { ItemFacts } from '../types.js';
import { askWhetherSoMany, bookIn, isSoMany } from './book-in.js';
import { destination, letGo, packCounts, post, type Now, type Result } from './booking.js';
import { checkReceive, countedUnits, lineOf, receivedOn } from './rules.js';
import type { ApartReason, ReceiveAs, ReceiveCommand, ReceiveInput, ReceiveState, ReceiveTask } from './types.js';

type Answer = Extract<ReceiveInput, { kind: 'answer' }>;

/** What an answer to the open question leads to. Without one it sets apart, or takes in, what is in hand. */
export function answer(now: Now, input: Pick<Answer, 'id' | 'answer'>): Result {
  const { task, state } = now;
  const asked = state.question;
  switch (asked?.kind) {
    case 'not-ordered': {
      const begun = begin(task, state, asked, input.answer);
      return begun ?? notAllowed(state, input.id);
    }
    case 'over':
      if (input.answer === 'take') return takeExtra(now);
      return setExcessApart(now, input.answer === 'open' && asked.open !== null ? { ...asked, most: asked.open } : asked);
    case 'too-old':
      return input.answer === 'take' ? takeExtra(now) : setAllApart(now, 'too old');
    case 'so-many':
      if (input.answer !== 'take') return stay(letGo(state));
      return asked.as === 'extra' ? takeExtra(now, true) : bookIn({ ...now, state: letGo(state) }, true);
    case 'unknown-code':
    case undefined:
      return input.answer === 'apart' && state.hand ? setAllApart(now, 'wrong goods') : stay(letGo(state));
  }
}

/** Goods that no line names come into the hand, to be counted. Null where the person may not take them in. */
function begin(
  task: ReceiveTask,
  state: ReceiveState,
  asked: Extract<NonNullable<ReceiveState['question']>, { kind: 'not-ordered' }>,
  said: Answer['answer'],
): Result | null {
  if (said === 'take' && !task.mayTake) return null;
  const as: ReceiveAs = said === 'take' ? 'unordered' : 'apart';
  const reason: ApartReason | null = said === 'take' ? null : 'wrong goods';
  const next: ReceiveState = {
    ...letGo(state),
    hand: { lineId: null, itemId: asked.itemId, as, reason },
    counts: asked.count > 0 ? { [asked.packId]: asked.count } : {},
    activePackId: asked.packId,
    keyed: false,
    lot: asked.lot,
    expires: asked.expires,
    condition: 'good',
  };
  return stay(next, accepted(said === 'take' ? 'Taken in without an order' : 'Set apart', 'Count what came, then book it in'));
}

function notAllowed(state: ReceiveState, id: string): Result {
  return refuse(
    state,
    { band: 'not-this', title: 'Not yours to take in', detail: 'Set the goods apart, or fetch somebody who may' },
    { id },
  );
}

function commandFor({ task, state, id }: Now, item: ItemFacts, more: Partial<ReceiveCommand>): ReceiveCommand {
  return {
    kind: 'receive',
    id,
    document: task.document,
    lineId: state.hand?.lineId ?? null,
    itemId: item.id,
    units: countedUnits(state, item),
    lot: item.tracking === 'none' ? null : state.lot,
    expires: item.tracking === 'lot-expiry' ? state.expires : null,
    toPlaceId: destination(task, state).id,
    how: state.how,
    as: 'extra',
    condition: state.condition,
    reason: null,
    ...more,
  };
}

function takeExtra(now: Now, sure = false): Result {
  const { task, book, state, id } = now;
  const item = state.hand && book.items[state.hand.itemId];
  const line = lineOf(task, state.hand?.lineId ?? null);
  if (!item || !line) return stay(letGo(state));
  const command = commandFor(now, item, {});
  if (!sure && isSoMany(task, state, command.units, 'extra')) return askWhetherSoMany(now, item, command.units, 'extra');
  const refusal = checkReceive(task, book, command, receivedOn(task, state, line.lineId));
  if (refusal) return refuse(state, { band: refusal.band, title: refusal.title, detail: refusal.detail }, { id, code: item.sku });
  return post(state, command, item.name, spell(command.units, item.packs), destination(task, state).code, task.inspect[item.id]);
}

/** What is beyond the line's room goes to the side; the rest stays counted in hand. */
function setExcessApart(now: Now, asked: { most: number; units: number }): Result {
  const { task, book, state } = now;
  const item = state.hand && book.items[state.hand.itemId];
  if (!item) return stay(letGo(state));
  const done = apart(now, item, asked.units - asked.most, 'too many');
  if (asked.most === 0 || done.commands.every((c) => c.kind === 'refused')) return done;
  return {
    ...done,
    state: { ...letGo(state), counts: packCounts(asked.most, item.packs), keyed: true },
    feedback: accepted(
      `${spell(asked.units - asked.most, item.packs)} set apart`,
      `Now book in the ${spell(asked.most, item.packs)} that ${task.document} has room for`,
    ),
  };
}

function setAllApart(now: Now, reason: ApartReason): Result {
  const { book, state } = now;
  const item = state.hand && book.items[state.hand.itemId];
  return item ? apart(now, item, countedUnits(state, item), reason) : stay(letGo(state));
}

function apart(now: Now, item: ItemFacts, units: number, reason: ApartReason): Result {
  const { task, book, state, id } = now;
  const place = task.apart ?? task.dock;
  const command = commandFor(now, item, { lineId: null, units, as: 'apart', reason, toPlaceId: place.id });
  const refusal = checkReceive(task, book, command, 0);
  if (refusal) return refuse(state, { band: refusal.band, title: refusal.title, detail: refusal.detail }, { id, code: item.sku });
  return post(state, command, item.name, spell(units, item.packs), place.code);
}
