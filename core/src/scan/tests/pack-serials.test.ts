import { pack, type PackTask, startPack } from '../index.js';
import { type AnyInput, book, codes, count, over, scan, walk } from './book.js';

/** Jars whose serial number is asked for when they are packed; the tray of 48 has none. */
const numbered = { ...book, items: { ...book.items, '1': { ...book.items['1']!, asksSerial: true } } };
const order: PackTask = {
  order: 'S-1',
  customer: 'Wick Hill Farm',
  note: null,
  noteSeen: true,
  parcels: [{ number: 1, code: 'S-1-1', open: true, contents: [{ line: 1, units: 1 }] }],
  serials: [{ line: 1, parcel: 1, serial: 'A1' }],
  lines: [
    { line: 1, itemId: 1, picked: 3, packed: 1, unitG: 300, unitMl: 700 },
    { line: 2, itemId: 2, picked: 1, packed: 0, unitG: 5, unitMl: 5 },
  ],
};
const done = (...inputs: AnyInput[]) => {
  const walked = walk(over(pack, numbered), order, startPack, ...inputs);
  return { ...walked, made: walked.commands.filter((c) => c.kind !== 'refused') };
};

describe('serial numbers that are asked for at packing', () => {
  it('are scanned after each piece, or come with its code', () => {
    const { made, steps } = done(scan(codes.jar), scan('b2'));
    expect(steps[0]?.feedback).toMatchObject({ band: 'accepted', detail: 'Now its serial number' });
    expect(made).toEqual([{ kind: 'pack', id: 'id-2', order: 'S-1', parcel: 1, line: 1, units: 1, serial: 'B2', how: 'scanned' }]);
    expect(done(scan('(01)09506000134352(21)C3')).made).toMatchObject([{ kind: 'pack', units: 1, serial: 'C3' }]);
  });

  it('lie in one parcel once; no paper and no code of the goods passes for one', () => {
    const title = (...inputs: AnyInput[]) => done(...inputs).last?.feedback;
    expect(title(scan(codes.jar), scan('A1'))).toMatchObject({ band: 'not-this', detail: expect.stringContaining('in parcel 1 already') });
    expect(title(scan(codes.jar), scan('B2'), scan(codes.jar), scan('b2'))).toMatchObject({ band: 'not-this', title: 'B2' });
    for (const no of [codes.jar, 'S-20417', 'V-1005', 'X'.repeat(61), codes.lid]) expect([no, title(scan(codes.jar), scan(no))?.band]).toEqual([no, 'not-this']); // prettier-ignore
    // What was refused leaves the piece in hand: its own number is still taken.
    expect(done(scan(codes.jar), scan('S-20417'), scan('B2')).made).toHaveLength(1);
  });

  it('keep each piece apart: no tray, no number keyed, no more than are wanted, and let go by hand', () => {
    expect(done(scan(codes.tray)).last?.feedback).toMatchObject({ band: 'not-this', detail: expect.stringContaining('single pieces') });
    expect(done(scan(codes.jar), scan('B2'), count(11, 1)).last?.feedback).toMatchObject({ detail: 'Scan each piece of it' });
    expect(done(scan(codes.jar), scan('B2'), scan(codes.jar), scan('C3'), scan(codes.jar)).last?.feedback?.band).toBe('too-many');
    const { made } = done(scan(codes.jar), { kind: 'clear' }, scan(codes.lid));
    expect(made).toMatchObject([{ kind: 'pack', line: 2 }]);
  });

  it('come out of a parcel by their number, and only out of the one that they are in', () => {
    const { made } = done({ kind: 'apart' }, scan(codes.jar), scan('A1'));
    expect(made).toMatchObject([{ kind: 'repack', from: 1, to: 2, line: 1, units: 1, serial: 'A1' }]);
    expect(done({ kind: 'apart' }, scan(codes.jar), scan('Z9')).last?.feedback).toMatchObject({ detail: 'It is not in parcel 1' });
  });

  it('of a piece that the desk took off the order is scanned once it is out; until then the parcel is not closed', () => {
    const task: PackTask = {
      ...order,
      serials: [{ line: 1, parcel: 1, serial: 'A1' }, { line: 1, parcel: 1, serial: 'A2' }], // prettier-ignore
      lines: [{ line: 1, itemId: 1, picked: 1, packed: 1, unitG: 300, unitMl: 700 }],
    };
    const close = { kind: 'close' as const, carton: 'B1', weightG: 400, service: null, weightSeen: false };
    const walked = walk(over(pack, numbered), task, startPack, close, scan('a2'), close, scan('a1'));
    expect(walked.steps.map((s) => s.feedback?.title)).toEqual([
      'Which piece came out?',
      'A2 is out',
      'Parcel 1 closed',
      expect.anything(),
    ]);
    expect(walked.commands.filter((c) => c.kind === 'serial-out')).toEqual([{ kind: 'serial-out', id: 'id-2', order: 'S-1', line: 1, serial: 'A2' }]); // prettier-ignore
  });
});
