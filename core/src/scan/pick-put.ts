import type { PlaceId } from '../ids/index.js';
import { lotWords, spell } from '../quantity/index.js';
import { accepted, refuse, sentence, stay } from './feedback.js';
import type { Moment } from './flow.js';
import { checkPick, checkTote } from './pick-rules.js';
import {
  asksReason,
  currentStop,
  inHandAt,
  isFrom,
  isLotSeen,
  type PickCommands,
  type PickState,
  type PickStop,
  type PickTask,
  startPick,
  wantedAt,
} from './pick-task.js';
import { isToteKnown, orderIn, toteless, toteOf } from './pick-totes.js';
import type { PlaceFacts, Refusal, Step } from './types.js';

export type PickStep = Step<PickState, PickCommands>;
export type PickMoment = Moment<PickTask, PickState>;

/** The state once goods are in a tote or let go: the person stays where they stand. */
export const emptied = (state: PickState): PickState => ({ ...startPick, atBin: state.atBin, pending: state.pending });

const codeOf = ({ book }: Pick<PickMoment, 'book'>, id: PlaceId): string =>
  Object.values(book.places).find((p) => p.id === id)?.code ?? 'the tote';

const notThis = (title: string, detail: string): Refusal => ({ band: 'not-this', title, detail });

/** Whether all that a stop wants is in hand, seen at its bin where that is asked for, and its tote is known. */
export const isWhole = ({ task, state }: PickMoment, stop: PickStop): boolean =>
  inHandAt(state, stop) === wantedAt(state, stop) &&
  isToteKnown(task, state, stop) &&
  isFrom(task, state, stop) &&
  isLotSeen(state, stop) &&
  !asksReason(state);

/** A tote was scanned: goods in hand go into it; an empty one is tied to an order of the round. */
export function onTote(now: PickMoment, place: PlaceFacts): PickStep {
  const { task, state } = now;
  const refusal = checkTote(task, place);
  if (refusal) return refuse(state, refusal, now);
  const current = currentStop(task, state);
  const owner = orderIn(task, state, place.id);
  if (owner && owner.id === state.fullFor && toteOf(task, state, owner.id) === place.id)
    return refuse(state, notThis(`Tote ${place.code}`, 'This one is full. Take an empty one'), now);
  if (inHandAt(state, current) > 0 && current) return onToteWithGoods(now, current, place);
  if (owner) return stay(state, accepted(`Tote ${place.code}`, `For ${owner.code}, ${owner.customer}`));
  const order = toteless(task, state, current);
  if (!order) {
    const own = current && toteOf(task, state, current.orderId);
    const detail = own ? `Every order here has its tote. Put the goods into ${codeOf(now, own)}` : 'Every order here has its tote';
    return refuse(state, notThis(`Tote ${place.code}`, detail), now);
  }
  const which = task.orders.length > 1 ? ` (${task.orders.indexOf(order) + 1} of ${task.orders.length})` : '';
  return {
    state: { ...state, fullFor: null },
    feedback: accepted(`Tote ${place.code}`, `For ${order.code}, ${order.customer}${which}`),
    commands: [{ kind: 'tote', id: now.id, round: task.round, orderId: order.id, totePlaceId: place.id }],
  };
}

/** Goods in hand meet a tote: that of their order, or that of another order that wants as many of the same from the same bin. */
function onToteWithGoods(now: PickMoment, current: PickStop, place: PlaceFacts): PickStep {
  const { task, state } = now;
  const owner = orderIn(task, state, place.id);
  if (owner?.id === current.orderId) return putInTote(now, place.id);
  const own = toteOf(task, state, current.orderId);
  if (!owner) {
    if (own === undefined || state.fullFor === current.orderId) return putInTote(now, place.id);
    return refuse(state, notThis(`Tote ${place.code}`, `These go into ${codeOf(now, own)}`), now);
  }
  const units = inHandAt(state, current);
  const twin = task.stops.find(
    (s) =>
      !state.hand?.other &&
      s.orderId === owner.id &&
      s.itemId === current.itemId &&
      s.lotId === current.lotId &&
      s.placeId === current.placeId &&
      wantedAt(state, s) >= units,
  );
  if (!twin || !state.hand) {
    const where = own === undefined ? 'an empty tote' : codeOf(now, own);
    return refuse(state, notThis(`Tote ${place.code}`, `That is ${owner.customer}’s. These go into ${where}`), now);
  }
  return putInTote({ ...now, state: { ...state, stopId: twin.id, hand: { ...state.hand, stopId: twin.id } } }, place.id);
}

/** The tote in use holds no more: the order's next goods go into an empty one. */
export function onFull({ task, book, state }: PickMoment): PickStep {
  const stop = currentStop(task, state);
  const own = stop && toteOf(task, state, stop.orderId);
  if (!stop || own === undefined) return stay(state);
  const title = `Tote ${codeOf({ book }, own)} is full`;
  return stay({ ...state, fullFor: stop.orderId }, accepted(title, 'Scan an empty tote for the rest'));
}

/** What is in hand goes into its order's tote, or into the one that was scanned. */
export function putInTote(now: PickMoment, scanned?: PlaceId): PickStep {
  const { task, book, state } = now;
  const stop = currentStop(task, state);
  const item = stop && book.items[stop.itemId];
  if (!stop || !item) return stay(state);
  const units = inHandAt(state, stop);
  const own = toteOf(task, state, stop.orderId);
  const refusal =
    checkPick(stop, item, units, wantedAt(state, stop)) ??
    (isLotSeen(state, stop)
      ? null
      : notThis(
          item.tracking === 'serial' ? 'Which piece is it?' : 'Which lot is it?',
          `Scan ${stop.lot ?? ''} on the goods, or choose it`,
        )) ??
    (asksReason(state)
      ? notThis(sentence(lotWords(item, state.hand?.other?.lot)), `Say why ${lotWords(item, stop.lot)} is passed over`)
      : null) ??
    (isFrom(task, state, stop) ? null : notThis(`Bin ${stop.placeCode}`, 'Scan the bin that you took it from')) ??
    (scanned === undefined && own !== undefined && !isToteKnown(task, state, stop)
      ? notThis(`Tote ${codeOf(now, own)}`, 'Scan the tote that they go into')
      : null);
  if (refusal) return refuse(state, refusal, now);
  const toteId = scanned ?? own;
  if (toteId === undefined) return refuse(state, notThis('No tote yet', 'Scan the tote that this order goes into'), now);
  return {
    state: emptied(state),
    feedback: accepted(spell(units, item.packs), `${item.name}, ${stop.placeCode} to tote ${codeOf(now, toteId)}`),
    commands: [
      {
        kind: 'pick',
        id: now.id,
        round: task.round,
        stopId: stop.id,
        itemId: stop.itemId,
        lotId: state.hand?.other?.lotId ?? stop.lotId,
        fromPlaceId: stop.placeId,
        units,
        totePlaceId: toteId,
        ...(state.hand?.other ? { passedOver: state.hand.other.reason } : {}),
        how: state.hand?.how ?? now.how,
      },
    ],
  };
}
