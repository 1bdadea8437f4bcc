import { type PickStop, type PickTask, pick, startPick } from '../index.js';
import { type AnyInput, book, clear, confirm, count, over, scale, scan, walk } from './book.js';

const stop: PickStop = {
  id: 2,
  orderId: 1,
  itemId: 3,
  lotId: 7,
  lot: 'LM1',
  placeId: 102,
  placeCode: 'B-01-1',
  units: 3,
  picked: 0,
  short: 0,
  metres: 4,
  others: [{ lotId: 8, lot: 'LM2', units: 2 }],
};
const task: PickTask = {
  round: 'R-0612',
  state: 'picking',
  picker: 'Ines',
  siteId: 1,
  orders: [{ id: 1, code: 'S-1', customer: 'Wick Hill', note: null, toteIds: [103] }],
  stops: [stop],
  busyToteIds: [],
  mustScanBin: true,
};
const of = (lot: string) => scan(`]C1010950600013436910${lot}`);
const reason = (text: string) => ({ kind: 'reason' as const, reason: text });
const run = (...inputs: AnyInput[]) => walk(pick, task, startPick, scan('B-01-1'), ...inputs);

describe('another lot than the one that is due', () => {
  it('is taken for a reason, which goes with it', () => {
    const { steps, commands } = run(of('LM2'), reason('damaged'), of('LM2'), confirm);
    expect(steps[1]?.feedback).toEqual({
      band: 'not-this',
      title: 'Lot LM2',
      detail: 'Lot LM1 is due first. Say why it is passed over, or let this go',
    });
    expect(commands).toMatchObject([{ kind: 'pick', stopId: 2, lotId: 8, units: 2, passedOver: 'damaged' }]);
    // The rest is due as before.
    expect(run(of('LM2'), reason('damaged'), confirm, of('LM1')).state.hand).toMatchObject({ units: 1 });
    expect(run(of('LM2'), reason('damaged'), confirm, of('LM1')).state.hand?.other).toBeUndefined();
  });

  it('goes nowhere before somebody has said why', () => {
    expect(run(of('LM2'), scan('T-01')).last?.feedback).toMatchObject({ title: 'Lot LM2', detail: 'Say why lot LM1 is passed over' });
    expect(run(of('LM2'), confirm).commands.filter((c) => c.kind === 'pick')).toEqual([]);
    expect(run(of('LM2'), reason('  ')).state.hand?.other?.reason).toBe('');
    expect(run(of('LM2'), clear).state.hand).toBeNull();
    expect(run(reason('damaged')).commands).toEqual([]);
  });

  it('is told apart from what is in hand, and no more of it is taken than is free', () => {
    expect(run(of('LM1'), of('LM2')).last?.feedback?.detail).toBe('You hold lot LM1. Put that into the tote first');
    expect(run(of('LM2'), reason('damaged'), of('LM1')).last?.feedback?.detail).toBe('You hold lot LM2. Put that into the tote first');
    expect(run(of('LM2'), reason('damaged'), of('LM2'), of('LM2')).last?.feedback).toMatchObject({
      band: 'too-many',
      title: 'Only 2 cans here',
    });
    expect(run(of('LM2'), reason('damaged'), count(31, 3)).commands.filter((c) => c.kind === 'pick')).toEqual([]);
    expect(run(of('LM3')).last?.feedback?.detail).toBe('Take lot LM1 of Syrup. Put this back');
  });

  it('is seen by its code alone too, once the goods are in hand', () => {
    const { commands } = run(scan('SYR'), scan('LM2'), reason('not to be reached'), confirm);
    expect(commands).toMatchObject([{ lotId: 8, units: 1, passedOver: 'not to be reached' }]);
  });

  it('is taken only at its bin', () => {
    expect(walk(pick, task, startPick, of('LM2')).last?.feedback?.detail).toBe('Take lot LM1 of Syrup. Put this back');
  });

  it('wants no reason where each piece has a number of its own: the next at hand is as good', () => {
    const pieces = { ...book, items: { ...book.items, 4: scale }, codes: { ...book.codes, SCALE: { itemId: 4, packId: 41 } } };
    const piece: PickStop = { ...stop, itemId: 4, lotId: 21, lot: 'N-21', units: 1, others: [{ lotId: 22, lot: 'N-22', units: 1 }] };
    const { commands } = walk(over(pick, pieces), { ...task, stops: [piece] }, startPick, scan('B-01-1'), scan('SCALE'), scan('N-22'));
    expect(commands).toMatchObject([{ kind: 'pick', lotId: 22, units: 1, passedOver: 'another piece' }]);
  });
});
