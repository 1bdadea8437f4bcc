import type { ItemId, LotId, OrderId, PackId, PlaceId, SiteId } from '../ids/index.js';
import type { FlowState } from './flow.js';
import type { SpareGoods } from './pack-task.js';
import type { How } from './types.js';

/** Goods of one lot in a shared tote that are for one order. Units are base units. */
export interface SortGoods {
  orderId: OrderId;
  itemId: ItemId;
  lotId: LotId;
  lot: string | null;
  toteId: PlaceId;
  tote: string;
  units: number;
}

export interface SortOrder {
  id: OrderId;
  code: string;
  customer: string;
  /** Base units of it in the wall already. */
  sorted: number;
}

/** A slot of the wall. Slots are in the order in which they hang: rows from the top, each from the left. */
export interface WallSlot {
  placeId: PlaceId;
  code: string;
  /** The number on it, from 1. */
  number: number;
  /** The order of this round that it holds; null where it holds none of them. */
  orderId: OrderId | null;
  /** It holds an order of another round, or may not be used. */
  busy: boolean;
}

/** What a pooled round's totes hold, at the wall where they stand. */
export interface SortTask {
  round: string;
  siteId: SiteId;
  wall: { id: PlaceId; code: string; columns: number };
  slots: readonly WallSlot[];
  /** The orders of the round, the one that was promised soonest first. */
  orders: readonly SortOrder[];
  goods: readonly SortGoods[];
  /** What nobody wants any more; absent where nothing is. */
  spare?: readonly SpareGoods[];
}

/** Goods out of a shared tote into the slot of their order, which is given it with the first of them. */
export interface SortCommand {
  kind: 'sort';
  id: string;
  round: string;
  orderId: OrderId;
  itemId: ItemId;
  lotId: LotId;
  units: number;
  fromPlaceId: PlaceId;
  slotPlaceId: PlaceId;
  how: How;
}

/** Goods that should be in a shared tote and are not. */
export interface SortMissingCommand {
  kind: 'sort-missing';
  id: string;
  round: string;
  orderId: OrderId;
  itemId: ItemId;
  lotId: LotId;
  units: number;
  fromPlaceId: PlaceId;
}

export type SortCommands = SortCommand | SortMissingCommand;

/** Goods in hand for one order; `before` were counted in other packs than the one that is counted now. */
export interface SortHand {
  orderId: OrderId;
  itemId: ItemId;
  lotId: LotId;
  toteId: PlaceId;
  slotId: PlaceId;
  units: number;
  packId: PackId;
  before: number;
  keyed: boolean;
  how: How;
}

export interface SortState extends FlowState<SortCommands> {
  hand: SortHand | null;
  /** Goods of which several lots are to be sorted: which one is in hand is asked first. */
  asksLotOf: { itemId: ItemId; packId: PackId; how: How } | null;
}

export type SortInput =
  | { kind: 'count'; id: string; packId: PackId; count: number }
  /** The lot or serial number that the person reads on the goods. */
  | { kind: 'lot'; id: string; lot: string }
  /** What is in no tote although it should be: all that is left of one kind of goods for one order. */
  | { kind: 'missing'; id: string; orderId: OrderId; itemId: ItemId; lotId: LotId };

export const startSort: SortState = { hand: null, asksLotOf: null, pending: [] };

type Pending = Pick<SortState, 'pending'>;

const sent = (state: Pending, g: SortGoods): number =>
  state.pending.reduce(
    (n, c) => n + (c.orderId === g.orderId && c.itemId === g.itemId && c.lotId === g.lotId && c.fromPlaceId === g.toteId ? c.units : 0),
    0,
  );

/** What is still in the totes, with what this device has posted and not yet heard back about. */
export const toSort = (task: SortTask, state: Pending): SortGoods[] =>
  task.goods.map((g) => ({ ...g, units: g.units - sent(state, g) })).filter((g) => g.units > 0);

/** The slot of an order; undefined until it has one. */
export function slotOf(task: SortTask, state: Pending, orderId: OrderId): WallSlot | undefined {
  const known = task.slots.find((s) => s.orderId === orderId);
  const given = state.pending.find((c) => c.kind === 'sort' && c.orderId === orderId);
  return known ?? task.slots.find((s) => given?.kind === 'sort' && s.placeId === given.slotPlaceId);
}

/** The order that a slot holds, with what is on its way. */
export const orderAt = (task: SortTask, state: Pending, slot: WallSlot): SortOrder | undefined =>
  task.orders.find((o) => slotOf(task, state, o.id)?.placeId === slot.placeId);

/** The first slot that holds nothing; undefined where the wall is full. */
export const freeSlot = (task: SortTask, state: Pending): WallSlot | undefined =>
  task.slots.find((s) => !s.busy && s.orderId === null && orderAt(task, state, s) === undefined);

/** How far an order is: base units in its slot, and those still in the totes. */
export function progressOf(task: SortTask, state: Pending, order: SortOrder): { sorted: number; left: number } {
  const onTheWay = state.pending.reduce((n, c) => n + (c.kind === 'sort' && c.orderId === order.id ? c.units : 0), 0);
  const left = toSort(task, state).reduce((n, g) => n + (g.orderId === order.id ? g.units : 0), 0);
  return { sorted: order.sorted + onTheWay, left };
}
