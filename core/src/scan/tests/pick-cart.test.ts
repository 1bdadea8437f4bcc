import { cartOf, pick, type PickStop, type PickTask, startPick, toteOf } from '../index.js';
import { type AnyInput, codes, places, scan, walk } from './book.js';

const stop = (id: number, orderId: number, units = 1): PickStop => ({
  id,
  orderId,
  itemId: 1,
  lotId: 0,
  lot: null,
  placeId: places.binA.id,
  placeCode: places.binA.code,
  units,
  picked: 0,
  short: 0,
  metres: 5,
});
const order = (id: number, toteIds: number[] = []) => ({ id, code: `S-${id}`, customer: 'Wick Hill Farm', note: null, toteIds });
const task: PickTask = {
  round: 'R-7',
  state: 'waiting',
  picker: null,
  siteId: 1,
  orders: [order(1), order(2)],
  stops: [stop(1, 1), stop(2, 2)],
  busyToteIds: [places.busy.id],
  carts: [{ placeId: places.cart.id, toteIds: [places.busy.id, places.tote.id, places.second.id] }],
};
const run = (t: PickTask, ...inputs: AnyInput[]) => walk(pick, t, startPick, ...inputs);

describe('a cart', () => {
  it('brings a tote for each order in one scan, without those that are in use', () => {
    const { commands, state, last } = run(task, scan('CART-1'));
    expect(commands).toEqual([
      {
        kind: 'cart',
        id: 'id-1',
        round: 'R-7',
        cartPlaceId: places.cart.id,
        totes: [
          { orderId: 1, totePlaceId: places.tote.id },
          { orderId: 2, totePlaceId: places.second.id },
        ],
      },
    ]);
    expect(last?.feedback).toMatchObject({ band: 'accepted', title: 'Cart CART-1', detail: 'Totes T-01 to T-03, 2 orders' });
    expect([toteOf(task, state, 1), toteOf(task, state, 2), cartOf(task, state)]).toEqual([
      places.tote.id,
      places.second.id,
      places.cart.id,
    ]);
  });

  it('says how many totes are still to be scanned where fewer stand on it, and takes those', () => {
    const few = { ...task, carts: [{ placeId: places.cart.id, toteIds: [places.tote.id] }] };
    const { commands, steps } = run(few, scan('CART-1'), scan('T-03'), scan('CART-1'));
    expect(steps[0]?.feedback?.detail).toBe('Tote T-01. Scan a tote for one order');
    expect(commands.slice(1)).toMatchObject([{ kind: 'tote', orderId: 2, totePlaceId: places.second.id }]);
    expect(steps[2]?.feedback).toMatchObject({ band: 'accepted', detail: 'This round is walked with it' });
    const bare = run({ ...task, carts: [] }, scan('CART-1'));
    expect(bare.commands).toMatchObject([{ kind: 'cart', totes: [] }]);
    expect(bare.last?.feedback?.detail).toBe('Scan totes for 2 orders');
  });

  it('leaves the totes that orders have, and takes their walk to another cart', () => {
    const going: PickTask = { ...task, state: 'picking', orders: [order(1, [places.second.id]), order(2, [999])], cartId: 500 };
    const { commands, state } = run(going, scan('CART-1'));
    expect(commands).toMatchObject([{ kind: 'cart', totes: [] }]);
    expect(cartOf(going, state)).toBe(places.cart.id);
  });

  it('is refused where somebody else has it, where it is of another site, with goods in hand, and after the round', () => {
    const taken = { ...task, carts: [{ placeId: places.cart.id, toteIds: [], taken: 'In use on R-6' }] };
    expect(run(taken, scan('CART-1')).last?.feedback).toMatchObject({ band: 'not-this', detail: 'In use on R-6. Take another cart' });
    expect(run({ ...task, siteId: 2 }, scan('CART-1')).last?.feedback?.detail).toBe('This cart belongs to another site');
    const held = run({ ...task, stops: [stop(1, 1, 3)] }, scan(codes.jar), scan('CART-1'));
    expect(held.last?.feedback).toMatchObject({ band: 'not-this', detail: 'Scan the tote on it that they go into' });
    expect(held.state.hand?.units).toBe(1);
    expect(run({ ...task, state: 'set-down' }, scan('CART-1')).last?.feedback?.detail).toBe('Set down already');
  });

  it('is a bin like any other where goods are to be picked from it', () => {
    const waiting = { ...task, stops: [{ ...stop(1, 1), placeId: places.cart.id, placeCode: 'CART-1' }] };
    const { commands, last } = run(waiting, scan('CART-1'));
    expect(commands).toEqual([]);
    expect(last?.feedback?.title).toBe('Bin CART-1');
  });
});
