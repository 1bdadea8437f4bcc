import fc from 'fast-check';
import {
  pack,
  receive,
  startPack,
  startReceive,
  type Bundle,
  type FloorCommand,
  type Flow,
  type FlowState,
  type OwnInput,
  type PackCommand,
  type PackState,
  type PackTask,
  type ReceiveCommand,
  type ReceiveTask,
} from '../index.js';
import { book, codes, places } from './book.js';

const LIMIT = 192;
const receiveTask = (received: number, applied: string[]): ReceiveTask & Bundle => ({
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
  lines: [{ lineId: 1, order: 'P-1', line: 1, itemId: 1, packId: 12, ordered: LIMIT, received }],
  applied,
});

/** A phone's state once it has read its task anew, as the screen keeps it. */
function settle<Task, State extends FlowState<Command>, Own extends OwnInput, Command extends FloorCommand>(
  flow: Flow<Task, State, Own, Command>,
  task: Task & Bundle,
  state: State,
): State {
  return flow.step(task, book, state, { kind: 'settled', id: 's', ids: task.applied }).state;
}

type Act = { phone: 0 | 1; does: 'tray' | 'jar' | 'book' | 'fetch' };
const acts = fc.array(fc.record<Act>({ phone: fc.constantFrom(0, 1), does: fc.constantFrom('tray', 'tray', 'jar', 'book', 'fetch') }), {
  maxLength: 80,
});

describe('two phones on one order', () => {
  it('count each unit once, whenever they fetch', () => {
    fc.assert(
      fc.property(acts, (list) => {
        const posted: ReceiveCommand[] = [];
        const bundle = () =>
          receiveTask(
            posted.reduce((n, c) => n + c.units, 0),
            posted.map((c) => c.id),
          );
        const phones = [0, 1].map(() => ({ task: bundle(), state: startReceive }));
        list.forEach(({ phone, does }, i) => {
          const p = phones[phone]!;
          if (does === 'fetch') p.task = bundle();
          p.state = settle(receive, p.task, p.state);
          if (does === 'fetch') return;
          const input =
            does === 'book'
              ? { kind: 'confirm' as const, id: `k${i}` }
              : { kind: 'code' as const, id: `k${i}`, code: codes[does], how: 'scanned' as const };
          const step = receive.step(p.task, book, p.state, input);
          p.state = step.state;
          for (const c of step.commands) {
            if (c.kind !== 'receive') continue;
            const before = posted.reduce((n, x) => n + x.units, 0);
            if (before + c.units <= LIMIT) posted.push(c);
            else p.state = receive.step(p.task, book, p.state, { kind: 'settled', id: 's', ids: [c.id] }).state;
          }
        });
        for (const p of phones) {
          p.task = bundle();
          p.state = settle(receive, p.task, p.state);
          expect(p.state.pending).toEqual([]);
        }
        expect(posted.reduce((n, c) => n + c.units, 0)).toBeLessThanOrEqual(LIMIT);
        expect(new Set(posted.map((c) => c.id)).size).toBe(posted.length);
      }),
      { numRuns: 300 },
    );
  });

  it('lose no scan to a bundle that comes while commands are on their way', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(6), { minLength: 60, maxLength: 60 }), (delays) => {
        const done: PackCommand[] = [];
        const task = (): PackTask & Bundle => ({
          order: 'S-1',
          customer: 'C',
          note: null,
          noteSeen: false,
          parcels: [],
          lines: [{ line: 1, itemId: 1, picked: 60, packed: done.length, unitG: null, unitMl: null }],
          applied: done.map((c) => c.id),
        });
        let state: PackState = startPack;
        let seen = task();
        const onTheWay: PackCommand[] = [];
        delays.forEach((delay, i) => {
          state = settle(pack, seen, state);
          const step = pack.step(seen, book, state, { kind: 'code', id: `k${i}`, code: codes.jar, how: 'scanned' });
          expect(step.feedback?.band).toBe('accepted');
          state = step.state;
          onTheWay.push(...(step.commands as PackCommand[]));
          done.push(...onTheWay.splice(0, Math.max(0, onTheWay.length - delay)));
          if (delay % 2 === 0) seen = task();
        });
        done.push(...onTheWay);
        expect(done).toHaveLength(60);
      }),
      { numRuns: 200 },
    );
  });
});
