import { dayIn, daySpan, sqlInstant } from './dates.js';
import { prepared } from './database/prepared.js';
import { rows, type Tx } from './database/tx.js';

export interface SiteDay {
  /** ISO date of the day that it is at the site. */
  today: string;
  timeZone: string;
}

/** The day that it is at a site now; where none is meant, at the house's first. */
export async function siteDay(tx: Pick<Tx, 'query'>, siteId: number | null, now = new Date()): Promise<SiteDay> {
  const [site] = await prepared<{ timeZone: string }[]>(tx, 'SELECT time_zone AS timeZone FROM site ORDER BY id = ? DESC, id LIMIT 1', [
    siteId ?? 0,
  ]);
  const timeZone = site?.timeZone ?? 'UTC';
  return { today: dayIn(timeZone, now), timeZone };
}

/** Today at every site, as SQL that picks it by a column with the site's number. */
export interface SiteDays {
  /** The date that it is there. */
  today(column: string): string;
  /** The instants at which that day began and ends. */
  begins(column: string): string;
  ends(column: string): string;
}

/** Today at each site, for lists over several. The words in the SQL are dates and numbers made here, never a request's. */
export async function siteDays(tx: Pick<Tx, 'query'>, now = new Date()): Promise<SiteDays> {
  const pick = await picker(tx);
  const span = (timeZone: string) => daySpan(timeZone, dayIn(timeZone, now));
  return {
    today: (column) => pick(column, (zone) => dayIn(zone, now)),
    begins: (column) => pick(column, (zone) => sqlInstant(span(zone).from)),
    ends: (column) => pick(column, (zone) => sqlInstant(span(zone).to)),
  };
}

/**
 * The instants at which a span of whole days begins and ends at each site, as SQL like that of `siteDays`. Both days are checked
 * ISO dates; the span holds both.
 */
export async function siteSpan(tx: Pick<Tx, 'query'>, from: string, to: string): Promise<Pick<SiteDays, 'begins' | 'ends'>> {
  const pick = await picker(tx);
  return {
    begins: (column) => pick(column, (zone) => sqlInstant(daySpan(zone, from).from)),
    ends: (column) => pick(column, (zone) => sqlInstant(daySpan(zone, to).to)),
  };
}

/** The same for the house as a whole, whose days are those of its first site: SQL of two instants. */
export async function houseSpan(tx: Pick<Tx, 'query'>, from: string, to: string): Promise<{ begins: string; ends: string }> {
  const { timeZone } = await siteDay(tx, null);
  return { begins: `'${sqlInstant(daySpan(timeZone, from).from)}'`, ends: `'${sqlInstant(daySpan(timeZone, to).to)}'` };
}

/** Words that depend on a site's time zone, as SQL that picks them by a column with the site's number. */
async function picker(tx: Pick<Tx, 'query'>): Promise<(column: string, of: (timeZone: string) => string) => string> {
  const sites = await rows<{ id: number; timeZone: string }>(tx, 'SELECT id, time_zone AS timeZone FROM site ORDER BY id');
  return (column, of) =>
    `(CASE ${column} ${sites.map((s) => `WHEN ${Number(s.id)} THEN '${of(s.timeZone)}'`).join(' ')} ELSE '${of('UTC')}' END)`;
}
