import type { ItemId, LotId, PlaceId, SiteId } from '../ids/index.js';
import { commaLot, goodsWords, spell } from '../quantity/index.js';
import { normalCode } from '../barcode/index.js';
import { isFor } from '../places/index.js';
import { accepted, refuse, stay, unknownCode } from './feedback.js';
import { flowOf, type FlowState, type Moment } from './flow.js';
import type { Meaning } from './resolve.js';
import { zoneRefusal } from './store.js';
import type { How, ItemFacts, PlaceFacts, Refusal, Step } from './types.js';

/** Goods of one lot that are on the road to this site. */
export interface GoodsOnRoad {
  goodsId: number;
  itemId: ItemId;
  lotId: LotId;
  lot: string | null;
  sent: number;
  /** Good and damaged ones together. */
  received: number;
}
/** A parcel in which they come. */
export interface ParcelOnRoad {
  code: string;
  tracking: string | null;
  isHere: boolean;
}
export interface TakeInTask {
  document: string;
  siteId: SiteId;
  from: string;
  dock: PlaceFacts;
  /** Where damaged goods stand apart; null where the site has no such place. */
  apart: PlaceFacts | null;
  goods: readonly GoodsOnRoad[];
  /** None where it came without parcels of its own. */
  parcels: readonly ParcelOnRoad[];
}

/** Goods have come from another site. */
export interface TakeInCommand {
  kind: 'take-in';
  id: string;
  document: string;
  goodsId: number;
  itemId: ItemId;
  lotId: LotId;
  units: number;
  isDamaged: boolean;
  toPlaceId: PlaceId;
  how: How;
}
/** A parcel of it stands at the dock. */
export interface ParcelHereCommand {
  kind: 'parcel-here';
  id: string;
  document: string;
  parcel: string;
}
/** Nothing more comes with it: what is missing is settled by the office. */
export interface TakeInCloseCommand {
  kind: 'take-in-close';
  id: string;
  document: string;
}
export type AnyTakeInCommand = TakeInCommand | ParcelHereCommand | TakeInCloseCommand;

export interface TakeInState extends FlowState<AnyTakeInCommand> {
  hand: { goodsId: number; units: number; isDamaged: boolean; how: How } | null;
  /** Where goods go; null means the dock. */
  to: PlaceFacts | null;
}
export type TakeInInput =
  | { kind: 'number'; id: string; units: number }
  | { kind: 'condition'; id: string; isDamaged: boolean }
  | { kind: 'choose'; id: string; goodsId: number }
  | { kind: 'confirm'; id: string }
  | { kind: 'close'; id: string };

export const startTakeIn: TakeInState = { hand: null, to: null, pending: [] };

type Result = Step<TakeInState, AnyTakeInCommand>;
type Now = Moment<TakeInTask, TakeInState>;
const notThis = (title: string, detail: string): Refusal => ({ band: 'not-this', title, detail });

/** What is still on the road of goods. */
export const onRoad = (goods: GoodsOnRoad, state: Pick<TakeInState, 'pending'>): number =>
  goods.sent - goods.received - state.pending.reduce((n, c) => n + (c.kind === 'take-in' && c.goodsId === goods.goodsId ? c.units : 0), 0);

/** The parcels that have not been scanned here. */
export const parcelsOnRoad = (task: Pick<TakeInTask, 'parcels'>, state: Pick<TakeInState, 'pending'>): ParcelOnRoad[] =>
  task.parcels.filter((p) => !p.isHere && !state.pending.some((c) => c.kind === 'parcel-here' && c.parcel === p.code));

/** Why goods cannot be taken in; null where they can. More than was sent is counted afterwards, where it lies. */
export function checkTakeIn(item: ItemFacts | undefined, left: number, units: number): Refusal | null {
  const [name, packs] = [item?.name ?? 'These goods', item?.packs ?? []];
  if (!Number.isSafeInteger(units) || units < 1) return notThis(name, 'Say how many have come, from one upwards');
  if (units > left)
    return {
      band: 'too-many',
      title: spell(units, packs),
      detail: `${left > 0 ? `Only ${spell(left, packs)} were sent` : 'All that was sent of it is in'}. Count again; what is too many is put right where it lies`,
    };
  return null;
}

/** Receiving from another site: goods, number, and a bin or the dock. */
export const takeIn = flowOf<TakeInTask, TakeInState, TakeInInput, AnyTakeInCommand>({
  kind: 'take-in',
  start: startTakeIn,
  owns: ['take-in', 'parcel-here', 'take-in-close'],
  emptied: (state) => ({ ...state, hand: null }),
  strays: () => null,
  item: onItem,
  place: (now, place) => {
    const { task, state } = now;
    if (place.siteId !== task.siteId) return refuse(state, notThis(place.code, 'This place is at another site'), now);
    if (!isFor(place.kind, 'receive') && !isFor(place.kind, 'apart'))
      return refuse(state, notThis(place.code, 'Goods are not booked in here. Scan a bin or the dock'), now);
    const next = { ...state, to: place.id === task.dock.id ? null : place };
    return state.hand && state.hand.units > 0
      ? book({ ...now, state: next })
      : stay(next, accepted(place.code, 'Goods go here until another place is scanned'));
  },
  pallet: (now, sscc) => onParcel(now, sscc) ?? refuse(now.state, unknownCode(sscc), now),
  unknown: (now, code) => {
    const parcel = onParcel(now, code);
    if (parcel) return parcel;
    const goods = now.task.goods.find((g) => g.lot === code && onRoad(g, now.state) > 0);
    return goods ? begin(now, goods, now.book.items[goods.itemId]?.tracking === 'serial' ? 1 : 0) : undefined;
  },
  cards: {
    confirm: (now) => book(now),
    damaged: ({ state }) =>
      stay(
        state.hand ? { ...state, hand: { ...state.hand, isDamaged: true } } : state,
        accepted('Damaged', 'Count what is damaged, then book it in'),
      ),
  },
  inputs: {
    number: (now, { units }) =>
      now.state.hand ? book({ ...now, state: { ...now.state, hand: { ...now.state.hand, units } } }) : stay(now.state),
    condition: ({ state }, { isDamaged }) => stay(state.hand ? { ...state, hand: { ...state.hand, isDamaged } } : state),
    choose: (now, { goodsId }) => {
      const goods = now.task.goods.find((g) => g.goodsId === goodsId);
      return goods ? begin(now, goods, 0) : stay(now.state);
    },
    confirm: (now) => book(now),
    close: ({ task, state, id }) => ({
      state: { ...state, hand: null },
      feedback: accepted(
        `${task.document} closed`,
        task.goods.every((g) => onRoad(g, state) <= 0) ? 'All that was sent is here' : 'What is missing is for the office to settle',
      ),
      commands: [{ kind: 'take-in-close', id, document: task.document }],
    }),
  },
});

/** Its own code or its carrier's number; undefined where it is neither. */
function onParcel({ task, state, id }: Now, scanned: string): Result | undefined {
  const code = normalCode(scanned);
  const parcel = task.parcels.find((p) => p.code === code || p.tracking?.toUpperCase() === code);
  if (!parcel) return undefined;
  const left = parcelsOnRoad(task, state);
  if (!left.includes(parcel)) return stay(state, accepted(parcel.code, 'This parcel was scanned already'));
  const rest = left.length - 1;
  return {
    state,
    feedback: accepted(
      `${parcel.code} is here`,
      rest === 0 ? 'All its parcels are here' : `${rest} ${rest === 1 ? 'parcel' : 'parcels'} still on the road`,
    ),
    commands: [{ kind: 'parcel-here', id, document: task.document, parcel: parcel.code }],
  };
}

function onItem(now: Now, { item, pack, lot, count }: Extract<Meaning, { kind: 'item' }>): Result {
  const { task, state } = now;
  const all = task.goods.filter((g) => g.itemId === item.id && (lot === null || g.lot === lot));
  const open = all.filter((g) => onRoad(g, state) > 0);
  if (all.length === 0)
    return refuse(
      state,
      notThis(
        item.name,
        lot ? `Lot ${lot} was not sent with ${task.document}` : `It was not sent with ${task.document}. Set it apart, and ask ${task.from}`,
      ),
      now,
    );
  const units = pack.factor * (count ?? 1);
  const same = open.find((g) => g.goodsId === state.hand?.goodsId);
  if (same && state.hand)
    return stay(
      { ...state, hand: { ...state.hand, units: state.hand.units + units, how: now.how } },
      accepted(item.name, `${spell(state.hand.units + units, item.packs)} counted`),
    );
  if (state.hand && state.hand.units > 0) {
    const before = book(now);
    if (before.commands.every((c) => c.kind === 'refused')) return before;
    const then = onItem(
      { ...now, state: { ...before.state, pending: [...before.state.pending, ...(before.commands as AnyTakeInCommand[])] } },
      { kind: 'item', item, pack, lot, count, expires: null, sscc: null, serial: null },
    );
    return { ...then, state: { ...then.state, pending: before.state.pending }, commands: before.commands };
  }
  if (open.length > 1 && lot === null)
    return refuse(state, notThis(item.name, 'Several lots of it were sent. Choose below which one it is, or scan its lot'), now);
  const goods = open[0] ?? all[0];
  return goods ? begin(now, goods, units) : stay(state);
}

function begin({ state, book: codes, how }: Now, goods: GoodsOnRoad, units: number): Result {
  const item = codes.items[goods.itemId];
  return stay(
    { ...state, hand: { goodsId: goods.goodsId, units, isDamaged: false, how } },
    accepted(
      item?.name ?? '',
      `${units > 0 ? `${spell(units, item?.packs ?? [])} counted` : 'How many have come?'}${commaLot(item, goods.lot)}`,
    ),
  );
}

function book(now: Now): Result {
  const { task, state, id } = now;
  const goods = task.goods.find((g) => g.goodsId === state.hand?.goodsId);
  if (!state.hand || !goods) return stay(state);
  const item = now.book.items[goods.itemId];
  const { units, isDamaged, how } = state.hand;
  const to = isDamaged ? (task.apart ?? task.dock) : (state.to ?? task.dock);
  const refusal = checkTakeIn(item, onRoad(goods, state), units) ?? (item && isFor(to.kind, 'shelf') ? zoneRefusal(item, to) : null);
  if (refusal) return refuse({ ...state, hand: { ...state.hand, units: 0 } }, refusal, now);
  return {
    state: { ...state, hand: null },
    feedback: accepted(item ? goodsWords(units, item) : '', `${isDamaged ? 'damaged, ' : ''}to ${to.code}${commaLot(item, goods.lot)}`),
    commands: [
      {
        kind: 'take-in',
        id,
        document: task.document,
        goodsId: goods.goodsId,
        itemId: goods.itemId,
        lotId: goods.lotId,
        units,
        isDamaged,
        toPlaceId: to.id,
        how,
      },
    ],
  };
}
