import fc from 'fast-check';
import { draftOf, ended, moved, snap, type Shape, walkLine, walkMetres } from './plan-model';

const floor = { widthM: 40, depthM: 24 };
const metre = fc.integer({ min: 0, max: 240 }).map((n) => n / 10);
const anywhere = fc.integer({ min: -900, max: 900 }).map((n) => n / 10);
const shape = fc
  .record({ kind: fc.constantFrom<Shape['kind']>('aisle', 'walkway', 'wall'), x: metre, y: metre, toX: metre, toY: metre })
  .map((s): Shape => ({ ...s, id: 1, key: 's1', label: 'A' }));
const inside = (s: Shape) =>
  [s.x, s.toX].every((x) => x >= -1e-9 && x <= floor.widthM + 1e-9) && [s.y, s.toY].every((y) => y >= -1e-9 && y <= floor.depthM + 1e-9);

describe('whatever is dragged on the plan', () => {
  it('a shape stays within the walls, and keeps its length and direction', () => {
    fc.assert(
      fc.property(shape, anywhere, anywhere, (s, dx, dy) => {
        const m = moved(s, dx, dy, floor);
        expect(inside(m)).toBe(true);
        expect(m.toX - m.x).toBeCloseTo(s.toX - s.x, 6);
        expect(m.toY - m.y).toBeCloseTo(s.toY - s.y, 6);
        expect(m).toMatchObject({ id: s.id, key: s.key, kind: s.kind, label: s.label });
      }),
    );
  });

  it('a shape moved by nothing stays, and comes back when it is moved back inside', () => {
    fc.assert(
      fc.property(shape, (s) => {
        expect(moved(s, 0, 0, floor)).toEqual(s);
      }),
    );
  });

  it('an end stays within the walls, and the other end where it is', () => {
    fc.assert(
      fc.property(shape, fc.constantFrom('from' as const, 'to' as const), anywhere, anywhere, (s, end, x, y) => {
        const e = ended(s, end, { x, y }, floor);
        expect(inside(e)).toBe(true);
        if (end === 'from') expect([e.toX, e.toY]).toEqual([s.toX, s.toY]);
        else expect([e.x, e.y]).toEqual([s.x, s.y]);
      }),
    );
  });

  it('what is snapped is no further than half a grid away, and snapped for good', () => {
    fc.assert(
      fc.property(anywhere, fc.boolean(), (m, fine) => {
        expect(Math.abs(snap(m, fine) - m)).toBeLessThanOrEqual(0.25 + 1e-9);
        expect(snap(snap(m, fine), fine)).toBe(snap(m, fine));
      }),
    );
  });
});

describe('the walk that is drawn', () => {
  const bay = (aisleId: number, along: number) => ({ aisleId, along, bins: 2, used: 1, moves: 0, codes: 'x', zone: null });

  it('never breaks, whatever is drawn, and never has a length that is none', () => {
    const plans = fc.array(shape, { maxLength: 6 }).map((shapes) => ({
      ...floor,
      shapes: shapes.map((s, i) => ({ ...s, id: i + 1, key: `s${i + 1}` })),
      points: [],
    }));
    fc.assert(
      fc.property(plans, fc.array(fc.tuple(fc.integer({ min: 1, max: 7 }), metre), { maxLength: 12 }), (draft, stops) => {
        const bays = stops.map(([aisle, along]) => bay(aisle, along));
        const metres = walkMetres(draft, bays);
        expect(Number.isFinite(metres)).toBe(true);
        expect(metres).toBeGreaterThanOrEqual(0);
        for (const p of walkLine(draft, bays)) expect([Number.isFinite(p.x), Number.isFinite(p.y)]).toEqual([true, true]);
      }),
      { numRuns: 200 },
    );
  });

  it('begins anew from a plan as the server tells it, each shape under a key of its own', () => {
    const plan = { version: 3, widthM: 40, depthM: 24, walkM: 0, shapes: [{ id: 7 }, { id: 9 }], points: [], bays: [] };
    const draft = draftOf(plan as unknown as Parameters<typeof draftOf>[0]);
    expect(draft.shapes.map((s) => s.key)).toEqual(['s7', 's9']);
  });
});
