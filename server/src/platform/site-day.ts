import { dayIn, daySpan, sqlInstant } from './dates.js';
import { one, rows, type Tx } from './database/tx.js';

export interface SiteDay {
  /** ISO date of the day that it is at the site. */
  today: string;
  timeZone: string;
}

/** The day that it is at a site now; where none is meant, at the house's first. */
export async function siteDay(tx: Pick<Tx, 'query'>, siteId: number | null, now = new Date()): Promise<SiteDay> {
  const site = await one<{ timeZone: string }>(tx, 'SELECT time_zone AS timeZone FROM site ORDER BY id = ? DESC, id LIMIT 1', [
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
  const sites = await rows<{ id: number; timeZone: string }>(tx, 'SELECT id, time_zone AS timeZone FROM site ORDER BY id');
  const pick = (column: string, of: (timeZone: string) => string) =>
    `(CASE ${column} ${sites.map((s) => `WHEN ${Number(s.id)} THEN '${of(s.timeZone)}'`).join(' ')} ELSE '${of('UTC')}' END)`;
  const span = (timeZone: string) => daySpan(timeZone, dayIn(timeZone, now));
  return {
    today: (column) => pick(column, (zone) => dayIn(zone, now)),
    begins: (column) => pick(column, (zone) => sqlInstant(span(zone).from)),
    ends: (column) => pick(column, (zone) => sqlInstant(span(zone).to)),
  };
}
