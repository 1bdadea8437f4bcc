import fc from 'fast-check';
import { buildable, findCycle, lacking } from './index.js';

const graph = (edges: Record<string, string[]>) => (id: string) => edges[id] ?? [];

describe('parts lists', () => {
  it('are sound where nothing leads back', () => {
    expect(findCycle('hive', graph({ hive: ['body', 'floor'], body: ['nail'], floor: ['nail'] }))).toBeNull();
  });
  it('may not contain their own item', () => {
    expect(findCycle('kit', graph({ kit: ['kit'] }))).toEqual(['kit', 'kit']);
  });
  it('name the way round, however long', () => {
    expect(findCycle('a', graph({ a: ['x', 'b'], b: ['c'], c: ['a'] }))).toEqual(['a', 'b', 'c', 'a']);
  });
  it('are read to the end though some other ring lies within', () => {
    expect(findCycle('a', graph({ a: ['b'], b: ['c'], c: ['b'] }))).toBeNull();
  });
  it('never have a cycle while parts are only ever younger items', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(20), fc.nat(20))), (pairs) => {
        const parts = pairs.map(([a, b]) => [Math.min(a, b), Math.max(a, b)] as const).filter(([a, b]) => a < b);
        return findCycle(0, (id) => parts.filter(([a]) => a === id).map(([, b]) => b)) === null;
      }),
    );
  });
});

describe('buildable kits', () => {
  it('are bounded by the scarcest part', () => {
    expect(
      buildable([
        { available: 10, units: 2 },
        { available: 9, units: 4 },
      ]),
    ).toBe(2);
  });
  it('are none where a part is owed, or where there are no parts', () => {
    expect(buildable([{ available: -3, units: 1 }])).toBe(0);
    expect(buildable([])).toBe(0);
  });
  it('can all be built from what there is, and one more cannot', () => {
    const needs = fc.array(fc.record({ available: fc.nat(10_000), units: fc.integer({ min: 1, max: 50 }) }), { minLength: 1 });
    fc.assert(
      fc.property(needs, (list) => {
        const n = buildable(list);
        return list.every((l) => n * l.units <= l.available) && list.some((l) => (n + 1) * l.units > l.available);
      }),
    );
  });
});

describe('what an item lacks', () => {
  it('is named in the order in which it is asked for', () => {
    expect(lacking({ barcode: false, cost: true, size: false })).toEqual(['barcode', 'size or weight']);
    expect(lacking({ barcode: true, cost: true, size: true })).toEqual([]);
  });
});
