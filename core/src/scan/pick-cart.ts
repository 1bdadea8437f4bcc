import type { PlaceId } from '../ids/index.js';
import { accepted, refuse, stay } from './feedback.js';
import { type CartCommand, currentStop, inHandAt, isSetDown, type PickCart, type PickState, type PickTask } from './pick-task.js';
import type { PickMoment, PickStep } from './pick-put.js';
import { orderIn, toteOf, wantsGoods } from './pick-totes.js';
import type { PlaceFacts, Refusal } from './types.js';

/** The cart that a round is walked with; undefined while there is none. */
export const cartOf = (task: PickTask, state: Pick<PickState, 'pending'>): PlaceId | undefined =>
  state.pending.findLast((c) => c.kind === 'cart')?.cartPlaceId ?? task.cartId ?? undefined;

/** The rule for the cart, on the phone and on the server alike: of this site, and nobody else's. */
export function checkCart(task: Pick<PickTask, 'siteId'>, place: PlaceFacts, cart: Pick<PickCart, 'taken'> | undefined): Refusal | null {
  const title = `Cart ${place.code}`;
  if (place.kind !== 'cart') return { band: 'not-this', title: place.code, detail: 'Not a cart. Scan the code on the cart' };
  if (place.siteId !== task.siteId) return { band: 'not-this', title, detail: 'This cart belongs to another site' };
  return cart?.taken === undefined ? null : { band: 'not-this', title, detail: `${cart.taken}. Take another cart` };
}

/** A cart was scanned: the totes on it are for the orders that have none yet, in turn; what is scanned later comes to stand on it. */
export function onCart(now: PickMoment, place: PlaceFacts): PickStep {
  const { task, state } = now;
  const title = `Cart ${place.code}`;
  const cart = task.carts?.find((c) => c.placeId === place.id);
  const current = currentStop(task, state);
  const refusal: Refusal | null =
    checkCart(task, place, cart) ??
    (isSetDown(task, state) ? { band: 'not-this', title, detail: 'Set down already' } : null) ??
    (inHandAt(state, current) > 0 ? { band: 'not-this', title, detail: 'Scan the tote on it that they go into' } : null);
  if (refusal) return refuse(state, refusal, now);
  const free = (cart?.toteIds ?? []).filter((id) => !task.busyToteIds.includes(id) && !orderIn(task, state, id));
  const wanting = task.orders.filter((o) => toteOf(task, state, o.id) === undefined && wantsGoods(task, state, o.id));
  const totes = wanting.slice(0, free.length).map((o, i) => ({ orderId: o.id, totePlaceId: free[i] ?? 0 }));
  if (cartOf(task, state) === place.id && totes.length === 0)
    return stay(state, accepted(title, wanting.length > 0 ? stillWanted(wanting.length) : 'This round is walked with it'));
  return {
    state: { ...state, fullFor: null },
    feedback: accepted(
      title,
      [tied(now, totes), stillWanted(wanting.length - totes.length)].filter(Boolean).join('. ') || 'Its totes stand here',
    ),
    commands: [{ kind: 'cart', id: now.id, round: task.round, cartPlaceId: place.id, totes }],
  };
}

function tied({ book }: PickMoment, totes: CartCommand['totes']): string {
  const codes = totes.map((t) => Object.values(book.places).find((p) => p.id === t.totePlaceId)?.code ?? '');
  const [first, last] = [codes.at(0), codes.at(-1)];
  if (first === undefined) return '';
  return codes.length === 1 ? `Tote ${first}` : `Totes ${first} to ${last ?? ''}, ${codes.length} orders`;
}

const stillWanted = (orders: number): string =>
  orders <= 0 ? '' : orders === 1 ? 'Scan a tote for one order' : `Scan totes for ${orders} orders`;
