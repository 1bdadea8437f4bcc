import { isFor } from '../places/index.js';
import { spell } from '../quantity/index.js';
import { accepted, refuse, sentence, stay } from './feedback.js';
import { flowOf, type Moment } from './flow.js';
import type { Meaning } from './resolve.js';
import {
  freeSlot,
  orderAt,
  progressOf,
  type SortCommands,
  type SortGoods,
  type SortInput,
  type SortState,
  type SortTask,
  slotOf,
  startSort,
  toSort,
  type WallSlot,
} from './sort-task.js';
import type { ItemFacts, PlaceFacts, Refusal, Step } from './types.js';

type Now = Moment<SortTask, SortState>;
type Result = Step<SortState, SortCommands>;
type Item = Extract<Meaning, { kind: 'item' }>;

/** Sorting at the wall: scan the goods, be shown the slot, scan the slot. */
export const sort = flowOf<SortTask, SortState, SortInput, SortCommands>({
  kind: 'sort',
  start: startSort,
  owns: ['sort', 'sort-missing'],
  emptied: (state) => ({ ...startSort, pending: state.pending }),
  strays: takenByOthers,
  item: onItem,
  place: (now, place) => (isFor(place.kind, 'picked') && slotIn(now, place) ? onSlot(now, place) : otherPlace(now, place)),
  unknown: (now, code) => (now.state.asksLotOf ? onLot(now, code) : undefined),
  cards: {},
  inputs: {
    count: onCount,
    lot: (now, input) => onLot(now, input.lot),
    missing: onMissing,
  },
});

const slotIn = ({ task }: Pick<Now, 'task'>, place: PlaceFacts): WallSlot | undefined => task.slots.find((s) => s.placeId === place.id);
const slotById = (task: SortTask, id: number): WallSlot | undefined => task.slots.find((s) => s.placeId === id);
const nameOf = (slot: WallSlot | undefined): string => `Slot ${slot?.number ?? ''}`;
const notThis = (title: string, detail: string): Refusal => ({ band: 'not-this', title, detail });

/** What is left of the goods in hand for their order. */
function wanted({ task, state }: Pick<Now, 'task' | 'state'>): number {
  const { hand } = state;
  const goods = toSort(task, state).find(
    (g) => g.orderId === hand?.orderId && g.itemId === hand.itemId && g.lotId === hand.lotId && g.toteId === hand.toteId,
  );
  return goods?.units ?? 0;
}

/** A colleague at the same wall has sorted what this person holds, or has filled the slot with another order. */
function takenByOthers(now: Now): Refusal | null {
  const { task, book, state } = now;
  const { hand } = state;
  if (!hand) return null;
  const slot = slotById(task, hand.slotId);
  const own = slotOf(task, state, hand.orderId);
  const held = slot && orderAt(task, state, slot);
  const isLost = !slot || slot.busy || (own && own.placeId !== hand.slotId) || (held && held.id !== hand.orderId);
  if (hand.units <= wanted(now) && !isLost) return null;
  return notThis(book.items[hand.itemId]?.name ?? task.round, 'A colleague has sorted on meanwhile. Scan what you hold again');
}

/** Which order the next of an item is for: one that has a slot before one that needs one, then the one that was promised soonest. */
function nextFor({ task, state }: Now, goods: readonly SortGoods[]): SortGoods | undefined {
  const turn = (g: SortGoods) => task.orders.findIndex((o) => o.id === g.orderId);
  const isIn = (g: SortGoods) => slotOf(task, state, g.orderId) !== undefined;
  return [...goods].sort((a, b) => Number(isIn(b)) - Number(isIn(a)) || turn(a) - turn(b) || a.toteId - b.toteId)[0];
}

/** Goods of which an order wants a whole pack, where any does: a tray is for whoever wants a tray. */
function fitting(goods: readonly SortGoods[], units: number): readonly SortGoods[] {
  const whole = goods.filter((g) => g.units >= units);
  return whole.length > 0 ? whole : goods;
}

function onItem(now: Now, { item, pack, lot }: Item): Result {
  const { task, state } = now;
  const all = toSort(task, state).filter((g) => g.itemId === item.id);
  const goods = lot ? all.filter((g) => g.lot !== null && isSame(g.lot, lot)) : all;
  const { hand } = state;
  if (hand && hand.itemId !== item.id) {
    const detail = `Put it into ${nameOf(slotById(task, hand.slotId)).toLowerCase()} first, or let it go`;
    return refuse(state, notThis(now.book.items[hand.itemId]?.name ?? 'Goods in hand', detail), now);
  }
  if (goods.length === 0) return refuse(state, notWanted(task, item, all, lot), now);
  if (hand) {
    if (lot && !goods.some((g) => g.lotId === hand.lotId))
      return refuse(state, notThis(`Lot ${lot}`, 'Put what you hold into its slot first: it is of another lot'), now);
    return onMore(now, item, hand.units + pack.factor, {});
  }
  if (new Set(goods.map((g) => g.lotId)).size > 1)
    return stay(
      { ...state, asksLotOf: { itemId: item.id, packId: pack.id, how: now.how } },
      accepted(item.name, 'Which lot is it? Scan it, or choose'),
    );
  const next = nextFor(now, fitting(goods, pack.factor));
  return next ? take(now, item, next, pack) : stay(state);
}

/** Goods of a known lot in hand: their order's slot is shown, or a free one is given to it. */
function take(now: Now, item: ItemFacts, goods: SortGoods, pack: { id: number; factor: number }): Result {
  const { task, state } = now;
  const slot = slotOf(task, state, goods.orderId) ?? freeSlot(task, state);
  if (!slot) return refuse(state, notThis('No slot is free', 'Pack an order that is complete, then scan this again'), now);
  if (pack.factor > goods.units)
    return refuse(
      state,
      { band: 'too-many', title: nameOf(slot), detail: `Only ${spell(goods.units, item.packs)} of it go there. Scan single pieces` },
      now,
    );
  const { orderId, itemId, lotId, toteId } = goods;
  const hand = { orderId, itemId, lotId, toteId, slotId: slot.placeId, units: pack.factor, packId: pack.id, before: 0, keyed: false };
  return stay(
    { ...state, asksLotOf: null, hand: { ...hand, how: now.how } },
    accepted(nameOf(slot), handWords(item, pack.factor, goods.units)),
  );
}

const handWords = (item: ItemFacts, units: number, of: number): string =>
  units === of
    ? `${item.name}: ${spell(of, item.packs)}, that is all`
    : `${item.name}: ${spell(units, item.packs)} of ${spell(of, item.packs)}`;

/** So many of the same are in hand by now. */
function onMore(now: Now, item: ItemFacts, units: number, counted: Partial<NonNullable<SortState['hand']>>): Result {
  const { task, state } = now;
  const { hand } = state;
  if (!hand) return stay(state);
  const most = wanted(now);
  const slot = slotById(task, hand.slotId);
  if (units > most) {
    const detail = `${nameOf(slot)} takes ${spell(most, item.packs)}. Put these in, then scan on`;
    return refuse(state, { band: 'too-many', title: `${sentence(spell(units - most, item.packs))} over`, detail }, now);
  }
  return stay({ ...state, hand: { ...hand, ...counted, units } }, accepted(nameOf(slot), handWords(item, units, most)));
}

function onCount(now: Now, input: Extract<SortInput, { kind: 'count' }>): Result {
  const { book, state } = now;
  const { hand } = state;
  const item = hand && book.items[hand.itemId];
  const pack = item?.packs.find((p) => p.id === input.packId);
  if (!hand || !item || !pack || !Number.isSafeInteger(input.count) || input.count < 0) return stay(state);
  const before = hand.packId === pack.id ? hand.before : hand.units;
  return onMore(now, item, before + input.count * pack.factor, { packId: pack.id, before, keyed: true });
}

function onLot(now: Now, lot: string): Result {
  const { book, task, state } = now;
  const asked = state.asksLotOf;
  const item = asked && book.items[asked.itemId];
  const pack = item?.packs.find((p) => p.id === asked?.packId);
  if (!asked || !item || !pack) return stay(state);
  const goods = toSort(task, state).filter((g) => g.itemId === item.id && g.lot !== null && isSame(g.lot, lot));
  const next = nextFor(now, fitting(goods, pack.factor));
  if (!next) return refuse(state, notWanted(task, item, [], lot), now);
  return take({ ...now, how: asked.how }, item, next, pack);
}

function onSlot(now: Now, place: PlaceFacts): Result {
  const { task, book, state } = now;
  const { hand } = state;
  const slot = slotIn(now, place);
  if (!slot) return stay(state);
  if (!hand) return stay(state, accepted(nameOf(slot), slotWords(now, slot)));
  const item = book.items[hand.itemId];
  const own = slotById(task, hand.slotId);
  if (!item || !own) return stay(state);
  if (slot.placeId !== own.placeId)
    return refuse(state, notThis(nameOf(slot), `These go into ${nameOf(own).toLowerCase()}: ${spell(hand.units, item.packs)}`), now);
  if (hand.units <= 0) return refuse(state, notThis('Nothing counted', `Say how many of ${item.name} you put in`), now);
  const { orderId, itemId, lotId, units, toteId, how } = hand;
  const order = task.orders.find((o) => o.id === orderId);
  const left = order ? progressOf(task, state, order).left - units : 0;
  const done = left === 0 ? `${order?.code ?? ''} is complete: ready to pack` : `${order?.code ?? ''}, ${left} more to come`;
  return {
    state: { ...startSort, pending: state.pending },
    feedback: accepted(`${nameOf(own)}: ${spell(units, item.packs)}`, done),
    commands: [
      { kind: 'sort', id: now.id, round: task.round, orderId, itemId, lotId, units, fromPlaceId: toteId, slotPlaceId: own.placeId, how },
    ],
  };
}

function slotWords({ task, state }: Now, slot: WallSlot): string {
  const order = orderAt(task, state, slot);
  if (!order) return slot.busy ? 'Holds an order of another round' : 'Empty';
  const { left } = progressOf(task, state, order);
  return `${order.code}, ${order.customer}: ${left === 0 ? 'complete' : `${left} more to come`}`;
}

function otherPlace(now: Now, place: PlaceFacts): Result {
  const own = now.state.hand && slotById(now.task, now.state.hand.slotId);
  const detail = own ? `These go into ${nameOf(own).toLowerCase()}` : `Scan goods out of the totes at ${now.task.wall.code}`;
  return refuse(now.state, notThis(place.code, detail), now);
}

function notWanted(task: SortTask, item: ItemFacts, all: readonly SortGoods[], lot: string | null): Refusal {
  if (lot && all.length > 0) return notThis(`Lot ${lot}`, `Lot ${all[0]?.lot ?? ''} of ${item.name} is sorted here. Set this one apart`);
  const back = item.home ? `Put it back in ${item.home}` : 'Set it apart';
  return notThis(item.name, `No order of ${task.round} wants it, or wants more of it. ${back}`);
}

/** What should be in a tote and is not: its order goes on without it, and the bin that it came from is counted. */
function onMissing({ task, book, state, id }: Now, input: Extract<SortInput, { kind: 'missing' }>): Result {
  const goods = toSort(task, state).find((g) => g.orderId === input.orderId && g.itemId === input.itemId && g.lotId === input.lotId);
  const item = goods && book.items[goods.itemId];
  if (!goods || !item) return stay(state);
  const { orderId, itemId, lotId, units, toteId } = goods;
  return {
    state: { ...startSort, pending: state.pending },
    feedback: accepted(`Missing: ${spell(units, item.packs)}`, `${item.name}. The bin that it came from will be counted`),
    commands: [{ kind: 'sort-missing', id, round: task.round, orderId, itemId, lotId, units, fromPlaceId: toteId }],
  };
}

const isSame = (a: string, b: string): boolean => a.trim().toUpperCase() === b.trim().toUpperCase();
