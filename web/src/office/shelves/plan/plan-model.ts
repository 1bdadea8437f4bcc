import { floorOf, pointOn, walkingOrder, type PlanPoint, type Segment } from '@vectrum/core/walk';
import type { Dto } from '../../../api/client';

export type Shape = Dto['PlanShapeDto'] & { key: string };
export type Point = Dto['PlacedPointDto'];
export interface Draft {
  widthM: number;
  depthM: number;
  shapes: Shape[];
  points: Point[];
}

export const GRID_M = 0.5;
/** What is drawn keeps to half metres; with a modifier held, to centimetres. */
export const snap = (m: number, fine = false) => (fine ? Math.round(m * 100) / 100 : Math.round(m / GRID_M) * GRID_M);

export const draftOf = (plan: Dto['PlanDto']): Draft => ({
  widthM: plan.widthM,
  depthM: plan.depthM,
  shapes: plan.shapes.map((s) => ({ ...s, key: `s${s.id}` })),
  points: plan.points,
});

export const segmentOf = (s: Shape, i: number): Segment => ({ id: s.id ?? -1 - i, x: s.x, y: s.y, toX: s.toX, toY: s.toY });

const within = (m: number, most: number) => Math.min(most, Math.max(0, m));

/** A shape moved as a whole, no further than the walls. */
export function moved(s: Shape, dx: number, dy: number, floor: Pick<Draft, 'widthM' | 'depthM'>): Shape {
  const x =
    within(dx, floor.widthM - Math.max(s.x, s.toX)) === dx || dx < 0
      ? Math.max(dx, -Math.min(s.x, s.toX))
      : floor.widthM - Math.max(s.x, s.toX);
  const y =
    within(dy, floor.depthM - Math.max(s.y, s.toY)) === dy || dy < 0
      ? Math.max(dy, -Math.min(s.y, s.toY))
      : floor.depthM - Math.max(s.y, s.toY);
  return { ...s, x: s.x + x, y: s.y + y, toX: s.toX + x, toY: s.toY + y };
}

/** One end of a shape put elsewhere; the end snaps to the line through the other where it is nearly straight. */
export function ended(s: Shape, end: 'from' | 'to', at: PlanPoint, floor: Pick<Draft, 'widthM' | 'depthM'>): Shape {
  const other = end === 'from' ? { x: s.toX, y: s.toY } : { x: s.x, y: s.y };
  const x = Math.abs(at.x - other.x) < GRID_M ? other.x : within(at.x, floor.widthM);
  const y = Math.abs(at.y - other.y) < GRID_M ? other.y : within(at.y, floor.depthM);
  return end === 'from' ? { ...s, x, y } : { ...s, toX: x, toY: y };
}

/** What a walk past every bay comes to with the plan as it is drawn now, from the first packing table or dock and back. */
export function walkMetres(draft: Draft, bays: readonly Dto['BayDto'][]): number {
  const walkable = draft.shapes.map((s, i) => ({ s, seg: segmentOf(s, i) })).filter(({ s }) => s.kind !== 'wall');
  const floor = floorOf(walkable.map(({ seg }) => seg));
  const aisles = walkable.filter(({ s }) => s.kind === 'aisle').map(({ seg }) => seg);
  const begin = draft.points.find((p) => p.kind === 'packing-table') ?? draft.points.find((p) => p.kind === 'dock') ?? { x: 0, y: 0 };
  const stops = bays.map((b, id) => ({ id, aisleId: b.aisleId, along: b.along, code: b.codes }));
  const order = walkingOrder(aisles, floor, begin, stops);
  const points = order.flatMap((id) => {
    const stop = stops[id];
    const aisle = aisles.find((a) => a.id === stop?.aisleId);
    return stop && aisle ? [pointOn(aisle, stop.along)] : [];
  });
  return points.length === 0 ? 0 : Math.round(floor.metresOf([begin, ...points, begin]));
}

/** The order of the bays on the walk, by "aisle/along", for drawing it. */
export function walkLine(draft: Draft, bays: readonly Dto['BayDto'][]): PlanPoint[] {
  const walkable = draft.shapes.map((s, i) => ({ s, seg: segmentOf(s, i) })).filter(({ s }) => s.kind !== 'wall');
  const floor = floorOf(walkable.map(({ seg }) => seg));
  const aisles = walkable.filter(({ s }) => s.kind === 'aisle').map(({ seg }) => seg);
  const begin = draft.points.find((p) => p.kind === 'packing-table') ?? draft.points.find((p) => p.kind === 'dock') ?? { x: 0, y: 0 };
  const ends = aisles.flatMap((a) => {
    const own = bays.filter((b) => b.aisleId === a.id);
    const [first, last] = [own[0], own.at(-1)];
    return first && last
      ? [
          { id: a.id * 2, aisleId: a.id, along: first.along, code: '' },
          { id: a.id * 2 + 1, aisleId: a.id, along: last.along, code: '' },
        ]
      : [];
  });
  const stops = walkingOrder(aisles, floor, begin, ends).flatMap((id) => {
    const end = ends.find((e) => e.id === id);
    const aisle = aisles.find((a) => a.id === end?.aisleId);
    return end && aisle ? [pointOn(aisle, end.along)] : [];
  });
  return stops.flatMap((p, i) => floor.wayBetween(stops[i - 1] ?? begin, p));
}
