import { insert, insertMany, type NewRow, type Tx, update } from '../platform/index.js';

/** Makes a place for another module: a parcel's, or one outside the house. Returns its number. */
export const addPlace = (tx: Pick<Tx, 'query'>, place: NewRow<'place'>): Promise<number> => insert(tx, 'place', place);

/** A place now stands in another, or, with null, in none. */
export const putInto = (tx: Tx, placeId: number, parentId: number | null): Promise<number> =>
  update(tx, 'place', { id: placeId }, { parent_id: parentId });

/** Places that have come to another site, with what they stood in. */
export const toSite = (tx: Tx, placeIds: readonly number[], siteId: number): Promise<number> =>
  update(tx, 'place', { id: [0, ...placeIds] }, { site_id: siteId });

/** Makes a site with a dock and a packing table, so that goods can come and go. Returns its number. */
export async function addSite(tx: Pick<Tx, 'query'>, site: { code: string; name: string; dock: string; table: string }): Promise<number> {
  const id = await insert(tx, 'site', { code: site.code, name: site.name });
  await insertMany(
    tx,
    'place',
    ['site_id', 'code', 'kind', 'walk_order', 'x_m', 'y_m'],
    [
      [id, site.dock, 'dock', 0, 1, 1],
      [id, site.table, 'packing-table', 9000, 1, 6],
    ],
  );
  return id;
}

/** On which days a site works, by which clock, whether anybody walks rounds there, and where it is; what is not said stays. */
export async function keepSite(
  tx: Tx,
  siteId: number,
  site: {
    workingDays: string;
    timeZone: string;
    picks?: boolean;
    addressLine?: string;
    city?: string;
    postcode?: string;
    country?: string;
    version: number;
  },
): Promise<void> {
  await update(
    tx,
    'site',
    { id: siteId },
    {
      working_days: site.workingDays,
      time_zone: site.timeZone,
      version: site.version,
      address_line: site.addressLine?.trim(),
      city: site.city?.trim(),
      postcode: site.postcode?.trim().toUpperCase(),
      country: site.country?.toUpperCase(),
      ...(site.picks === undefined ? {} : { picks: site.picks ? 1 : 0 }),
    },
  );
}

export interface StandingPlace {
  id: number;
  /** Null outside the house. */
  siteId: number | null;
  code: string;
}

/** Keeps places where they stand until the transaction ends, and returns them: those that a query names, or those with these numbers. */
export async function keepStanding(tx: Pick<Tx, 'query'>, which: string, params: readonly unknown[]): Promise<StandingPlace[]> {
  return tx.query(`SELECT id, site_id AS siteId, code FROM place WHERE id IN (${which}) ORDER BY id LOCK IN SHARE MODE`, [...params]);
}
