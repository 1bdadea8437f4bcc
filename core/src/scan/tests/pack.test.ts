import {
  checkPack,
  goodsWeightG,
  noteIsRead,
  openLine,
  pack,
  parcelInUse,
  parcelsNow,
  startPack,
  toPack,
  type PackTask,
} from '../index.js';
import { type AnyInput, book, codes, confirm, count, scan, walk } from './book.js';

const order: PackTask = {
  order: 'S-20417',
  customer: 'Wick Hill Farm',
  note: 'No prices in the box',
  noteSeen: false,
  parcels: [],
  lines: [
    { line: 1, itemId: 1, picked: 50, packed: 0, unitG: 300, unitMl: 700 },
    { line: 2, itemId: 3, picked: 2, packed: 1, unitG: 5000, unitMl: 4000 },
  ],
};
const prove = (...inputs: AnyInput[]) => walk(pack, order, startPack, ...inputs);

describe('packing', () => {
  it('proves each piece by its scan', () => {
    const { commands, steps, state } = prove(scan(codes.tray), scan(codes.jar));
    expect(commands).toMatchObject([
      { kind: 'pack', line: 1, units: 48 },
      { kind: 'pack', line: 1, units: 1 },
    ]);
    expect(steps[1]?.feedback).toMatchObject({ title: 'Jar 454 g', detail: '1 jar to go' });
    expect(toPack(state, order.lines[0]!)).toBe(1);
  });

  it('says when a line is all in, and goes on to the next', () => {
    const { last, state } = prove(scan(codes.syrup));
    expect(last?.feedback?.detail).toBe('all 2 cans in');
    expect(openLine(order, state)?.line).toBe(1);
  });

  it('refuses one too many, and the wrong parcel', () => {
    expect(prove(scan(codes.syrup), scan(codes.syrup)).last?.feedback).toMatchObject({
      band: 'too-many',
      title: '1 can over',
      detail: 'S-20417 wants no more of Syrup. Put it back in K-01-1',
    });
    expect(prove(scan(codes.lid)).last?.feedback).toMatchObject({ band: 'not-this', detail: 'Not on S-20417.' });
    expect(prove(scan('T-01')).last?.feedback).toMatchObject({ band: 'not-this', title: 'T-01' });
    expect(prove(scan(codes.unknown)).last?.feedback?.band).toBe('unknown');
  });

  it('takes a keyed number for the line last touched', () => {
    expect(prove(scan(codes.jar), count(11, 49)).commands).toMatchObject([{ units: 1 }, { units: 49, how: 'typed' }]);
    expect(prove(count(11, 5)).commands).toEqual([]);
  });

  it('takes the rest of a line by card once one of it was scanned, but of what is scanned piece by piece', () => {
    expect(prove(scan('VX-TAKE')).last?.feedback).toMatchObject({ title: 'Nothing to count' });
    expect(prove(scan(codes.jar), scan('VX-TAKE')).commands).toMatchObject([{ units: 1 }, { units: 49 }]);
    const each = { ...book, items: { ...book.items, '1': { ...book.items['1']!, scanEach: true } } };
    const touched = pack.step(order, each, startPack, { kind: 'code', id: 'a', code: codes.jar, how: 'scanned' }).state;
    expect(pack.step(order, each, touched, { kind: 'count', id: 'b', packId: 11, count: 2 }).feedback).toMatchObject({
      band: 'not-this',
      detail: 'Scan each piece of it',
    });
  });

  it('answers the note once', () => {
    const { commands, state } = prove(confirm, confirm, scan('VX-CONFIRM'));
    expect(commands).toEqual([{ kind: 'note-seen', id: 'id-1', order: 'S-20417' }]);
    expect(noteIsRead(order, state)).toBe(true);
  });

  it('is judged by the same rule on the server', () => {
    expect(checkPack('S-1', book.items['1'], 5, 5)).toBeNull();
    expect(checkPack('S-1', book.items['2'], 6, 5)).toMatchObject({
      band: 'too-many',
      detail: 'S-1 wants 5 lids of Lid, gold. Set it apart',
    });
    expect(checkPack('S-1', undefined, 1, 1)).toMatchObject({ band: 'not-this' });
    expect(checkPack('S-1', book.items['1'], -1, 5)).toMatchObject({ title: 'Nothing counted' });
  });
});

describe('parcels of one order', () => {
  const whole: PackTask = { ...order, note: null };
  const all = [scan(codes.tray), count(11, 2), scan(codes.syrup)];
  const close = (more: object = {}): AnyInput => ({ kind: 'close', carton: 'B2', weightG: 900, service: null, weightSeen: false, ...more });
  const run = (task: PackTask, ...inputs: AnyInput[]) => walk(pack, task, startPack, ...inputs);

  it('is closed once all is in it, with or without a service', () => {
    const service = { carrier: 'HARRIER', code: 'parcel-48' };
    expect(run(whole, ...all, close({ service })).commands.at(-1)).toEqual({
      kind: 'close-parcel',
      id: 'id-4',
      order: 'S-20417',
      parcel: 1,
      carton: 'B2',
      weightG: 900,
      service,
      weightSeen: false,
    });
    const { last, state } = run(whole, ...all, close());
    expect(last?.feedback).toMatchObject({ band: 'accepted', detail: 'Its label comes once the carriers can be asked' });
    expect(parcelsNow(whole, state)).toMatchObject([{ number: 1, open: false }]);
  });

  it('waits for what is still to be scanned, for something to be in it, and for the note', () => {
    expect(run(whole, scan(codes.jar), close()).last?.feedback).toMatchObject({ detail: '50 pieces are still to scan into the parcel' });
    const packed: PackTask = { ...whole, lines: whole.lines.map((l) => ({ ...l, packed: l.picked })) };
    expect(run(packed, close()).last?.feedback).toMatchObject({ detail: 'Nothing is in it yet' });
    expect(run(order, ...all, close()).last?.feedback).toMatchObject({ title: 'Note to answer' });
    expect(run(order, ...all, confirm, close()).last?.feedback?.band).toBe('accepted');
  });

  it('is closed once, also when pressed twice', () => {
    const { commands, last } = run(whole, ...all, close(), close());
    expect(commands.filter((c) => c.kind === 'close-parcel')).toHaveLength(1);
    expect(last?.feedback?.band).toBe('not-this');
  });

  it('may be open at the same time, and goods go into the one that is chosen', () => {
    const { commands, state, last } = run(
      whole,
      scan(codes.tray),
      { kind: 'parcel', number: 'next' },
      count(11, 2),
      { kind: 'parcel', number: 1 },
      close(),
    );
    expect(commands).toMatchObject([
      { kind: 'pack', parcel: 1, units: 48 },
      { kind: 'pack', parcel: 2, units: 2 },
      { kind: 'close-parcel', parcel: 1 },
    ]);
    expect(last?.feedback?.band).toBe('accepted');
    expect(parcelInUse(whole, state)).toBe(2);
  });

  it('that is closed is not chosen again', () => {
    const closed: PackTask = { ...whole, parcels: [{ number: 1, code: 'S-20417-1', open: false, contents: [{ line: 1, units: 1 }] }] };
    const { commands } = run(closed, { kind: 'parcel', number: 1 }, scan(codes.jar));
    expect(commands).toMatchObject([{ kind: 'pack', parcel: 2 }]);
  });

  it('is weighed by its goods alone, where all of their weights are known', () => {
    expect(goodsWeightG(whole, [{ line: 1, units: 2 }])).toBe(600);
    const odd = { lines: [{ ...whole.lines[0]!, unitG: null }] };
    expect(goodsWeightG(odd, [{ line: 1, units: 2 }])).toBeNull();
  });
});

describe('parcels that are closed', () => {
  const shut: PackTask = {
    ...order,
    note: null,
    lines: order.lines.map((l) => ({ ...l, packed: l.picked })),
    parcels: [
      { number: 1, code: 'S-20417-1', open: false, contents: [{ line: 1, units: 50 }] },
      { number: 2, code: 'S-20417-2', open: false, contents: [{ line: 2, units: 2 }] },
    ],
  };
  const run = (task: PackTask, ...inputs: AnyInput[]) => walk(pack, task, startPack, ...inputs);

  it('may be left while the rest goes into another', () => {
    const { commands, state } = run(
      { ...order, note: null },
      scan(codes.tray),
      { kind: 'close', carton: 'B2', weightG: 900, service: null, weightSeen: false, more: true },
      scan(codes.jar),
    );
    expect(commands).toMatchObject([
      { kind: 'pack', parcel: 1 },
      { kind: 'close-parcel', parcel: 1, more: true },
      { kind: 'pack', parcel: 2 },
    ]);
    expect(parcelInUse(order, state)).toBe(2);
  });

  it('are opened again by card or by number, and goods go into them', () => {
    const { commands, state, last } = run(shut, scan('VX-OPEN'), { kind: 'open', number: 1 });
    expect(commands).toMatchObject([
      { kind: 'open-parcel', parcel: 2 },
      { kind: 'open-parcel', parcel: 1 },
    ]);
    expect(last?.feedback).toMatchObject({ band: 'accepted', detail: 'Its label is void: take it off' });
    expect(parcelInUse(shut, state)).toBe(1);
    expect(run(order, scan('VX-OPEN')).last?.feedback).toMatchObject({ detail: 'No parcel of it is closed' });
  });

  it('give goods to another parcel, no more than are in them', () => {
    const open = { ...shut, parcels: shut.parcels.map((p) => ({ ...p, open: p.number === 1 })) };
    const { commands, state, steps } = run(open, scan('VX-APART'), scan(codes.tray), scan(codes.tray), scan(codes.syrup), scan('VX-APART'));
    expect(commands.filter((c) => c.kind !== 'refused')).toMatchObject([{ kind: 'repack', from: 1, to: 3, line: 1, units: 48 }]);
    expect(steps[2]?.feedback).toMatchObject({ band: 'too-many', detail: 'Only 2 of it are in there' });
    expect(steps[3]?.feedback).toMatchObject({ band: 'too-many', detail: 'None of it is in there' });
    expect(state.outOf).toBeNull();
    expect(run({ ...order, note: null }, scan('VX-APART')).last?.feedback?.band).toBe('not-this');
  });

  it('are known by their papers; those of another order wait', () => {
    expect(run(shut, scan('S-20417')).last?.feedback).toMatchObject({ band: 'accepted' });
    expect(run(shut, scan('S-20417-2')).last?.feedback).toMatchObject({ band: 'accepted', title: 'S-20417-2' });
    expect(run(shut, scan('S-20999')).last?.feedback).toMatchObject({ band: 'not-this', detail: expect.stringContaining('park it') });
    expect(run(shut, scan('V-1007')).last?.feedback).toMatchObject({ band: 'not-this', title: 'A badge' });
  });

  it('leave an order that can be parked', () => {
    expect(run(order, { kind: 'park', why: 'no box' }).commands).toMatchObject([{ kind: 'park', order: 'S-20417', why: 'no box' }]);
  });
});

describe('a note that is acknowledged by badge', () => {
  const asked = { ...order, noteBadge: 'V-1007' };
  const read = (...inputs: AnyInput[]) => walk(pack, asked, startPack, ...inputs);

  it('is read by the packer’s own badge, by no key, no card and nobody else’s', () => {
    expect(read(confirm).last?.feedback).toMatchObject({ band: 'not-this', title: 'Your badge' });
    expect(read(scan('VX-CONFIRM')).last?.feedback).toMatchObject({ band: 'not-this' });
    expect(read(scan('V-1001')).last?.feedback).toMatchObject({ detail: 'That is the badge of somebody else. Scan your own' });
    expect(read(scan('v-1007')).commands).toEqual([{ kind: 'note-seen', id: 'id-1', order: 'S-20417', badge: 'V-1007' }]);
    // Read once, a badge is a badge again.
    expect(read(scan('V-1007'), scan('V-1007')).last?.feedback).toMatchObject({ title: 'A badge' });
  });
});
