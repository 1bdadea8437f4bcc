import { CostingFault, valued, type CostMovement } from '../costing/index.js';
import { fractionOf, fractionText, type Fraction } from '../money/index.js';
import { arrayAt, InputFault, instantAt, objectAt, oneOfAt, textAt, unitsAt } from './input-fault.js';

/** `{method, pool, movements}` to `{valuation, out}`; movements are taken in the order of their times. */
export function solveCosting(input: unknown): unknown {
  const top = objectAt(input, '');
  const method = oneOfAt(top['method'], ['average', 'fifo'] as const, 'method');
  const pool = oneOfAt(top['pool'], ['item', 'site'] as const, 'pool');
  const read = arrayAt(top['movements'], 'movements').map((value, i) => {
    const path = `movements[${i}]`;
    const one = objectAt(value, path);
    return { at: instantAt(one['at'], `${path}.at`), path, movement: movementAt(one, path) };
  });
  const ids = new Set<string>();
  for (const { movement, path } of read) {
    if (ids.has(movement.id)) throw new InputFault(`There are two movements ${movement.id}`, `${path}.id`);
    ids.add(movement.id);
  }
  const inOrder = read.map((r, i) => ({ ...r, i })).sort((a, b) => a.at - b.at || a.i - b.i);
  try {
    const { valuation, out } = valued(
      method,
      pool,
      inOrder.map((r) => r.movement),
    );
    return {
      valuation: valuation.map((v) => ({ ...v, value: fractionText(v.value) })),
      out: out.map((o) => ({ ...o, value: fractionText(o.value) })),
    };
  } catch (thrown) {
    if (!(thrown instanceof CostingFault)) throw thrown;
    throw new InputFault(thrown.message, `${inOrder[thrown.index]?.path ?? 'movements'}.${thrown.member}`);
  }
}

function decimalAt(value: unknown, path: string): Fraction {
  try {
    return fractionOf(textAt(value, path));
  } catch (thrown) {
    if (thrown instanceof InputFault) throw thrown;
    throw new InputFault('Decimal text is wanted here, such as "1.250"', path);
  }
}

function weightAt(value: unknown, path: string): Fraction {
  if (typeof value !== 'number' || !Number.isFinite(value) || value < 0 || value > 1e15)
    throw new InputFault('A weight in grams is wanted here', path);
  return fractionOf(Number.isInteger(value) ? String(value) : value.toFixed(9));
}

function movementAt(one: Record<string, unknown>, path: string): CostMovement {
  const id = textAt(one['id'], `${path}.id`);
  const text = (key: string) => textAt(one[key], `${path}.${key}`);
  const units = () => unitsAt(one['units'], 1, `${path}.units`);
  const type = oneOfAt(one['type'], ['receipt', 'issue', 'supplierReturn', 'transfer', 'return', 'count'] as const, `${path}.type`);
  switch (type) {
    case 'receipt':
      return { id, type, site: text('site'), ...receiptAt(one, path) };
    case 'issue':
    case 'supplierReturn':
      return { id, type, item: text('item'), site: text('site'), units: units() };
    case 'transfer':
      return { id, type, item: text('item'), from: text('from'), to: text('to'), units: units() };
    case 'return':
      return { id, type, item: text('item'), site: text('site'), units: units(), of: text('of') };
    case 'count':
      return { id, type, item: text('item'), site: text('site'), counted: unitsAt(one['counted'], 0, `${path}.counted`) };
  }
}

function receiptAt(one: Record<string, unknown>, path: string): Pick<Extract<CostMovement, { type: 'receipt' }>, 'lines' | 'charges'> {
  const lines = arrayAt(one['lines'], `${path}.lines`).map((value, i) => {
    const at = `${path}.lines[${i}]`;
    const line = objectAt(value, at);
    return {
      item: textAt(line['item'], `${at}.item`),
      units: unitsAt(line['units'], 1, `${at}.units`),
      unitPrice: decimalAt(line['unitPrice'], `${at}.unitPrice`),
      ...(line['weightG'] === undefined || line['weightG'] === null ? {} : { unitWeight: weightAt(line['weightG'], `${at}.weightG`) }),
    };
  });
  const charges = arrayAt(one['charges'] ?? [], `${path}.charges`).map((value, i) => {
    const at = `${path}.charges[${i}]`;
    const charge = objectAt(value, at);
    return {
      amount: decimalAt(charge['amount'], `${at}.amount`),
      by: oneOfAt(charge['by'], ['value', 'units', 'weight'] as const, `${at}.by`),
    };
  });
  return { lines, charges };
}
