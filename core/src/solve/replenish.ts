import { proposalFor, readWeek, type Wanted } from '../replenish/index.js';
import { arrayAt, dateAt, InputFault, objectAt, textAt } from './input-fault.js';
import { numberAt } from './route.js';

/** `{today, items}` to `{items: [{id, forecast, safetyUnits, reorderPoint, proposedUnits, reason}]}`. */
export function solveReplenish(input: unknown): unknown {
  const top = objectAt(input, '');
  const today = dateAt(top['today'], 'today');
  const seen = new Set<string>();
  const items = arrayAt(top['items'], 'items').map((given, i) => {
    const path = `items[${i}]`;
    const one = objectAt(given, path);
    const id = textAt(one['id'], `${path}.id`);
    if (seen.has(id)) throw new InputFault(`${id} is there twice`, `${path}.id`);
    seen.add(id);
    return { id, wanted: wantedAt(one, path) };
  });
  return {
    items: items.map(({ id, wanted }) => {
      const { forecast, safetyUnits, reorderPoint, proposedUnits, reason } = proposalFor(wanted, today);
      return {
        id,
        forecast: forecast.weeks.map((w) => ({ week: w.week, mean: rounded(w.mean), sd: rounded(w.sd) })),
        safetyUnits,
        reorderPoint,
        proposedUnits,
        reason,
      };
    }),
  };
}

const rounded = (n: number): number => Math.round(n * 1e4) / 1e4;

function wantedAt(one: Record<string, unknown>, path: string): Wanted {
  const at = (name: string) => `${path}.${name}`;
  const notBelow = (name: string, otherwise?: number): number => {
    if (one[name] === undefined && otherwise !== undefined) return otherwise;
    const value = numberAt(one[name], at(name));
    if (value < 0) throw new InputFault('A number of nought or more is wanted here', at(name));
    return value;
  };
  const lead = objectAt(one['leadTimeDays'], at('leadTimeDays'));
  const leadMean = numberAt(lead['mean'], at('leadTimeDays.mean'));
  const leadSd = lead['sd'] === undefined ? 0 : numberAt(lead['sd'], at('leadTimeDays.sd'));
  if (leadMean < 0 || leadSd < 0) throw new InputFault('Days of nought or more are wanted here', at('leadTimeDays'));
  const serviceLevel = numberAt(one['serviceLevel'], at('serviceLevel'));
  if (serviceLevel <= 0 || serviceLevel >= 1)
    throw new InputFault('A share between 0 and 1 is wanted here, such as 0.97', at('serviceLevel'));
  const reviewDays = notBelow('reviewDays', 1);
  return {
    history: arrayAt(one['history'], at('history')).map((week, i) => weekAt(week, () => `${path}.history[${i}]`)),
    onHand: notBelow('onHand', 0),
    allocated: notBelow('allocated', 0),
    onOrder: arrayAt(one['onOrder'] ?? [], at('onOrder')).map((order, i) => {
      const own = objectAt(order, `${path}.onOrder[${i}]`);
      const units = numberAt(own['units'], `${path}.onOrder[${i}].units`);
      if (units < 0) throw new InputFault('Units of nought or more are wanted here', `${path}.onOrder[${i}].units`);
      return { units, due: dateAt(own['due'], `${path}.onOrder[${i}].due`) };
    }),
    leadTimeDays: { mean: leadMean, sd: leadSd },
    reviewDays: Math.max(1, reviewDays),
    serviceLevel,
    minimumUnits: notBelow('minimumUnits', 0),
    multipleUnits: Math.max(1, notBelow('multipleUnits', 1)),
    unitCost: notBelow('unitCost', 0),
    orderCost: notBelow('orderCost', 0),
    holdingRate: notBelow('holdingRate', 0),
  };
}

/** `pathOf` says where it stands; there are very many weeks, and it is only asked where one is at fault. */
function weekAt(value: unknown, pathOf: () => string): { week: string; units: number } {
  const { week, units } = (value ?? {}) as Record<string, unknown>;
  if (typeof week === 'string' && typeof units === 'number' && units >= 0 && Number.isFinite(units) && isWeek(week)) return { week, units };
  const path = pathOf();
  const own = objectAt(value, path);
  const text = textAt(own['week'], `${path}.week`);
  try {
    readWeek(text);
  } catch (thrown) {
    throw new InputFault(thrown instanceof Error ? thrown.message : 'A week such as 2026-W05 is wanted here', `${path}.week`);
  }
  numberAt(own['units'], `${path}.units`);
  throw new InputFault('Units of nought or more are wanted here', `${path}.units`);
}

function isWeek(text: string): boolean {
  try {
    readWeek(text);
    return true;
  } catch {
    return false;
  }
}
