import { readWeek, weekOfDate, type WeekNumber } from './iso-week.js';
import { mean } from './methods.js';
import type { Series } from './series.js';

/** Weeks in which demand is not what it usually is, as a person said: a campaign, a price, a strike. Both weeks are in it. */
export interface Mark {
  from: string;
  to: string;
  /** How much more (or less) than usual, as a share: 0.5 is half as much again. Null: as in the same campaign before. */
  lift: number | null;
  /** Campaigns with the same name are learned from each other. */
  name: string;
}

/** Weeks on either side of a campaign that say what it would have been without it. */
const AROUND = 6;
const HIGHEST = 20;

const spanOf = (mark: Pick<Mark, 'from' | 'to'>): [WeekNumber, WeekNumber] => [readWeek(mark.from), readWeek(mark.to)];

/** Of each week, its place in the series; those before it begins and after it ends are left out. */
function within({ first, units }: Series, mark: Mark): number[] {
  const [from, to] = spanOf(mark);
  const places: number[] = [];
  for (let i = Math.max(0, from - first); i <= Math.min(units.length - 1, to - first); i += 1) places.push(i);
  return places;
}

/** What a week would have brought, by the weeks around it that are in no mark. */
function usualAt({ units }: Series, at: number, marked: ReadonlySet<number>): number {
  const near: number[] = [];
  for (let reach = 1; reach <= AROUND * 2 && near.length < AROUND; reach += 1)
    for (const i of [at - reach, at + reach]) if (i >= 0 && i < units.length && !marked.has(i)) near.push(units[i] ?? 0);
  return mean(near);
}

/**
 * A series as it would have been without what was marked, so that a campaign teaches neither level nor season. O(marks × weeks).
 */
export function unmarked(series: Series, marks: readonly Mark[]): Series {
  if (marks.length === 0) return series;
  const marked = new Set(marks.flatMap((m) => within(series, m)));
  if (marked.size === 0) return series;
  return { first: series.first, units: series.units.map((u, i) => (marked.has(i) ? usualAt(series, i, marked) : u)) };
}

/** How much more a mark brings than usual: as it says itself, or as those of its name brought before; nought where nothing is known. */
export function liftOf(mark: Mark, series: Series, marks: readonly Mark[]): number {
  if (mark.lift !== null) return mark.lift;
  const marked = new Set(marks.flatMap((m) => within(series, m)));
  let [was, usual] = [0, 0];
  for (const other of marks) {
    if (other.name.trim().toLowerCase() !== mark.name.trim().toLowerCase()) continue;
    for (const i of within(series, other)) {
      was += series.units[i] ?? 0;
      usual += usualAt(series, i, marked);
    }
  }
  return usual <= 0 ? 0 : Math.min(HIGHEST, was / usual - 1);
}

/** By how much each of the coming weeks is to be multiplied, from the week of today on. Marks that overlap add up. O(marks × weeks). */
export function liftsAhead(series: Series, marks: readonly Mark[], today: string, weeks: number): number[] {
  const now = weekOfDate(today);
  const lifts = new Array<number>(weeks).fill(1);
  for (const mark of marks) {
    const [from, to] = spanOf(mark);
    if (to < now || from >= now + weeks) continue;
    const lift = liftOf(mark, series, marks);
    for (let k = Math.max(0, from - now); k <= Math.min(weeks - 1, to - now); k += 1) lifts[k] = Math.max(0, (lifts[k] ?? 1) + lift);
  }
  return lifts;
}
