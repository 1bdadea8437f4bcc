import { accepted, refuse, sentence, stay } from './feedback.js';
import { isWhole, type PickMoment, type PickStep, putInTote } from './pick-put.js';
import { currentStop, inHandAt, type Hand, type OtherLot, type PickState, type PickStop, wantedAt } from './pick-task.js';
import { lotWords, spell } from '../quantity/index.js';
import type { ItemFacts, Refusal } from './types.js';

/** Why a lot that is due may be passed over. */
export const PASSED_OVER = ['damaged', 'not to be reached', 'not there', 'the customer wants it so'] as const;
/** Pieces with numbers of their own are as good as each other: the next at hand is taken. */
const ANY_PIECE = 'another piece';

const isSame = (a: string, b: string) => a.trim().toUpperCase() === b.trim().toUpperCase();

/** The other lot of a stop's bin that a code names. */
export const otherOf = (stop: PickStop, lot: string): OtherLot | undefined => stop.others?.find((o) => isSame(o.lot, lot));

/** What is wrong with so many units of another lot in hand; null where that many are free, or they are of the lot that is due. */
export function otherRefusal(stop: PickStop, item: ItemFacts, lotId: number | undefined, units: number): Refusal | null {
  const other = lotId === undefined ? undefined : stop.others?.find((o) => o.lotId === lotId);
  const free = other?.units ?? 0;
  if (lotId === undefined || units <= free) return null;
  const detail = `Of ${lotWords(item, other?.lot) || 'that'} no more is free. Take the rest from ${lotWords(item, stop.lot)}`;
  return { band: 'too-many', title: `Only ${spell(free, item.packs)} here`, detail };
}

/** What is wrong with goods of another lot than the one that is due. */
export function wrongLot(stop: PickStop, item: ItemFacts, lot: string): Refusal {
  return {
    band: 'not-this',
    title: sentence(lotWords(item, lot)),
    detail: `Take ${lotWords(item, stop.lot)} of ${item.name}. Put this back`,
  };
}

/** Goods in hand turn out to be of another lot that lies there too: taken for a reason, which is asked for. */
export function onOtherLot(now: PickMoment, stop: PickStop, item: ItemFacts, other: OtherLot, hand: Hand): PickStep {
  const { state } = now;
  const held = state.hand?.stopId === stop.id ? state.hand : null;
  const before = held?.lotSeen ? inHandAt(state, stop) : 0;
  if (before > 0 && held?.other?.lotId !== other.lotId) {
    const have = held?.other?.lot ?? stop.lot ?? '';
    const detail = `You hold ${lotWords(item, have)}. Put that into the tote first`;
    return refuse(state, { band: 'not-this', title: sentence(lotWords(item, other.lot)), detail }, now);
  }
  const refusal = otherRefusal(stop, item, other.lotId, hand.units);
  if (refusal) return refuse(state, refusal, now);
  const reason = held?.other?.reason || (item.tracking === 'serial' ? ANY_PIECE : '');
  const next: PickState = {
    ...state,
    stopId: stop.id,
    asksAt: null,
    hand: { ...hand, lotSeen: true, other: { lotId: other.lotId, lot: other.lot, reason } },
  };
  if (reason === '') {
    const detail = `Lot ${stop.lot ?? ''} is due first. Say why it is passed over, or let this go`;
    return stay(next, { band: 'not-this', title: `Lot ${other.lot}`, detail });
  }
  if (isWhole({ ...now, state: next }, stop)) return putInTote({ ...now, state: next });
  return stay(
    next,
    accepted(item.name, `${spell(hand.units, item.packs)} of ${spell(wantedAt(state, stop), item.packs)} in hand, ${other.lot}`),
  );
}

/** Somebody says why the lot that was due is passed over. */
export function onReason(now: PickMoment, reason: string): PickStep {
  const { task, book, state } = now;
  const stop = currentStop(task, state);
  const item = stop && book.items[stop.itemId];
  const hand = state.hand;
  if (!stop || !item || !hand?.other || hand.stopId !== stop.id || reason.trim() === '') return stay(state);
  const next: PickState = { ...state, hand: { ...hand, other: { ...hand.other, reason: reason.trim().slice(0, 60) } } };
  if (isWhole({ ...now, state: next }, stop)) return putInTote({ ...now, state: next });
  return stay(next, accepted(`Lot ${hand.other.lot}`, `${spell(hand.units, item.packs)} of ${item.name} in hand`));
}
