/** When a site's vans leave, and on which days. */
export interface SiteCalendar {
  timeZone: string;
  /** Monday to Sunday: Y for a working day. */
  workingDays: string;
  /** Site time "HH:MM", with how many minutes before an order must be in. */
  departures: readonly { leavesAt: string; closesMinutes: number }[];
}

const DAY_MS = 86_400_000;
const MOST_DAYS = 14;
/** Where a site names no departure, orders are promised for the end of the working day. */
const NO_VAN = { leavesAt: '17:00', closesMinutes: 120 };

/** The wall clock of a zone at an instant, as if it were UTC. */
function wallClock(at: Date, timeZone: string): number {
  const parts = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    year: 'numeric',
    month: 'numeric',
    day: 'numeric',
    hour: 'numeric',
    minute: 'numeric',
    second: 'numeric',
    hourCycle: 'h23',
  }).formatToParts(at);
  const part = (type: string) => Number(parts.find((p) => p.type === type)?.value);
  return Date.UTC(part('year'), part('month') - 1, part('day'), part('hour'), part('minute'), part('second'));
}

/** The instant at which a zone's wall clock shows `wall`; in the hour that a spring change leaves out, the one after it. */
export function instantOf(wall: number, timeZone: string): Date {
  const first = wall - (wallClock(new Date(wall), timeZone) - wall);
  return new Date(wall - (wallClock(new Date(first), timeZone) - first));
}

/** When an order that comes in now is promised to leave: the first van of a working day that it is still in time for. */
export function promisedFor(now: Date, site: SiteCalendar): Date {
  const vans = (site.departures.length > 0 ? [...site.departures] : [NO_VAN]).sort((a, b) => (a.leavesAt < b.leavesAt ? -1 : 1));
  const today = Math.floor(wallClock(now, site.timeZone) / DAY_MS) * DAY_MS;
  for (let ahead = 0; ahead <= MOST_DAYS; ahead++) {
    const day = today + ahead * DAY_MS;
    if (site.workingDays[(new Date(day).getUTCDay() + 6) % 7] !== 'Y') continue;
    for (const van of vans) {
      const [hours = 0, minutes = 0] = van.leavesAt.split(':').map(Number);
      const leaves = instantOf(day + (hours * 60 + minutes) * 60_000, site.timeZone);
      if (leaves.getTime() - van.closesMinutes * 60_000 >= now.getTime()) return leaves;
    }
  }
  throw new RangeError('A site works on at least one day of the week');
}
