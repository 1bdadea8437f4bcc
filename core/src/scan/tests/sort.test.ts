import { seeded } from '../../random/index.js';
import { sort, type SortGoods, type SortState, type SortTask, startSort } from '../index.js';
import type { Codebook } from '../types.js';
import { book, codes, count, over, places, scan, walk } from './book.js';

const slots = [1, 2, 3].map((number) => ({
  placeId: 200 + number,
  code: `WALL-1-0${number}`,
  number,
  orderId: null as number | null,
  busy: false,
}));
const wallBook: Codebook = {
  ...book,
  places: {
    ...book.places,
    ...Object.fromEntries(slots.map((s) => [s.code, { id: s.placeId, code: s.code, kind: 'wall-slot', siteId: 1 }])),
  },
};
const flow = over(sort, wallBook);
const goods = (orderId: number, itemId: number, units: number, lotId = 0): SortGoods => ({
  orderId,
  itemId,
  lotId,
  lot: lotId ? `L${lotId}` : null,
  toteId: 103,
  tote: 'T-01',
  units,
});
const task: SortTask = {
  round: 'R-1',
  siteId: 1,
  wall: { id: 200, code: 'WALL-1', columns: 3 },
  slots,
  orders: [11, 12, 13].map((id) => ({ id, code: `SO-${id}`, customer: `Customer ${id}`, sorted: 0 })),
  goods: [goods(11, 1, 2), goods(12, 1, 50), goods(12, 2, 1), goods(13, 3, 1, 7), goods(11, 3, 2, 8)],
};

describe('sorting at the wall', () => {
  it('shows the slot with the goods, and takes them with its scan: one piece, two inputs', () => {
    const { steps, commands, last } = walk(flow, task, startSort, scan(codes.lid), scan('WALL-1-01'));
    expect(steps[0]?.feedback).toMatchObject({ band: 'accepted', title: 'Slot 1' });
    expect(commands).toEqual([
      {
        kind: 'sort',
        id: 'id-2',
        round: 'R-1',
        orderId: 12,
        itemId: 2,
        lotId: 0,
        units: 1,
        fromPlaceId: 103,
        slotPlaceId: 201,
        how: 'scanned',
      },
    ]);
    expect(last?.feedback?.detail).toContain('50 more to come');
  });

  it('serves the order that has a slot first, then the one that was promised soonest, each within what it wants', () => {
    const { steps, commands } = walk(
      flow,
      task,
      startSort,
      ...[scan(codes.jar), count(11, 2), scan('WALL-1-01')],
      ...[scan(codes.tray), scan('WALL-1-02'), scan(codes.jar), count(11, 2), scan('WALL-1-02')],
      scan(codes.jar),
    );
    expect(commands.filter((c) => c.kind === 'sort').map((c) => [c.orderId, c.units, c.slotPlaceId])).toEqual([
      [11, 2, 201],
      [12, 48, 202],
      [12, 2, 202],
    ]);
    expect(steps.at(-1)?.feedback).toMatchObject({ band: 'not-this', detail: expect.stringContaining('Put it back in A-01-1') as string });
  });

  it('gives a whole tray to whoever wants one, before somebody who wants less', () => {
    const { steps } = walk(flow, task, startSort, scan(codes.jar), scan('WALL-1-01'), scan(codes.tray));
    expect(steps[0]?.feedback?.detail).toContain('1 jar of 2 jars');
    expect(steps[2]?.feedback).toMatchObject({ band: 'accepted', title: 'Slot 2' });
  });

  it('refuses another slot, too many, other goods meanwhile and places that are none', () => {
    const { steps, commands } = walk(
      flow,
      task,
      startSort,
      ...[scan(codes.jar), scan('WALL-1-02'), count(11, 3), scan(codes.lid), scan(places.table.code), scan(codes.tray)],
    );
    expect(steps.slice(1).map((s) => [s.feedback?.band, s.feedback?.detail])).toEqual([
      ['not-this', 'These go into slot 1: 1 jar'],
      ['too-many', 'Slot 1 takes 2 jars. Put these in, then scan on'],
      ['not-this', 'Put it into slot 1 first, or let it go'],
      ['not-this', 'These go into slot 1'],
      ['too-many', 'Slot 1 takes 2 jars. Put these in, then scan on'],
    ]);
    expect(commands.every((c) => c.kind === 'refused')).toBe(true);
  });

  it('asks which lot it is where several are to be sorted, and knows one that is the only one', () => {
    const { steps, commands } = walk(flow, task, startSort, scan(codes.syrup), scan('L8'), count(31, 2), scan('WALL-1-01'));
    expect(steps[0]?.feedback?.detail).toContain('Which lot');
    expect(commands).toMatchObject([{ kind: 'sort', orderId: 11, lotId: 8, units: 2 }]);
    const chosen = walk(flow, task, startSort, scan(codes.syrup), { kind: 'lot', lot: 'L7' }, scan('WALL-1-01'));
    expect(chosen.commands).toMatchObject([{ orderId: 13, lotId: 7 }]);
    const one = { ...task, goods: [goods(13, 3, 1, 7)] };
    expect(walk(flow, one, startSort, scan(codes.syrup), scan('WALL-1-01')).commands).toMatchObject([{ orderId: 13, lotId: 7 }]);
  });

  it('says so where no slot is free, and tells what a slot holds', () => {
    const full: SortTask = { ...task, slots: slots.map((s, i) => ({ ...s, busy: i > 0, orderId: i === 0 ? 11 : null })) };
    const { steps } = walk(flow, full, startSort, scan(codes.lid), scan('WALL-1-01'), scan('WALL-1-02'));
    expect(steps.map((s) => s.feedback?.title)).toEqual(['No slot is free', 'Slot 1', 'Slot 2']);
    expect(steps[1]?.feedback?.detail).toBe('SO-11, Customer 11: 4 more to come');
  });

  it('lets go of what a colleague has sorted meanwhile', () => {
    const held = walk(flow, task, startSort, scan(codes.jar)).state;
    const given = { ...task, slots: slots.map((s) => (s.number === 1 ? { ...s, orderId: 12 } : s)) };
    const { last, state } = walk(flow, given, held, scan('WALL-1-01'));
    expect(last?.feedback?.detail).toContain('A colleague has sorted on');
    expect(state.hand).toBeNull();
  });

  it('gives up what is in no tote, all that an order still wants of it', () => {
    const { commands } = walk(flow, task, startSort, { kind: 'missing', orderId: 12, itemId: 1, lotId: 0 });
    expect(commands).toMatchObject([{ kind: 'sort-missing', orderId: 12, units: 50, fromPlaceId: 103 }]);
  });

  it('never sorts more than the totes hold, nor two orders into one slot, whatever is scanned', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const random = seeded(seed);
      const inputs = [
        ...[codes.jar, codes.tray, codes.lid, codes.syrup, 'L7', 'L8', codes.unknown, places.tote.code].map((c) => scan(c)),
        ...slots.map((s) => scan(s.code)),
        ...[1, 2, 3, 48].map((n) => count(11, n)),
        { kind: 'clear' as const },
      ];
      let state: SortState = startSort;
      const sorted = new Map<string, number>();
      const owners = new Map<number, number>();
      for (let i = 0; i < 120; i++) {
        const input = inputs[Math.floor(random() * inputs.length)]!;
        const step = flow.step(task, wallBook, state, { ...input, id: `${seed}-${i}` } as never);
        ({ state } = step);
        for (const c of step.commands) {
          if (c.kind !== 'sort') continue;
          const key = `${c.orderId} ${c.itemId} ${c.lotId}`;
          sorted.set(key, (sorted.get(key) ?? 0) + c.units);
          expect(owners.get(c.slotPlaceId) ?? c.orderId).toBe(c.orderId);
          owners.set(c.slotPlaceId, c.orderId);
        }
      }
      for (const [key, units] of sorted)
        expect(units).toBeLessThanOrEqual(task.goods.find((g) => `${g.orderId} ${g.itemId} ${g.lotId}` === key)?.units ?? 0);
    }
  });
});
