import type { ItemId, LotId, PlaceId, SiteId } from '../ids/index.js';
import { isFor } from '../places/index.js';
import { spell } from '../quantity/index.js';
import { accepted, refuse, stay } from './feedback.js';
import { flowOf, type FlowState, type Moment } from './flow.js';
import type { Meaning } from './resolve.js';
import type { Codebook, How, ItemFacts, PlaceFacts, Refusal, Step } from './types.js';

/** Goods that stand at the dock or on a cart and want a bin. */
export interface StandingGoods {
  itemId: ItemId;
  lotId: LotId;
  lot: string | null;
  units: number;
  fromPlaceId: PlaceId;
  fromCode: string;
  /** Where to, why, and how many of them; null where the house has no room it can name. */
  suggestion: { code: string; reason: string; units: number } | null;
  /** Bins for what the first has no room for. */
  then: readonly { code: string; units: number }[];
}

export interface StoreTask {
  siteId: SiteId;
  /** In the order of a short walk from where they stand. */
  goods: readonly StandingGoods[];
  /** Metres of that walk. */
  metres: number;
}

export interface StoreCommand {
  kind: 'store';
  id: string;
  itemId: ItemId;
  lotId: LotId;
  units: number;
  fromPlaceId: PlaceId;
  toPlaceId: PlaceId;
  how: How;
}

export interface StoreState extends FlowState<StoreCommand> {
  /**
   * The goods in hand, by `goodsKey`, and how many: all that stood there when they were scanned, or as many as were counted.
   * `of` is what stood there then.
   */
  hand: { goods: string; units: number; of: number } | null;
  /** The dock or cart that was scanned: only what stands there is meant. Null for all. */
  from: PlaceId | null;
  /** The empty cart that was scanned: goods that are scanned now go onto it. Null while none is loaded. */
  onto: PlaceFacts | null;
}

export interface StoreInput {
  kind: 'count';
  id: string;
  packId: number;
  count: number;
}

export const startStore: StoreState = { hand: null, from: null, onto: null, pending: [] };

export function goodsKey(g: Pick<StandingGoods, 'itemId' | 'lotId' | 'fromPlaceId'>): string {
  return `${g.itemId}/${g.lotId}/${g.fromPlaceId}`;
}

/** What still stands there, less what this phone has put away and not yet heard back about. */
export function standing(task: StoreTask, state: Pick<StoreState, 'pending'>, key: string): number {
  const there = task.goods.find((g) => goodsKey(g) === key)?.units ?? 0;
  return state.pending.reduce((left, c) => left - (goodsKey(c) === key ? c.units : 0), there);
}

/** The goods in hand, where they are among those that wait. */
export const goodsHeld = (task: StoreTask, state: Pick<StoreState, 'hand'>): StandingGoods | undefined =>
  task.goods.find((g) => goodsKey(g) === state.hand?.goods);

/** What waits to be put away, at the place that was scanned or anywhere. */
export function waitingGoods(task: StoreTask, state: StoreState): StandingGoods[] {
  return task.goods.filter(
    (g) =>
      (state.from === null || g.fromPlaceId === state.from) && g.fromPlaceId !== state.onto?.id && standing(task, state, goodsKey(g)) > 0,
  );
}

/** The rule for putting goods into a place. `standingUnits` is what stands where they come from. */
export function checkStore(
  siteId: SiteId,
  item: ItemFacts,
  place: PlaceFacts | undefined,
  units: number,
  standingUnits: number,
): Refusal | null {
  if (!place) return { band: 'unknown', title: 'No such place', detail: 'Scan the label of a bin' };
  if (place.siteId !== siteId) return { band: 'not-this', title: place.code, detail: 'This place is at another site' };
  if (!isFor(place.kind, 'store'))
    return { band: 'not-this', title: place.code, detail: `Not a bin. Scan the bin that the ${item.name} goes into` };
  // A cart is on its way; zones are for where goods stay.
  const zone = isFor(place.kind, 'shelf') ? zoneRefusal(item, place) : null;
  if (zone) return zone;
  return Number.isSafeInteger(units) && units > 0 && units <= standingUnits ? null : notThatMany(item, standingUnits);
}

function notThatMany(item: ItemFacts, standingUnits: number): Refusal {
  return {
    band: 'too-many',
    title: `Only ${spell(Math.max(0, standingUnits), item.packs)} here`,
    detail: `${item.name}: count again, or put away what is there`,
  };
}

/** Goods that need cold stand only in cold zones; restricted zones hold restricted goods, and these stand nowhere else. */
export function zoneRefusal(item: Pick<ItemFacts, 'name' | 'storage'>, place: Pick<PlaceFacts, 'code' | 'rule'>): Refusal | null {
  const [needs, rule] = [item.storage ?? 'any', place.rule ?? 'none'];
  if (needs === 'cold' && rule !== 'cold')
    return { band: 'not-this', title: place.code, detail: `${item.name} must stand cold. Scan a bin of a cold zone` };
  if (needs === 'restricted' && rule !== 'restricted')
    return { band: 'not-this', title: place.code, detail: `${item.name} must be locked away. Scan a bin of a restricted zone` };
  if (rule === 'restricted' && needs !== 'restricted')
    return { band: 'not-this', title: place.code, detail: `Only restricted goods stand here. Scan another bin for ${item.name}` };
  return null;
}

type Result = Step<StoreState, StoreCommand>;
type Now = Moment<StoreTask, StoreState>;

/** Putting away: the goods, then the bin. */
export const store = flowOf<StoreTask, StoreState, StoreInput, StoreCommand>({
  kind: 'store',
  start: startStore,
  owns: ['store'],
  emptied: (state) => ({ ...state, hand: null, onto: null }),
  strays({ task, book, state }) {
    if (!state.hand) return null;
    const item = handItem(task, book, state);
    const left = standing(task, state, state.hand.goods);
    if (left >= state.hand.of || state.hand.units <= left) return null;
    return item
      ? notThatMany(item, left)
      : { band: 'not-this', title: 'Gone meanwhile', detail: 'Somebody has moved these goods. Scan them again' };
  },
  item: onItem,
  place: (now, place) => intoPlace(now, place),
  cards: {},
  inputs: {
    count({ task, book, state }, input) {
      const pack = handItem(task, book, state)?.packs.find((p) => p.id === input.packId);
      if (!pack || !state.hand) return stay(state);
      const of = standing(task, state, state.hand.goods);
      return stay({ ...state, hand: { ...state.hand, units: input.count * pack.factor, of } });
    },
  },
});

function handItem(task: StoreTask, book: Codebook, state: StoreState): ItemFacts | undefined {
  const goods = goodsHeld(task, state);
  return goods && book.items[goods.itemId];
}

function onItem({ task, state, ...now }: Now, { item, lot }: Extract<Meaning, { kind: 'item' }>): Result {
  const goods = waitingGoods(task, state).find((g) => g.itemId === item.id && (!lot || g.lot === lot));
  if (!goods) {
    const home = item.home ? `Belongs in ${item.home}` : 'It has no home here yet';
    return refuse(state, { band: 'not-this', title: item.name, detail: `None waits to be put away. ${home}` }, now);
  }
  const left = standing(task, state, goodsKey(goods));
  if (state.onto)
    return intoPlace({ task, state: { ...state, hand: { goods: goodsKey(goods), units: left, of: left } }, ...now }, state.onto);
  const where = goods.suggestion ? `to ${goods.suggestion.code}: ${whyThere(goods, left, item)}` : 'scan any free bin';
  return stay(
    { ...state, hand: { goods: goodsKey(goods), units: left, of: left } },
    accepted(item.name, `${spell(left, item.packs)}, ${where}`),
  );
}

/** Why goods go where they are sent, and how many of them, where that bin has not room for all. */
export function whyThere(goods: StandingGoods, left: number, item: Pick<ItemFacts, 'packs'>): string {
  const { reason = '', units = 0 } = goods.suggestion ?? {};
  return units < left ? `${reason}, which has room for ${spell(units, item.packs)}` : reason;
}

function intoPlace({ task, book, state, ...now }: Now, place: PlaceFacts): Result {
  const goods = goodsHeld(task, state);
  const item = goods && book.items[goods.itemId];
  if (!goods || !item || !state.hand) {
    return isFor(place.kind, 'wait')
      ? fromPlace(task, state, now, place)
      : refuse(state, { band: 'not-this', title: place.code, detail: 'Scan the goods first, then the bin' }, now);
  }
  if (place.id === goods.fromPlaceId)
    return refuse(state, { band: 'not-this', title: place.code, detail: `${item.name} stands here already. Scan where it goes` }, now);
  const { units } = state.hand;
  const refusal = checkStore(task.siteId, item, place, units, standing(task, state, goodsKey(goods)));
  if (refusal) return refuse(state, refusal, now);
  return {
    state: { ...state, hand: null },
    feedback: accepted(spell(units, item.packs), `${item.name}, in ${place.code}`),
    commands: [
      {
        kind: 'store',
        id: now.id,
        itemId: item.id,
        lotId: goods.lotId,
        units,
        fromPlaceId: goods.fromPlaceId,
        toPlaceId: place.id,
        how: now.how,
      },
    ],
  };
}

/** Keeps to the goods of one cart or dock. */
function fromPlace(task: StoreTask, state: StoreState, now: { id: string; code?: string; how: How }, place: PlaceFacts): Result {
  const next = { ...state, from: place.id, onto: null };
  const lots = waitingGoods(task, next).length;
  if (lots === 0 && place.kind === 'cart' && place.siteId === task.siteId)
    return stay({ ...state, from: null, onto: place }, accepted(place.code, 'It is empty. What is scanned now goes onto it'));
  if (lots === 0) return refuse(state, { band: 'not-this', title: place.code, detail: 'Nothing here waits to be put away' }, now);
  return stay(next, accepted(place.code, `${lots} to put away from here`));
}
