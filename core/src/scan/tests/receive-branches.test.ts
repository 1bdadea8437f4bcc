import { checkReceive, daysBetween, receive, receivedOn, shortLines, startReceive, type ReceiveTask } from '../index.js';
import type { Codebook } from '../types.js';
import { type AnyInput, over, book, clear, codes, confirm, count, places, scale, scan, typed, walk } from './book.js';

const cage = { id: 120, code: 'APART', kind: 'quarantine', siteId: 1 };
const house: Codebook = {
  ...book,
  codes: { ...book.codes, SCALE: { itemId: 4, packId: 41 } },
  items: { ...book.items, 3: { ...book.items['3']!, minLifeDays: 90 }, 4: scale },
};
const SSCC = '395060001343520018';
const task: ReceiveTask = {
  document: 'A-0031',
  supplier: 'Quillon Glassware',
  overPercent: 5,
  fillRemaining: false,
  dock: places.dock,
  apart: cage,
  inspection: null,
  inspect: {},
  mayTake: false,
  lines: [
    { lineId: 71, order: 'P-1187', line: 1, itemId: 1, packId: 12, ordered: 192, received: 0 },
    { lineId: 72, order: 'P-1187', line: 2, itemId: 3, packId: 31, ordered: 10, received: 0 },
    { lineId: 80, order: 'P-1188', line: 1, itemId: 1, packId: 12, ordered: 48, received: 0 },
    { lineId: 81, order: 'P-1188', line: 2, itemId: 4, packId: 41, ordered: 3, received: 0 },
  ],
  pallets: [
    {
      sscc: SSCC,
      received: false,
      contents: [
        { lineId: 71, itemId: 1, units: 96, lot: null, expires: null },
        { lineId: 72, itemId: 3, units: 6, lot: 'LM1', expires: '2028-01-31' },
      ],
    },
  ],
  serials: ['4/HS-1'],
};
const run = (t: ReceiveTask, ...inputs: AnyInput[]) => walk(over(receive, house), t, startReceive, ...inputs);
const boss = { ...task, mayTake: true };
const apart = { kind: 'answer' as const, answer: 'apart' as const };
const take = { kind: 'answer' as const, answer: 'take' as const };
const lot = (value: string) => ({ kind: 'text' as const, field: 'lot' as const, value });
const expires = (value: string) => ({ kind: 'text' as const, field: 'expires' as const, value });

describe('an arrival of several orders', () => {
  it('fills the first order that still wants the goods, then the next', () => {
    const { commands, state } = run(task, scan(codes.tray), count(12, 4), confirm, scan(codes.tray), confirm);
    expect(commands).toMatchObject([
      { document: 'A-0031', lineId: 71, units: 192 },
      { lineId: 80, units: 48 },
    ]);
    expect(receivedOn(task, state, 80)).toBe(48);
  });

  it('tells what is short, line by line', () => {
    const { state } = run(task, scan(codes.tray), count(12, 3), confirm);
    expect(shortLines(task, state).map(({ line, missing }) => [line.lineId, missing])).toEqual([
      [71, 48],
      [72, 10],
      [80, 48],
      [81, 3],
    ]);
  });
});

describe('goods that must be looked at', () => {
  const corner = { id: 121, code: 'INSPECT-1', kind: 'inspection', siteId: 1 };
  const strict: ReceiveTask = { ...task, inspection: corner, inspect: { 1: 'every delivery is looked at' } };

  it('go to the inspection corner, with the reason, whichever shelf was scanned', () => {
    const plain = run(strict, scan(codes.tray), confirm);
    expect(plain.commands).toMatchObject([{ toPlaceId: corner.id, units: 48 }]);
    expect(plain.last?.feedback?.detail).toContain('to INSPECT-1 to be looked at: every delivery is looked at');
    expect(run(strict, scan(places.binA.code), scan(codes.tray), confirm).commands).toMatchObject([{ toPlaceId: corner.id }]);
    expect(run(strict, scan(places.cart.code), scan(codes.tray), confirm).commands).toMatchObject([{ toPlaceId: places.cart.id }]);
  });

  it('wait at the dock where a site has no such corner', () => {
    expect(run({ ...strict, inspection: null }, scan(codes.tray), confirm).commands).toMatchObject([{ toPlaceId: places.dock.id }]);
  });

  it('take their whole pallet with them', () => {
    expect(run(strict, scan(`(00)${SSCC}`)).commands).toMatchObject([{ kind: 'receive-pallet', toPlaceId: corner.id }]);
    expect(run({ ...strict, inspect: { 4: 'x' } }, scan(`(00)${SSCC}`)).commands).toMatchObject([{ toPlaceId: places.dock.id }]);
  });

  it('are refused on a shelf by the rule itself; damaged ones and those set apart are not looked at', () => {
    const command = {
      kind: 'receive' as const,
      id: 'x',
      document: 'A-0031',
      lineId: 71,
      itemId: 1,
      units: 48,
      lot: null,
      expires: null,
      toPlaceId: places.binA.id,
      how: 'scanned' as const,
      as: 'ordered' as const,
      condition: 'good' as const,
      reason: null,
    };
    expect(checkReceive(strict, house, command, 0)).toMatchObject({ title: 'To be looked at first' });
    expect(checkReceive(strict, house, { ...command, condition: 'damaged', toPlaceId: cage.id }, 0)).toBeNull();
    expect(run(strict, scan(codes.tray), scan('VX-DAMAGED'), confirm).commands).toMatchObject([{ toPlaceId: cage.id }]);
  });
});

describe('a label that says how many', () => {
  it('is counted so: goods with a count, and a pallet label that names what it holds', () => {
    const counted = run(task, scan(']C1' + '0219506000134359' + '374'), confirm);
    expect(counted.steps[0]?.feedback?.detail).toBe('4 trays counted');
    expect(counted.commands).toMatchObject([{ lineId: 71, units: 192 }]);
    const facts = run(task, scan(']C1' + '0109506000134369' + '17280331' + '306\u001d' + '10LM7'), confirm);
    expect(facts.commands).toMatchObject([{ lineId: 72, units: 6, lot: 'LM7', expires: '2028-03-31' }]);
  });

  it('adds up with the next one', () => {
    expect(run(task, scan(']C102195060001343593702'), scan(']C102195060001343593701'), confirm).commands).toMatchObject([{ units: 144 }]);
  });
});

describe('an announced pallet', () => {
  it('comes in whole by one scan', () => {
    const { commands, last, state } = run(task, scan(`]C100${SSCC}`));
    expect(commands).toEqual([{ kind: 'receive-pallet', id: 'id-1', document: 'A-0031', sscc: SSCC, toPlaceId: 100, how: 'scanned' }]);
    expect(last?.feedback).toMatchObject({ band: 'accepted', title: 'Whole pallet', detail: '2 lines as announced, to DOCK-1' });
    expect([receivedOn(task, state, 71), receivedOn(task, state, 72)]).toEqual([96, 6]);
    expect(receive.step(task, house, state, { kind: 'settled', id: 'x', ids: ['id-1'] }).state.pending).toEqual([]);
  });

  it('goes to the bin that was scanned before it', () => {
    expect(run(task, scan('B-01-1'), scan(`(00)${SSCC}`)).commands).toMatchObject([{ toPlaceId: 102 }]);
  });

  it('comes in once', () => {
    expect(run(task, scan(`]C100${SSCC}`), scan(`]C100${SSCC}`)).last?.feedback).toMatchObject({
      band: 'too-many',
      title: 'Booked in already',
    });
    const before = { ...task, pallets: [{ ...task.pallets[0]!, received: true }] };
    expect(run(before, scan(`]C100${SSCC}`)).commands).toMatchObject([{ kind: 'refused' }]);
  });

  it('that nobody announced is unknown, unless its label says what it holds', () => {
    expect(run(task, scan(']C100395060001343520025')).last?.feedback).toMatchObject({ band: 'unknown', title: '395060001343520025' });
    expect(run(task, scan(']C100395060001343520025' + '0219506000134359' + '372'), confirm).commands).toMatchObject([{ units: 96 }]);
  });
});

describe('too many', () => {
  it('asks, and sets the excess apart; what there is room for stays in hand', () => {
    const { commands, steps } = run({ ...task, lines: task.lines.slice(0, 2) }, scan(codes.jar), count(11, 210), confirm, apart, confirm);
    expect(steps[2]?.feedback).toMatchObject({ band: 'too-many', title: '18 jars over' });
    expect(steps[3]?.feedback).toMatchObject({ band: 'accepted', title: '9 jars set apart' });
    expect(commands).toMatchObject([
      { kind: 'refused' },
      { kind: 'receive', id: 'id-4', as: 'apart', lineId: null, units: 9, reason: 'too many', toPlaceId: 120 },
      { kind: 'receive', id: 'id-5', as: 'ordered', lineId: 71, units: 201, toPlaceId: 100 },
    ]);
  });

  it('is an extra line for those who may take it', () => {
    const { commands } = run({ ...boss, lines: boss.lines.slice(0, 1) }, scan(codes.jar), count(11, 240), confirm, take);
    expect(commands).toMatchObject([{ kind: 'refused' }, { kind: 'receive', as: 'extra', lineId: 71, units: 240 }]);
    const not = run({ ...task, lines: task.lines.slice(0, 1) }, scan(codes.jar), count(11, 240), confirm, take);
    expect(not.last?.feedback).toMatchObject({ band: 'not-this', title: 'More than is allowed' });
  });

  it('is only a question until something else is scanned or counted', () => {
    const { state, commands } = run(task, scan(codes.jar), count(11, 999), confirm, count(11, 10), confirm);
    expect(commands.at(-1)).toMatchObject({ as: 'ordered', units: 10 });
    expect(state.question).toBeNull();
  });

  it('all goes apart where there is no room at all', () => {
    const full = { ...task, lines: [{ ...task.lines[0]!, received: 201 }] };
    const { commands, state } = run(full, scan(codes.tray), confirm, apart);
    expect(commands.at(-1)).toMatchObject({ as: 'apart', units: 48 });
    expect(state.hand).toBeNull();
  });
});

describe('damaged goods', () => {
  it('count on their line, and go where such goods stand', () => {
    const damaged = { kind: 'condition' as const, condition: 'damaged' as const };
    const { commands, last } = run(task, scan(codes.jar), count(11, 3), damaged, confirm);
    expect(commands).toMatchObject([{ lineId: 71, units: 3, condition: 'damaged', as: 'ordered', toPlaceId: 120 }]);
    expect(last?.feedback?.detail).toBe('Jar 454 g, damaged, to APART');
  });

  it('are named by a card too, and only for the goods in hand', () => {
    const { commands } = run(task, scan('VX-DAMAGED'), scan(codes.jar), confirm, scan(codes.jar), scan('VX-DAMAGED'), scan('VX-CONFIRM'));
    expect(commands).toMatchObject([{ condition: 'good' }, { condition: 'damaged' }]);
  });

  it('never go on a shelf, whatever bin was scanned and whatever a phone asks for', () => {
    const nowhere = { ...task, apart: null };
    expect(run(nowhere, scan('A-01-1'), scan(codes.jar), scan('VX-DAMAGED'), confirm).commands).toMatchObject([{ toPlaceId: 100 }]);
    const [made] = run(nowhere, scan(codes.jar), scan('VX-DAMAGED'), confirm).commands;
    expect(checkReceive(nowhere, house, { ...(made as never as object), toPlaceId: places.binA.id } as never, 0)).toMatchObject({
      title: 'Damaged',
      detail: 'Jar 454 g does not go on a shelf so. It goes to DOCK-1',
    });
  });

  it('stay at the dock where the site has no place for them', () => {
    expect(run({ ...task, apart: null }, scan(codes.jar), scan('VX-DAMAGED'), confirm).commands).toMatchObject([{ toPlaceId: 100 }]);
  });
});

describe('a sealed pack', () => {
  const alone = (ordered: number) => ({ ...task, lines: [{ ...task.lines[0]!, ordered }] });

  it('is not opened for what a tolerance allows', () => {
    const { steps, commands } = run(alone(192), scan(codes.jar), count(12, 5), count(11, 0), confirm, apart, confirm);
    expect(steps.find((s) => s.state.question)?.state.question).toEqual({ kind: 'over', most: 192, open: null, units: 240 });
    expect(commands.filter((c) => c.kind === 'receive')).toMatchObject([
      { as: 'apart', units: 48, reason: 'too many' },
      { as: 'ordered', units: 192 },
    ]);
  });

  it('is opened for what is ordered only where somebody says so', () => {
    const asked = [scan(codes.jar), count(12, 1), count(11, 0), confirm];
    expect(run(alone(40), ...asked).last?.state.question).toEqual({ kind: 'over', most: 0, open: 40, units: 48 });
    expect(run(alone(40), ...asked, apart).commands.at(-1)).toMatchObject({ as: 'apart', units: 48 });
    expect(run(alone(40), ...asked, { kind: 'answer', answer: 'open' }, confirm).commands.slice(-2)).toMatchObject([
      { as: 'apart', units: 8 },
      { as: 'ordered', units: 40 },
    ]);
  });

  it('is no matter where single pieces were counted', () => {
    expect(run(alone(40), scan(codes.jar), count(11, 48), confirm).last?.state.question).toEqual({
      kind: 'over',
      most: 42,
      open: null,
      units: 48,
    });
  });
});

describe('wrong goods', () => {
  it('are set apart, counted, with the reason', () => {
    const { steps, commands } = run(task, scan(codes.lid), apart, scan(codes.lid), confirm);
    expect(steps[0]?.feedback).toMatchObject({ band: 'not-this', title: 'Lid, gold', detail: 'Not on A-0031. Set it apart' });
    expect(commands.at(-1)).toMatchObject({ as: 'apart', itemId: 2, lineId: null, units: 2, reason: 'wrong goods', toPlaceId: 120 });
  });

  it('are set apart by scanner alone', () => {
    expect(run(task, scan(codes.lid), scan('VX-APART'), scan('VX-CONFIRM')).commands.at(-1)).toMatchObject({ as: 'apart', units: 1 });
  });

  it('are taken in without an order by those who may', () => {
    expect(run(boss, scan(codes.lid), take, confirm).commands.at(-1)).toMatchObject({
      as: 'unordered',
      lineId: null,
      units: 1,
      toPlaceId: 100,
    });
    expect(run(task, scan(codes.lid), take).last?.feedback).toMatchObject({ band: 'not-this', title: 'Not yours to take in' });
  });

  it('are let go when something else is scanned', () => {
    const { state } = run(task, scan(codes.lid), scan(codes.tray));
    expect(state).toMatchObject({ question: null, hand: { lineId: 71 } });
  });
});

describe('dates', () => {
  const dated = (t: ReceiveTask, date: string, ...more: AnyInput[]) =>
    run(t, typed('SYR'), count(31, 2), lot('LM1'), expires(date), confirm, ...more);

  it('must be real and near enough', () => {
    for (const date of ['2027-02-30', '3027-01-01', '31.12.2027', '2027-13-01'])
      expect(dated(task, date).last?.feedback).toMatchObject({ band: 'not-this', title: date });
  });

  it('must leave the life that is asked for', () => {
    expect(dated(task, '2027-05-29').last?.feedback).toMatchObject({
      title: 'Too short a life',
      detail: '89 of at least 90 days left. Set Syrup apart',
    });
    expect(dated(task, '2027-05-30').commands.at(-1)).toMatchObject({ kind: 'receive', units: 2 });
    expect(dated(task, '2027-02-28').last?.feedback).toMatchObject({ title: 'Past its date', detail: 'Ended 1 day ago. Set Syrup apart' });
  });

  it('too old: apart, or in all the same for those who may', () => {
    expect(dated(task, '2027-04-01', apart).commands.at(-1)).toMatchObject({ as: 'apart', reason: 'too old', lot: 'LM1', units: 2 });
    expect(dated(boss, '2027-04-01', take).commands.at(-1)).toMatchObject({ as: 'extra', lineId: 72, units: 2 });
    expect(dated(task, '2027-04-01', take).last?.feedback).toMatchObject({ title: 'More than is allowed' });
  });

  it('are counted in whole days', () => {
    expect(daysBetween('2027-02-28', '2027-03-01')).toBe(1);
    expect(daysBetween('2028-02-28', '2028-03-01')).toBe(2);
    expect(daysBetween('2027-03-01', '2027-02-29')).toBeNaN();
  });
});

describe('serial numbers', () => {
  it('are taken from a label of their own, once the goods are in hand', () => {
    const { commands } = run(task, scan('SCALE'), scan('HS-9'), confirm);
    expect(commands).toMatchObject([{ lineId: 81, lot: 'HS-9', units: 1 }]);
  });

  it('come in once, whoever has the piece', () => {
    expect(run(task, scan('SCALE'), lot('HS-1'), confirm).last?.feedback).toMatchObject({ band: 'not-this', title: 'HS-1' });
    const twice = run(task, scan('SCALE'), lot('HS-2'), confirm, scan('SCALE'), lot('HS-2'), confirm);
    expect(twice.last?.feedback?.detail).toContain('in the house already');
  });
});

describe('an unknown barcode', () => {
  it('is tied to goods on the spot, and counts from the next scan', () => {
    const { commands, steps } = run(task, scan(codes.unknown), { kind: 'tie', itemId: 1, packId: 12 }, scan(codes.unknown), confirm);
    expect(steps[0]?.state.question).toEqual({ kind: 'unknown-code', code: codes.unknown });
    expect(commands).toMatchObject([
      { kind: 'refused', band: 'unknown' },
      { kind: 'tie', code: codes.unknown, itemId: 1, packId: 12 },
      { kind: 'receive', units: 48 },
    ]);
  });

  it('is tied only while it is asked about, to a pack that is there', () => {
    expect(run(task, { kind: 'tie', itemId: 1, packId: 12 }).commands).toEqual([]);
    expect(run(task, scan(codes.unknown), { kind: 'tie', itemId: 1, packId: 99 }).commands).toHaveLength(1);
    expect(run(task, scan(codes.unknown), scan(codes.jar), { kind: 'tie', itemId: 1, packId: 12 }).commands).toHaveLength(1);
  });

  it('stays tied while other goods are booked in', () => {
    const { commands } = run(
      task,
      scan(codes.unknown),
      { kind: 'tie', itemId: 1, packId: 12 },
      scan(codes.jar),
      confirm,
      scan(codes.unknown),
      clear,
    );
    expect(commands.at(-1)).toMatchObject({ kind: 'receive', units: 1 });
  });
});

describe('forty lines of a mixed pallet, codes carrying all facts', () => {
  it('take two inputs a line', () => {
    const items = Array.from({ length: 40 }, (_, i) => ({
      ...book.items['3']!,
      id: 100 + i,
      sku: `M-${i}`,
      packs: [{ id: 500 + i, name: 'can', plural: 'cans', factor: 1 }],
    }));
    const gtin = (i: number) => {
      const body = `095060002${String(i).padStart(4, '0')}`;
      const sum = [...body].reduce((n, d, k) => n + Number(d) * (k % 2 === 0 ? 3 : 1), 0);
      return body + String((10 - (sum % 10)) % 10);
    };
    const mixed: Codebook = {
      ...book,
      codes: Object.fromEntries(items.map((item, i) => [gtin(i), { itemId: item.id, packId: 500 + i }])),
      items: Object.fromEntries(items.map((item) => [item.id, item])),
    };
    const pallet: ReceiveTask = {
      ...task,
      lines: items.map((item, i) => ({
        lineId: i + 1,
        order: 'P-1',
        line: i + 1,
        itemId: item.id,
        packId: 500 + i,
        ordered: 12,
        received: 0,
      })),
    };
    let state = startReceive;
    let inputs = 0;
    const commands = items.flatMap((_, i) =>
      [`]C101${gtin(i)}17280331` + '3012\u001d' + `10LM${i}`, 'VX-CONFIRM'].flatMap((code) => {
        const step = receive.step(pallet, mixed, state, { kind: 'code', id: `k${inputs}`, code, how: 'scanned' });
        state = step.state;
        inputs += 1;
        return step.commands;
      }),
    );
    expect(inputs).toBe(80);
    expect(commands).toHaveLength(40);
    expect(commands.every((c) => c.kind === 'receive' && c.units === 12 && c.lot !== null && c.expires === '2028-03-31')).toBe(true);
    expect(shortLines(pallet, state)).toEqual([]);
  });
});

describe('the rule on the server', () => {
  const command = {
    kind: 'receive' as const,
    id: 'x',
    document: 'A-0031',
    lineId: null,
    itemId: 2,
    units: 5,
    lot: null,
    expires: null,
    toPlaceId: 120,
    how: 'scanned' as const,
    as: 'apart' as const,
    condition: 'good' as const,
    reason: 'wrong goods' as const,
  };

  it('lets goods be set apart with a reason, and no line be named by the way', () => {
    expect(checkReceive(task, house, command, 0)).toBeNull();
    expect(checkReceive(task, house, { ...command, reason: null }, 0)?.detail).toContain('Say why');
    expect(checkReceive(task, house, { ...command, lineId: 71 }, 0)).toMatchObject({ band: 'not-this' });
    expect(checkReceive(task, house, { ...command, itemId: 1, lineId: 71 }, 0)).toMatchObject({ band: 'not-this' });
    expect(checkReceive(task, house, { ...command, itemId: 99 }, 0)).toMatchObject({ title: 'Not on this order' });
  });

  it('asks for the right to take in what no order names', () => {
    expect(checkReceive(task, house, { ...command, as: 'unordered', reason: null }, 0)).toMatchObject({ title: 'On no order' });
    expect(checkReceive(boss, house, { ...command, as: 'unordered', reason: null }, 0)).toBeNull();
    expect(checkReceive(boss, house, { ...command, as: 'extra', reason: null }, 0)).toMatchObject({ band: 'not-this' });
  });
});
