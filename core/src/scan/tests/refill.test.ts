import { refill, type RefillGoods, type RefillTask, startRefill, toBring } from '../index.js';
import { type AnyInput, book, clear, codes, count, notHere, places, scan, walk } from './book.js';

const jars: RefillGoods = {
  itemId: 1,
  lotId: 0,
  lot: null,
  units: 96,
  there: 144,
  fromPlaceId: 102,
  fromCode: 'B-01-1',
  suggestion: { code: 'A-01-1', reason: 'its pick face', units: 96 },
  then: [],
  orders: 2,
  leavesAt: '2026-05-04T15:30:00Z',
};
const syrup: RefillGoods = { ...jars, itemId: 3, lotId: 7, lot: 'LM1', units: 4, there: 4, suggestion: null, orders: 0, leavesAt: null };
const task: RefillTask = { siteId: 1, metres: 40, more: 0, goods: [jars, syrup] };
const bring = (...inputs: AnyInput[]) => walk(refill, task, startRefill, ...inputs);
const there = (units: number) => ({ kind: 'there' as const, units });
const lot = (text: string) => ({ kind: 'lot' as const, lot: text });

describe('refilling', () => {
  it('takes three scans: the bin, the goods, the pick face', () => {
    const { commands, steps } = bring(scan('B-01-1'), scan(codes.tray), scan('A-01-1'));
    expect(steps[0]?.feedback).toMatchObject({ title: 'Bin B-01-1', detail: 'Take 2 trays of Jar 454 g' });
    expect(steps[1]?.feedback?.detail).toBe('2 trays, to A-01-1: its pick face');
    expect(commands).toEqual([
      { kind: 'store', id: 'id-3', itemId: 1, lotId: 0, units: 96, fromPlaceId: 102, toPlaceId: 101, how: 'scanned' },
    ]);
  });

  it('takes more or fewer than were wanted, but not more than lie there', () => {
    expect(bring(scan('B-01-1'), scan(codes.jar), count(12, 3), scan('A-01-1')).commands).toMatchObject([{ units: 144 }]);
    expect(bring(scan('B-01-1'), scan(codes.jar), count(12, 4)).last?.feedback).toMatchObject({
      band: 'too-many',
      title: 'Only 3 trays here',
    });
  });

  it('takes the lot that is due, seen and not assumed', () => {
    const open = [scan('B-01-1'), scan(codes.syrup)];
    expect(bring(...open).last?.feedback?.detail).toMatch(/^Which lot is it\? Scan LM1/);
    expect(bring(...open, scan('A-01-1')).last?.feedback?.title).toBe('Which lot is it?');
    expect(bring(...open, scan('LM2')).last?.feedback?.detail).toBe('Lot LM1 of Syrup is due first. Take that one');
    expect(bring(...open, scan('LM1'), scan('A-01-1')).commands).toMatchObject([{ lotId: 7, units: 4 }]);
    expect(bring(...open, lot('lm1'), scan('A-01-1')).commands).toMatchObject([{ lotId: 7, units: 4 }]);
    expect(bring(scan('B-01-1'), scan(']C1010950600013436910LM2')).last?.feedback?.title).toBe('Lot LM2');
  });

  it('wants the bin first, the right goods, and a place that is picked from or moves', () => {
    expect(bring(scan(codes.jar)).last?.feedback?.detail).toBe('Scan the bin first: B-01-1');
    expect(bring(scan('A-01-1')).last?.feedback?.detail).toBe('Nothing to bring from here. Go to B-01-1');
    expect(bring(scan('B-01-1'), scan(codes.lid)).last?.feedback?.detail).toBe('Not wanted. Take Jar 454 g here');
    expect(bring(scan('B-01-1'), scan(codes.jar), scan('B-01-1')).last?.feedback?.detail).toBe('Jar 454 g comes from here. Scan A-01-1');
    expect(bring(scan('B-01-1'), scan(codes.jar), scan('TABLE-1')).last?.feedback?.band).toBe('not-this');
    const reserve = { ...book, places: { ...book.places, 'C-04-4': { ...places.binA, id: 999, code: 'C-04-4', kind: 'reserve' } } };
    const held = bring(scan('B-01-1'), scan(codes.jar)).state;
    expect(refill.step(task, reserve, held, { ...scan('C-04-4'), id: 'id' }).feedback?.detail).toBe('Nobody picks from here. Scan A-01-1');
  });

  it('lets go of what somebody else has brought meanwhile', () => {
    const held = bring(scan('B-01-1'), scan(codes.jar)).state;
    const gone = refill.step({ ...task, goods: [syrup] }, book, held, { ...scan('A-01-1'), id: 'id' });
    expect(gone.feedback?.title).toBe('Brought already');
    expect(gone.state.hand).toBeNull();
    const fewer = refill.step({ ...task, goods: [{ ...jars, there: 48 }, syrup] }, book, held, { ...scan('A-01-1'), id: 'id' });
    expect(fewer.feedback).toMatchObject({ band: 'too-many', detail: 'Only 1 tray left there. Scan them again' });
    expect(bring(scan('B-01-1'), scan(codes.jar), clear).state.hand).toBeNull();
  });

  it('says where too few lie: they are held and counted, and those that are there can be brought', () => {
    const { commands, state, last } = bring(scan('B-01-1'), notHere, there(48));
    expect(commands).toEqual([{ kind: 'report-spot', id: 'id-3', itemId: 1, lotId: 0, placeId: 102, there: 48, how: 'typed' }]);
    expect(last?.feedback?.detail).toBe('B-01-1 will be counted. Take those that are there');
    expect(toBring(state, jars)).toBe(48);
    expect(bring(scan('B-01-1'), scan('VX-NOT-HERE'), scan('VX-CONFIRM')).commands).toMatchObject([{ kind: 'report-spot', there: 0 }]);
    expect(bring(scan('B-01-1'), notHere, there(96)).last?.feedback?.detail).toBe('2 trays wanted, so that is enough. Scan the goods');
    expect(bring(notHere).last?.feedback).toMatchObject({ title: 'B-01-1', detail: 'Scan the bin first' });
    expect(bring(scan('B-01-1'), scan(codes.jar), notHere).last?.feedback?.title).toBe('Goods in hand');
    expect(bring(there(3)).commands).toEqual([]);
  });

  it('brings the same goods once, also before the answer is there', () => {
    const { commands, last } = bring(scan('B-01-1'), scan(codes.jar), scan('A-01-1'), scan(codes.jar));
    expect(commands.filter((c) => c.kind === 'store')).toHaveLength(1);
    expect(last?.feedback?.detail).toBe('Not wanted. Take Syrup here');
  });
});
