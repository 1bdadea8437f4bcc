import type { OrderId, PlaceId } from '../ids/index.js';
import { type PickOrder, type PickState, type PickStop, type PickTask, wantedAt } from './pick-task.js';

type Pending = Pick<PickState, 'pending'>;

/** The totes of an order, those that are on their way to be known among them, the one in use last. */
export function totesOf(task: PickTask, state: Pending, orderId: OrderId): PlaceId[] {
  const known = task.orders.find((o) => o.id === orderId)?.toteIds ?? [];
  const own = new Set(task.stops.flatMap((s) => (s.orderId === orderId ? [s.id] : [])));
  const sent = state.pending.flatMap((c) => {
    if (c.kind === 'cart') return c.totes.flatMap((t) => (t.orderId === orderId ? [t.totePlaceId] : []));
    return (c.kind === 'tote' && c.orderId === orderId) || (c.kind === 'pick' && own.has(c.stopId)) ? [c.totePlaceId] : [];
  });
  return [...new Set([...known, ...sent])];
}

/** The tote that an order's goods go into; undefined until it has one. */
export const toteOf = (task: PickTask, state: Pending, orderId: OrderId): PlaceId | undefined => totesOf(task, state, orderId).at(-1);

/** The order of the round that a tote is for; undefined where it is for none yet. */
export const orderIn = (task: PickTask, state: Pending, toteId: PlaceId): PickOrder | undefined =>
  task.orders.find((o) => totesOf(task, state, o.id).includes(toteId));

/**
 * The order that the next empty tote is for: one whose tote is full; on the walk that of the stop at hand; before it the first that has
 * none.
 */
export function toteless(task: PickTask, state: PickState, current: PickStop | undefined): PickOrder | undefined {
  const full = task.orders.find((o) => o.id === state.fullFor);
  if (full) return full;
  const wanting = task.orders.filter((o) => toteOf(task, state, o.id) === undefined && wantsGoods(task, state, o.id));
  return (hasBegun(task, state) && wanting.find((o) => o.id === current?.orderId)) || wanting[0];
}

/** Whether anything of the round is picked, or in the hand. */
export const hasBegun = (task: PickTask, state: PickState): boolean =>
  state.hand !== null || task.stops.some((s) => s.picked > 0) || state.pending.some((c) => c.kind === 'pick');

/** Whether anything of an order is, or may still come, in a tote. */
export const wantsGoods = (task: PickTask, state: Pending, orderId: OrderId) =>
  task.stops.some((s) => s.orderId === orderId && (wantedAt(state, s) > 0 || s.picked > 0));

/** Whether goods may go into their order's tote without a scan of it: no other tote could be meant, or none is asked for. */
export const isToteKnown = (task: PickTask, state: PickState, stop: PickStop): boolean =>
  toteOf(task, state, stop.orderId) !== undefined && state.fullFor !== stop.orderId && (!task.mustScanTote || task.orders.length === 1);
