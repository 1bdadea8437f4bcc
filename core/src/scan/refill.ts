import type { PlaceId, SiteId } from '../ids/index.js';
import { isFor } from '../places/index.js';
import { spell } from '../quantity/index.js';
import { accepted, refuse, stay } from './feedback.js';
import { flowOf, type FlowState, type Moment } from './flow.js';
import type { Meaning } from './resolve.js';
import type { ReportSpotCommand } from './spot-count.js';
import { checkStore, goodsKey, type StandingGoods, type StoreCommand, whyThere } from './store.js';
import type { How, ItemFacts, PlaceFacts, Refusal, Step } from './types.js';

/** Goods of the reserve that are wanted where pickers go; `units` are those to bring. */
export interface RefillGoods extends StandingGoods {
  /** All that may be taken from there. */
  there: number;
  /** Orders that cannot be picked before. */
  orders: number;
  /** ISO time at which the soonest of them leaves; null where only the pick face runs low. */
  leavesAt: string | null;
}

export interface RefillTask {
  siteId: SiteId;
  /** What holds up the soonest departure first; those of one departure in the order of a short walk. */
  goods: readonly RefillGoods[];
  /** Metres of that walk. */
  metres: number;
  /** Further goods to bring, once these are brought. */
  more: number;
}

export type RefillCommand = StoreCommand | ReportSpotCommand;

export interface RefillState extends FlowState<RefillCommand> {
  /** The bin that was scanned: goods are taken from there. */
  from: PlaceId | null;
  /** Goods in hand, by `goodsKey`, how many, and whether their lot was scanned or chosen. */
  hand: { goods: string; units: number; lotSeen: boolean; how: How } | null;
  /** The goods of which too few lie there, by `goodsKey`, while somebody counts how many. */
  asks: string | null;
}

export type RefillInput =
  | { kind: 'count'; id: string; packId: number; count: number }
  /** The lot or serial number that the person reads on the goods, chosen by key. */
  | { kind: 'lot'; id: string; lot: string }
  /** Too few lie there. */
  | { kind: 'not-here'; id: string }
  /** How many units are there. */
  | { kind: 'there'; id: string; units: number };

export const startRefill: RefillState = { from: null, hand: null, asks: null, pending: [] };

/** What this phone has taken of goods and not yet heard back about. */
const taken = (state: Pick<RefillState, 'pending'>, key: string): number =>
  state.pending.reduce((n, c) => (c.kind === 'store' && goodsKey(c) === key ? n + c.units : n), 0);

/** What lies there by the books, or as somebody has just said. */
function lying(state: Pick<RefillState, 'pending'>, goods: RefillGoods): number {
  const reports = state.pending.filter((c) => c.kind === 'report-spot');
  const said = reports.find((c) => goodsKey({ ...c, fromPlaceId: c.placeId }) === goodsKey(goods));
  return said ? Math.min(said.there, goods.there) : goods.there;
}

/** Units of goods that are still to be brought. */
export const toBring = (state: Pick<RefillState, 'pending'>, goods: RefillGoods): number =>
  Math.max(0, Math.min(goods.units, lying(state, goods)) - taken(state, goodsKey(goods)));

/** What is still to be brought, from the bin that was scanned or from all. */
export function goodsToBring(task: RefillTask, state: Pick<RefillState, 'pending' | 'from'>): RefillGoods[] {
  return task.goods.filter((g) => (state.from === null || g.fromPlaceId === state.from) && toBring(state, g) > 0);
}

/** The goods in hand, else those that are next: at the bin that was scanned, or at the first of the walk. */
export function refillAtHand(task: RefillTask, state: RefillState): RefillGoods | undefined {
  const held = task.goods.find((g) => goodsKey(g) === state.hand?.goods);
  return held ?? goodsToBring(task, state)[0] ?? goodsToBring(task, { ...state, from: null })[0];
}

type Result = Step<RefillState, RefillCommand>;
type Now = Moment<RefillTask, RefillState>;

const notThis = (title: string, detail: string): Refusal => ({ band: 'not-this', title, detail });

/** Refilling: the bin of the reserve, the goods, then the pick face, or a cart on the way to it. */
export const refill = flowOf<RefillTask, RefillState, RefillInput, RefillCommand>({
  kind: 'refill',
  start: startRefill,
  owns: ['store', 'report-spot'],
  emptied: (state) => ({ ...state, hand: null, asks: null }),
  strays({ task, book, state }) {
    if (!state.hand) return null;
    const goods = task.goods.find((g) => goodsKey(g) === state.hand?.goods);
    if (!goods) return notThis('Brought already', 'Somebody has brought these goods meanwhile. Put back what you hold');
    const left = goods.there - taken(state, state.hand.goods);
    if (state.hand.units <= left) return null;
    const item = book.items[goods.itemId];
    return {
      band: 'too-many',
      title: goods.fromCode,
      detail: `Only ${spell(Math.max(0, left), item?.packs ?? [])} left there. Scan them again`,
    };
  },
  item: onItem,
  place: (now, place) => (now.state.hand ? intoPlace(now, place) : fromBin(now, place)),
  unknown: (now, code) => (now.state.hand && !now.state.hand.lotSeen ? onLot(now, code) : undefined),
  // By cards alone: too few here, and confirmed that none is.
  cards: { 'not-here': tooFew, confirm: (now) => onThere(now, 0) },
  inputs: {
    'not-here': tooFew,
    there: (now, input) => onThere(now, input.units),
    count({ task, book, state, ...now }, input) {
      const goods = refillAtHand(task, state);
      const item = goods && book.items[goods.itemId];
      const pack = item?.packs.find((p) => p.id === input.packId);
      if (!goods || !item || !pack || !state.hand) return stay(state);
      const units = input.count * pack.factor;
      const there = goods.there - taken(state, state.hand.goods);
      if (units > there) return refuse(state, tooMany(item, goods, there), now);
      return stay({ ...state, hand: { ...state.hand, units } });
    },
    lot: (now, input) => onLot(now, input.lot),
  },
});

const tooMany = (item: ItemFacts, goods: RefillGoods, there: number): Refusal => ({
  band: 'too-many',
  title: `Only ${spell(Math.max(0, there), item.packs)} here`,
  detail: `${item.name}: take what lies in ${goods.fromCode}, or count again`,
});

function fromBin({ task, book, state, ...now }: Now, place: PlaceFacts): Result {
  const [first] = goodsToBring(task, { ...state, from: place.id });
  if (!first) {
    const next = goodsToBring(task, { ...state, from: null })[0];
    const detail = next ? `Nothing to bring from here. Go to ${next.fromCode}` : 'Nothing more to bring';
    return refuse(state, notThis(place.code, detail), now);
  }
  const item = book.items[first.itemId];
  const what = item ? `${spell(toBring(state, first), item.packs)} of ${item.name}` : 'the goods';
  return stay({ ...state, from: place.id }, accepted(`Bin ${place.code}`, `Take ${what}`));
}

function onItem({ task, book, state, ...now }: Now, { item, lot }: Extract<Meaning, { kind: 'item' }>): Result {
  if (state.from === null) {
    const next = refillAtHand(task, state);
    return refuse(state, notThis(item.name, next ? `Scan the bin first: ${next.fromCode}` : 'Nothing more to bring'), now);
  }
  const here = goodsToBring(task, state);
  const ofItem = here.filter((g) => g.itemId === item.id);
  const goods = ofItem.find((g) => lot === null || g.lot === lot);
  if (!goods) return refuse(state, wrongGoods(item, lot, ofItem[0], here[0], book.items[here[0]?.itemId ?? 0]), now);
  const units = toBring(state, goods);
  const lotSeen = goods.lot === null || lot === goods.lot;
  const next: RefillState = { ...state, hand: { goods: goodsKey(goods), units, lotSeen, how: now.how } };
  return stay(
    next,
    accepted(item.name, lotSeen ? whereTo(goods, units, item) : `Which lot is it? Scan ${goods.lot ?? ''} on the goods, or choose it`),
  );
}

function wrongGoods(
  item: ItemFacts,
  lot: string | null,
  due: RefillGoods | undefined,
  next: RefillGoods | undefined,
  nextItem: ItemFacts | undefined,
): Refusal {
  if (due) return notThis(`Lot ${lot ?? ''}`, `Lot ${due.lot ?? ''} of ${item.name} is due first. Take that one`);
  return notThis(item.name, next && nextItem ? `Not wanted. Take ${nextItem.name} here` : 'Nothing more to bring from here');
}

const whereTo = (goods: RefillGoods, units: number, item: ItemFacts): string =>
  `${spell(units, item.packs)}, ${goods.suggestion ? `to ${goods.suggestion.code}: ${whyThere(goods, units, item)}` : 'to any free bin that is open to picking'}`;

/** Too few lie there: how many is counted next. */
function tooFew({ task, state, ...now }: Now): Result {
  const goods = refillAtHand(task, state);
  if (!goods) return stay(state);
  if (state.hand) return refuse(state, notThis('Goods in hand', 'Say how many you have, or let them go'), now);
  if (state.from !== goods.fromPlaceId) return refuse(state, notThis(goods.fromCode, 'Scan the bin first'), now);
  return stay({ ...state, asks: goodsKey(goods) });
}

/** How many somebody has seen of goods that the books have more of. */
function onThere({ task, book, state, ...now }: Now, there: number): Result {
  const goods = task.goods.find((g) => goodsKey(g) === state.asks);
  if (!goods || !Number.isSafeInteger(there) || there < 0) return stay(state);
  const item = book.items[goods.itemId];
  const wanted = toBring(state, goods);
  if (there >= wanted) {
    const detail = `${spell(wanted, item?.packs ?? [])} wanted, so that is enough. Scan the goods`;
    return stay({ ...state, asks: null }, notThis(goods.fromCode, detail));
  }
  const { itemId, lotId, fromPlaceId: placeId } = goods;
  return {
    state: { ...state, asks: null },
    feedback: accepted('Too few', `${goods.fromCode} will be counted. ${there > 0 ? 'Take those that are there' : 'Go on to the next'}`),
    commands: [{ kind: 'report-spot', id: now.id, itemId, lotId, placeId, there, how: 'typed' }],
  };
}

function onLot({ task, book, state, ...now }: Now, text: string): Result {
  const goods = task.goods.find((g) => goodsKey(g) === state.hand?.goods);
  const item = goods && book.items[goods.itemId];
  if (!goods || !item || !state.hand || goods.lot === null) return stay(state);
  const lot = text.trim();
  if (lot.toUpperCase() !== goods.lot.toUpperCase())
    return refuse(state, notThis(`Lot ${lot}`, `Lot ${goods.lot} of ${item.name} is due first. Take that one`), now);
  return stay({ ...state, hand: { ...state.hand, lotSeen: true } }, accepted(`Lot ${goods.lot}`, whereTo(goods, state.hand.units, item)));
}

function intoPlace({ task, book, state, ...now }: Now, place: PlaceFacts): Result {
  const goods = task.goods.find((g) => goodsKey(g) === state.hand?.goods);
  const item = goods && book.items[goods.itemId];
  if (!goods || !item || !state.hand) return stay(state);
  const { units, lotSeen } = state.hand;
  if (!lotSeen) return refuse(state, notThis('Which lot is it?', `Scan ${goods.lot ?? ''} on the goods, or choose it`), now);
  if (place.id === goods.fromPlaceId)
    return refuse(
      state,
      notThis(place.code, `${item.name} comes from here. Scan ${goods.suggestion?.code ?? 'the bin that it goes into'}`),
      now,
    );
  if (isFor(place.kind, 'shelf') && place.kind === 'reserve')
    return refuse(
      state,
      notThis(place.code, `Nobody picks from here. Scan ${goods.suggestion?.code ?? 'a bin that is open to picking'}`),
      now,
    );
  const refusal = checkStore(task.siteId, item, place, units, goods.there - taken(state, state.hand.goods));
  if (refusal) return refuse(state, refusal, now);
  const isCart = !isFor(place.kind, 'shelf');
  const then = isCart && goods.suggestion ? `, for ${goods.suggestion.code}` : '';
  return {
    state: { ...state, hand: null },
    feedback: accepted(spell(units, item.packs), `${item.name}, ${isCart ? 'on' : 'in'} ${place.code}${then}`),
    commands: [
      {
        kind: 'store',
        id: now.id,
        itemId: goods.itemId,
        lotId: goods.lotId,
        units,
        fromPlaceId: goods.fromPlaceId,
        toPlaceId: place.id,
        how: state.hand.how,
      },
    ],
  };
}
