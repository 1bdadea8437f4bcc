import { allocate, type Demand, type StockRow, type StockRule } from '../allocation/index.js';
import { arrayAt, dateAt, InputFault, instantAt, objectAt, oneOfAt, textAt, unitsAt } from './input-fault.js';

/** `{today, stock, items, orders}` to `{allocations, short}`. */
export function solveAllocate(input: unknown): unknown {
  const top = objectAt(input, '');
  const today = dateAt(top['today'], 'today');
  const rules = new Map<string, StockRule>();
  for (const [i, value] of arrayAt(top['items'] ?? [], 'items').entries()) {
    const [path, one] = [`items[${i}]`, objectAt(value, `items[${i}]`)];
    const id = textAt(one['id'], `${path}.id`);
    if (rules.has(id)) throw new InputFault(`There are two items ${id}`, `${path}.id`);
    const rotation = oneOfAt(one['rotation'] ?? 'fifo', ['fefo', 'fifo'] as const, `${path}.rotation`);
    rules.set(id, { rotation, minLifeDays: isAbsent(one['minLifeDays']) ? null : unitsAt(one['minLifeDays'], 0, `${path}.minLifeDays`) });
  }
  const stock = arrayAt(top['stock'], 'stock').map((value, i) => stockAt(value, `stock[${i}]`));
  const ids = new Set<string>();
  const orders = arrayAt(top['orders'], 'orders').map((value, i) => {
    const order = orderAt(value, `orders[${i}]`);
    if (ids.has(order.id)) throw new InputFault(`There are two orders ${order.id}`, `orders[${i}].id`);
    ids.add(order.id);
    return order;
  });
  return allocate(today, stock, rules, orders);
}

const isAbsent = (value: unknown) => value === undefined || value === null;

/** Yes or no; what is not said is what is usual. */
function yesAt(value: unknown, usual: boolean, path: string): boolean {
  if (isAbsent(value)) return usual;
  if (typeof value !== 'boolean') throw new InputFault('true or false is wanted here', path);
  return value;
}

const dayAt = (value: unknown, path: string) => (isAbsent(value) ? null : dateAt(value, path));

function stockAt(value: unknown, path: string): StockRow {
  const one = objectAt(value, path);
  return {
    item: textAt(one['item'], `${path}.item`),
    site: textAt(one['site'], `${path}.site`),
    bin: textAt(one['bin'], `${path}.bin`),
    lot: isAbsent(one['lot']) ? '' : textAt(one['lot'], `${path}.lot`),
    expires: dayAt(one['expires'], `${path}.expires`),
    received: dayAt(one['received'], `${path}.received`),
    units: unitsAt(one['units'], 0, `${path}.units`),
    pickable: yesAt(one['pickable'], true, `${path}.pickable`),
  };
}

function priorityAt(value: unknown, path: string): number {
  if (isAbsent(value)) return 0;
  if (typeof value !== 'number' || !Number.isFinite(value)) throw new InputFault('A number is wanted here', path);
  return value;
}

function orderAt(value: unknown, path: string): Demand {
  const one = objectAt(value, path);
  const lines = arrayAt(one['lines'], `${path}.lines`).map((v, i) => {
    const [at, line] = [`${path}.lines[${i}]`, objectAt(v, `${path}.lines[${i}]`)];
    return {
      line: unitsAt(line['line'], 0, `${at}.line`),
      item: textAt(line['item'], `${at}.item`),
      units: unitsAt(line['units'], 0, `${at}.units`),
    };
  });
  const numbers = new Set<number>();
  for (const [i, { line }] of lines.entries()) {
    if (numbers.has(line)) throw new InputFault(`There are two lines ${line}`, `${path}.lines[${i}].line`);
    numbers.add(line);
  }
  return {
    id: textAt(one['id'], `${path}.id`),
    priority: priorityAt(one['priority'], `${path}.priority`),
    due: instantAt(one['due'], `${path}.due`),
    placed: instantAt(one['placed'], `${path}.placed`),
    sites: [...new Set(arrayAt(one['sites'], `${path}.sites`).map((s, i) => textAt(s, `${path}.sites[${i}]`)))],
    completeOnly: yesAt(one['completeOnly'], false, `${path}.completeOnly`),
    lines,
  };
}
