import { insertMany, rows } from '../../platform/database/tx.js';
import { cell, skuColumn } from '../shape.js';
import { tableShape } from './table.js';

const code = (says: string) => cell.code(/^[A-Za-z0-9-]{2,20}$/, says);
const site = {
  key: 'site',
  label: 'Site',
  required: true,
  read: cell.text(12),
  column: 'site_id',
  empty: null,
  ref: { table: 'site', by: 'code', says: (c: string) => `There is no site ${c}` },
  select: 's.code',
};

export const sitesShape = tableShape({
  kind: 'sites',
  says: 'Sites',
  right: 'set-up',
  table: 'site',
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
    { key: 'width', label: 'Width of the plan, m', read: cell.metres, column: 'width_m', empty: 40, as: 'decimal' },
    { key: 'depth', label: 'Depth of the plan, m', read: cell.metres, column: 'depth_m', empty: 30, as: 'decimal' },
  ],
  after: async (tx, act, _batch, _ids, log) => {
    // Whoever takes a site in works there too; otherwise nobody could see it.
    const apart = await rows<{ site_id: number }>(
      tx,
      'SELECT id AS site_id FROM site WHERE id NOT IN (SELECT site_id FROM person_site WHERE person_id = ?)',
      [act.person.id],
    );
    const joined = apart.map(({ site_id }) => ({ person_id: act.person.id, site_id }));
    await insertMany(
      tx,
      'person_site',
      ['person_id', 'site_id'],
      joined.map((j) => [j.person_id, j.site_id]),
    );
    await log.createdKeys('person_site', joined);
  },
});

export const customersShape = tableShape({
  kind: 'customers',
  says: 'Customers',
  right: 'order-desk',
  table: 'customer',
  key: ['code'],
  changeBy: 'code',
  versioned: true,
  order: 't.code',
  columns: [
    {
      key: 'code',
      label: 'Customer',
      also: ['customer code', 'account', 'code'],
      required: true,
      read: code('A customer code is 2 to 20 letters, digits and hyphens'),
      column: 'code',
      empty: '',
    },
    { key: 'name', label: 'Name', also: ['customer name', 'company'], required: true, read: cell.text(120), column: 'name', empty: '' },
    { key: 'email', label: 'E-mail', also: ['email', 'mail'], read: cell.mail, column: 'email', empty: '' },
    { key: 'phone', label: 'Telephone', also: ['phone', 'tel'], read: cell.text(40), column: 'phone', empty: '' },
    { key: 'line', label: 'Address', also: ['street', 'address line'], read: cell.text(190), column: 'address_line', empty: '' },
    { key: 'city', label: 'City', also: ['town'], read: cell.text(80), column: 'city', empty: '' },
    { key: 'postcode', label: 'Postcode', also: ['zip', 'postal code'], read: cell.text(20), column: 'postcode', empty: '' },
    {
      key: 'country',
      label: 'Country',
      read: cell.code(/^[A-Za-z]{2}$/, 'A country is two letters, such as GB'),
      column: 'country',
      empty: 'GB',
    },
    { key: 'note', label: 'Note', also: ['notes'], read: cell.text(300), column: 'note', empty: '' },
  ],
});

export const channelsShape = tableShape({
  kind: 'channels',
  says: 'Sales channels',
  right: 'set-up',
  table: 'channel',
  key: ['code'],
  changeBy: 'code',
  versioned: true,
  joins: 'JOIN site s ON s.id = t.site_id',
  order: 't.code',
  columns: [
    {
      key: 'code',
      label: 'Channel',
      also: ['channel code', 'code'],
      required: true,
      read: code('A channel code is 2 to 20 letters, digits and hyphens'),
      column: 'code',
      empty: '',
    },
    { key: 'name', label: 'Name', required: true, read: cell.text(80), column: 'name', empty: '' },
    {
      key: 'kind',
      label: 'Kind of channel',
      also: ['kind'],
      required: true,
      read: cell.oneOf(['web-shop', 'marketplace', 'trade', 'phone']),
      column: 'kind',
      empty: 'phone',
    },
    site,
  ],
});

export const listingsShape = tableShape({
  kind: 'listings',
  says: 'Listings of channels',
  right: 'set-up',
  table: 'listing',
  key: ['channel', 'channelSku'],
  changeBy: 'channel_id',
  joins: 'JOIN channel c ON c.id = t.channel_id JOIN item i ON i.id = t.item_id',
  order: 'c.code, t.channel_sku',
  columns: [
    {
      key: 'channel',
      label: 'Channel',
      required: true,
      read: code('A channel code is 2 to 20 letters, digits and hyphens'),
      column: 'channel_id',
      empty: null,
      ref: { table: 'channel', by: 'code', says: (c: string) => `There is no channel ${c}. Take channels in first` },
      select: 'c.code',
    },
    {
      key: 'channelSku',
      label: 'Channel’s code',
      also: ['channel sku', 'listing', 'listing code'],
      required: true,
      read: cell.text(60),
      column: 'channel_sku',
      empty: '',
    },
    {
      ...skuColumn(),
      column: 'item_id',
      empty: null,
      ref: { table: 'item', by: 'sku', says: (c) => `There is no item ${c}. Take items in first` },
      select: 'i.sku',
    },
    { key: 'factor', label: 'Units in one', also: ['factor', 'units'], read: cell.whole(1, 1_000_000), column: 'factor', empty: 1 },
    { key: 'keepBack', label: 'Keep back', also: ['reserve'], read: cell.whole(0, 1_000_000), column: 'keep_back', empty: 0 },
    { key: 'price', label: 'Price', required: true, read: cell.decimal, column: 'price', empty: '0', as: 'decimal' },
  ],
});
