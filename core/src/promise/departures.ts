import { instantOf, wallClock } from './site-clock.js';

/** A van that leaves on every working day. */
export interface DepartureRule {
  /** Site time, "HH:MM". */
  leavesAt: string;
  /** How many minutes before it an order must be in, to be promised for it. */
  closesMinutes: number;
}

/** On which days a site works, and when its vans leave. */
export interface SiteCalendar<R extends DepartureRule = DepartureRule> {
  timeZone: string;
  /** Monday to Sunday: Y for a working day. */
  workingDays: string;
  departures: readonly R[];
}

/** One van on one day; `rule` is null where the site names no departure and goods are due at the end of the working day. */
export interface Departure<R extends DepartureRule = DepartureRule> {
  at: Date;
  rule: R | null;
}

/** A day of a site's calendar with what still leaves on it, soonest first. */
export interface OpenDay<R extends DepartureRule = DepartureRule> {
  /** ISO date, as the site's wall has it. */
  day: string;
  ends: Date;
  departures: Departure<R>[];
}

const DAY_MS = 86_400_000;
const MINUTE_MS = 60_000;
/** How far ahead departures are looked for. */
const MOST_DAYS = 60;
const NO_VAN: DepartureRule = { leavesAt: '17:00', closesMinutes: 120 };

/**
 * The departures of a site from an instant on, soonest first, for sixty days. RangeError for a site that works on no day of the week.
 * O(1) each, and O(vans) at the start.
 */
export function* departuresFrom<R extends DepartureRule>(from: Date, site: SiteCalendar<R>): Generator<Departure<R>, void> {
  if (!site.workingDays.includes('Y')) throw new RangeError('A site works on at least one day of the week');
  const vans = [...site.departures].sort((a, b) => (a.leavesAt < b.leavesAt ? -1 : 1));
  const today = Math.floor(wallClock(from, site.timeZone) / DAY_MS) * DAY_MS;
  for (let ahead = 0; ahead <= MOST_DAYS; ahead++) {
    const day = today + ahead * DAY_MS;
    if (!worksOn(site.workingDays, day)) continue;
    for (const rule of vans.length > 0 ? vans : [null]) {
      const [hours = 0, minutes = 0] = (rule ?? NO_VAN).leavesAt.split(':').map(Number);
      const at = instantOf(day + (hours * 60 + minutes) * MINUTE_MS, site.timeZone);
      if (at >= from) yield { at, rule };
    }
  }
}

/** When an order that comes in now is promised to leave: the first van of a working day that it is still in time for. */
export function promisedFor(now: Date, site: SiteCalendar): Date {
  for (const { at, rule } of departuresFrom(now, site))
    if (at.getTime() - (rule ?? NO_VAN).closesMinutes * MINUTE_MS >= now.getTime()) return at;
  throw new RangeError('No van leaves within sixty days');
}

/** The departures of one site as they look now. Those that were asked for are kept, so that a long list costs little. */
export class DepartureBoard<R extends DepartureRule = DepartureRule> {
  private readonly coming: Generator<Departure<R>, void>;
  private readonly known: Departure<R>[] = [];
  private atEnd = false;

  constructor(
    now: Date,
    private readonly site: SiteCalendar<R>,
  ) {
    this.coming = departuresFrom(now, site);
  }

  /**
   * The departure that goods promised for an instant must catch: the last one up to then or, where none is left, the next one at all.
   * O(log departures), and O(1) for each departure that is seen for the first time.
   */
  toCatch(promised: Date): Date {
    this.lookTo((last) => last.at > promised);
    const after = firstAfter(this.known, promised);
    return (this.known[Math.max(0, after - 1)] ?? { at: promised }).at;
  }

  /** The first day on which anything still leaves: today, or the next working day once the last van has gone. */
  openDay(): OpenDay<R> | null {
    const first = this.next();
    if (!first) return null;
    const dayOf = (d: Departure) => Math.floor(wallClock(d.at, this.site.timeZone) / DAY_MS) * DAY_MS;
    const day = dayOf(first);
    this.lookTo((last) => dayOf(last) > day);
    return {
      day: new Date(day).toISOString().slice(0, 10),
      ends: instantOf(day + DAY_MS, this.site.timeZone),
      departures: this.known.filter((d) => dayOf(d) === day),
    };
  }

  /** The next departure of those that fit; undefined where none does. */
  next(fits: (rule: R | null) => boolean = () => true): Departure<R> | undefined {
    this.lookTo((last) => fits(last.rule));
    return this.known.find((d) => fits(d.rule));
  }

  private lookTo(isEnough: (last: Departure<R>) => boolean): void {
    let last = this.known.at(-1);
    while (!this.atEnd && !(last && isEnough(last))) {
      const next = this.coming.next();
      if (next.done) this.atEnd = true;
      else this.known.push((last = next.value));
    }
  }
}

/** The index of the first departure after an instant; the length where there is none. */
function firstAfter(departures: readonly Departure[], at: Date): number {
  let low = 0;
  let high = departures.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    const found = departures[middle];
    if (found && found.at > at) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Whether a day is one on which a site works: `workingDays` has a letter for each day from Monday on, Y for those. `day` is an ISO date, or its midnight in UTC, in ms. */
export const worksOn = (workingDays: string, day: string | number): boolean => workingDays[(new Date(day).getUTCDay() + 6) % 7] === 'Y';
