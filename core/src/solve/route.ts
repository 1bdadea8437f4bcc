import { NoWay, shortestRoute, type WalkFloor } from '../walk/index.js';
import { arrayAt, InputFault, objectAt, textAt } from './input-fault.js';

/** The walkways of a document, with what names their nodes and edges. */
export interface ReadFloor {
  floor: WalkFloor;
  node: (id: unknown, path: string) => number;
  /** Where a `{edge, offset}` is. */
  on: (value: Record<string, unknown>, path: string) => { edge: number; offset: number };
}

export function numberAt(value: unknown, path: string): number {
  if (typeof value !== 'number' || !Number.isFinite(value)) throw new InputFault('A number is wanted here', path);
  return value;
}

/** A little more than its length is the length: documents are rounded. */
const SLACK_M = 0.01;

export function floorAt(value: unknown, path: string): ReadFloor {
  const top = objectAt(value, path);
  const index = new Map<string, number>();
  const points = arrayAt(top['nodes'], `${path}.nodes`).map((node, i) => {
    const [at, one] = [`${path}.nodes[${i}]`, objectAt(node, `${path}.nodes[${i}]`)];
    const id = textAt(one['id'], `${at}.id`);
    if (index.has(id)) throw new InputFault(`There are two nodes ${id}`, `${at}.id`);
    index.set(id, i);
    return { x: numberAt(one['x'], `${at}.x`), y: numberAt(one['y'], `${at}.y`) };
  });
  const node = (id: unknown, at: string) => {
    const found = index.get(textAt(id, at));
    if (found === undefined) throw new InputFault(`There is no node ${String(id)}`, at);
    return found;
  };
  const pair = (ends: unknown, at: string): [number, number] => {
    const list = arrayAt(ends, at);
    if (list.length !== 2) throw new InputFault('Two nodes are wanted here', at);
    return [node(list[0], `${at}[0]`), node(list[1], `${at}[1]`)];
  };
  const named = new Map<string, number>();
  const edges = arrayAt(top['edges'], `${path}.edges`).map((ends, i) => {
    const [a, b] = pair(ends, `${path}.edges[${i}]`);
    const [p, q] = [points[a], points[b]];
    if (!named.has(`${a} ${b}`)) named.set(`${a} ${b}`, i).set(`${b} ${a}`, i);
    return { a, b, length: p && q ? Math.hypot(p.x - q.x, p.y - q.y) : 0 };
  });
  return {
    floor: { nodes: points.length, edges, place: (n) => points[n] ?? { x: 0, y: 0 } },
    node,
    on(one, at) {
      const [a, b] = pair(one['edge'], `${at}.edge`);
      const edge = named.get(`${a} ${b}`);
      const found = edge === undefined ? undefined : edges[edge];
      if (edge === undefined || !found) throw new InputFault('There is no edge between these nodes', `${at}.edge`);
      const offset = numberAt(one['offset'], `${at}.offset`);
      if (offset < 0 || offset > found.length + SLACK_M)
        throw new InputFault(`The edge is ${found.length.toFixed(2)} m long. An offset lies on it`, `${at}.offset`);
      const along = Math.min(offset, found.length);
      return { edge, offset: found.a === a ? along : found.length - along };
    },
  };
}

/** `{walkways, stops, start, end}` to `{order, metres, optimal, lowerBound}`. */
export function solveRoute(input: unknown): unknown {
  const top = objectAt(input, '');
  const { floor, node, on } = floorAt(top['walkways'], 'walkways');
  const ids = new Set<string>();
  const stops = arrayAt(top['stops'], 'stops').map((value, i) => {
    const [path, one] = [`stops[${i}]`, objectAt(value, `stops[${i}]`)];
    const id = textAt(one['id'], `${path}.id`);
    if (ids.has(id)) throw new InputFault(`There are two stops ${id}`, `${path}.id`);
    ids.add(id);
    return { id, ...on(one, path) };
  });
  try {
    const route = shortestRoute(floor, stops, node(top['start'], 'start'), node(top['end'], 'end'));
    return { ...route, order: route.order.map((i) => stops[i]?.id) };
  } catch (thrown) {
    if (!(thrown instanceof NoWay)) throw thrown;
    throw new InputFault(thrown.message, thrown.stop === null ? 'end' : `stops[${thrown.stop}]`);
  }
}
