import fc from 'fast-check';
import { projectionOf, promisableAt, type SendingSite, type WantedLine, waysToSend } from './index.js';

const [MILL, QUAY, BARN] = [1, 2, 3];
const [JAR, LID] = [10, 11];
const DAY = 24;
/** A van each day at hour 16, and four hours of work before it. */
const site = (id: number, goods: Record<number, [at: number, units: number][]>): SendingSite => ({
  id,
  projections: new Map(
    Object.entries(goods).map(([item, coming]) => [
      Number(item),
      projectionOf(
        0,
        0,
        coming.map(([at, units]) => ({ at, units })),
        [],
      ),
    ]),
  ),
  workMs: 4,
  leavesAfter: (ready) => Math.ceil((ready - 16) / DAY) * DAY + 16,
});
const lines = (jars: number, lids = 0): WantedLine[] => [
  { itemId: JAR, units: jars },
  { itemId: LID, units: lids },
];
const ways = (wanted: WantedLine[], sites: SendingSite[], fetch: number | null = 2 * DAY) => waysToSend(0, wanted, sites, () => fetch);
const kinds = (of: ReturnType<typeof ways>) => of.map((w) => [w.kind, w.wholeAt, ...w.sendings.map((s) => s.siteId)]);

describe('the ways to send an order', () => {
  it('is one where a site has all of it, with the first van that can be caught', () => {
    expect(kinds(ways(lines(3), [site(MILL, { [JAR]: [[0, 5]] })]))).toEqual([['together', 16, MILL]]);
    expect(kinds(ways(lines(3), [site(MILL, { [JAR]: [[13, 5]] })]))).toEqual([['together', 16 + DAY, MILL]]);
  });

  it('are split, waited for, sent in parts or fetched where no site has it yet', () => {
    const mill = site(MILL, {
      [JAR]: [
        [0, 2],
        [5 * DAY, 9],
      ],
      [LID]: [[0, 4]],
    });
    const quay = site(QUAY, { [JAR]: [[0, 3]] });
    expect(kinds(ways(lines(5, 1), [mill, quay]))).toEqual([
      ['split', 16, MILL, QUAY],
      ['fetched', 2 * DAY + 16, MILL],
      ['fetched', 2 * DAY + 16, QUAY],
      ['together', 5 * DAY + 16, MILL],
      ['in parts', 5 * DAY + 16, MILL, MILL],
    ]);
    // What comes by itself as soon is not fetched.
    const soon = site(MILL, { [JAR]: [[0, 2], [DAY, 9]] }); // prettier-ignore
    expect(kinds(ways(lines(5), [soon, quay])).filter(([kind, , at]) => kind === 'fetched' && at === MILL)).toEqual([]);
    const [, fetch] = ways(lines(5, 1), [mill, quay]);
    expect(fetch?.fetches).toEqual([{ itemId: JAR, units: 3, from: QUAY, to: MILL, freeAt: 0 }]);
  });

  it('take from as few sites as suffice, the first that do', () => {
    const all = [site(MILL, { [JAR]: [[0, 2]] }), site(QUAY, { [JAR]: [[0, 1]] }), site(BARN, { [JAR]: [[0, 3]] })];
    expect(kinds(ways(lines(5), all, null))).toEqual([['split', 16, MILL, BARN]]);
  });

  it('are none where nothing that is known of suffices', () => {
    expect(ways(lines(6), [site(MILL, { [JAR]: [[0, 5]] })])).toEqual([]);
    expect(ways(lines(1), [{ ...site(MILL, { [JAR]: [[0, 5]] }), leavesAfter: () => null }])).toEqual([]);
    expect(ways([], [site(MILL, {})])).toEqual([]);
  });

  it('take two lines of one item from the same goods', () => {
    const twice = [
      { itemId: JAR, units: 3 },
      { itemId: JAR, units: 3 },
    ];
    expect(ways(twice, [site(MILL, { [JAR]: [[0, 5]] })])).toEqual([]);
  });

  const goods = fc.array(fc.tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 6 })), { maxLength: 3 });
  const some = (id: number) => fc.record({ [JAR]: goods, [LID]: goods }).map((g) => site(id, g as Record<number, [number, number][]>));
  const house = fc.tuple(some(MILL), some(QUAY), some(BARN));
  it('send every line whole, and nothing that is not free by then', () => {
    fc.assert(
      fc.property(house, fc.nat(8), fc.nat(8), (sites, jars, lids) => {
        for (const w of ways(lines(jars, lids), [...sites])) {
          for (const [item, units] of [
            [JAR, jars],
            [LID, lids],
          ] as const) {
            const sent = w.sendings.flatMap((s) => s.lines).filter((l) => l.itemId === item);
            expect(sent.reduce((n, l) => n + l.units, 0)).toBe(units);
            for (const s of w.sendings) {
              const by = w.sendings.filter((o) => o.siteId === s.siteId && o.leavesAt <= s.leavesAt).flatMap((o) => o.lines);
              const own = by.filter((l) => l.itemId === item).reduce((n, l) => n + l.units, 0);
              const come = w.fetches.filter((f) => f.itemId === item && f.to === s.siteId).reduce((n, f) => n + f.units, 0);
              const projection = sites.find((x) => x.id === s.siteId)!.projections.get(item)!;
              expect(own - come).toBeLessThanOrEqual(promisableAt(projection, s.leavesAt - 4));
            }
            for (const f of w.fetches.filter((x) => x.itemId === item))
              expect(f.units).toBeLessThanOrEqual(promisableAt(sites.find((x) => x.id === f.from)!.projections.get(item)!, f.freeAt));
          }
          expect(w.wholeAt).toBe(Math.max(...w.sendings.map((s) => s.leavesAt)));
        }
      }),
      { numRuns: 500 },
    );
  });
});
