import { spell } from '../quantity/index.js';
import { accepted, refuse, stay, unknownCode } from './feedback.js';
import { resolve } from './resolve.js';
import type { Codebook, How, ItemFacts, PlaceFacts, Refusal, ScanInput, Step } from './types.js';

/** Goods that stand at the dock or on a cart and want a bin. */
export interface StandingGoods {
  itemId: number;
  lotId: number;
  lot: string | null;
  units: number;
  fromPlaceId: number;
  fromCode: string;
  /** Where to, why, and how many of them; null where the house has no room it can name. */
  suggestion: { code: string; reason: string; units: number } | null;
  /** Bins for what the first has no room for. */
  then: readonly { code: string; units: number }[];
}

export interface StoreTask {
  siteId: number;
  /** In the order of a short walk from where they stand. */
  goods: StandingGoods[];
  /** Metres of that walk. */
  metres: number;
}

export interface StoreCommand {
  kind: 'store';
  id: string;
  itemId: number;
  lotId: number;
  units: number;
  fromPlaceId: number;
  toPlaceId: number;
  how: How;
}

export interface StoreState {
  /** The goods in hand, by their place in the task's list key. */
  hand: string | null;
  /** Typed quantity in base units; null means all that stands there. */
  units: number | null;
  /** The dock or cart that was scanned: only what stands there is meant. Null for all. */
  from: number | null;
  pending: { id: string; goods: string; units: number }[];
}

export const startStore: StoreState = { hand: null, units: null, from: null, pending: [] };

export function goodsKey(g: Pick<StandingGoods, 'itemId' | 'lotId' | 'fromPlaceId'>): string {
  return `${g.itemId}/${g.lotId}/${g.fromPlaceId}`;
}

/** What still stands there, less what this phone has put away and not yet heard back about. */
export function standing(task: StoreTask, state: StoreState, key: string): number {
  const there = task.goods.find((g) => goodsKey(g) === key)?.units ?? 0;
  return state.pending.reduce((left, p) => left - (p.goods === key ? p.units : 0), there);
}

const SHELVES = new Set(['pick-face', 'reserve', 'cart']);
/** Where goods stand before they have a bin. */
export const WAITING: ReadonlySet<string> = new Set(['dock', 'cart', 'inspection', 'quarantine']);

/** What waits to be put away, at the place that was scanned or anywhere. */
export function waitingGoods(task: StoreTask, state: StoreState): StandingGoods[] {
  return task.goods.filter((g) => (state.from === null || g.fromPlaceId === state.from) && standing(task, state, goodsKey(g)) > 0);
}

/** The rule for putting goods into a place. `standingUnits` is what stands where they come from. */
export function checkStore(
  siteId: number,
  item: ItemFacts,
  place: PlaceFacts | undefined,
  units: number,
  standingUnits: number,
): Refusal | null {
  if (!place) return { band: 'unknown', title: 'No such place', detail: 'Scan the label of a bin' };
  if (place.siteId !== siteId) return { band: 'not-this', title: place.code, detail: 'This place is at another site' };
  if (!SHELVES.has(place.kind))
    return {
      band: 'not-this',
      title: place.code,
      detail: `Not a bin. Scan the bin that the ${item.name} goes into`,
    };
  // A cart is on its way; zones are for where goods stay.
  const zone = place.kind === 'cart' ? null : zoneRefusal(item, place);
  if (zone) return zone;
  if (!Number.isSafeInteger(units) || units <= 0 || units > standingUnits) {
    return {
      band: 'too-many',
      title: `Only ${spell(Math.max(0, standingUnits), item.packs)} here`,
      detail: `${item.name}: count again, or put away what is there`,
    };
  }
  return null;
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

/** What one input means while putting away. Pure; O(goods + length of the code). */
export function store(task: StoreTask, book: Codebook, state: StoreState, input: ScanInput): Result {
  switch (input.kind) {
    case 'code':
      return onCode(task, book, state, input);
    case 'count': {
      const item = handItem(task, book, state);
      const pack = item?.packs.find((p) => p.id === input.packId);
      return stay(pack ? { ...state, units: input.count * pack.factor } : state);
    }
    case 'clear':
      return stay({ ...state, hand: null, units: null });
    case 'settled':
      return stay({ ...state, pending: state.pending.filter((p) => p.id !== input.id) });
    case 'text':
    case 'confirm':
    case 'not-here':
    case 'condition':
    case 'answer':
    case 'tie':
    case 'check':
      return stay(state);
  }
}

function handItem(task: StoreTask, book: Codebook, state: StoreState): ItemFacts | undefined {
  const goods = task.goods.find((g) => goodsKey(g) === state.hand);
  return goods && book.items[goods.itemId];
}

function onCode(task: StoreTask, book: Codebook, state: StoreState, input: Extract<ScanInput, { kind: 'code' }>): Result {
  const meaning = resolve(input.code, book);
  switch (meaning.kind) {
    case 'item': {
      const goods = waitingGoods(task, state).find((g) => g.itemId === meaning.item.id && (!meaning.lot || g.lot === meaning.lot));
      if (!goods) {
        const home = meaning.item.home ? `Belongs in ${meaning.item.home}` : 'It has no home here yet';
        return refuse(state, { band: 'not-this', title: meaning.item.name, detail: `None waits to be put away. ${home}` }, input);
      }
      const left = standing(task, state, goodsKey(goods));
      const where = goods.suggestion ? `to ${goods.suggestion.code}: ${whyThere(goods, left, meaning.item)}` : 'scan any free bin';
      return stay(
        { ...state, hand: goodsKey(goods), units: null },
        accepted(meaning.item.name, `${spell(left, meaning.item.packs)}, ${where}`),
      );
    }
    case 'place':
      return intoPlace(task, book, state, input, meaning.place);
    case 'command':
      return meaning.command === 'undo' ? { ...stay<StoreState, StoreCommand>(state), undo: true } : stay(state);
    case 'pallet':
      return refuse(state, unknownCode(meaning.sscc), input);
    case 'unknown':
      return refuse(state, unknownCode(meaning.code), input);
  }
}

/** Why goods go where they are sent, and how many of them, where that bin has not room for all. */
export function whyThere(goods: StandingGoods, left: number, item: Pick<ItemFacts, 'packs'>): string {
  const { reason = '', units = 0 } = goods.suggestion ?? {};
  return units < left ? `${reason}, which has room for ${spell(units, item.packs)}` : reason;
}

function intoPlace(
  task: StoreTask,
  book: Codebook,
  state: StoreState,
  input: Extract<ScanInput, { kind: 'code' }>,
  place: PlaceFacts,
): Result {
  const goods = task.goods.find((g) => goodsKey(g) === state.hand);
  const item = goods && book.items[goods.itemId];
  if (!goods || !item) {
    return WAITING.has(place.kind)
      ? fromPlace(task, state, input, place)
      : refuse(state, { band: 'not-this', title: place.code, detail: 'Scan the goods first, then the bin' }, input);
  }
  if (place.id === goods.fromPlaceId)
    return refuse(state, { band: 'not-this', title: place.code, detail: `${item.name} stands here already. Scan where it goes` }, input);
  const left = standing(task, state, goodsKey(goods));
  const units = state.units ?? left;
  const refusal = checkStore(task.siteId, item, place, units, left);
  if (refusal) return refuse(state, refusal, input);
  return {
    state: {
      hand: null,
      units: null,
      from: state.from,
      pending: [...state.pending, { id: input.id, goods: goodsKey(goods), units }],
    },
    feedback: accepted(spell(units, item.packs), `${item.name}, in ${place.code}`),
    commands: [
      {
        kind: 'store',
        id: input.id,
        itemId: item.id,
        lotId: goods.lotId,
        units,
        fromPlaceId: goods.fromPlaceId,
        toPlaceId: place.id,
        how: input.how,
      },
    ],
  };
}

/** Keeps to the goods of one cart or dock. */
function fromPlace(task: StoreTask, state: StoreState, input: Extract<ScanInput, { kind: 'code' }>, place: PlaceFacts): Result {
  const next = { ...state, from: place.id };
  const lots = waitingGoods(task, next).length;
  if (lots === 0) return refuse(state, { band: 'not-this', title: place.code, detail: 'Nothing here waits to be put away' }, input);
  return stay(next, accepted(place.code, `${lots} ${lots === 1 ? 'lot' : 'lots'} of goods to put away from here`));
}
