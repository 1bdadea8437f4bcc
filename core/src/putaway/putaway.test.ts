import fc from 'fast-check';
import { roomFor, suggestAll, suggestBins, type PutawayBin, type PutawayGoods } from './index.js';

const TABLE = { x: 0, y: 0 };
const goods = (more: Partial<PutawayGoods> = {}): PutawayGoods => ({
  itemId: 1,
  lotId: 0,
  units: 24,
  unitMl: 600,
  unitG: 350,
  storage: 'any',
  homeId: null,
  ...more,
});
const bin = (id: number, more: Partial<PutawayBin> = {}): PutawayBin => ({
  id,
  code: `B-${id}`,
  kind: 'pick-face',
  level: 1,
  rule: 'none',
  at: { x: id, y: 0 },
  holdsMl: null,
  holdsG: null,
  usedMl: 0,
  usedG: 0,
  stock: [],
  ...more,
});
const suggest = (g: PutawayGoods, bins: PutawayBin[]) => suggestBins(g, bins, TABLE).map((s) => [s.binId, s.units, s.reason]);

const placed = (g: PutawayGoods, bins: PutawayBin[]) => suggestBins(g, bins, TABLE).map((s) => [s.binId, s.units]);

describe('room', () => {
  it('is what volume and weight both allow, and unbounded where nothing is known', () => {
    expect(roomFor(goods(), bin(1, { holdsMl: 6_000, holdsG: 1_400 }))).toBe(4);
    expect(roomFor(goods(), bin(1, { holdsMl: 6_000, usedMl: 5_500 }))).toBe(0);
    expect(roomFor(goods(), bin(1, { holdsG: 700, usedG: 900 }))).toBe(0);
    expect(roomFor(goods({ unitMl: null }), bin(1, { holdsMl: 10 }))).toBe(Infinity);
    expect(roomFor(goods(), bin(1))).toBe(Infinity);
  });
});

describe('a bin for goods', () => {
  it('is first its pick face', () => {
    expect(suggest(goods({ homeId: 5 }), [bin(1), bin(5, { stock: [{ itemId: 1, lotId: 0 }] })])).toEqual([[5, 24, 'its pick face']]);
  });

  it('is the pick face as far as that has room, then where the rest lies, then the nearest empty reserve', () => {
    const home = bin(5, { holdsMl: 6_000, at: { x: 20, y: 0 } });
    const beside = bin(6, { kind: 'reserve', holdsMl: 3_000, stock: [{ itemId: 1, lotId: 0 }] });
    const far = bin(7, { kind: 'reserve', at: { x: 1, y: 0 } });
    const near = bin(8, { kind: 'reserve', at: { x: 22, y: 0 } });
    expect(suggest(goods({ homeId: 5 }), [far, near, home, beside])).toEqual([
      [5, 10, 'its pick face'],
      [6, 5, 'the rest of it lies there'],
      [8, 9, 'the nearest empty bin'],
    ]);
  });

  it('is where its own lot lies, not another', () => {
    const other = bin(1, { stock: [{ itemId: 1, lotId: 7 }] });
    const own = bin(9, { stock: [{ itemId: 1, lotId: 8 }] });
    expect(suggest(goods({ lotId: 8 }), [other, own])).toEqual([[9, 24, 'its lot lies there']]);
    expect(suggest(goods({ lotId: 9 }), [other, own, bin(12)])).toEqual([[12, 24, 'the nearest empty bin']]);
  });

  it('is never in a zone that does not let it in, not even its pick face', () => {
    const cold = bin(3, { rule: 'cold' });
    const cage = bin(2, { rule: 'restricted' });
    expect(placed(goods({ storage: 'cold', homeId: 1 }), [bin(1), cage, cold])).toEqual([[3, 24]]);
    expect(placed(goods({ storage: 'restricted' }), [bin(1), cage, cold])).toEqual([[2, 24]]);
    expect(suggest(goods(), [cage])).toEqual([]);
  });

  it('is low for heavy goods, though a higher one is nearer', () => {
    const high = bin(1, { level: 4, kind: 'pick-face' });
    const low = bin(20);
    expect(suggest(goods({ unitG: 1_000 }), [high, low])).toEqual([[20, 24, 'the nearest empty bin low down, for its weight']]);
    expect(suggest(goods({ unitG: 100 }), [high, low])).toEqual([[1, 24, 'the nearest empty bin']]);
  });

  it('takes all where one does, and is no larger than it need be', () => {
    const small = bin(1, { holdsMl: 6_000 });
    const right = bin(4, { holdsMl: 15_000 });
    const huge = bin(3, { holdsMl: 900_000 });
    expect(placed(goods(), [small, right, huge])).toEqual([[4, 24]]);
  });

  it('is left to goods with a pick face in reserve, and to others at picking height', () => {
    const face = bin(1);
    const reserve = bin(3, { kind: 'reserve' });
    expect(placed(goods({ homeId: 9 }), [face, reserve])).toEqual([[3, 24]]);
    expect(placed(goods(), [reserve, face])).toEqual([[1, 24]]);
  });

  it('is none where the house is full', () => {
    expect(suggest(goods(), [bin(1, { holdsMl: 100 }), bin(2, { stock: [{ itemId: 5, lotId: 0 }] })])).toEqual([]);
  });
});

describe('bins for a whole cart', () => {
  it('are each taken once', () => {
    const list = suggestAll([goods(), goods({ itemId: 2 }), goods({ itemId: 3 })], [bin(1), bin(2)], TABLE);
    expect(list.map((l) => l.map((s) => s.binId))).toEqual([[1], [2], []]);
  });

  it('bring two parts of one item together', () => {
    const list = suggestAll([goods(), goods()], [bin(1), bin(2)], TABLE);
    expect(list.map((l) => [l[0]?.binId, l[0]?.reason])).toEqual([
      [1, 'the nearest empty bin'],
      [1, 'the rest of it lies there'],
    ]);
  });

  it('never hold more than they can, nor what their zone refuses, and never more of the goods than there are', () => {
    const size = fc.option(fc.integer({ min: 1, max: 50 }), { nil: null });
    const anyGoods = fc.record({
      itemId: fc.integer({ min: 1, max: 4 }),
      lotId: fc.integer({ min: 0, max: 2 }),
      units: fc.integer({ min: 1, max: 40 }),
      unitMl: size,
      unitG: size,
      storage: fc.constantFrom('any' as const, 'cold' as const, 'restricted' as const),
      homeId: fc.option(fc.integer({ min: 1, max: 8 }), { nil: null }),
    });
    const anyBin = fc.record({
      holdsMl: fc.option(fc.integer({ min: 1, max: 900 }), { nil: null }),
      holdsG: fc.option(fc.integer({ min: 1, max: 900 }), { nil: null }),
      level: fc.integer({ min: 1, max: 4 }),
      rule: fc.constantFrom('none' as const, 'cold' as const, 'restricted' as const),
      kind: fc.constantFrom('pick-face' as const, 'reserve' as const),
    });
    fc.assert(
      fc.property(fc.array(anyGoods, { maxLength: 10 }), fc.array(anyBin, { minLength: 1, maxLength: 8 }), (list, some) => {
        const bins = some.map((b, i) => bin(i + 1, b));
        const found = suggestAll(list, bins, TABLE);
        const used = new Map(bins.map((b) => [b.id, { ml: 0, g: 0 }]));
        found.forEach((suggestions, i) => {
          const g = list[i]!;
          expect(suggestions.reduce((n, s) => n + s.units, 0)).toBeLessThanOrEqual(g.units);
          expect(new Set(suggestions.map((s) => s.binId)).size).toBe(suggestions.length);
          for (const s of suggestions) {
            expect(s.units).toBeGreaterThan(0);
            const u = used.get(s.binId)!;
            u.ml += s.units * (g.unitMl ?? 0);
            u.g += s.units * (g.unitG ?? 0);
            const b = bins[s.binId - 1]!;
            if (g.storage === 'any') expect(b.rule).not.toBe('restricted');
            else expect(b.rule).toBe(g.storage);
          }
        });
        for (const b of bins) {
          expect(used.get(b.id)!.ml).toBeLessThanOrEqual(b.holdsMl ?? Infinity);
          expect(used.get(b.id)!.g).toBeLessThanOrEqual(b.holdsG ?? Infinity);
        }
      }),
    );
  });
});
