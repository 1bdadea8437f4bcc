import { type BoxKind, CartonSearch, type Good, type Size } from '../cartons/index.js';
import { arrayAt, InputFault, objectAt, textAt, unitsAt } from './input-fault.js';
import { numberAt } from './route.js';

/** The answer is printed behind the search. */
const PRINTING_MS = 150;
const MOST_SECONDS = 600;
const MOST_UNITS = 1_000_000;

/** `now` tells the milliseconds since the program began. `{boxes, goods, seconds, seed}` to `{parcels, cost, unplaced}`. */
export function solveCartons(input: unknown, now: () => number): unknown {
  const top = objectAt(input, '');
  const boxes = listed(top['boxes'], 'boxes', boxAt);
  const goods = listed(top['goods'], 'goods', goodAt);
  const seconds = top['seconds'] === undefined ? 2 : numberAt(top['seconds'], 'seconds');
  if (seconds < 0 || seconds > MOST_SECONDS) throw new InputFault(`0 to ${MOST_SECONDS} seconds are wanted here`, 'seconds');
  const seed = top['seed'] === undefined ? 1 : numberAt(top['seed'], 'seed');
  const search = new CartonSearch({ boxes: boxes.map((b) => b.value), goods: goods.map((g) => g.value) }, seed);
  const found = search.improve(() => now() / Math.max(1, seconds * 1000 - PRINTING_MS));
  return {
    parcels: found.boxes.map(({ box, placements, weightG, fill }) => ({
      box: boxes[box]?.id,
      placements: placements.map(({ good, ...placed }) => ({ good: goods[good]?.id, ...placed })),
      weightG,
      fill: Number(fill.toFixed(6)),
    })),
    cost: Number(found.cost.toFixed(6)),
    unplaced: found.unplaced.flatMap((quantity, i) => (quantity > 0 ? [{ good: goods[i]?.id, quantity }] : [])),
  };
}

function listed<T>(value: unknown, name: string, read: (one: Record<string, unknown>, path: string) => T): { id: string; value: T }[] {
  const seen = new Set<string>();
  return arrayAt(value, name).map((given, i) => {
    const path = `${name}[${i}]`;
    const one = objectAt(given, path);
    const id = textAt(one['id'], `${path}.id`);
    if (seen.has(id)) throw new InputFault(`${id} is there twice`, `${path}.id`);
    seen.add(id);
    return { id, value: read(one, path) };
  });
}

function boxAt(one: Record<string, unknown>, path: string): BoxKind {
  return {
    innerMm: sizeAt(one['innerMm'], `${path}.innerMm`),
    maxWeightG:
      one['maxWeightG'] === undefined || one['maxWeightG'] === null ? Infinity : atLeastNought(one['maxWeightG'], `${path}.maxWeightG`),
    tareG: one['tareG'] === undefined ? 0 : atLeastNought(one['tareG'], `${path}.tareG`),
    cost: one['cost'] === undefined ? 0 : atLeastNought(one['cost'], `${path}.cost`),
    stock: one['stock'] === undefined || one['stock'] === null ? undefined : unitsAt(one['stock'], 0, `${path}.stock`),
  };
}

function goodAt(one: Record<string, unknown>, path: string): Good {
  const quantity = one['quantity'] === undefined ? 1 : unitsAt(one['quantity'], 0, `${path}.quantity`);
  if (quantity > MOST_UNITS) throw new InputFault(`${MOST_UNITS} at most are wanted here`, `${path}.quantity`);
  return {
    sizeMm: sizeAt(one['sizeMm'], `${path}.sizeMm`),
    weightG: one['weightG'] === undefined ? 0 : atLeastNought(one['weightG'], `${path}.weightG`),
    quantity,
    keepUpright: flagAt(one['keepUpright'], `${path}.keepUpright`),
    fragile: flagAt(one['fragile'], `${path}.fragile`),
  };
}

function sizeAt(value: unknown, path: string): Size {
  const sides = arrayAt(value, path).map((side, i) => numberAt(side, `${path}[${i}]`));
  if (sides.length !== 3) throw new InputFault('Length, width and height are wanted here', path);
  const thin = sides.findIndex((side) => side <= 0);
  if (thin >= 0) throw new InputFault('More than nought is wanted here', `${path}[${thin}]`);
  return sides as unknown as Size;
}

function atLeastNought(value: unknown, path: string): number {
  const given = numberAt(value, path);
  if (given < 0) throw new InputFault('Nought or more is wanted here', path);
  return given;
}

function flagAt(value: unknown, path: string): boolean {
  if (value === undefined || value === null) return false;
  if (typeof value !== 'boolean') throw new InputFault('true or false is wanted here', path);
  return value;
}
