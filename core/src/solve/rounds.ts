import { brokenLimit, NO_LIMITS, planRounds, type RoundLimits, type RoundOrder } from '../rounds/index.js';
import { NoWay } from '../walk/index.js';
import { arrayAt, InputFault, objectAt, textAt, unitsAt } from './input-fault.js';
import { floorAt, numberAt } from './route.js';

/** The walks of the rounds are worked out and printed behind the search. */
const PRINTING_MS = 250;
const MOST_SECONDS = 600;

/** `now` tells the milliseconds since the program began. `{walkways, start, end, places, orders, limits, seconds, seed}` to `{rounds, metres}`. */
export function solveRounds(input: unknown, now: () => number): unknown {
  const top = objectAt(input, '');
  const { floor, node, on } = floorAt(top['walkways'], 'walkways');
  const index = new Map<string, number>();
  const places = arrayAt(top['places'], 'places').map((value, i) => {
    const [path, one] = [`places[${i}]`, objectAt(value, `places[${i}]`)];
    const id = textAt(one['id'], `${path}.id`);
    if (index.has(id)) throw new InputFault(`There are two places ${id}`, `${path}.id`);
    index.set(id, i);
    return { id, ...on(one, path) };
  });
  const limits = limitsAt(top['limits']);
  const ids: string[] = [];
  const orders = arrayAt(top['orders'], 'orders').map((value, i) => {
    const [path, one] = [`orders[${i}]`, objectAt(value, `orders[${i}]`)];
    const id = textAt(one['id'], `${path}.id`);
    if (ids.includes(id)) throw new InputFault(`There are two orders ${id}`, `${path}.id`);
    ids.push(id);
    const order = orderAt(one, path, index);
    const broken = brokenLimit(order, limits);
    if (broken) throw new InputFault(`This order alone breaks the limit of ${broken}`, path);
    return order;
  });
  const seconds = top['seconds'] === undefined ? 10 : numberAt(top['seconds'], 'seconds');
  if (seconds < 0 || seconds > MOST_SECONDS) throw new InputFault(`0 to ${MOST_SECONDS} seconds are wanted here`, 'seconds');
  const seed = top['seed'] === undefined ? 1 : numberAt(top['seed'], 'seed');
  const isOver = () => now() > seconds * 1000 - PRINTING_MS;
  try {
    const [start, end] = [node(top['start'], 'start'), node(top['end'], 'end')];
    const rounds = planRounds({ floor, start, end, places, orders, limits }, { seconds, seed }, isOver);
    return {
      rounds: rounds.map((r) => ({ orders: r.orders.map((o) => ids[o]), order: r.walk.map((p) => places[p]?.id), metres: r.metres })),
      metres: rounds.reduce((sum, r) => sum + r.metres, 0),
    };
  } catch (thrown) {
    if (!(thrown instanceof NoWay)) throw thrown;
    throw new InputFault(thrown.message, thrown.stop === null ? 'end' : `places[${thrown.stop}]`);
  }
}

function limitsAt(value: unknown): RoundLimits {
  const given = value === undefined || value === null ? {} : objectAt(value, 'limits');
  const limits = { ...NO_LIMITS };
  for (const key of Object.keys(limits) as (keyof RoundLimits)[]) {
    if (given[key] === undefined || given[key] === null) continue;
    limits[key] = numberAt(given[key], `limits.${key}`);
    if (limits[key] < 0) throw new InputFault('A limit is nought or more', `limits.${key}`);
  }
  return limits;
}

function orderAt(one: Record<string, unknown>, path: string, index: ReadonlyMap<string, number>): RoundOrder {
  const order = { units: 0, weightG: 0, volumeMl: 0 };
  const places = new Set<number>();
  for (const [i, value] of arrayAt(one['lines'], `${path}.lines`).entries()) {
    const [at, line] = [`${path}.lines[${i}]`, objectAt(value, `${path}.lines[${i}]`)];
    const place = index.get(textAt(line['place'], `${at}.place`));
    if (place === undefined) throw new InputFault(`There is no place ${String(line['place'])}`, `${at}.place`);
    places.add(place);
    order.units += unitsAt(line['units'], 0, `${at}.units`);
    for (const key of ['weightG', 'volumeMl'] as const) {
      const more = line[key] === undefined || line[key] === null ? 0 : numberAt(line[key], `${at}.${key}`);
      if (more < 0) throw new InputFault('Nought or more is wanted here', `${at}.${key}`);
      order[key] += more;
    }
  }
  return { places: [...places], ...order };
}
