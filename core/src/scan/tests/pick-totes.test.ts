import { currentStop, pick, startPick, toteOf, type PickStop, type PickTask } from '../index.js';
import { type AnyInput, codes, confirm, count, places, scan, walk } from './book.js';

const stop = (id: number, orderId: number, itemId: number, place: { id: number; code: string }, units: number): PickStop => ({
  id,
  orderId,
  itemId,
  lotId: 0,
  lot: null,
  placeId: place.id,
  placeCode: place.code,
  units,
  picked: 0,
  short: 0,
  metres: 5,
});
const order = (id: number, customer: string, toteIds: number[] = []) => ({ id, code: `S-${id}`, customer, note: null, toteIds });
const task: PickTask = {
  round: 'R-7',
  state: 'waiting',
  picker: null,
  siteId: 1,
  orders: [order(1, 'Wick Hill Farm'), order(2, 'Thornlea')],
  stops: [stop(1, 1, 1, places.binA, 5), stop(2, 2, 1, places.binA, 3), stop(3, 2, 2, places.binB, 2)],
  busyToteIds: [places.busy.id],
  mustScanBin: true,
  mustScanTote: true,
};
const begun: PickTask = {
  ...task,
  state: 'picking',
  orders: [order(1, 'Wick Hill Farm', [places.tote.id]), order(2, 'Thornlea', [places.second.id])],
};
const run = (t: PickTask, ...inputs: AnyInput[]) => walk(pick, t, startPick, ...inputs);
const full: AnyInput = { kind: 'full' };

describe('a round of several orders', () => {
  it('ties each empty tote to the next order that has none, and says to which', () => {
    const { commands, steps, last } = run(task, scan('T-01'), scan('T-03'), scan('T-03'));
    expect(commands).toMatchObject([
      { kind: 'tote', orderId: 1, totePlaceId: places.tote.id },
      { kind: 'tote', orderId: 2, totePlaceId: places.second.id },
    ]);
    expect(steps[1]?.feedback).toMatchObject({ title: 'Tote T-03', detail: 'For S-2, Thornlea (2 of 2)' });
    expect(last?.feedback).toMatchObject({ band: 'accepted', detail: 'For S-2, Thornlea' });
  });

  it('wants each tote scanned, even once all is in hand', () => {
    const { commands, steps } = run(begun, scan('A-01-1'), scan(codes.jar), count(11, 5), confirm, scan('T-01'));
    expect(steps[3]?.feedback).toMatchObject({ band: 'not-this', title: 'Tote T-01', detail: 'Scan the tote that they go into' });
    expect(commands.filter((c) => c.kind === 'pick')).toMatchObject([{ stopId: 1, units: 5, totePlaceId: places.tote.id }]);
  });

  it('puts goods in at once where totes need no scan', () => {
    const trusted = { ...begun, mustScanTote: false };
    const { commands } = run(trusted, scan('A-01-1'), scan(codes.jar), count(11, 5), scan(codes.jar), count(11, 3));
    expect(commands).toMatchObject([
      { stopId: 1, units: 5, totePlaceId: places.tote.id },
      { stopId: 2, units: 3, totePlaceId: places.second.id },
    ]);
  });

  it('refuses the tote of another order, and says whose it is and where these go', () => {
    const { last, state, commands } = run(begun, scan('A-01-1'), scan(codes.jar), count(11, 5), scan('T-03'));
    expect(last?.feedback).toMatchObject({ band: 'not-this', title: 'Tote T-03', detail: 'That is Thornlea’s. These go into T-01' });
    expect(state.hand?.units).toBe(5);
    expect(commands.filter((c) => c.kind === 'pick')).toEqual([]);
  });

  it('lets a tote say whom the goods are for, where both orders want as many from this bin', () => {
    const { commands, state } = run(begun, scan('A-01-1'), scan(codes.jar), count(11, 2), scan('T-03'));
    expect(commands).toMatchObject([{ kind: 'pick', stopId: 2, units: 2, totePlaceId: places.second.id }]);
    expect(currentStop(begun, state)?.id).toBe(1);
  });

  it('refuses an empty tote for goods whose order has one, and one too many before the walk', () => {
    const third: PickTask = { ...begun, orders: [order(1, 'Wick Hill Farm', [places.tote.id]), order(2, 'Thornlea', [999])] };
    expect(run(third, scan('A-01-1'), scan(codes.jar), scan('T-03')).last?.feedback?.detail).toBe('These go into T-01');
    expect(run(third, scan('T-03')).last?.feedback?.detail).toBe('Every order here has its tote. Put the goods into T-01');
  });

  it('takes another tote once one is full, for the same order', () => {
    const one: PickTask = { ...begun, stops: begun.stops.slice(0, 1), orders: begun.orders.slice(0, 1) };
    const { commands, state, steps } = run(one, full, scan('T-01'), scan('T-03'), scan('A-01-1'), scan(codes.jar), count(11, 5));
    expect(steps[1]?.feedback?.detail).toBe('This one is full. Take an empty one');
    expect(commands.filter((c) => c.kind !== 'refused')).toMatchObject([
      { kind: 'tote', orderId: 1, totePlaceId: places.second.id },
      { kind: 'pick', units: 5, totePlaceId: places.second.id },
    ]);
    expect(toteOf(one, state, 1)).toBe(places.second.id);
    // Nothing goes into the full one by itself while the next is still to be scanned.
    expect(run(one, full, scan('A-01-1'), scan(codes.jar), count(11, 5)).commands).toEqual([]);
    expect(run(one, scan('A-01-1'), scan(codes.jar), full, scan('T-03')).commands).toMatchObject([
      { kind: 'pick', totePlaceId: places.second.id },
    ]);
  });

  it('wants no tote for an order of which nothing is left', () => {
    const left: PickTask = { ...task, stops: task.stops.filter((s) => s.orderId === 2) };
    expect(run(left, scan('T-01')).commands).toMatchObject([{ kind: 'tote', orderId: 2 }]);
  });

  it('becomes the person’s who takes it, once', () => {
    const { commands, steps } = run({ ...begun, picker: 'Ines' }, { kind: 'take' }, { kind: 'take' });
    expect(commands).toEqual([{ kind: 'take', id: 'id-1', round: 'R-7' }]);
    expect(steps[0]?.feedback?.detail).toBe('Ines walked it before');
    expect(run({ ...begun, state: 'set-down' }, { kind: 'take' }).commands).toEqual([]);
  });
});
