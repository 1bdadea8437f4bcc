import { checkReceive, mostAllowed, receive, receivedOn, startReceive, type ReceiveTask } from '../index.js';
import { type AnyInput, book, clear, codes, confirm, count, places, scan, typed, walk } from './book.js';

const task: ReceiveTask = {
  document: 'P-1187',
  supplier: 'Quillon Glassware',
  overPercent: 5,
  fillRemaining: false,
  dock: places.dock,
  apart: null,
  inspection: null,
  inspect: {},
  mayTake: false,
  pallets: [],
  serials: [],
  lines: [
    { lineId: 1, order: 'P-1187', line: 1, itemId: 1, packId: 12, ordered: 192, received: 0 },
    { lineId: 2, order: 'P-1187', line: 2, itemId: 3, packId: 31, ordered: 10, received: 4 },
  ],
};
const run = (...inputs: AnyInput[]) => walk(receive, task, startReceive, ...inputs);
const SYRUP_LABEL = ']C1010950600013436917280331' + '10LM2617';

describe('receiving', () => {
  it('books a line in by two inputs: the goods, then the place', () => {
    const { commands, state } = run(scan(codes.tray), scan('A-01-1'));
    expect(commands).toEqual([
      {
        kind: 'receive',
        id: 'id-2',
        document: 'P-1187',
        lineId: 1,
        itemId: 1,
        as: 'ordered' as const,
        condition: 'good' as const,
        reason: null,
        units: 48,
        lot: null,
        expires: null,
        toPlaceId: 101,
        how: 'scanned',
      },
    ]);
    expect(receivedOn(task, state, 1)).toBe(48);
  });

  it('counts one for each scan of a pack, whichever pack it is', () => {
    const { commands } = run(scan(codes.tray), scan(codes.tray), scan(codes.jar), confirm);
    expect(commands).toMatchObject([{ units: 97 }]);
  });

  it('takes the keyed figure instead of the scans', () => {
    expect(run(scan(codes.tray), count(12, 4), confirm).commands).toMatchObject([{ units: 192, toPlaceId: 100 }]);
  });

  it('counts nothing for goods chosen by hand', () => {
    const { last, commands } = run(typed('JAR'), confirm);
    expect(last?.feedback).toMatchObject({ band: 'too-many', title: 'Nothing counted' });
    expect(commands).toMatchObject([{ kind: 'refused' }]);
    expect(run(typed('JAR'), count(11, 5), confirm).commands).toMatchObject([{ units: 5, how: 'typed' }]);
  });

  it('remembers the bin that was scanned first', () => {
    const { commands, state } = run(scan('B-01-1'), scan(codes.tray), confirm, scan(codes.tray), confirm);
    expect(commands).toMatchObject([{ toPlaceId: 102 }, { toPlaceId: 102 }]);
    expect(state.to?.code).toBe('B-01-1');
  });

  it('goes back to the dock when the dock is scanned', () => {
    expect(run(scan('B-01-1'), scan('DOCK-1'), scan(codes.tray), confirm).commands).toMatchObject([{ toPlaceId: 100 }]);
  });

  it('reads lot and date from the label', () => {
    const { commands, steps } = run(scan(SYRUP_LABEL), count(31, 6), confirm);
    expect(steps[0]?.feedback?.detail).toBe('Label read: lot LM2617 and date 2028-03-31');
    expect(commands).toMatchObject([{ itemId: 3, units: 6, lot: 'LM2617', expires: '2028-03-31' }]);
  });

  it('never books in what was counted of one lot as another', () => {
    const other = SYRUP_LABEL.replace('LM2617', 'LM2699');
    const { last, commands, state } = run(scan(SYRUP_LABEL), count(31, 6), scan(other));
    expect(last?.feedback).toMatchObject({ band: 'not-this', title: 'LM2699', detail: 'Book in or clear the 6 cans of LM2617 first' });
    expect(commands).toMatchObject([{ kind: 'refused' }]);
    expect(state.lot).toBe('LM2617');
    expect(run(scan(SYRUP_LABEL), count(31, 5), confirm, scan(other), confirm).commands).toMatchObject([
      { lot: 'LM2617', units: 5 },
      { lot: 'LM2699', units: 1 },
    ]);
  });

  it('asks for lot and date where the label has none', () => {
    const bare = run(scan(codes.syrup), count(31, 6), confirm);
    expect(bare.last?.feedback).toMatchObject({ band: 'not-this', title: 'Lot missing' });
    const lotOnly = run(scan(codes.syrup), count(31, 6), { kind: 'text', field: 'lot', value: ' LM9 ' }, confirm);
    expect(lotOnly.last?.feedback?.title).toBe('Date missing');
    const both = run(
      scan(codes.syrup),
      count(31, 6),
      { kind: 'text', field: 'lot', value: ' LM9 ' },
      { kind: 'text', field: 'expires', value: '2028-01-31' },
      confirm,
    );
    expect(both.commands).toMatchObject([{ lot: 'LM9', expires: '2028-01-31' }]);
  });

  it('refuses goods of another order and says where they belong', () => {
    const { last } = run(scan(codes.lid));
    expect(last?.feedback).toEqual({ band: 'not-this', title: 'Lid, gold', detail: 'Not on P-1187. Set it apart' });
    expect(last?.commands).toMatchObject([{ kind: 'refused', code: 'LID', band: 'not-this' }]);
  });

  it('keeps an unknown code for the office', () => {
    expect(run(scan(codes.unknown)).last?.feedback).toMatchObject({ band: 'unknown', title: codes.unknown });
  });

  it('does not mix two goods in one count', () => {
    const { last, state } = run(scan(codes.tray), scan(codes.syrup));
    expect(last?.feedback).toMatchObject({ band: 'not-this', detail: 'Book in or clear the Jar 454 g counted first' });
    expect(state.hand?.lineId).toBe(1);
    expect(run(scan(codes.tray), clear, scan(codes.syrup)).state.hand?.lineId).toBe(2);
  });

  it('lets five per cent more through and says by how many beyond', () => {
    expect(mostAllowed(192, 5)).toBe(201);
    expect(run(scan(codes.jar), count(11, 201), confirm).commands).toMatchObject([{ units: 201 }]);
    const { last } = run(scan(codes.jar), count(11, 240), confirm);
    expect(last?.feedback).toMatchObject({
      band: 'too-many',
      title: '1 tray over',
      detail: 'P-1187 has room for 4 trays and 9 jars more of Jar 454 g. Set the rest apart',
    });
  });

  it('counts what is posted and not yet confirmed', () => {
    const { last } = run(scan(codes.jar), count(11, 192), confirm, scan(codes.jar), count(11, 10), confirm);
    expect(last?.feedback?.band).toBe('too-many');
  });

  it('forgets a posted quantity when the server has answered', () => {
    const { state } = run(scan(codes.tray), confirm, { kind: 'settled', ids: ['id-1'] });
    expect(state.pending).toHaveLength(1);
    const settled = receive.step(task, book, state, { kind: 'settled', id: 'x', ids: ['id-2'] });
    expect(settled.state.pending).toEqual([]);
  });

  it('refuses a place of another site', () => {
    expect(run(scan('QUAY-DOCK')).last?.feedback).toMatchObject({ band: 'not-this', title: 'QUAY-DOCK' });
  });

  it('hears command cards', () => {
    expect(run(scan(codes.tray), scan('VX-CONFIRM')).commands).toMatchObject([{ kind: 'receive', units: 48 }]);
    expect(run(scan('vx-undo')).last?.undo).toBe(true);
  });

  it('does nothing on a confirmation with nothing in hand', () => {
    expect(run(confirm).commands).toEqual([]);
    expect(run(count(12, 3)).state).toEqual(startReceive);
  });

  it('is judged by the same rule on the server', () => {
    const command = {
      kind: 'receive' as const,
      id: 'x',
      document: 'P-1187',
      lineId: 1,
      itemId: 1,
      as: 'ordered' as const,
      condition: 'good' as const,
      reason: null,
      units: 10,
      lot: null,
      expires: null,
      toPlaceId: 100,
      how: 'scanned' as const,
    };
    expect(checkReceive(task, book, command, 0)).toBeNull();
    expect(checkReceive(task, book, command, 195)).toMatchObject({ band: 'too-many' });
    expect(checkReceive(task, book, { ...command, itemId: 2 }, 0)).toMatchObject({ band: 'not-this' });
    expect(checkReceive(task, book, { ...command, lineId: 9 }, 0)).toMatchObject({ band: 'not-this' });
    expect(checkReceive(task, book, { ...command, units: 0.5 }, 0)).toMatchObject({ title: 'Nothing counted' });
  });
});
