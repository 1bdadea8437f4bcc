import { receive, receivedOn, startReceive, type ReceiveTask } from '../index.js';
import type { Codebook } from '../types.js';
import { type AnyInput, book, clear, codes, confirm, count, over, places, scale, scan, typed, walk } from './book.js';

const FORTY = Array.from({ length: 40 }, (_, i) => 100 + i);
const wide: Codebook = {
  ...book,
  codes: {
    ...book.codes,
    SCALE: { itemId: 4, packId: 41 },
    ...Object.fromEntries(FORTY.map((id) => [`GOODS-${id}`, { itemId: id, packId: id }])),
  },
  items: {
    ...book.items,
    4: scale,
    ...Object.fromEntries(
      FORTY.map((id) => [id, { ...book.items['2']!, id, sku: `GOODS-${id}`, packs: [{ id, name: 'piece', plural: 'pieces', factor: 1 }] }]),
    ),
  },
};
const line = (lineId: number, itemId: number, packId: number, ordered: number) => ({ lineId, order: 'P-1', line: lineId, itemId, packId, ordered, received: 0 }); // prettier-ignore
const task = (lines = [line(1, 1, 11, 200), line(2, 3, 31, 50), line(3, 4, 41, 5)]): ReceiveTask => ({
  document: 'P-1',
  supplier: 'Quillon Glassware',
  overPercent: 0,
  fillRemaining: false,
  nextBooks: true,
  dock: places.dock,
  apart: null,
  inspection: null,
  inspect: {},
  mayTake: false,
  pallets: [],
  serials: [],
  lines,
});
const run = (t: ReceiveTask, ...inputs: AnyInput[]) => walk(over(receive, wide), t, startReceive, ...inputs);
const booked = (t: ReceiveTask, ...inputs: AnyInput[]) => run(t, ...inputs).commands.flatMap((c) => (c.kind === 'receive' ? [[c.itemId, c.units, c.lot]] : [])); // prettier-ignore
/** Lot and date with the goods' own number, as suppliers print them. */
const syrup = (lot: string) => `]C101095060001343691728033110${lot}`;

describe('goods that are booked in by the next scan', () => {
  it('take two inputs a line for plain codes, scan and number, over forty lines; the last is booked in by one more', () => {
    const inputs: AnyInput[] = [...FORTY.flatMap((id) => [scan(`GOODS-${id}`), count(id, 7)]), confirm];
    const { commands, state } = run(task(FORTY.map((id, i) => line(i + 1, id, id, 7))), ...inputs);
    expect(inputs).toHaveLength(2 * 40 + 1);
    expect(commands).toHaveLength(40);
    expect(new Set(commands.map((c) => c.id)).size).toBe(40);
    expect(state.pending).toHaveLength(40);
  });

  it('take one input for codes that carry all facts', () => {
    const lots = Array.from({ length: 40 }, (_, i) => `L${i}`);
    expect(booked(task(), ...lots.map((lot) => scan(syrup(lot))), confirm)).toEqual(lots.map((lot) => [3, 1, lot]));
  });

  it('are counted on while the same goods are scanned, and say what was booked in with what is in hand now', () => {
    const { commands, last } = run(task(), scan(codes.jar), scan(codes.jar), scan(syrup('L1')));
    expect(commands).toMatchObject([{ itemId: 1, units: 2, id: 'id-3' }]);
    expect(last?.feedback).toMatchObject({ band: 'accepted', title: 'Syrup', detail: expect.stringMatching(/^2 jars booked in\. /) });
  });

  it('are a run of serial numbers too: each number books in the piece before it', () => {
    expect(booked(task(), scan('SCALE'), scan('SN-1'), scan('SN-2'), scan('SN-3'), confirm)).toEqual([[4, 1, 'SN-1'], [4, 1, 'SN-2'], [4, 1, 'SN-3']]); // prettier-ignore
    // The same number again is no other piece.
    expect(booked(task(), scan('SCALE'), scan('SN-1'), scan('SN-1'), confirm)).toEqual([[4, 1, 'SN-1']]);
  });

  it('raise their question before anything else is taken in hand', () => {
    const { state, commands, last } = run(task(), scan(codes.jar), count(11, 900), scan(syrup('L1')));
    expect(commands.map((c) => c.kind)).toEqual(['refused']);
    expect(last?.feedback?.band).toBe('too-many');
    expect([state.hand?.itemId, state.question?.kind]).toEqual([1, 'over']);
    // A lot that is still to be said, likewise.
    expect(run(task(), scan(codes.syrup), scan(codes.jar)).state.hand?.itemId).toBe(3);
  });

  it('are not booked in by what was typed or chosen, nor where the house wants a key', () => {
    expect(booked(task(), scan(codes.jar), typed('SYR'))).toEqual([]);
    expect(booked({ ...task(), nextBooks: false }, scan(codes.jar), scan(syrup('L1')))).toEqual([]);
    expect(booked(task(), scan(codes.jar), clear, scan(syrup('L1')))).toEqual([]);
  });

  it('count for their line at once, so that the next of the same goods are of what is left', () => {
    const two = task([line(1, 3, 31, 1), line(2, 3, 31, 1)]);
    const { commands, state } = run(two, scan(syrup('L1')), scan(syrup('L2')), confirm);
    expect(commands).toMatchObject([{ lineId: 1 }, { lineId: 2 }]);
    expect([receivedOn(two, state, 1), receivedOn(two, state, 2)]).toEqual([1, 1]);
  });

  it('have their number keyed with Enter behind it; once more, and they are booked in', () => {
    expect(run(task(), scan(codes.jar), scan('48')).state.counts).toEqual({ 11: 48 });
    expect(booked(task(), scan(codes.jar), count(11, 48), scan('48'))).toEqual([[1, 48, null]]);
    // Digits with nothing in hand are a code like any other.
    expect(run(task(), scan('48')).last?.feedback?.band).toBe('unknown');
  });

  it('have their lot from a label that says nothing else; no number of goods passes for one', () => {
    const dated = { kind: 'text' as const, field: 'expires' as const, value: '2028-03-31' };
    const inputs = [scan(codes.syrup), scan('l2617'), dated, count(31, 6), scan(codes.jar)];
    expect(run(task(), scan(codes.syrup), scan('l2617')).last?.feedback).toMatchObject({ title: 'L2617', detail: 'Lot of this Syrup' });
    expect(run(task(), ...inputs).commands[0]).toMatchObject({ itemId: 3, lot: 'L2617' });
    expect(run(task(), scan(codes.syrup), scan(codes.unknown)).state).toMatchObject({ lot: null, question: { kind: 'unknown-code' } });
    expect(run(task(), scan(codes.syrup), scan('6')).state).toMatchObject({ lot: null, counts: { 31: 6 } });
  });
});
