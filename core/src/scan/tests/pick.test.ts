import { checkPick, currentStop, isEmptyRound, othersStops, pick, startPick, wantedAt, type PickState, type PickTask } from '../index.js';
import { type AnyInput, book, clear, codes, confirm, count, notHere, over, places, scan, walk } from './book.js';

const stop = (id: number, itemId: number, place: { id: number; code: string }, units: number, more: object = {}) => ({
  id,
  orderId: 1,
  itemId,
  lotId: 0,
  lot: null,
  placeId: place.id,
  placeCode: place.code,
  units,
  picked: 0,
  short: 0,
  metres: 5,
  ...more,
});
const task: PickTask = {
  round: 'R-0612',
  state: 'picking',
  picker: 'Ines Thorne',
  siteId: 1,
  orders: [{ id: 1, code: 'S-20417', customer: 'Wick Hill Farm', note: null, toteIds: [] }],
  stops: [stop(1, 1, places.binA, 50), stop(2, 3, places.binB, 2, { lotId: 9, lot: 'LM1' })],
  busyToteIds: [places.busy.id],
};
const withTote: PickTask = { ...task, orders: task.orders.map((o) => ({ ...o, toteIds: [places.tote.id] })) };
const run = (t: PickTask, ...inputs: AnyInput[]) => walk(pick, t, startPick, ...inputs);

describe('picking', () => {
  it('goes bin, goods, and into the tote by itself when the count is full', () => {
    const { commands, last } = run(withTote, scan('A-01-1'), scan(codes.tray), scan(codes.jar), scan(codes.jar));
    expect(commands).toEqual([
      {
        kind: 'pick',
        id: 'id-4',
        round: 'R-0612',
        stopId: 1,
        itemId: 1,
        lotId: 0,
        fromPlaceId: 101,
        units: 50,
        totePlaceId: 103,
        how: 'scanned',
      },
    ]);
    expect(last?.feedback).toMatchObject({ band: 'accepted', title: '1 tray and 2 jars', detail: 'Jar 454 g, A-01-1 to tote T-01' });
  });

  it('wants a tote first, and takes it last too', () => {
    const { steps, commands } = run(task, scan('A-01-1'), scan(codes.tray), scan(codes.jar), scan(codes.jar), scan('T-01'));
    expect(steps[3]?.commands).toEqual([]);
    expect(commands).toMatchObject([{ kind: 'pick', units: 50, totePlaceId: 103 }]);
  });

  it('takes the round with the first tote, so that nobody else walks there', () => {
    const waiting: PickTask = { ...task, state: 'waiting' };
    const tote = { kind: 'tote', id: 'id-1', round: 'R-0612', orderId: 1, totePlaceId: 103 };
    expect(run(waiting, scan('T-01')).commands).toEqual([tote]);
    expect(run(waiting, scan('T-01'), scan('T-01')).commands).toHaveLength(1);
    expect(run(withTote, scan('T-01')).commands).toEqual([]);
  });

  it('posts a part when the tote is scanned before the count is full', () => {
    const { commands, state } = run(withTote, scan(codes.tray), scan('T-01'));
    expect(commands).toMatchObject([{ units: 48 }]);
    expect(wantedAt(state, task.stops[0]!)).toBe(2);
  });

  it('takes goods before the bin where only one stop wants them', () => {
    expect(run(withTote, scan(']C1010950600013436910LM1')).state).toMatchObject({ hand: { stopId: 2, units: 1 }, atBin: null });
  });

  it('jumps to another stop when its bin is scanned', () => {
    const { state } = run(withTote, scan('B-01-1'));
    expect(currentStop(withTote, state)?.id).toBe(2);
  });

  it('does not change bins with goods in hand', () => {
    const { last } = run(withTote, scan('A-01-1'), scan(codes.jar), scan('B-01-1'));
    expect(last?.feedback).toMatchObject({ band: 'not-this', detail: 'Put what you hold into the tote first' });
  });

  it('refuses the wrong bin and says where to go', () => {
    const done: PickTask = { ...withTote, stops: [task.stops[0]!] };
    expect(run(done, scan('B-01-1')).last?.feedback).toMatchObject({
      band: 'not-this',
      title: 'B-01-1',
      detail: 'Nothing wanted here. Go to A-01-1',
    });
  });

  it('refuses the wrong goods and says where they belong', () => {
    expect(run(withTote, scan('A-01-1'), scan(codes.lid)).last?.feedback).toEqual({
      band: 'not-this',
      title: 'Lid, gold',
      detail: 'Not wanted here. It has no home yet',
    });
    expect(run(withTote, scan('A-01-1'), scan(codes.syrup)).last?.feedback).toMatchObject({
      band: 'not-this',
      detail: 'Belongs in K-01-1',
    });
  });

  it('refuses another lot than the one reserved', () => {
    const { last } = run(withTote, scan('B-01-1'), scan(']C1010950600013436910LM2'));
    expect(last?.feedback).toMatchObject({ band: 'not-this', title: 'Lot LM2', detail: 'Take lot LM1 of Syrup. Put this back' });
  });

  it('refuses one too many and keeps the count as it was', () => {
    const { last, state } = run(withTote, scan('A-01-1'), scan(codes.tray), scan(codes.tray));
    expect(last?.feedback).toMatchObject({
      band: 'too-many',
      title: '46 jars over',
      detail: 'Wanted: 1 tray and 2 jars. Put it back in A-01-1',
    });
    expect(state.hand?.units).toBe(48);
  });

  it('takes a keyed count only for goods that were seen', () => {
    expect(run(withTote, scan('A-01-1'), count(11, 50)).state.hand).toBeNull();
    expect(run(withTote, scan('A-01-1'), scan(codes.jar), count(11, 49), confirm).commands).toMatchObject([{ units: 49 }]);
    expect(run(withTote, scan('A-01-1'), scan(codes.jar), count(11, 51)).last?.feedback?.band).toBe('too-many');
  });

  it('takes nine of one thing by three inputs: its bin, one of it, and the number', () => {
    const nine: PickTask = { ...withTote, mustScanBin: true, stops: [stop(1, 1, places.binA, 9)] };
    expect(run(nine, scan('A-01-1'), scan(codes.jar), count(11, 9)).commands).toMatchObject([{ kind: 'pick', units: 9, how: 'scanned' }]);
    expect(run(nine, scan('A-01-1'), scan(codes.jar), count(11, 4), scan('T-01')).commands).toMatchObject([{ units: 4 }]);
  });

  it('counts a number to the pack that it is keyed for, on top of what was counted in others', () => {
    const { state } = run(withTote, scan('A-01-1'), scan(codes.tray), count(11, 1));
    expect(state.hand).toMatchObject({ units: 49, before: 48, packId: 11, keyed: true });
    expect(run(withTote, scan('A-01-1'), scan(codes.tray), count(11, 1), count(11, 2)).commands).toMatchObject([{ units: 50 }]);
    // A scan behind a number counts on.
    expect(run(withTote, scan('A-01-1'), scan(codes.jar), count(11, 6), scan(codes.jar)).state.hand).toMatchObject({ units: 7 });
  });

  it('takes no lot for granted: it is scanned with the goods, behind them, or chosen', () => {
    const gs1 = (lot: string) => scan(`]C1010950600013436910${lot}`);
    const bare = run(withTote, scan('B-01-1'), scan(codes.syrup), scan(codes.syrup));
    expect(bare.commands).toEqual([]);
    expect(run(withTote, scan('B-01-1'), scan(codes.syrup), confirm).last?.feedback).toMatchObject({
      title: 'Which lot is it?',
      detail: 'Scan LM1 on the goods, or choose it',
    });
    const lot = (code: string): AnyInput => ({ kind: 'lot', lot: code });
    for (const way of [gs1('LM1'), scan('lm1'), lot('LM1')]) {
      const { commands } = run(withTote, scan('B-01-1'), scan(codes.syrup), way, scan('T-01'));
      expect(commands.filter((c) => c.kind === 'pick')).toMatchObject([{ stopId: 2, lotId: 9 }]);
    }
    expect(run(withTote, scan('B-01-1'), scan(codes.syrup), scan('LM2')).last?.feedback).toMatchObject({
      band: 'not-this',
      title: 'Lot LM2',
    });
    expect(run(withTote, scan('B-01-1'), scan(codes.syrup), lot('LM2')).state.hand).toMatchObject({ units: 1, lotSeen: false });
    // Without goods in hand it is a code like any other.
    expect(run(withTote, scan('B-01-1'), scan('LM1')).last?.feedback?.band).toBe('unknown');
  });

  it('takes no number where each piece is scanned', () => {
    const each: PickTask = { ...withTote, scansEach: true };
    const { last, state } = run(each, scan('A-01-1'), scan(codes.jar), count(11, 9));
    expect(last?.feedback).toMatchObject({ band: 'not-this', title: 'Each piece is scanned' });
    expect(state.hand?.units).toBe(1);
  });

  describe('where bins must be scanned', () => {
    const strict: PickTask = { ...withTote, mustScanBin: true, stops: [stop(1, 1, places.binA, 2), stop(2, 3, places.binA, 1)] };

    it('lets nothing into the tote that came from a bin unseen, by key, count or tote', () => {
      const seen = run(strict, scan(codes.jar), scan(codes.jar));
      expect(seen.commands).toEqual([]);
      expect(seen.state.hand).toMatchObject({ stopId: 1, units: 2 });
      for (const way of [confirm, scan('T-01'), count(11, 2)])
        expect(run(strict, scan(codes.jar), scan(codes.jar), way).commands.filter((c) => c.kind === 'pick')).toEqual([]);
      expect(run(strict, scan(codes.jar), confirm).last?.feedback).toMatchObject({
        title: 'Bin A-01-1',
        detail: 'Scan the bin that you took it from',
      });
    });

    it('takes goods first and their bin behind them', () => {
      expect(run(strict, scan(codes.jar), scan(codes.jar), scan('A-01-1')).commands).toMatchObject([{ stopId: 1, units: 2 }]);
    });

    it('asks for a bin once, however many stops are at it', () => {
      const { commands } = run(strict, scan('A-01-1'), scan(codes.jar), scan(codes.jar), scan(codes.syrup));
      expect(commands).toMatchObject([
        { stopId: 1, units: 2 },
        { stopId: 2, units: 1 },
      ]);
    });

    it('asks again at the next bin', () => {
      const two: PickTask = { ...strict, stops: [stop(1, 1, places.binA, 1), stop(2, 3, places.binB, 1)] };
      expect(run(two, scan('A-01-1'), scan(codes.jar), scan(codes.syrup)).commands).toHaveLength(1);
      expect(run(two, scan('A-01-1'), scan(codes.jar), scan(codes.syrup), scan('B-01-1')).commands).toHaveLength(2);
    });
  });

  it('refuses a tote that another order is using', () => {
    expect(run(task, scan('T-02')).last?.feedback).toMatchObject({ band: 'not-this', title: 'Tote T-02' });
  });

  it('says when no tote is there yet', () => {
    expect(run(task, scan('A-01-1'), scan(codes.jar), confirm).last?.feedback?.title).toBe('No tote yet');
  });

  describe('where too few are', () => {
    const there = (units: number): AnyInput => ({ kind: 'there', units });

    it('asks how many are there, and reports the rest', () => {
      expect(run(withTote, scan('A-01-1'), notHere).commands).toEqual([]);
      const { commands, state } = run(withTote, scan('A-01-1'), notHere, there(0));
      expect(commands).toEqual([{ kind: 'short', id: 'id-3', round: 'R-0612', stopId: 1, units: 50, there: 0 }]);
      expect(currentStop(withTote, state)?.id).toBe(2);
    });

    it('leaves what is there to be taken', () => {
      const { commands, state, last } = run(withTote, scan('A-01-1'), notHere, there(2), scan(codes.jar), scan(codes.jar));
      expect(commands).toMatchObject([
        { kind: 'short', units: 48, there: 2 },
        { kind: 'pick', units: 2 },
      ]);
      expect(wantedAt(state, task.stops[0]!)).toBe(0);
      expect(last?.feedback?.band).toBe('accepted');
    });

    it('reports nothing where enough is there, or where nobody asked', () => {
      expect(run(withTote, scan('A-01-1'), notHere, there(50))).toMatchObject({ commands: [], state: { asksAt: null } });
      expect(run(withTote, scan('A-01-1'), there(0)).commands).toEqual([]);
      for (const units of [-1, 1.5, Number.NaN]) expect(run(withTote, notHere, there(units)).commands).toEqual([]);
    });

    it('lets go of the question when the goods are found after all', () => {
      expect(run(withTote, scan('A-01-1'), notHere, scan(codes.jar)).state).toMatchObject({ asksAt: null, hand: { units: 1 } });
    });

    it('needs empty hands', () => {
      expect(run(withTote, scan(codes.jar), notHere).last?.feedback?.title).toBe('Goods in hand');
    });

    it('takes the confirming card for none at all, and a card that is read twice for one', () => {
      expect(run(withTote, scan('VX-NOT-HERE'), scan('VX-NOT-HERE')).commands).toEqual([]);
      expect(run(withTote, scan('VX-NOT-HERE'), scan('VX-CONFIRM')).commands).toMatchObject([{ kind: 'short', units: 50, there: 0 }]);
    });
  });

  it('sets totes down only when nothing is left', () => {
    expect(run(withTote, scan('TABLE-1')).last?.feedback).toMatchObject({
      band: 'not-this',
      detail: '2 stops to go before anything is set down',
    });
    const finished: PickTask = { ...withTote, stops: task.stops.map((s) => ({ ...s, picked: s.units })) };
    expect(run(finished, scan('TABLE-1')).commands).toEqual([{ kind: 'set-down', id: 'id-1', round: 'R-0612', placeId: 105 }]);
  });

  it('tells a round that ended with nothing picked from one whose picks are still on their way', () => {
    const one: PickTask = { ...withTote, stops: [task.stops[1]!] };
    const over: PickTask = { ...one, state: 'done' };
    expect(isEmptyRound(one, startPick)).toBe(false);
    expect(isEmptyRound(over, startPick)).toBe(true);
    const [picked, down] = [
      { kind: 'pick', id: 'a' },
      { kind: 'set-down', id: 'b' },
    ] as PickState['pending'][number][];
    expect(isEmptyRound(one, { pending: [picked!, down!] })).toBe(false);
    expect(isEmptyRound({ ...over, stops: [{ ...task.stops[1]!, picked: 2 }] }, startPick)).toBe(false);
  });

  it('puts back what is in hand when cleared', () => {
    expect(run(withTote, scan('A-01-1'), scan(codes.tray), clear).state).toEqual({ ...startPick, atBin: places.binA.id });
  });

  it('has nothing to do on an empty round', () => {
    const none: PickTask = { ...withTote, stops: [] };
    expect(run(none, confirm, notHere, count(11, 1)).commands).toEqual([]);
    expect(run(none, scan('A-01-1')).last?.feedback?.detail).toBe('Nothing more to pick');
  });

  it('is judged by the same rule on the server', () => {
    const item = book.items['1'];
    expect(checkPick(task.stops[0], item, 50, 50)).toBeNull();
    expect(checkPick(task.stops[0], item, 51, 50)).toMatchObject({ band: 'too-many' });
    expect(checkPick(task.stops[0], item, 1, 0)).toMatchObject({ detail: 'No more wanted. Put it back in A-01-1' });
    expect(checkPick(undefined, item, 1, 1)).toMatchObject({ band: 'not-this' });
    expect(checkPick(task.stops[0], item, 0, 5)).toMatchObject({ title: 'Nothing counted' });
  });

  it('takes no number for an item of which every piece is scanned', () => {
    const each = { ...book, items: { ...book.items, 1: { ...book.items['1']!, scanEach: true } } };
    const { last, commands } = walk(over(pick, each), withTote, startPick, scan('A-01-1'), scan(codes.jar), count(11, 50));
    expect(last?.feedback).toMatchObject({ band: 'not-this', title: 'Each piece is scanned' });
    expect(commands.filter((c) => c.kind === 'pick')).toEqual([]);
  });

  describe('of a round that several walk', () => {
    const shared: PickTask = {
      ...withTote,
      mustScanBin: true,
      stops: [stop(1, 1, places.binA, 2, { by: 'Joss Arkle' }), stop(2, 2, places.binB, 1)],
    };
    const theirs: PickTask = { ...shared, stops: [shared.stops[0]!] };

    it('sends nobody to where a colleague goes, and offers to walk with them once nothing else is left', () => {
      expect(currentStop(shared, startPick)?.id).toBe(2);
      expect(currentStop(theirs, startPick)).toBeUndefined();
      expect(othersStops(theirs, startPick).map((s) => s.by)).toEqual(['Joss Arkle']);
      const { commands, last } = run(theirs, { kind: 'help' }, { kind: 'help' });
      expect(commands).toEqual([{ kind: 'help', id: 'id-1', round: 'R-0612' }]);
      expect(last?.feedback).toBeNull();
      expect(run({ ...shared, stops: [shared.stops[1]!] }, { kind: 'help' }).commands).toEqual([]);
    });

    it('takes goods from whoever stands at their bin all the same', () => {
      const { commands } = run(theirs, scan('A-01-1'), scan(codes.jar), count(11, 2));
      expect(commands).toMatchObject([{ kind: 'pick', stopId: 1, units: 2 }]);
    });
  });
});
