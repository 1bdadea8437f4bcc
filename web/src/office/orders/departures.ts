import type { Dto } from '../../api/client';
import { age, clock, day, plural } from '../../ui/format';

type Row = Dto['OrderRowDto'];

/** Late first, then by the van that the orders must catch. */
export function byDeparture(orders: Row[]): { key: string; title: string; note: string; orders: Row[] }[] {
  const groups = new Map<string, Row[]>();
  for (const o of orders) {
    const key = o.late ? 'late' : new Date(o.promisedAt).toISOString();
    groups.set(key, [...(groups.get(key) ?? []), o]);
  }
  const now = Date.now();
  return [...groups]
    .sort(([a], [b]) => (a === 'late' ? -1 : b === 'late' ? 1 : a < b ? -1 : 1))
    .map(([key, list]) => {
      const at = new Date(key);
      const today = key !== 'late' && at.toDateString() === new Date(now).toDateString();
      const title = key === 'late' ? 'Late' : today ? `Leaves at ${clock(at)}` : `${day(at)}, ${clock(at)}`;
      return {
        key,
        title,
        note: `${plural(list.length, 'order', 'orders')}${today ? `, leaves in ${age(new Date(2 * now - at.getTime()), now)}` : ''}`,
        orders: list,
      };
    });
}
