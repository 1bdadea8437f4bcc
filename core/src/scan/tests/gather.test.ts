import fc from 'fast-check';
import {
  gather,
  type GatherBin,
  type GatherLine,
  type GatherTask,
  nextGather,
  onRoad,
  parcelsOnRoad,
  startGather,
  startTakeIn,
  takeIn,
  type TakeInTask,
  toGather,
} from '../index.js';
import { codes, confirm, places, scan, stepOf, walk } from './book.js';

const bin = (at: { id: number; code: string }, spare: number, lot: string | null = null, lotId = 0): GatherBin => ({
  placeId: at.id,
  code: at.code,
  lotId,
  lot,
  spare,
});
const line = (lineId: number, itemId: number, units: number, bins: GatherBin[], gathered = 0): GatherLine => ({
  lineId,
  itemId,
  units,
  gathered,
  bins,
});
const task = (lines: GatherLine[]): GatherTask => ({ document: 'T-0001', siteId: 1, to: 'Quayside', note: '', lines, parcels: [] });
const jars = () => task([line(1, 1, 60, [bin(places.binA, 48), bin(places.binB, 100)]), line(2, 2, 5, [bin(places.binB, 5)])]);
const run = (given: GatherTask, ...inputs: Parameters<typeof walk>[3][]) => walk(gather, given, startGather, ...inputs);
const number = (units: number) => ({ kind: 'number' as const, units });
const send = { kind: 'send' as const, carrier: ' own van ', tracking: '' };

describe('gathering what goes together', () => {
  it('takes bin, goods and number, and leads from bin to bin until all is there', () => {
    const given = jars();
    expect(nextGather(given, startGather)).toMatchObject({ bin: { code: 'A-01-1' }, units: 48 });
    const first = run(given, scan('A-01-1'), scan(codes.jar), number(48));
    expect(first.commands).toMatchObject([{ kind: 'gather', document: 'T-0001', lineId: 1, placeId: 101, units: 48, how: 'scanned' }]);
    expect(nextGather(given, first.state)).toMatchObject({ bin: { code: 'B-01-1' }, units: 12 });
    const rest = walk(gather, given, first.state, scan('B-01-1'), scan(codes.jar), number(12), scan(codes.lid), number(5));
    expect(rest.commands.map((c) => c.kind)).toEqual(['gather', 'gather']);
    expect(nextGather(given, rest.state)).toBeUndefined();
    expect(walk(gather, given, rest.state, send).commands).toMatchObject([{ kind: 'send-off', carrier: 'own van' }]);
  });

  it('counts scanned packs, and takes what was scanned with a key', () => {
    const { commands } = run(jars(), scan('A-01-1'), scan(codes.tray), confirm);
    expect(commands).toMatchObject([{ units: 48, how: 'scanned' }]);
  });

  it('refuses goods that nobody asked for, another bin, and more than is wanted or may go', () => {
    const says = (...inputs: Parameters<typeof walk>[3][]) => run(jars(), ...inputs).last?.feedback;
    expect(says(scan(codes.jar))?.detail).toBe('Scan the bin first: A-01-1');
    expect(says(scan('A-01-1'), scan(codes.syrup))?.detail).toContain('Nothing of it goes to Quayside');
    expect(says(scan('A-01-1'), scan(codes.lid))?.detail).toContain('None of it may go from here');
    expect(says(scan('DOCK-1'))?.detail).toBe('Nothing to take here. Go to A-01-1');
    expect(says(scan('A-01-1'), scan(codes.jar), number(49))).toMatchObject({
      band: 'too-many',
      detail: expect.stringContaining('Only 1 tray of it may go'),
    });
    expect(says(scan('B-01-1'), scan(codes.jar), number(61))).toMatchObject({
      band: 'too-many',
      detail: expect.stringContaining('more are wanted'),
    });
    expect(says(scan('A-01-1'), scan(codes.jar), scan('B-01-1'))?.detail).toContain('Say first how many');
    expect(says(send)?.detail).toBe('Nothing of it is gathered yet');
  });

  it('takes the lot that is due, or the one that was scanned or chosen', () => {
    const lots = task([line(1, 3, 4, [bin(places.binA, 3, 'SOON', 7), bin(places.binA, 9, 'LATE', 8)])]);
    expect(run(lots, scan('A-01-1'), scan(codes.syrup), number(2)).commands).toMatchObject([{ lotId: 7 }]);
    expect(run(lots, scan('A-01-1'), scan(codes.syrup), scan('LATE'), number(4)).commands).toMatchObject([{ lotId: 8, units: 4 }]);
    expect(run(lots, scan('A-01-1'), scan(codes.syrup), { kind: 'choose', lotId: 8 }, number(4)).commands).toMatchObject([{ lotId: 8 }]);
    expect(run(lots, scan('A-01-1'), scan(codes.syrup), number(4)).last?.feedback?.band).toBe('too-many');
  });

  it('lets go of goods that somebody has gathered meanwhile', () => {
    const before = run(jars(), scan('B-01-1'), scan(codes.lid));
    const taken = task([line(1, 1, 60, [bin(places.binA, 48)]), line(2, 2, 5, [bin(places.binB, 0)], 5)]);
    const after = walk(gather, taken, before.state, number(1));
    expect(after.last?.feedback?.detail).toContain('Somebody has gathered it meanwhile');
    expect(after.commands).toMatchObject([{ kind: 'refused' }]);
  });

  it('never gathers more than was asked for, nor more than a bin has, whatever is scanned in whatever order', () => {
    const input = fc.oneof(
      fc.constantFrom(scan('A-01-1'), scan('B-01-1'), scan(codes.jar), scan(codes.tray), scan(codes.lid), scan('T-01'), confirm),
      fc.nat(70).map(number),
    );
    fc.assert(
      fc.property(fc.array(input, { maxLength: 30 }), (inputs) => {
        const given = jars();
        let state = startGather;
        const taken = new Map<string, number>();
        inputs.forEach((each, i) => {
          const step = stepOf(gather, given, state, each, `id-${i}`);
          for (const c of step.commands)
            if (c.kind === 'gather')
              for (const key of [`line ${c.lineId}`, `bin ${c.placeId}/${c.itemId}`]) taken.set(key, (taken.get(key) ?? 0) + c.units);
          state = step.state;
        });
        for (const l of given.lines) {
          expect(taken.get(`line ${l.lineId}`) ?? 0).toBeLessThanOrEqual(l.units);
          expect(toGather(l, state)).toBe(l.units - (taken.get(`line ${l.lineId}`) ?? 0));
          for (const b of l.bins) expect(taken.get(`bin ${b.placeId}/${l.itemId}`) ?? 0).toBeLessThanOrEqual(b.spare);
        }
      }),
      { numRuns: 300 },
    );
  });
});

describe('taking in from another site', () => {
  const quarantine = { id: 109, code: 'QUARANTINE-1', kind: 'quarantine', siteId: 1 };
  const road = (): TakeInTask => ({
    document: 'T-0001',
    siteId: 1,
    from: 'Quayside',
    dock: places.dock,
    apart: quarantine,
    goods: [
      { goodsId: 1, itemId: 1, lotId: 0, lot: null, sent: 60, received: 0 },
      { goodsId: 2, itemId: 3, lotId: 7, lot: 'SOON', sent: 4, received: 1 },
      { goodsId: 3, itemId: 3, lotId: 8, lot: 'LATE', sent: 2, received: 0 },
    ],
    parcels: [
      { code: 'T-0001-1', tracking: 'ZX 48 1', isHere: false },
      { code: 'T-0001-2', tracking: null, isHere: false },
      { code: 'T-0001-3', tracking: null, isHere: true },
    ],
  });
  const take = (...inputs: Parameters<typeof walk>[3][]) => walk(takeIn, road(), startTakeIn, ...inputs);

  it('takes goods and a number to the dock, or straight to a bin that is scanned', () => {
    expect(take(scan(codes.jar), number(60)).commands).toMatchObject([
      { kind: 'take-in', goodsId: 1, units: 60, toPlaceId: 100, isDamaged: false },
    ]);
    expect(take(scan(codes.tray), scan('A-01-1')).commands).toMatchObject([{ units: 48, toPlaceId: 101 }]);
    expect(take(scan('A-01-1'), scan(codes.jar), number(3), scan(codes.jar), number(2)).commands).toMatchObject([
      { toPlaceId: 101 },
      { toPlaceId: 101, units: 2 },
    ]);
  });

  it('books in what is in hand with the next scan of other goods', () => {
    const { commands, state } = take(scan(codes.tray), scan('SOON'));
    expect(commands).toMatchObject([]);
    expect(state.hand?.goodsId).toBe(2);
    const next = take(scan(codes.tray), { kind: 'choose', goodsId: 2 }, number(3));
    expect(next.commands).toMatchObject([{ goodsId: 2, units: 3 }]);
  });

  it('asks which lot it is where several were sent', () => {
    expect(take(scan(codes.syrup)).last?.feedback?.detail).toContain('Several lots');
    expect(take(scan('LATE'), number(2)).commands).toMatchObject([{ goodsId: 3, lotId: 8, units: 2 }]);
  });

  it('sets damaged goods apart, and takes no more than was sent', () => {
    expect(take(scan(codes.jar), { kind: 'condition', isDamaged: true }, number(2)).commands).toMatchObject([
      { isDamaged: true, toPlaceId: 109 },
    ]);
    expect(take(scan(codes.jar), number(61)).last?.feedback).toMatchObject({ band: 'too-many' });
    expect(take({ kind: 'choose', goodsId: 2 }, number(4)).last?.feedback).toMatchObject({
      band: 'too-many',
      detail: expect.stringContaining('Only 3 cans were sent'),
    });
    expect(take(scan(codes.lid)).last?.feedback?.detail).toContain('It was not sent with T-0001');
    expect(take(scan('QUAY-DOCK')).last?.feedback?.detail).toContain('another site');
    expect(take(scan('T-01')).last?.feedback?.detail).toContain('not booked in here');
  });

  it('notes which parcels stand at the dock, by their own code or their carrier’s number, each once', () => {
    const first = take(scan('T-0001-2'));
    expect(first.commands).toMatchObject([{ kind: 'parcel-here', document: 'T-0001', parcel: 'T-0001-2' }]);
    expect(first.last?.feedback).toMatchObject({ title: 'T-0001-2 is here', detail: '1 parcel still on the road' });
    expect(parcelsOnRoad(road(), first.state).map((p) => p.code)).toEqual(['T-0001-1']);
    expect(take(scan('T-0001-2'), scan('t-0001-1')).last?.feedback?.detail).toBe('All its parcels are here');
    expect(take(scan('ZX 48 1')).commands).toMatchObject([{ parcel: 'T-0001-1' }]);
    expect(take(scan('T-0001-3')).commands).toEqual([]);
    expect(take(scan('T-0001-2'), scan('T-0001-2')).commands).toHaveLength(1);
    // What is in hand stays in hand.
    expect(take(scan(codes.jar), scan('T-0001-2')).state.hand).toMatchObject({ goodsId: 1, units: 1 });
  });

  it('is closed with what is missing left to the office', () => {
    expect(take({ kind: 'close' }).last?.feedback?.detail).toContain('for the office to settle');
    const all = take(scan(codes.jar), number(60), scan('SOON'), number(3), scan('LATE'), number(2), { kind: 'close' });
    expect(all.last?.feedback?.detail).toBe('All that was sent is here');
    expect(road().goods.every((g) => onRoad(g, all.state) === 0)).toBe(true);
  });

  it('never takes in more than was sent, whatever is scanned in whatever order', () => {
    const input = fc.oneof(
      fc.constantFrom(scan(codes.jar), scan(codes.tray), scan('SOON'), scan('LATE'), scan('A-01-1'), confirm, { kind: 'clear' as const }),
      fc.nat(70).map(number),
    );
    fc.assert(
      fc.property(fc.array(input, { maxLength: 30 }), (inputs) => {
        const given = road();
        let state = startTakeIn;
        const ids = new Set<string>();
        inputs.forEach((each, i) => {
          const step = stepOf(takeIn, given, state, each, `id-${i}`);
          for (const c of step.commands) {
            expect(ids.has(c.id)).toBe(false);
            ids.add(c.id);
          }
          state = step.state;
        });
        for (const g of given.goods) expect(onRoad(g, state)).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 300 },
    );
  });
});
