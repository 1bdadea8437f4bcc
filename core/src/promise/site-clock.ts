const formats = new Map<string, Intl.DateTimeFormat>();

/** Making a format costs far more than using it; there is one a time zone. */
function formatOf(timeZone: string): Intl.DateTimeFormat {
  const known = formats.get(timeZone);
  if (known) return known;
  const made = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    year: 'numeric',
    month: 'numeric',
    day: 'numeric',
    hour: 'numeric',
    minute: 'numeric',
    second: 'numeric',
    hourCycle: 'h23',
  });
  formats.set(timeZone, made);
  return made;
}

const QUARTER_MS = 900_000;
/** The clocks of a zone, quarter by quarter: no clock is changed but at a whole quarter of an hour. */
const offsets = new Map<string, number>();
const MOST_OFFSETS = 10_000;

/** What the clock on the wall of a time zone shows at an instant, in whole seconds, told in milliseconds as if it were UTC. O(1). */
export function wallClock(at: Date, timeZone: string): number {
  const quarter = Math.floor(at.getTime() / QUARTER_MS);
  const key = `${timeZone} ${quarter}`;
  let offset = offsets.get(key);
  if (offset === undefined) {
    const begins = new Date(quarter * QUARTER_MS);
    offset = shownAt(begins, timeZone) - begins.getTime();
    if (offsets.size >= MOST_OFFSETS) offsets.clear();
    offsets.set(key, offset);
  }
  return Math.floor(at.getTime() / 1000) * 1000 + offset;
}

function shownAt(at: Date, timeZone: string): number {
  const parts = formatOf(timeZone).formatToParts(at);
  const part = (type: string) => Number(parts.find((p) => p.type === type)?.value);
  return Date.UTC(part('year'), part('month') - 1, part('day'), part('hour'), part('minute'), part('second'));
}

/** The instant at which a zone's wall clock shows `wall`; in the hour that a spring change leaves out, the one after it. O(1). */
export function instantOf(wall: number, timeZone: string): Date {
  const first = wall - (wallClock(new Date(wall), timeZone) - wall);
  return new Date(wall - (wallClock(new Date(first), timeZone) - first));
}
