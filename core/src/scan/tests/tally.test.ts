import fc from 'fast-check';
import {
  isTallied,
  nextTallyBin,
  openTallyBins,
  startTally,
  tally,
  type TallyBin,
  type TallyLine,
  type TallyTask,
  talliedOf,
} from '../index.js';
import { book, codes, confirm, over, places, scale, scan, stepOf, typed, walk } from './book.js';

const line = (itemId: number, lot: string | null = null, more: Partial<TallyLine> = {}): TallyLine => ({
  itemId,
  lotId: lot ? 7 : 0,
  lot,
  isDamaged: false,
  counted: null,
  booked: null,
  ...more,
});
const bin = (at: { id: number; code: string }, lines: TallyLine[], more: Partial<TallyBin> = {}): TallyBin => ({
  placeId: at.id,
  code: at.code,
  area: at.code.slice(0, 1),
  state: 'open',
  by: null,
  isMine: true,
  lines,
  ...more,
});
const task = (more: Partial<TallyTask> = {}): TallyTask => ({
  document: 'N-0001',
  siteId: 1,
  title: 'Aisle A',
  wholeBins: true,
  scanEach: false,
  bins: [bin(places.binA, [line(1), line(2)]), bin(places.binB, [line(3, 'L1')])],
  metres: 20,
  ...more,
});
const run = (given: TallyTask, ...inputs: Parameters<typeof walk>[3][]) => walk(tally, given, startTally, ...inputs);
const number = (units: number) => ({ kind: 'number' as const, units });
const finish = { kind: 'finish' as const };
const empty = { kind: 'empty' as const };

describe('counting the bins of a count', () => {
  it('takes bin, goods and number for each line, and finishes the bin with the next', () => {
    const { commands, last } = run(task(), scan('A-01-1'), scan(codes.jar), number(96), scan(codes.lid), number(500), scan('B-01-1'));
    expect(commands).toMatchObject([
      { kind: 'tally', placeId: 101, itemId: 1, units: 96, isLast: false, how: 'typed' },
      { kind: 'tally', itemId: 2, units: 500 },
      { kind: 'tally-bin', placeId: 101 },
    ]);
    expect(last?.feedback).toMatchObject({ band: 'accepted', title: 'Bin B-01-1', detail: 'A-01-1 is counted. 1 on its list' });
  });

  it('counts scanned pieces and packs, and books them with the next scan of something else', () => {
    const { commands, steps } = run(
      task(),
      scan('A-01-1'),
      scan(codes.tray),
      scan(codes.jar),
      scan(codes.jar),
      scan(codes.lid),
      scan('B-01-1'),
    );
    expect(commands).toMatchObject([
      { kind: 'tally', itemId: 1, units: 50, how: 'scanned' },
      { kind: 'tally', itemId: 2, units: 1, isLast: true, placeId: 101 },
    ]);
    expect(steps[3]?.feedback?.detail).toContain('1 tray and 2 jars so far');
  });

  it('says how long ago the last piece was looked at', () => {
    const { commands } = run(
      task(),
      scan('A-01-1'),
      { ...scan(codes.jar), at: 1000 },
      { ...scan(codes.jar), at: 3000 },
      { ...confirm, at: 4500 },
    );
    expect(commands).toMatchObject([{ kind: 'tally', units: 2, agoMs: 1500 }]);
  });

  it('adds what is scanned later to what was counted before, and a keyed number holds instead', () => {
    const given = task();
    const before = run(given, scan('A-01-1'), scan(codes.jar), number(12));
    const more = walk(tally, given, before.state, scan(codes.jar));
    expect(more.last?.feedback?.detail).toContain('13 jars so far, 12 of them before');
    const keyed = walk(tally, given, more.state, number(20));
    expect(keyed.commands).toMatchObject([{ units: 20 }]);
    expect(talliedOf(given.bins[0]!, keyed.state, line(1))).toBe(20);
  });

  it('needs one input for an empty bin, scanned or not, and none where something was counted in it', () => {
    expect(run(task(), empty).commands).toMatchObject([{ kind: 'tally-bin', placeId: 101, how: 'typed' }]);
    expect(run(task(), scan('A-01-1'), empty).commands).toMatchObject([{ kind: 'tally-bin', placeId: 101, how: 'scanned' }]);
    const found = run(task({ bins: [bin(places.binA, [line(1, null, { counted: 5 })])] }), scan('A-01-1'), empty);
    expect(found.last?.feedback?.band).toBe('not-this');
    expect(found.commands).toMatchObject([{ kind: 'refused' }]);
  });

  it('does not let goods of the list go unsaid: once it says so, then it means that they are not there, or comes back later', () => {
    const said = run(task(), scan('A-01-1'), scan(codes.jar), number(3), finish);
    expect(said.last?.feedback).toMatchObject({ band: 'not-this', detail: expect.stringContaining('Lid, gold') });
    expect(walk(tally, task(), said.state, finish).commands).toMatchObject([{ kind: 'tally-bin', placeId: 101 }]);
    const left = run(task(), scan('A-01-1'), scan('B-01-1'), scan('B-01-1'));
    expect(left.commands.filter((c) => c.kind !== 'refused')).toEqual([]);
    expect(left.state.at).toBe(places.binB.id);
  });

  it('keeps to its bins: not those of others, not those outside', () => {
    const given = task({ bins: [bin(places.binA, [line(1)]), bin(places.binB, [line(2)], { isMine: false, by: 'Piet' })] });
    expect(run(given, scan('B-01-1')).last?.feedback?.detail).toBe('Piet counts it. Go to A-01-1');
    expect(run(given, scan('DOCK-1')).last?.feedback?.detail).toBe('It is not in this count. Go to A-01-1');
    expect(run(given, scan(codes.jar)).last?.feedback?.detail).toContain('Scan the bin first');
    const taken = walk(
      tally,
      { ...given, bins: [bin(places.binA, [line(1)], { isMine: false, by: 'Piet' })] },
      run(given, scan('A-01-1'), scan(codes.jar)).state,
      number(3),
    );
    expect(taken.last?.feedback?.title).toBe('A-01-1');
    expect(taken.state.hand).toBeNull();
  });

  it('takes a lot as scanned or chosen, never as the only one there', () => {
    const asked = run(task(), empty, scan('B-01-1'), scan(codes.syrup), number(4));
    expect(asked.last?.feedback?.detail).toContain('which lot');
    const chosen = walk(tally, task(), asked.state, { kind: 'choose', itemId: 3, lot: 'L1', isDamaged: false }, number(4));
    expect(chosen.commands).toMatchObject([{ kind: 'tally', itemId: 3, lot: 'L1', units: 4 }]);
    const label = run(task(), empty, scan('B-01-1'), scan(codes.syrup), scan('NEW-LOT'), number(2));
    expect(label.commands.at(-1)).toMatchObject({ lot: 'NEW-LOT', units: 2 });
    const unsaid = run(task(), empty, scan('B-01-1'), scan(codes.syrup), scan('A-01-1'));
    expect(unsaid.last?.feedback?.detail).toContain('which lot');
  });

  it('takes numbered pieces in a run, and catches the one that is scanned twice', () => {
    const withScale = { ...book, codes: { ...book.codes, SCALE: { itemId: 4, packId: 41 } }, items: { ...book.items, 4: scale } };
    const { commands, steps } = walk(
      over(tally, withScale),
      task(),
      startTally,
      ...[scan('A-01-1'), scan('SCALE'), scan('SN-1'), scan('SN-2'), scan('SN-1')],
    );
    expect(commands).toMatchObject([
      { lot: 'SN-1', units: 1 },
      { lot: 'SN-2', units: 1 },
      { kind: 'refused', band: 'too-many' },
    ]);
    expect(steps[4]?.feedback?.detail).toContain('counted here already');
  });

  it('takes digits of a keypad as how many there are', () => {
    expect(run(task(), scan('A-01-1'), scan(codes.jar), typed('96')).commands).toMatchObject([{ kind: 'tally', units: 96, how: 'typed' }]);
  });

  it('keeps what nobody knows for the office', () => {
    const { commands, steps } = run(task(), scan('A-01-1'), scan(codes.unknown), { kind: 'code-number', units: 3 });
    expect(steps[1]?.feedback?.band).toBe('unknown');
    expect(commands.at(-1)).toMatchObject({ kind: 'tally-code', code: expect.stringContaining('5099999999994'), units: 3, placeId: 101 });
  });

  it('counts only what the list names where it is not about whole bins, and each piece where the house wants it', () => {
    expect(
      run(task({ wholeBins: false, bins: [bin(places.binA, [line(1)])] }), scan('A-01-1'), scan(codes.lid)).last?.feedback?.detail,
    ).toContain('not about it');
    expect(run(task({ scanEach: true }), scan('A-01-1'), scan(codes.jar), number(5)).last?.feedback?.detail).toContain(
      'every piece is scanned',
    );
  });

  it('counts damaged goods apart, and a typed code as typed', () => {
    const { commands } = run(task(), scan('A-01-1'), typed('JAR'), { kind: 'condition', isDamaged: true }, number(2));
    expect(commands).toMatchObject([{ isDamaged: true, units: 2 }]);
  });

  it('loses nothing of what was said, whatever the order of scans: what this phone said last holds for every line', () => {
    const input = fc.oneof(
      fc.constantFrom(
        scan('A-01-1'),
        scan('B-01-1'),
        scan(codes.jar),
        scan(codes.tray),
        scan(codes.lid),
        scan(codes.syrup),
        scan('L1'),
        scan(codes.unknown),
      ),
      fc.nat(40).map(number),
      fc.constantFrom(finish, empty, { kind: 'confirm' as const }, { kind: 'clear' as const }),
    );
    fc.assert(
      fc.property(fc.array(input, { maxLength: 30 }), (inputs) => {
        const given = task();
        let state = startTally;
        const ids = new Set<string>();
        inputs.forEach((each, i) => {
          const step = stepOf(tally, given, state, each, `id-${i}`);
          // Every input that is refused says why, and no two commands share an id.
          for (const c of step.commands) {
            expect(ids.has(c.id)).toBe(false);
            ids.add(c.id);
            if (c.kind === 'tally') expect(given.bins.find((b) => b.placeId === c.placeId)?.isMine).toBe(true);
          }
          if (each.kind !== 'clear' && each.kind !== 'number') expect(step.feedback ?? step.commands.length === 0).toBeTruthy();
          state = step.state;
        });
        const done = given.bins.filter((b) => isTallied(b, state)).length;
        expect(openTallyBins(given, state)).toHaveLength(given.bins.length - done);
        if (done === given.bins.length) expect(nextTallyBin(given, state)).toBeUndefined();
      }),
      { numRuns: 500 },
    );
  });
});
