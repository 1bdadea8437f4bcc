import { seeded } from '../random/index.js';
import { CartonSearch } from './search.js';
import { type BoxKind, type CartonProblem, type Good, type Packing, type Placement, type Size, turnsOf, volumeOf } from './problem.js';

const kind = (side: number | Size, more: Partial<BoxKind> = {}): BoxKind => ({
  innerMm: typeof side === 'number' ? [side, side, side] : side,
  maxWeightG: 30_000,
  tareG: 100,
  cost: 1,
  ...more,
});
const good = (sizeMm: Size, more: Partial<Good> = {}): Good => ({ sizeMm, weightG: 100, quantity: 1, ...more });

/** As many steps as that, so that a test asks no clock. */
function solve(problem: CartonProblem, steps = 300, seed = 1): Packing {
  let n = 0;
  const search = new CartonSearch(problem, seed);
  const found = search.improve(() => n++ / steps);
  mustHold(problem, found);
  return found;
}

const meets = (a: Placement, b: Placement) =>
  [0, 1, 2].every(
    (k) => (a.atMm[k] ?? 0) < (b.atMm[k] ?? 0) + (b.sizeMm[k] ?? 0) && (b.atMm[k] ?? 0) < (a.atMm[k] ?? 0) + (a.sizeMm[k] ?? 0),
  );
const isAbove = (a: Placement, b: Placement) =>
  a.atMm[2] >= b.atMm[2] + b.sizeMm[2] && meets({ ...a, atMm: [a.atMm[0], a.atMm[1], 0] }, { ...b, atMm: [b.atMm[0], b.atMm[1], 0] });

/** Nothing overlaps or stands out, every unit is there once, weights, stock, upright and fragile are kept. */
function mustHold({ boxes, goods }: CartonProblem, found: Packing): void {
  const count = goods.map((_, i) => found.unplaced[i] ?? 0);
  for (const { box, placements, weightG } of found.boxes) {
    const { innerMm, maxWeightG, tareG } = boxes[box] ?? kind(0);
    expect(weightG).toBeCloseTo(
      placements.reduce((sum, p) => sum + (goods[p.good]?.weightG ?? 0), tareG),
      6,
    );
    expect(weightG).toBeLessThanOrEqual(maxWeightG);
    for (const [i, p] of placements.entries()) {
      const facts = goods[p.good] ?? good([0, 0, 0]);
      count[p.good] = (count[p.good] ?? 0) + 1;
      expect(turnsOf(facts).map(String)).toContain(String(p.sizeMm));
      for (const k of [0, 1, 2]) {
        expect(p.atMm[k]).toBeGreaterThanOrEqual(0);
        expect((p.atMm[k] ?? 0) + (p.sizeMm[k] ?? 0)).toBeLessThanOrEqual(innerMm[k] ?? 0);
      }
      for (const [j, other] of placements.entries()) {
        if (j < i) expect(meets(p, other)).toBe(false);
        if (facts.fragile && j !== i) expect(isAbove(other, p)).toBe(false);
      }
    }
  }
  expect(count).toEqual(goods.map((g) => g.quantity));
  boxes.forEach((b, i) => expect(found.boxes.filter((f) => f.box === i).length).toBeLessThanOrEqual(b.stock ?? Infinity));
  expect(found.cost).toBeCloseTo(
    found.boxes.reduce((sum, f) => sum + (boxes[f.box]?.cost ?? 0), 0),
    6,
  );
}

describe('boxes for goods', () => {
  it('are the cheapest that hold them, and among these the smallest', () => {
    const boxes = [kind(300, { cost: 1 }), kind(200, { cost: 0.6 }), kind(210, { cost: 0.6 }), kind(100, { cost: 0.2 })];
    expect(solve({ boxes, goods: [good([200, 200, 150])] }).boxes.map((b) => b.box)).toEqual([1]);
    expect(solve({ boxes, goods: [good([50, 50, 50], { quantity: 16 })] }).boxes.map((b) => b.box)).toEqual([3, 3]);
    expect(solve({ boxes, goods: [good([300, 300, 300])] }).boxes.map((b) => b.box)).toEqual([0]);
  });

  it('are several where one is dearer or cannot carry it', () => {
    const boxes = [kind(400, { cost: 3 }), kind(200, { cost: 1, maxWeightG: 1_100 })];
    expect(solve({ boxes, goods: [good([200, 200, 100], { quantity: 4 })] }).boxes.map((b) => b.box)).toEqual([1, 1]);
    expect(solve({ boxes, goods: [good([50, 50, 50], { quantity: 10, weightG: 300 })] }).boxes.map((b) => b.box)).toEqual([0]);
  });

  it('are taken no more than there are', () => {
    const boxes = [kind(100, { cost: 0.1, stock: 1 }), kind(150, { cost: 5, stock: 1 }), kind(100, { cost: 0.1, stock: 0 })];
    const found = solve({ boxes, goods: [good([100, 100, 100], { quantity: 3 })] });
    expect(found.boxes.map((b) => b.box).sort()).toEqual([0, 1]);
    expect(found.unplaced).toEqual([1]);
  });

  it('leave out what fits in none, and nothing else', () => {
    const boxes = [kind([250, 170, 120], { maxWeightG: 5_000 })];
    const jars = good([80, 80, 110], { weightG: 352, quantity: 6, keepUpright: true });
    const found = solve({
      boxes,
      goods: [jars, good([900, 10, 10]), good([50, 50, 50], { weightG: 6_000 }), good([120, 60, 250], { keepUpright: true })],
    });
    expect(found.unplaced).toEqual([0, 1, 1, 1]);
    expect(found.boxes).toHaveLength(1);
    expect(solve({ boxes: [], goods: [jars] }).unplaced).toEqual([6]);
    expect(solve({ boxes, goods: [] }).boxes).toEqual([]);
  });

  it('keep upright what must be, and let nothing stand on what is fragile', () => {
    const box = kind([100, 100, 200], { cost: 1 });
    expect(solve({ boxes: [box], goods: [good([200, 100, 100])] }).boxes).toHaveLength(1);
    expect(solve({ boxes: [box], goods: [good([200, 100, 100], { keepUpright: true })] }).unplaced).toEqual([1]);
    const glass = good([100, 100, 50], { fragile: true, keepUpright: true });
    const brick = good([100, 100, 100]);
    const found = solve({ boxes: [box], goods: [glass, brick] });
    expect(found.boxes[0]?.placements.find((p) => p.good === 0)?.atMm[2]).toBe(100);
    expect(solve({ boxes: [box], goods: [{ ...glass, quantity: 2 }] }).boxes).toHaveLength(2);
  });

  it('may weigh nothing, cost nothing and be all of a kind', () => {
    const found = solve({
      boxes: [kind(100, { cost: 0, tareG: 0 }), kind(90, { cost: 0, tareG: 0 })],
      goods: [good([45, 45, 45], { weightG: 0, quantity: 8 })],
    });
    expect(found.boxes.map((b) => b.box)).toEqual([1]);
    expect(found.boxes[0]?.fill).toBe(1);
  });

  it('hold whatever comes, many times over', () => {
    const random = seeded(11);
    const below = (n: number) => Math.floor(random() * n);
    for (let n = 0; n < 40; n++) {
      const boxes = Array.from({ length: 1 + below(4) }, () =>
        kind([60 + below(200), 60 + below(200), 60 + below(200)], {
          cost: below(5) / 2,
          maxWeightG: 500 + below(4_000),
          stock: random() < 0.3 ? below(3) : undefined,
        }),
      );
      const goods = Array.from({ length: 1 + below(7) }, () =>
        good([10 + below(120), 10 + below(120), 10 + below(120)], {
          quantity: below(6),
          weightG: below(400),
          keepUpright: random() < 0.3,
          fragile: random() < 0.2,
        }),
      );
      solve({ boxes, goods }, 40, n);
    }
  });

  it('that were cut into pieces are put together again', () => {
    const random = seeded(4);
    let whole = 0;
    for (let n = 0; n < 10; n++) {
      const box: Size = [400, 300, 250];
      const parts: Size[] = [box];
      while (parts.length < 24) {
        parts.sort((a, b) => volumeOf(b) - volumeOf(a));
        const part = parts.splice(Math.floor(random() * 3), 1)[0] ?? parts.shift() ?? box;
        const axis = [...part.keys()].sort((a, b) => (part[b] ?? 0) - (part[a] ?? 0))[0] ?? 0;
        const at = Math.round((part[axis] ?? 0) * (0.25 + 0.5 * random()));
        for (const length of [at, (part[axis] ?? 0) - at]) parts.push(part.map((s, k) => (k === axis ? length : s)) as unknown as Size);
      }
      const goods = parts.map(([l, w, h], i) => good(i % 2 === 0 ? [h, l, w] : [w, l, h]));
      if (solve({ boxes: [kind(box), kind(500, { cost: 2 })], goods }, 600).cost === 1) whole++;
    }
    expect(whole).toBeGreaterThanOrEqual(9);
  });

  it('are the same for the same seed', () => {
    const problem = {
      boxes: [kind(120), kind(200, { cost: 1.7 })],
      goods: [good([70, 40, 30], { quantity: 9 }), good([110, 90, 20], { quantity: 4 })],
    };
    expect(solve(problem)).toEqual(solve(problem));
  });
});
