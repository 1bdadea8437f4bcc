const HOUR_MS = 3_600_000;
/** As many hours in a row with nothing in them are drawn; more are folded into one. */
const MOST_EMPTY = 2;
const FOLDED = 0.5;

/** One column of the hour chart: an hour, or several in which nothing is promised and nothing leaves. */
export interface HourColumn {
  from: number;
  hours: number;
  /** How wide it is beside the others; a folded stretch is narrow, however long. */
  share: number;
}

/** The hours that matter, at any time of the day: what is drawn, and where an instant lies in it. */
export interface Hours {
  columns: HourColumn[];
  /** How far from the left an instant lies, from 0 to 1; the nearest end for one outside. */
  at: (instant: number | Date | string) => number;
}

const widthOf = (columns: readonly HourColumn[]) => columns.reduce((sum, c) => sum + c.share, 0);

/** The start of the hour on the clock here; zones that are half an hour off begin their hours at half past of others. */
function hourOf(instant: number): number {
  const at = new Date(instant);
  at.setMinutes(0, 0, 0);
  return at.getTime();
}

/**
 * The hours from the oldest open promise, or from now where none is older, to the last departure or promise. Long stretches with
 * nothing in them (a night, a weekend) are folded, so that each column has something to say. O(n log n).
 */
export function hoursOf(now: number, openPromises: readonly number[], marks: readonly number[]): Hours {
  const first = hourOf(Math.min(now, ...openPromises));
  const last = Math.max(now, ...openPromises, ...marks);
  const busy = new Set([now, ...openPromises, ...marks.filter((m) => m >= first)].map(hourOf));
  const columns: HourColumn[] = [];
  let empty: number[] = [];
  const drawEmpty = () => {
    const start = empty[0];
    if (start !== undefined && empty.length > MOST_EMPTY) columns.push({ from: start, hours: empty.length, share: FOLDED });
    else columns.push(...empty.map((from) => ({ from, hours: 1, share: 1 })));
    empty = [];
  };
  for (let hour = first; hour <= last; hour += HOUR_MS) {
    if (!busy.has(hour)) {
      empty.push(hour);
      continue;
    }
    drawEmpty();
    columns.push({ from: hour, hours: 1, share: 1 });
  }
  const at = (instant: number | Date | string) => {
    const ms = new Date(instant).getTime();
    const index = columns.findIndex((c) => ms < c.from + c.hours * HOUR_MS);
    const column = columns[index];
    if (!column) return 1;
    const inside = (column.share * (ms - column.from)) / (column.hours * HOUR_MS);
    return Math.max(0, (widthOf(columns.slice(0, index)) + inside) / widthOf(columns));
  };
  return { columns, at };
}
