import fc from 'fast-check';
import { balanceKey, opposite, post, type Movement } from '../../ledger/index.js';
import {
  pick,
  receive,
  store,
  type FloorCommand,
  type Flow,
  type FlowState,
  type OwnInput,
  type PickCommand,
  type PickTask,
  type ReceiveTask,
  type StoreTask,
} from '../index.js';
import { type AnyInput, book, codes, places, stepOf } from './book.js';

const SUPPLIER = 0;
const unbounded = new Set([SUPPLIER]);
const anyCode = fc.constantFrom(
  ...Object.values(codes),
  ...Object.keys(book.places),
  'VX-CONFIRM',
  'VX-UNDO',
  'VX-NOT-HERE',
  'VX-DAMAGED',
  'VX-APART',
  'VX-TAKE',
  ']C10109506000134369' + '10LM1',
  'SYR',
  '',
);
const anyInput: fc.Arbitrary<AnyInput> = fc.oneof(
  {
    weight: 6,
    arbitrary: fc.record({ kind: fc.constant('code' as const), code: anyCode, how: fc.constantFrom('scanned' as const, 'typed' as const) }),
  },
  {
    weight: 2,
    arbitrary: fc.record({ kind: fc.constant('count' as const), packId: fc.constantFrom(11, 12, 21, 31, 99), count: fc.nat(60) }),
  },
  fc.record({
    kind: fc.constant('text' as const),
    field: fc.constantFrom('lot' as const, 'expires' as const),
    value: fc.constantFrom('LM1', '2028-01-31', ''),
  }),
  fc.constantFrom<AnyInput>({ kind: 'confirm' }, { kind: 'clear' }, { kind: 'not-here' }, { kind: 'full' }),
  fc.record({ kind: fc.constant('there' as const), units: fc.integer({ min: -1, max: 60 }) }),
  fc.constantFrom<AnyInput>(
    { kind: 'answer', answer: 'apart' },
    { kind: 'answer', answer: 'take' },
    { kind: 'condition', condition: 'damaged' },
    { kind: 'tie', itemId: 2, packId: 21 },
  ),
);
const inputs = fc.array(anyInput, { maxLength: 60 });

function drive<Task, State extends FlowState<Command>, Own extends OwnInput, Command extends FloorCommand>(
  flow: Flow<Task, State, Own, Command>,
  task: Task,
  list: readonly AnyInput[],
): Command[] {
  let state = flow.start;
  const commands: Command[] = [];
  list.forEach((input, i) => {
    const before = JSON.stringify(state);
    const step = stepOf(flow, task, state, input, `k${i}`);
    expect(JSON.stringify(state)).toBe(before);
    state = step.state;
    commands.push(...step.commands.filter((c): c is Command => c.kind !== 'refused'));
  });
  return commands;
}

/** Posts movements and takes them back again; both must hold, and the end must be the beginning. */
function mustBalance(start: ReadonlyMap<string, number>, movements: readonly Movement[]): void {
  let balances: ReadonlyMap<string, number> = start;
  for (const m of [...movements, ...[...movements].reverse().map(opposite)]) {
    const result = post(balances, [m], unbounded);
    if ('fault' in result) throw new Error(JSON.stringify(result.fault));
    balances = result.balances;
  }
  expect([...balances].sort()).toEqual([...start].sort());
}

const key = (itemId: number, placeId: number, lotId = 0) => balanceKey({ itemId, placeId, lotId, condition: 'good' });
const good = (itemId: number, fromPlaceId: number, toPlaceId: number, units: number, lotId = 0): Movement => ({
  itemId,
  lotId,
  condition: 'good',
  fromPlaceId,
  toPlaceId,
  units,
});

describe('whatever a person does', () => {
  it('receiving keeps the ledger whole and no line over its limit', () => {
    const task: ReceiveTask = {
      document: 'P-1',
      supplier: 'S',
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
        { lineId: 1, order: 'P-1', line: 1, itemId: 1, packId: 12, ordered: 192, received: 100 },
        { lineId: 2, order: 'P-1', line: 2, itemId: 3, packId: 31, ordered: 10, received: 0 },
      ],
    };
    fc.assert(
      fc.property(inputs, (list) => {
        const commands = drive(receive, task, list).flatMap((c) => (c.kind === 'receive' ? [c] : []));
        const sum = (line: number) => commands.reduce((n, c) => n + (c.lineId === line ? c.units : 0), 0);
        expect(sum(1)).toBeLessThanOrEqual(101);
        expect(sum(2)).toBeLessThanOrEqual(10);
        expect(commands.every((c) => c.as === 'apart' || c.itemId !== 3 || (c.lot !== null && c.expires !== null))).toBe(true);
        mustBalance(
          new Map(),
          commands.map((c) => good(c.itemId, SUPPLIER, c.toPlaceId, c.units)),
        );
      }),
      { numRuns: 300 },
    );
  });

  it('putting away moves no more than stands at the dock', () => {
    const task: StoreTask = {
      siteId: 1,
      metres: 0,
      goods: [
        { itemId: 1, lotId: 0, lot: null, units: 96, fromPlaceId: 100, fromCode: 'DOCK-1', suggestion: null, then: [] },
        { itemId: 3, lotId: 7, lot: 'LM1', units: 4, fromPlaceId: 100, fromCode: 'DOCK-1', suggestion: null, then: [] },
      ],
    };
    fc.assert(
      fc.property(inputs, (list) => {
        const commands = drive(store, task, list);
        const start = new Map([
          [key(1, 100), 96],
          [key(3, 100, 7), 4],
        ]);
        mustBalance(
          start,
          commands.map((c) => good(c.itemId, c.fromPlaceId, c.toPlaceId, c.units, c.lotId)),
        );
      }),
      { numRuns: 300 },
    );
  });

  it('picking takes no more than is wanted, nor from an empty bin', () => {
    const stop = (id: number, itemId: number, placeId: number, placeCode: string, units: number, lotId = 0) => ({
      id,
      orderId: 1,
      itemId,
      lotId,
      lot: lotId ? 'LM1' : null,
      placeId,
      placeCode,
      units,
      picked: 0,
      short: 0,
      metres: 1,
    });
    const task: PickTask = {
      round: 'R-1',
      state: 'picking',
      picker: null,
      siteId: 1,
      orders: [{ id: 1, code: 'S-1', customer: 'C', note: null, toteIds: [] }],
      busyToteIds: [places.busy.id],
      stops: [stop(1, 1, 101, 'A-01-1', 50), stop(2, 3, 102, 'B-01-1', 2, 7), stop(3, 1, 102, 'B-01-1', 3)],
    };
    fc.assert(
      fc.property(inputs, (list) => {
        const commands = drive(pick, task, list);
        const picks = commands.filter((c): c is PickCommand => c.kind === 'pick');
        const asked = (id: number) =>
          commands.reduce((n, c) => n + ((c.kind === 'pick' || c.kind === 'short') && c.stopId === id ? c.units : 0), 0);
        for (const s of task.stops) expect(asked(s.id)).toBeLessThanOrEqual(s.units);
        expect(picks.every((c) => c.totePlaceId === places.tote.id || c.totePlaceId === places.second.id)).toBe(true);
        const start = new Map([
          [key(1, 101), 50],
          [key(3, 102, 7), 2],
          [key(1, 102), 3],
        ]);
        const moved = picks.map((c) => ({ c, s: task.stops.find((s) => s.id === c.stopId)! }));
        mustBalance(
          start,
          moved.map(({ c, s }) => good(s.itemId, s.placeId, c.totePlaceId, c.units, s.lotId)),
        );
      }),
      { numRuns: 300 },
    );
  });

  it('the same inputs give the same commands', () => {
    const task: ReceiveTask = {
      document: 'P-1',
      supplier: 'S',
      overPercent: 0,
      fillRemaining: false,
      dock: places.dock,
      apart: null,
      inspection: null,
      inspect: {},
      mayTake: false,
      pallets: [],
      serials: [],
      lines: [{ lineId: 1, order: 'P-1', line: 1, itemId: 1, packId: 12, ordered: 192, received: 0 }],
    };
    fc.assert(
      fc.property(inputs, (list) => {
        const once = drive(receive, task, list);
        expect(drive(receive, task, list)).toEqual(once);
      }),
    );
  });
});
