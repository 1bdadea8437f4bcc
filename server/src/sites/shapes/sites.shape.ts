import { cell, tableShape, textOf } from '../../exchange/index.js';
import { joinSites } from '../../identity/index.js';
import { rows } from '../../platform/index.js';

/** Sites: one row a site. */
export const sitesShape = tableShape({
  kind: 'sites',
  says: 'Sites',
  right: 'set-up',
  table: 'site',
  alsoWrites: { person_site: ['person_id', 'site_id'] },
  key: ['code'],
  changeBy: 'code',
  versioned: true,
  order: 't.code',
  columns: [
    {
      key: 'code',
      label: 'Site',
      also: ['site code', 'code'],
      required: true,
      read: cell.code(/^[A-Za-z0-9]{2,12}$/, 'A site code is 2 to 12 letters and digits'),
      column: 'code',
      empty: '',
    },
    { key: 'name', label: 'Site name', also: ['name'], required: true, read: cell.text(80), column: 'name', empty: '' },
    { key: 'timeZone', label: 'Time zone', read: cell.text(40), column: 'time_zone', empty: 'Europe/London' },
    {
      key: 'workingDays',
      label: 'Working days',
      read: cell.code(/^(?=.*[Yy])[YNyn]{7}$/, 'Seven letters from Monday on, Y for a working day'),
      column: 'working_days',
      empty: 'YYYYYNN',
    },
    { key: 'picks', label: 'Rounds are walked', read: cell.yesNo, column: 'picks', empty: 1, as: 'yes-no' },
    { key: 'addressLine', label: 'Address', also: ['street'], read: cell.text(190), column: 'address_line', empty: '' },
    { key: 'city', label: 'City', also: ['town'], read: cell.text(80), column: 'city', empty: '' },
    { key: 'postcode', label: 'Postcode', also: ['zip'], read: cell.text(20), column: 'postcode', empty: '' },
    {
      key: 'country',
      label: 'Country',
      read: cell.code(/^[A-Za-z]{2}$/, 'A country is two letters, such as GB'),
      column: 'country',
      empty: '',
    },
    { key: 'width', label: 'Width of the plan, m', read: cell.metres, column: 'width_m', empty: 40, as: 'decimal' },
    { key: 'depth', label: 'Depth of the plan, m', read: cell.metres, column: 'depth_m', empty: 30, as: 'decimal' },
  ],
  after: async (tx, act, batch, _ids, log) => {
    // Whoever makes a site works there too; otherwise nobody could see it. Those that were there before are theirs already.
    const apart = await rows<{ site_id: number }>(
      tx,
      'SELECT id AS site_id FROM site WHERE code IN (?) AND id NOT IN (SELECT site_id FROM person_site WHERE person_id = ?)',
      [batch.map((r) => textOf(r, 'code')), act.person.id],
    );
    const joined = apart.map(({ site_id }) => ({ person_id: act.person.id, site_id }));
    await joinSites(
      tx,
      act.person.id,
      apart.map((a) => a.site_id),
    );
    await log.createdKeys('person_site', joined);
  },
});
