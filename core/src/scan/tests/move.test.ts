import fc from 'fast-check';
import { movable, moveGoods, type MovableGoods, type MoveTask, startMove } from '../index.js';
import { codes, places, scan, stepOf, walk } from './book.js';

const goods = (itemId: number, units: number, more: Partial<MovableGoods> = {}): MovableGoods => ({
  itemId,
  lotId: 0,
  lot: null,
  condition: 'good',
  units,
  spare: units,
  ...more,
});
const task = (more: Partial<MoveTask> = {}): MoveTask => ({ siteId: 1, from: places.binA, goods: [goods(1, 96), goods(2, 10)], ...more });
const run = (given: MoveTask, ...inputs: Parameters<typeof walk>[3][]) => walk(moveGoods, given, startMove, ...inputs);

describe('moving goods', () => {
  it('takes two scans: the goods and where they go', () => {
    const { commands, last } = run(task(), scan(codes.jar), scan('B-01-1'));
    expect(commands).toMatchObject([
      { kind: 'move', fromPlaceId: 101, toPlaceId: 102, goods: [{ itemId: 1, units: 96, condition: 'good' }] },
    ]);
    expect(last?.feedback).toMatchObject({ band: 'accepted', title: '2 trays: Jar 454 g', detail: 'to B-01-1' });
  });

  it('takes one scan for everything, but for what rounds come for', () => {
    const { commands, last } = run(task({ goods: [goods(1, 96, { spare: 90 }), goods(2, 10, { spare: 0 })] }), scan('CART-1'));
    expect(commands).toMatchObject([{ kind: 'move', toPlaceId: 107, goods: [{ itemId: 1, units: 90 }] }]);
    expect(last?.feedback?.detail).toBe('to CART-1. 16 stay, since rounds come for them');
  });

  it('takes part of it by number, and no more than may go', () => {
    expect(run(task(), scan(codes.jar), { kind: 'number', units: 50 }, scan('B-01-1')).commands).toMatchObject([
      { goods: [{ units: 50 }] },
    ]);
    expect(run(task(), scan(codes.jar), { kind: 'number', units: 97 }).last?.feedback).toMatchObject({ band: 'too-many' });
    const promised = run(task({ goods: [goods(1, 96, { spare: 40 })] }), scan(codes.jar), { kind: 'number', units: 50 });
    expect(promised.last?.feedback?.detail).toBe('Rounds come for 1 tray and 8 jars of it. 40 jars may go');
  });

  it('asks which lot is meant, and takes it by scan or choice', () => {
    const lots = task({ goods: [goods(3, 4, { lotId: 7, lot: 'L1' }), goods(3, 6, { lotId: 8, lot: 'L2' })] });
    const asked = run(lots, scan(codes.syrup), scan('B-01-1'));
    expect(asked.last?.feedback?.detail).toContain('Say first which of the goods');
    expect(run(lots, scan(codes.syrup), scan('L2'), scan('B-01-1')).commands.at(-1)).toMatchObject({ goods: [{ lotId: 8, units: 6 }] });
    expect(run(lots, { kind: 'choose', itemId: 3, lotId: 7, condition: 'good' }, scan('B-01-1')).commands).toMatchObject([
      { goods: [{ lotId: 7 }] },
    ]);
  });

  it('refuses other sites, totes, the place itself, and damaged goods on a shelf', () => {
    const says = (code: string, given = task()) => run(given, scan(codes.jar), scan(code)).last?.feedback?.detail;
    expect(says('QUAY-DOCK')).toContain('another site');
    expect(says('T-01')).toContain('Loose goods are not kept here');
    expect(says('A-01-1')).toContain('lie here already');
    expect(says('B-01-1', task({ goods: [goods(1, 5, { condition: 'damaged' })] }))).toContain('Damaged goods do not go onto a shelf');
    expect(run(task(), scan(codes.syrup)).last?.feedback?.detail).toContain('None of it lies in A-01-1 by the books');
  });

  it('uses goods up for a purpose, and finds them in another condition', () => {
    const used = run(
      task(),
      scan(codes.lid),
      { kind: 'number', units: 2 },
      { kind: 'issue', purpose: 'sample', note: ' fair ', costCentre: '' },
    );
    expect(used.commands).toMatchObject([{ kind: 'issue', placeId: 101, itemId: 2, units: 2, purpose: 'sample', note: 'fair' }]);
    const held = run(task(), scan(codes.lid), { kind: 'condition', becomes: 'held', note: '' });
    expect(held.commands).toMatchObject([{ kind: 'condition', becomes: 'held', units: 10, condition: 'good' }]);
  });

  it('never takes more of anything than may go, whatever is scanned in whatever order', () => {
    const input = fc.oneof(
      fc.constantFrom(scan(codes.jar), scan(codes.lid), scan('B-01-1'), scan('DOCK-1'), scan('CART-1'), scan('T-01'), scan(codes.unknown)),
      fc.integer({ min: 0, max: 120 }).map((units) => ({ kind: 'number' as const, units })),
      fc.constantFrom({ kind: 'issue' as const, purpose: 'scrap' as const, note: '', costCentre: '' }, { kind: 'clear' as const }),
    );
    fc.assert(
      fc.property(fc.array(input, { maxLength: 25 }), fc.integer({ min: 0, max: 96 }), (inputs, spare) => {
        const given = task({ goods: [goods(1, 96, { spare }), goods(2, 10)] });
        let state = startMove;
        let jars = 0;
        inputs.forEach((each, i) => {
          const step = stepOf(moveGoods, given, state, each, `id-${i}`);
          for (const c of step.commands) {
            if (c.kind === 'move') jars += c.goods.filter((g) => g.itemId === 1).reduce((n, g) => n + g.units, 0);
            if (c.kind === 'issue' && c.itemId === 1) jars += c.units;
          }
          state = step.state;
        });
        expect(jars).toBeLessThanOrEqual(spare);
        expect(movable(given, state).every((g) => g.units > 0)).toBe(true);
      }),
    );
  });
});
