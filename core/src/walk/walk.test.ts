import fc from 'fast-check';
import { aisleBins, faultOfRule, floorOf, pointOn, walkingOrder, walkwaysOf, type AisleRule, type Segment } from './index.js';

/** Three aisles along y at x = 4, 8, 12, joined by cross aisles at y = 0 and y = 24. */
const AISLES: Segment[] = [4, 8, 12].map((x, i) => ({ id: i + 1, x, y: 0, toX: x, toY: 24 }));
const CROSS: Segment[] = [
  { id: 10, x: 0, y: 0, toX: 14, toY: 0 },
  { id: 11, x: 0, y: 24, toX: 14, toY: 24 },
];
const floor = floorOf([...AISLES, ...CROSS]);

describe('walks on a plan', () => {
  it('go straight along an aisle', () => {
    expect(floor.metresBetween({ x: 4, y: 3 }, { x: 4, y: 9 })).toBeCloseTo(6);
  });
  it('change aisles by the nearer cross aisle', () => {
    expect(floor.metresBetween({ x: 4, y: 2 }, { x: 8, y: 3 })).toBeCloseTo(9);
    expect(floor.metresBetween({ x: 4, y: 22 }, { x: 8, y: 23 })).toBeCloseTo(7);
  });
  it('take the way to and from the walkway into account', () => {
    expect(floor.metresBetween({ x: 2, y: 3 }, { x: 4, y: 9 })).toBeCloseTo(8);
  });
  it('add up, and are nothing with one stop or none', () => {
    expect(floor.metresOf([4, 9, 6].map((y) => ({ x: 4, y })))).toBeCloseTo(8);
    expect([floor.metresOf([{ x: 4, y: 0 }]), floor.metresOf([])]).toEqual([0, 0]);
  });
  it('are straight where nothing is drawn, or where no way joins two places', () => {
    expect(floorOf([]).metresBetween({ x: 0, y: 0 }, { x: 3, y: 4 })).toBe(5);
    const apart = floorOf([AISLES[0]!, AISLES[2]!]);
    expect(apart.metresBetween({ x: 4, y: 0 }, { x: 12, y: 6 })).toBe(10);
  });
  it('follow walkways drawn askew on an irregular floor', () => {
    const ell = floorOf([
      { id: 1, x: 0, y: 0, toX: 10, toY: 0 },
      { id: 2, x: 10, y: 0, toX: 13, toY: 4 },
    ]);
    expect(ell.metresBetween({ x: 0, y: 0 }, { x: 13, y: 4 })).toBeCloseTo(15);
    expect(ell.wayBetween({ x: 0, y: 0 }, { x: 13, y: 4 })).toEqual([
      { x: 0, y: 0 },
      { x: 10, y: 0 },
      { x: 13, y: 4 },
    ]);
  });
  it('are the same there and back, and never shorter than the straight line or longer by a third place', () => {
    const point = fc
      .record({ x: fc.double({ min: 0, max: 14, noNaN: true }), y: fc.double({ min: 0, max: 24, noNaN: true }) })
      .map((p) => floor.standAt(p));
    fc.assert(
      fc.property(point, point, point, (a, b, c) => {
        const ab = floor.metresBetween(a, b);
        return (
          Math.abs(ab - floor.metresBetween(b, a)) < 1e-6 &&
          ab >= Math.hypot(a.x - b.x, a.y - b.y) - 0.02 &&
          ab <= floor.metresBetween(a, c) + floor.metresBetween(c, b) + 0.02
        );
      }),
    );
  });
});

describe('walkways as a graph', () => {
  it('have a node at each crossing and at each open end', () => {
    const { nodes, edges } = walkwaysOf([...AISLES, ...CROSS]);
    expect(nodes).toHaveLength(6 + 4);
    expect(edges).toHaveLength(3 + 2 * 4);
  });
  it('join ends that nearly touch', () => {
    const { nodes } = walkwaysOf([
      { id: 1, x: 0, y: 0, toX: 5, toY: 0 },
      { id: 2, x: 5.2, y: 0.1, toX: 5.2, toY: 8 },
    ]);
    expect(nodes).toHaveLength(3);
  });
});

describe('walking order', () => {
  const bins = AISLES.flatMap((a) =>
    [2, 12, 22].map((along) => ({ id: a.id * 100 + along, aisleId: a.id, along, code: `${a.id}-${along}` })),
  );
  it('goes up one aisle and down the next', () => {
    expect(walkingOrder(AISLES, floor, { x: 0, y: 0 }, bins)).toEqual([102, 112, 122, 222, 212, 202, 302, 312, 322]);
  });
  it('begins where the walk begins', () => {
    expect(walkingOrder(AISLES, floor, { x: 14, y: 24 }, bins)[0]).toBe(322);
  });
  it('holds every bin once, and passes over aisles without bins', () => {
    const some = bins.filter((b) => b.aisleId !== 2);
    expect([...walkingOrder(AISLES, floor, { x: 0, y: 0 }, some)].sort()).toEqual(some.map((b) => b.id).sort());
  });
});

describe('aisles by rule', () => {
  const rule: AisleRule = { from: 'A', to: 'H', bays: 12, levels: 4, pickLevels: 2, bayM: 2 };
  it('makes every bin, named by aisle, bay and level', () => {
    const made = aisleBins(rule);
    expect(made).toHaveLength(8 * 12 * 4);
    expect(made[0]).toEqual({ code: 'A-01-1', aisle: 'A', bay: 1, level: 1, along: 1, pickable: true });
    expect(made.at(-1)).toEqual({ code: 'H-12-4', aisle: 'H', bay: 12, level: 4, along: 23, pickable: false });
  });
  it('counts on after Z, and by numbers', () => {
    expect(aisleBins({ ...rule, from: 'Y', to: 'AB', bays: 1, levels: 1, pickLevels: 1 }).map((b) => b.aisle)).toEqual([
      'Y',
      'Z',
      'AA',
      'AB',
    ]);
    expect(aisleBins({ ...rule, from: '9', to: '10', bays: 1, levels: 1, pickLevels: 0 }).map((b) => b.code)).toEqual([
      '9-01-1',
      '10-01-1',
    ]);
  });
  it('says what is wrong with a rule', () => {
    expect(faultOfRule({ ...rule, from: 'H', to: 'A' })?.field).toBe('to');
    expect(faultOfRule({ ...rule, from: 'A', to: '3' })?.field).toBe('to');
    expect(faultOfRule({ ...rule, from: 'a' })?.field).toBe('from');
    expect(faultOfRule({ ...rule, bays: 0 })?.field).toBe('bays');
    expect(faultOfRule({ ...rule, levels: 2.5 })?.field).toBe('levels');
    expect(faultOfRule({ ...rule, pickLevels: 5 })?.field).toBe('pickLevels');
    expect(faultOfRule({ ...rule, bayM: NaN })?.field).toBe('bayM');
    expect(faultOfRule({ ...rule, to: 'ZZ', bays: 99, levels: 9, pickLevels: 9 })?.says).toMatch(/at most at once/);
    expect(() => aisleBins({ ...rule, bays: 0 })).toThrow(RangeError);
  });
  it('gives every bin a code of its own, in its bay', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99 }), fc.integer({ min: 1, max: 9 }), (bays, levels) => {
        const made = aisleBins({ ...rule, bays, levels, pickLevels: 0 });
        const aisle: Segment = { id: 1, x: 0, y: 0, toX: 0, toY: bays * rule.bayM };
        return (
          new Set(made.map((b) => b.code)).size === made.length && made.every((b) => Math.abs(pointOn(aisle, b.along).y - b.along) < 1e-9)
        );
      }),
    );
  });
});
