import { countSpots, type Spot, type SpotTask, startSpots } from '../index.js';
import { type AnyInput, book, clear, codes, confirm, notHere, scan, walk } from './book.js';

const jars: Spot = {
  id: 9,
  itemId: 1,
  lotId: 0,
  lot: null,
  placeId: 101,
  placeCode: 'A-01-1',
  why: 'reported not there',
  by: 'Ines',
  isOwn: false,
};
const syrup: Spot = { ...jars, id: 8, itemId: 3, lotId: 7, lot: 'LM1', placeId: 102, placeCode: 'B-01-1' };
const task: SpotTask = { siteId: 1, spots: [jars, syrup], metres: 30 };
const look = (...inputs: AnyInput[]) => walk(countSpots, task, startSpots, ...inputs);
const number = (units: number) => ({ kind: 'number' as const, units });

describe('counting a bin', () => {
  it('takes the bin and a number, or each piece scanned', () => {
    expect(look(scan('A-01-1'), number(7)).commands).toEqual([
      { kind: 'count-spot', id: 'id-2', spotId: 9, itemId: 1, lotId: 0, placeId: 101, units: 7, how: 'typed' },
    ]);
    const scanned = look(scan('A-01-1'), scan(codes.tray), scan(codes.jar), scan(codes.jar), scan('VX-CONFIRM'));
    expect(scanned.steps[3]?.feedback?.detail).toMatch(/^1 tray and 2 jars so far/);
    expect(scanned.commands).toMatchObject([{ units: 50, how: 'scanned' }]);
    expect(look(scan('A-01-1'), scan(codes.jar), confirm).commands).toMatchObject([{ units: 1 }]);
  });

  it('takes one input more for an empty bin, by card or key', () => {
    expect(look(scan('A-01-1'), scan('VX-NOT-HERE')).commands).toMatchObject([{ spotId: 9, units: 0 }]);
    expect(look(scan('A-01-1'), number(0)).commands).toMatchObject([{ units: 0 }]);
  });

  it('wants the bin first, and counts nothing but what is asked for', () => {
    expect(look(number(7)).last?.feedback?.title).toBe('Scan the bin first');
    expect(look(scan(codes.jar)).last?.feedback?.detail).toBe('Scan the bin first: A-01-1');
    expect(look(scan('T-01')).last?.feedback?.detail).toBe('Nothing to count here. Go to A-01-1');
    expect(look(scan('A-01-1'), scan(codes.lid)).last?.feedback).toMatchObject({
      title: 'Lid, gold',
      detail: 'Not what is counted here. Count Jar 454 g',
    });
    expect(look(scan('A-01-1'), confirm).last?.feedback?.title).toBe('Nothing counted yet');
    expect(look(scan('A-01-1'), scan(codes.jar), scan('B-01-1')).last?.feedback?.band).toBe('not-this');
    expect(look(scan('A-01-1'), scan(codes.jar), clear).state.hand).toBeNull();
    expect(look(scan('A-01-1'), notHere).commands).toEqual([]);
  });

  it('tells lots apart where their code says which', () => {
    expect(look(scan('B-01-1'), scan(']C1010950600013436910LM2')).last?.feedback).toMatchObject({
      title: 'Lot LM2',
      detail: 'Not what is counted here. Count Syrup, lot LM1',
    });
    expect(look(scan('B-01-1'), scan(']C1010950600013436910LM1'), confirm).commands).toMatchObject([{ spotId: 8, lotId: 7, units: 1 }]);
  });

  it('goes on to the next, and to what others have reported before what this person has', () => {
    const { state } = look(scan('A-01-1'), number(7));
    expect(countSpots.step(task, book, state, { ...scan('A-01-1'), id: 'again' }).feedback?.detail).toBe(
      'Nothing to count here. Go to B-01-1',
    );
    const own: SpotTask = { ...task, spots: [{ ...jars, isOwn: true }, syrup] };
    expect(walk(countSpots, own, startSpots, scan(codes.jar)).last?.feedback?.detail).toBe('Scan the bin first: B-01-1');
    const held = look(scan('A-01-1'), scan(codes.jar)).state;
    expect(countSpots.step({ ...task, spots: [syrup] }, book, held, { ...confirm, id: 'c' }).feedback?.title).toBe('Counted already');
  });
});
