import { ended, moved, snap, walkLine, walkMetres, type Draft, type Shape } from './plan-model';

const floor = { widthM: 20, depthM: 30 };
const aisle = (id: number, x: number): Shape => ({ key: `s${id}`, id, kind: 'aisle', label: String(id), x, y: 2, toX: x, toY: 12 });
const walkway = (id: number, y: number): Shape => ({ key: `s${id}`, id, kind: 'walkway', label: '', x: 0, y, toX: 12, toY: y });
const bays = [1, 2].flatMap((aisleId) => [1, 9].map((along) => ({ aisleId, along, bins: 4, used: 2, moves: 0, codes: 'A', zone: null })));
const draft: Draft = {
  ...floor,
  shapes: [aisle(1, 4), aisle(2, 8), walkway(3, 2), walkway(4, 12)],
  points: [{ code: 'DOCK-1', kind: 'dock', x: 0, y: 2 }],
};

describe('drawing a plan', () => {
  it('keeps to half metres, or to centimetres where asked', () => {
    expect([snap(3.26), snap(3.24), snap(3.264, true)]).toEqual([3.5, 3, 3.26]);
  });
  it('moves a shape as a whole and stops it at the walls', () => {
    expect(moved(aisle(1, 4), 2, 1, floor)).toMatchObject({ x: 6, toX: 6, y: 3, toY: 13 });
    expect(moved(aisle(1, 4), -9, -9, floor)).toMatchObject({ x: 0, toX: 0, y: 0, toY: 10 });
    expect(moved(aisle(1, 4), 99, 99, floor)).toMatchObject({ x: 20, toX: 20, y: 20, toY: 30 });
  });
  it('pulls an end, straight where it is nearly straight, and never beyond the walls', () => {
    expect(ended(aisle(1, 4), 'to', { x: 4.3, y: 18 }, floor)).toMatchObject({ x: 4, toX: 4, toY: 18 });
    expect(ended(aisle(1, 4), 'from', { x: -5, y: 40 }, floor)).toMatchObject({ x: 0, y: 30 });
  });
  it('tells the metres of a walk past every bay, and fewer when aisles stand closer', () => {
    const far = walkMetres(draft, bays);
    expect(far).toBe(1 + 4 + 8 + 1 + 4 + 1 + 8 + 1 + 8);
    expect(walkMetres({ ...draft, shapes: [aisle(1, 4), aisle(2, 6), walkway(3, 2), walkway(4, 12)] }, bays)).toBe(far - 4);
  });
  it('draws the walk from the dock through every aisle', () => {
    const line = walkLine(draft, bays);
    expect(line[0]).toMatchObject({ x: 0, y: 2 });
    expect(line.at(-1)).toEqual({ x: 8, y: 3 });
  });
  it('has no walk where nothing is drawn', () => {
    expect(walkMetres({ ...draft, shapes: [] }, bays)).toBe(0);
  });
});
