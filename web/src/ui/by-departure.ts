import { age, clock, day, plural } from './format';

/** Something that must leave. */
export interface Leaving {
  promisedAt: string;
  /** The departure of its site that it must catch; null where none is known. */
  leavesAt: string | null;
}

export interface DepartureGroup<T> {
  key: string;
  title: string;
  note: string;
  list: T[];
}

/** Late first, then by the van that each must catch. `what` is how one of them, and several, are called. */
export function byDeparture<T extends Leaving>(
  leaving: readonly T[],
  what: readonly [string, string],
  now = Date.now(),
): DepartureGroup<T>[] {
  const groups = new Map<string, T[]>();
  for (const one of leaving) {
    const isLate = new Date(one.promisedAt).getTime() < now;
    const key = isLate ? 'late' : new Date(one.leavesAt ?? one.promisedAt).toISOString();
    groups.set(key, [...(groups.get(key) ?? []), one]);
  }
  return [...groups]
    .sort(([a], [b]) => (a === 'late' ? -1 : b === 'late' ? 1 : a < b ? -1 : 1))
    .map(([key, list]) => {
      const at = new Date(key);
      const isToday = key !== 'late' && at.toDateString() === new Date(now).toDateString();
      const title = key === 'late' ? 'Late' : isToday ? `Leaves at ${clock(at)}` : `Leaves ${day(at)}, ${clock(at)}`;
      const left = isToday && at.getTime() >= now ? `, in ${age(new Date(2 * now - at.getTime()), now)}` : '';
      return { key, title, note: `${plural(list.length, what[0], what[1])}${left}`, list };
    });
}
