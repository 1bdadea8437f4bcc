import { type PickStop, type PickTask, startPick } from '@vectrum/core/scan';
import { asked, hereOf } from './asked';

const stop = (id: number, orderId: number): PickStop => ({
  id,
  orderId,
  itemId: 1,
  lotId: 0,
  lot: null,
  placeId: 10,
  placeCode: 'A-01-1',
  units: 2,
  picked: 0,
  short: 0,
  metres: 4,
});
const order = (id: number, toteIds: number[] = []) => ({ id, code: `S-${id}`, customer: 'Wick Hill Farm', note: null, toteIds });
const round = (more: Partial<PickTask> = {}): PickTask => ({
  round: 'R-1',
  state: 'waiting',
  picker: null,
  siteId: 1,
  orders: [order(1), order(2)],
  stops: [stop(1, 1), stop(2, 2)],
  busyToteIds: [],
  ...more,
});
const saysOf = (task: PickTask) =>
  asked(
    task,
    hereOf(task, startPick, () => false),
  );

describe('what a picker is asked for', () => {
  it('is a tote for each order, or a cart where one of the site is free', () => {
    expect(saysOf(round())).toBe('Scan tote 1 of 2');
    expect(saysOf(round({ carts: [{ placeId: 7, toteIds: [] }] }))).toBe('Scan tote 1 of 2, or a cart');
    expect(saysOf(round({ orders: [order(1)], stops: [stop(1, 1)], carts: [{ placeId: 7, toteIds: [] }] }))).toBe(
      'Scan an empty tote, or a cart',
    );
  });

  it('is no cart where all are taken, the round has one, or the walk has begun', () => {
    expect(saysOf(round({ carts: [{ placeId: 7, toteIds: [], taken: 'In use on R-2' }] }))).toBe('Scan tote 1 of 2');
    expect(saysOf(round({ cartId: 7, carts: [{ placeId: 7, toteIds: [] }] }))).toBe('Scan tote 1 of 2');
    const begun = round({
      orders: [order(1, [5]), order(2)],
      stops: [{ ...stop(1, 1), picked: 2 }, stop(2, 2)],
      carts: [{ placeId: 7, toteIds: [] }],
    });
    expect(saysOf(begun)).toBe('Scan tote 2 of 2');
  });
});
