import type { Person } from '../platform/index.js';

/**
 * Tables whose rows belong to a site, with the column that says to which. What a file names in one of them is found, changed and
 * given out only for those who work at that site. A shape over one of these tables is bounded without saying so.
 */
const SITE_OF: Readonly<Record<string, string>> = {
  site: 'id',
  place: 'site_id',
  plan_shape: 'site_id',
  item_site: 'site_id',
  demand_week: 'site_id',
  carrier_lane: 'site_id',
  channel: 'site_id',
  channel_site: 'site_id',
};

/** The column of a table that says at which site a row is; undefined where rows belong to the whole house. */
export const siteColumn = (table: string): string | undefined => SITE_OF[table];

/** A condition by which only rows at the person's sites are found, with its values; none for a table of the whole house. */
export function atSitesOf(person: Person, table: string, alias = ''): { sql: string; params: unknown[] } | undefined {
  const column = siteColumn(table);
  return column === undefined ? undefined : { sql: `${alias}\`${column}\` IN (?)`, params: [[0, ...person.siteIds]] };
}
