import fc from 'fast-check';
import { slotAdvice, type ToSlot } from './index.js';

/** Faces along one aisle: a walk goes to the farthest and back. */
const aisle = (faces: number) => (wanted: readonly number[]) => 2 * Math.max(0, ...wanted.map((f) => f + 1)) * (faces > 0 ? 1 : 0);
const toSlot = (more: Partial<ToSlot>): ToSlot => ({
  faceOf: [0, 1, 2, 3],
  faces: 4,
  orders: [],
  weeks: 1,
  fits: () => true,
  metres: aisle(4),
  ...more,
});

describe('where goods should stand', () => {
  it('is near, for what is asked for often', () => {
    const { moves, before, after } = slotAdvice(toSlot({ orders: [[3], [3], [3], [0]] }));
    expect(moves).toEqual([
      { goods: 3, from: 3, to: 0, change: 0, metresAWeek: 12 },
      { goods: 0, from: 3, to: 1, change: 1, metresAWeek: 4 },
    ]);
    expect([before, after]).toEqual([26, 10]);
  });

  it('is next to what it leaves with, though neither is asked for alone', () => {
    // Two aisles: faces 0 and 1 in one, 2 and 3 in the other, each aisle ten metres away.
    const metres = (wanted: readonly number[]) => 20 * new Set(wanted.map((f) => Math.floor(f / 2))).size;
    const { moves, after } = slotAdvice(toSlot({ metres, orders: Array.from({ length: 5 }, () => [0, 2]) }));
    expect(moves).toHaveLength(1);
    expect(after).toBe(100);
  });

  it('is an empty face rather than another’s, where one is as near', () => {
    const { moves } = slotAdvice(toSlot({ faceOf: [1, 3], faces: 4, orders: [[1], [1], [0]] }));
    expect(moves[0]).toMatchObject({ goods: 1, to: 0, change: null });
  });

  it('leaves alone what does not fit, what shares its face, and what would save next to nothing', () => {
    const orders = [[3], [3], [3]];
    expect(slotAdvice(toSlot({ orders, fits: (goods, face) => goods !== 3 || face === 3 })).moves).toEqual([]);
    expect(slotAdvice(toSlot({ orders, faceOf: [0, 1, 3, 3] })).moves).toEqual([]);
    expect(slotAdvice(toSlot({ orders, weeks: 100 })).moves).toEqual([]);
    expect(slotAdvice(toSlot({})).moves).toEqual([]);
  });

  it('never claims what is not so: each move is the best single one by measure, and all together save what they say', () => {
    const goods = 6;
    fc.assert(
      fc.property(
        fc.array(fc.uniqueArray(fc.nat(goods - 1), { minLength: 1, maxLength: 4 }), { minLength: 1, maxLength: 12 }),
        fc.shuffledSubarray([0, 1, 2, 3, 4, 5, 6, 7], { minLength: goods, maxLength: goods }),
        fc.nat(3),
        (orders, faceOf, heavy) => {
          const fits = (g: number, face: number) => g !== heavy || face >= 4;
          const given = toSlot({ faceOf, faces: 8, orders, metres: aisle(8), fits });
          const { moves, before, after } = slotAdvice(given);
          const stand = [...faceOf];
          const walk = () => orders.reduce((n, o) => n + given.metres(o.map((g) => stand[g] ?? 0)), 0);
          expect(before).toBe(walk());
          for (const m of moves) {
            const was = walk();
            expect(stand[m.goods]).toBe(m.from);
            expect(fits(m.goods, m.to)).toBe(true);
            if (m.change !== null) {
              expect(stand[m.change]).toBe(m.to);
              expect(fits(m.change, m.from)).toBe(true);
              stand[m.change] = m.from;
            }
            stand[m.goods] = m.to;
            expect(was - walk()).toBeCloseTo(m.metresAWeek, 9);
            expect(new Set(stand).size).toBe(goods);
          }
          expect(after).toBe(walk());
          expect(after).toBeLessThanOrEqual(before);
        },
      ),
    );
  });
});
