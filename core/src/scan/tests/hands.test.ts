import fc from 'fast-check';
import {
  inHandAt,
  currentStop,
  pick,
  startPick,
  startStore,
  store,
  wantedAt,
  type FloorCommand,
  type PickState,
  type PickStop,
  type PickTask,
  type StoreState,
  type StoreTask,
} from '../index.js';
import { type AnyInput, codes, notHere, places, scan, stepOf } from './book.js';

const RUNS = 3_000;
/** Syrup with its lot. */
const LOTTED = ']C1010950600013436910LM1';

const stop = (id: number, orderId: 1 | 2, itemId: number, place: { id: number; code: string }, units: number, lotId = 0): PickStop => ({
  id,
  orderId,
  itemId,
  lotId,
  lot: lotId ? 'LM1' : null,
  placeId: place.id,
  placeCode: place.code,
  units,
  picked: 0,
  short: 0,
  metres: 1,
});
/** Two orders in two totes; both want jars from the same bin. */
const START: readonly PickStop[] = [
  stop(1, 1, 1, places.binA, 5),
  stop(2, 1, 1, places.binB, 4),
  stop(3, 1, 3, places.binB, 2, 7),
  stop(4, 2, 2, places.binA, 3),
  stop(5, 2, 1, places.binA, 4),
];
const TOTES = { 1: places.tote.id, 2: places.second.id };
const stopOf = (id: number) => START.find((s) => s.id === id)!;
/** What hands can tell apart: goods from a bin, whomever they are for. */
const goodsAt = (id: number) => `${stopOf(id).itemId} ${stopOf(id).placeId}`;

/** The round as a server keeps it: each command checked and posted once, each task as it stands when it is asked for. */
class Round {
  readonly posted = new Map<string, FloorCommand>();
  constructor(private readonly mustScanTote = true) {}

  private readonly picked = new Map<number, number>();
  private readonly short = new Map<number, number>();

  /** Whether the command was carried out. The same command again changes nothing. */
  post(command: FloorCommand): boolean {
    if (this.posted.has(command.id)) return true;
    if (command.kind !== 'pick' && command.kind !== 'short') return true;
    const at = stopOf(command.stopId);
    if (command.kind === 'pick') expect(command.totePlaceId).toBe(TOTES[at.orderId as 1 | 2]);
    const left = at.units - (this.picked.get(at.id) ?? 0) - (this.short.get(at.id) ?? 0);
    if (command.units > left) return false;
    const sums = command.kind === 'pick' ? this.picked : this.short;
    sums.set(at.id, (sums.get(at.id) ?? 0) + command.units);
    this.posted.set(command.id, command);
    return true;
  }

  task(): PickTask {
    const stops = START.map((s) => ({ ...s, picked: this.picked.get(s.id) ?? 0, short: this.short.get(s.id) ?? 0 }));
    return {
      round: 'R-1',
      state: 'picking',
      picker: null,
      siteId: 1,
      orders: ([1, 2] as const).map((id) => ({ id, code: `S-${id}`, customer: 'C', note: null, toteIds: [TOTES[id]] })),
      mustScanTote: this.mustScanTote,
      busyToteIds: [],
      stops,
    };
  }

  unitsAt(id: number): number {
    return this.picked.get(id) ?? 0;
  }
}

/** A person with a phone: what it shows, what it has not sent yet, and the goods that hands have really touched at a stop. */
class Hands {
  state: PickState = startPick;
  task: PickTask;
  readonly unsent: FloorCommand[] = [];
  readonly touched = new Map<string, number>();
  private at: string | undefined;
  private held = 0;
  private inputs = 0;

  constructor(
    private readonly name: string,
    private readonly round: Round,
  ) {
    this.task = round.task();
  }

  private settle(ids: readonly string[]): void {
    this.take(stepOf(pick, this.task, this.state, { kind: 'settled', ids }, `${this.name}-s${++this.inputs}`));
  }

  fetch(): void {
    this.task = this.round.task();
    this.settle([...this.round.posted.keys()]);
  }

  /** The oldest unsent command reaches the server; its answer may be lost. */
  send(lost: boolean): void {
    const command = this.unsent[0];
    if (!command) return;
    const done = this.round.post(command);
    if (lost) return;
    this.unsent.shift();
    if (!done) this.settle([command.id]);
  }

  does(input: AnyInput): void {
    this.take(stepOf(pick, this.task, this.state, input, `${this.name}-${++this.inputs}`), input);
  }

  /** What the hands have touched at the stop since they came to it: one for each scan of goods, all that is keyed. */
  private take(step: ReturnType<typeof pick.step>, input?: AnyInput): void {
    for (const command of step.commands) {
      if (command.kind !== 'pick') continue;
      // Goods that fill the stop go straight into the tote by the scan that completes them.
      const hand = this.state.hand;
      const keyed = input?.kind === 'count' ? input : undefined;
      if (keyed && hand) this.held = (hand.packId === keyed.packId ? hand.before : hand.units) + keyed.count;
      const now =
        input?.kind === 'code' && step.feedback?.band === 'accepted' && !input.code.startsWith('T-') && this.unitsOf(input.code) > 0;
      const goods = goodsAt(command.stopId);
      if (now && this.at !== goods) this.held = 0;
      const held = now ? this.held + this.unitsOf(input.code) : this.held;
      if (!now) expect(this.at).toBe(goods);
      expect(command.units).toBe(held);
      this.touched.set(goods, (this.touched.get(goods) ?? 0) + held);
    }
    this.unsent.push(...step.commands.filter((c) => c.kind !== 'refused'));
    this.state = step.state;
    const hand = this.state.hand;
    this.at = hand ? goodsAt(hand.stopId) : undefined;
    this.held = hand?.units ?? 0;
    // What is in hand is shown at its own stop, and at no other.
    const shown = currentStop(this.task, this.state);
    if (hand && hand.units > 0) expect([shown?.id, inHandAt(this.state, shown)]).toEqual([hand.stopId, hand.units]);
  }

  private unitsOf(code: string): number {
    return code === codes.jar || code === codes.lid || code === codes.syrup || code === LOTTED ? 1 : code === codes.tray ? 48 : 0;
  }
}

type Act = { who: 0 | 1; what: { fetch: true } | { send: boolean } | AnyInput };
const input = fc.oneof(
  {
    weight: 5,
    arbitrary: fc.constantFrom(scan(codes.jar), scan(codes.jar), scan(codes.lid), scan(codes.syrup), scan(LOTTED), scan(codes.tray)),
  },
  { weight: 2, arbitrary: fc.constantFrom(scan('A-01-1'), scan('B-01-1')) },
  { weight: 3, arbitrary: fc.constantFrom(scan('T-01'), scan('T-03'), { kind: 'confirm' as const }) },
  { weight: 1, arbitrary: fc.record({ kind: fc.constant('count' as const), packId: fc.constantFrom(11, 21, 31), count: fc.nat(5) }) },
  {
    weight: 1,
    arbitrary: fc.constantFrom(
      notHere,
      { kind: 'there' as const, units: 0 },
      { kind: 'there' as const, units: 1 },
      { kind: 'clear' as const },
    ),
  },
);
const acts: fc.Arbitrary<Act[]> = fc.array(
  fc.record({
    who: fc.constantFrom(0 as const, 1 as const),
    what: fc.oneof(
      { weight: 6, arbitrary: input },
      { weight: 2, arbitrary: fc.constant({ fetch: true as const }) },
      { weight: 3, arbitrary: fc.record({ send: fc.boolean() }) },
    ),
  }),
  { maxLength: 60 },
);

describe('two phones on one round', () => {
  it('post what their own hands touched at that stop, and nothing else, whatever happens in whatever order', () => {
    fc.assert(
      fc.property(acts, fc.boolean(), (list, mustScanTote) => {
        const round = new Round(mustScanTote);
        const hands = [new Hands('a', round), new Hands('b', round)] as const;
        for (const { who, what } of list) {
          if ('fetch' in what) hands[who].fetch();
          else if ('send' in what) hands[who].send(what.send);
          else hands[who].does(what);
        }
        for (const hand of hands) while (hand.unsent.length > 0) hand.send(false);
        for (const s of START) {
          const own = START.filter((x) => goodsAt(x.id) === goodsAt(s.id)).reduce((n, x) => n + round.unitsAt(x.id), 0);
          expect(own).toBeLessThanOrEqual(hands.reduce((n, h) => n + (h.touched.get(goodsAt(s.id)) ?? 0), 0));
          expect(round.unitsAt(s.id)).toBeLessThanOrEqual(s.units);
        }
        const units = [...round.posted.values()].reduce((n, c) => n + (c.kind === 'pick' ? c.units : 0), 0);
        expect(units).toBe(START.reduce((n, s) => n + round.unitsAt(s.id), 0));
        for (const hand of hands) {
          hand.fetch();
          expect(hand.state.pending).toEqual([]);
        }
      }),
      { numRuns: RUNS },
    );
  });

  it('let go of goods that a colleague has picked meanwhile, and say where they belong', () => {
    const round = new Round();
    const [mine, theirs] = [new Hands('a', round), new Hands('b', round)];
    for (let i = 0; i < 3; i++) mine.does(scan(codes.jar));
    for (let i = 0; i < 5; i++) theirs.does(scan(codes.jar));
    theirs.does(scan('T-01'));
    theirs.send(false);
    const task = round.task();
    const { state, feedback } = stepOf(pick, task, mine.state, { kind: 'settled', ids: [] }, 'k');
    expect(feedback).toMatchObject({ band: 'too-many', detail: 'No more wanted by now. Put it back in A-01-1 and scan again' });
    expect(state.hand).toBeNull();
    expect(stepOf(pick, task, state, scan('T-01'), 'k2').commands).toEqual([]);
    expect(currentStop(task, state)?.id).not.toBe(1);
    expect(wantedAt(state, task.stops[0]!)).toBe(0);
  });

  it('report as not there only the stop that the person was looking at', () => {
    const round = new Round();
    const theirs = new Hands('b', round);
    for (let i = 0; i < 5; i++) theirs.does(scan(codes.jar));
    theirs.does(scan('T-01'));
    theirs.send(false);
    expect(stepOf(pick, round.task(), startPick, { kind: 'not-here', stopId: 1 }, 'k').state.asksAt).toBeNull();
    expect(stepOf(pick, round.task(), startPick, { kind: 'not-here', stopId: 2 }, 'k').state.asksAt).toBe(2);
  });
});

describe('goods taken from the dock', () => {
  const task = (units: number): StoreTask => ({
    siteId: 1,
    metres: 0,
    goods: [{ itemId: 1, lotId: 0, lot: null, units, fromPlaceId: 100, fromCode: 'DOCK-1', suggestion: null, then: [] }],
  });

  it('are those that stood there when they were scanned, however many come in meanwhile', () => {
    const taken = stepOf(store, task(10), startStore, scan(codes.jar), 'k').state;
    expect(stepOf(store, task(58), taken, scan('A-01-1'), 'k2').commands).toMatchObject([{ kind: 'store', units: 10 }]);
  });

  it('are counted again where somebody has taken some of them', () => {
    const taken: StoreState = stepOf(store, task(10), startStore, scan(codes.jar), 'k').state;
    const { state, feedback, commands } = stepOf(store, task(6), taken, scan('A-01-1'), 'k2');
    expect(feedback).toMatchObject({ band: 'too-many', title: 'Only 6 jars here' });
    expect(commands).toMatchObject([{ kind: 'refused' }]);
    expect(state.hand).toBeNull();
  });
});
