import { checkReceive, receive, receivedOn, startReceive, type ReceiveTask } from '../index.js';
import type { Codebook } from '../types.js';
import { type AnyInput, over, book, clear, codes, confirm, count, places, scale, scan, typed, walk } from './book.js';

const withScale: Codebook = {
  ...book,
  codes: { ...book.codes, '09506000134376': { itemId: 4, packId: 41 }, SCALE: { itemId: 4, packId: 41 } },
  items: { ...book.items, 4: scale },
};
const task: ReceiveTask = {
  document: 'P-1190',
  supplier: 'Quillon Glassware',
  overPercent: 0,
  fillRemaining: true,
  dock: places.dock,
  apart: null,
  inspection: null,
  inspect: {},
  mayTake: false,
  pallets: [],
  serials: [],
  lines: [
    { lineId: 1, order: 'P-1190', line: 1, itemId: 1, packId: 12, ordered: 200, received: 0 },
    { lineId: 2, order: 'P-1190', line: 2, itemId: 3, packId: 31, ordered: 10, received: 4 },
    { lineId: 3, order: 'P-1190', line: 3, itemId: 4, packId: 41, ordered: 3, received: 0 },
  ],
};
const run = (t: ReceiveTask, ...inputs: AnyInput[]) => walk(over(receive, withScale), t, startReceive, ...inputs);
const text = (field: 'lot' | 'expires', value: string) => ({ kind: 'text' as const, field, value });

describe('receiving where a scan fills in the rest', () => {
  it('puts all that is due into the pad, in packs, largest first', () => {
    const { state } = run(task, scan(codes.tray));
    expect(state.counts).toEqual({ 12: 4, 11: 8 });
    expect(run(task, scan(codes.tray), confirm).commands).toMatchObject([{ lineId: 1, units: 200 }]);
  });

  it('fills the same whichever pack of the goods is scanned, or however they are named', () => {
    for (const first of [scan(codes.jar), scan(codes.tray), typed('JAR')]) {
      expect(run(task, first, confirm).commands).toMatchObject([{ units: 200 }]);
    }
  });

  it('does not count on when the goods are scanned again', () => {
    expect(run(task, scan(codes.tray), scan(codes.tray), scan(codes.tray), confirm).commands).toMatchObject([{ units: 200 }]);
  });

  it('leaves a figure that was keyed after the scan', () => {
    expect(run(task, scan(codes.jar), count(12, 2), count(11, 0), scan(codes.jar), confirm).commands).toMatchObject([{ units: 96 }]);
  });

  it('fills only what is still due, also with what is on its way', () => {
    const label = ']C1010950600013436917280331' + '10LM2617';
    expect(run(task, scan(label), confirm).commands).toMatchObject([{ lineId: 2, units: 6, lot: 'LM2617' }]);
    const twice = run(task, scan(codes.tray), count(12, 3), count(11, 0), confirm, scan(codes.tray), confirm);
    expect(twice.commands).toMatchObject([{ units: 144 }, { units: 56 }]);
    expect(receivedOn(task, twice.state, 1)).toBe(200);
  });

  it('counts one by one again once nothing is due', () => {
    const full = { ...task, lines: task.lines.map((l) => ({ ...l, received: l.ordered })) };
    const { state, last } = run(full, scan(codes.jar), confirm);
    expect(state.counts).toEqual({ 11: 1 });
    expect(last?.feedback).toMatchObject({ band: 'too-many', title: '1 jar over' });
  });

  it('takes two inputs a line: the goods and their place', () => {
    const { commands } = run(task, scan(codes.tray), scan('A-01-1'));
    expect(commands).toMatchObject([{ units: 200, toPlaceId: places.binA.id }]);
  });

  it('is emptied by clearing, and filled anew by the next scan', () => {
    expect(run(task, scan(codes.tray), clear).state.counts).toEqual({});
    expect(run(task, scan(codes.tray), clear, scan(codes.tray)).state.counts).toEqual({ 12: 4, 11: 8 });
  });
});

describe('receiving goods with serial numbers', () => {
  const oneByOne = { ...task, fillRemaining: false };

  it('asks for the number, and books one piece with it', () => {
    const bare = run(oneByOne, scan('SCALE'), confirm);
    expect(bare.last?.feedback).toMatchObject({ band: 'not-this', title: 'Serial number missing' });
    expect(bare.commands).toMatchObject([{ kind: 'refused' }]);
    const named = run(oneByOne, scan('SCALE'), text('lot', 'HS-0001'), confirm);
    expect(named.commands).toMatchObject([{ itemId: 4, units: 1, lot: 'HS-0001', expires: null }]);
  });

  it('reads the number from a code that carries it', () => {
    const { commands } = run(oneByOne, scan(']C101095060001343762' + '1HS-0002'), confirm);
    expect(commands).toMatchObject([{ itemId: 4, lot: 'HS-0002', units: 1 }]);
  });

  it('never books two pieces under one number', () => {
    const { last, commands } = run(oneByOne, scan('SCALE'), text('lot', 'HS-0003'), count(41, 2), confirm);
    expect(last?.feedback).toMatchObject({ band: 'too-many', title: 'One serial number, one piece' });
    expect(commands).toMatchObject([{ kind: 'refused' }]);
  });

  it('forgets the number after each piece', () => {
    const { state } = run(oneByOne, scan('SCALE'), text('lot', 'HS-0004'), confirm);
    expect(state).toMatchObject({ lot: null, counts: {} });
    expect(receivedOn(oneByOne, state, 3)).toBe(1);
  });

  it('is judged so on the server too', () => {
    const command = {
      kind: 'receive',
      id: 'x',
      document: 'P-1190',
      lineId: 3,
      itemId: 4,
      as: 'ordered' as const,
      condition: 'good' as const,
      reason: null,
      units: 1,
      lot: null,
      expires: null,
      toPlaceId: places.dock.id,
      how: 'scanned',
    } as const;
    expect(checkReceive(task, withScale, command, 0)?.title).toBe('Serial number missing');
    expect(checkReceive(task, withScale, { ...command, lot: 'HS-1', units: 2 }, 0)?.title).toBe('One serial number, one piece');
    expect(checkReceive(task, withScale, { ...command, lot: 'HS-1' }, 0)).toBeNull();
    expect(checkReceive(task, withScale, { ...command, lot: 'HS-1' }, 3)).toMatchObject({ band: 'too-many', title: '1 piece over' });
  });
});

describe('what may be booked in at all', () => {
  const command = {
    kind: 'receive',
    id: 'x',
    document: 'P-1190',
    lineId: 1,
    itemId: 1,
    as: 'ordered' as const,
    condition: 'good' as const,
    reason: null,
    units: 1,
    lot: null,
    expires: null,
    toPlaceId: places.dock.id,
    how: 'scanned',
  } as const;

  it.each([0, -1, 0.5, Number.NaN, Number.POSITIVE_INFINITY, 2 ** 53])('is never %d units', (units) => {
    expect(checkReceive(task, withScale, { ...command, units }, 0)).toMatchObject({ band: 'too-many', title: 'Nothing counted' });
  });

  it('is never another item than the line is for, or a line that the order has not', () => {
    expect(checkReceive(task, withScale, { ...command, itemId: 2 }, 0)).toMatchObject({ band: 'not-this' });
    expect(checkReceive(task, withScale, { ...command, lineId: 9 }, 0)).toMatchObject({ band: 'not-this' });
    expect(checkReceive(task, withScale, { ...command, itemId: 77 }, 0)).toMatchObject({ title: 'Not on this order' });
  });

  it('says how much there is still room for', () => {
    expect(checkReceive(task, withScale, { ...command, units: 48 }, 190)?.detail).toContain('room for 10 jars more');
  });
});
