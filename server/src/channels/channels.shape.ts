import { cell, type RefIds, skuColumn, tableShape } from '../exchange/index.js';
import { type Tx, update } from '../platform/index.js';

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

const channel = {
  key: 'channel',
  label: 'Channel',
  required: true,
  read: code('A channel code is 2 to 20 letters, digits and hyphens'),
  column: 'channel_id',
  empty: null,
  ref: { table: 'channel', by: 'code', says: (c: string) => `There is no channel ${c}. Take channels in first` },
  select: 'c.code',
};
/** What may be sold at the channels of a file may have changed. */
async function tellAnew(tx: Tx, ids: RefIds): Promise<void> {
  const channels = [...(ids.get('channel')?.values() ?? [])];
  if (channels.length > 0) await update(tx, 'listing', { channel_id: channels }, { due: 1 });
}

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
    { key: 'share', label: 'Share of what is scarce, %', also: ['share'], read: cell.whole(0, 100), column: 'share_percent', empty: 100 },
    {
      key: 'holdTax',
      label: 'Prices hold tax',
      also: ['prices with tax', 'tax included'],
      read: cell.yesNo,
      column: 'prices_hold_tax',
      empty: 0,
      as: 'yes-no',
    },
    { key: 'scarce', label: 'Scarce under', also: ['scarce'], read: cell.whole(0, 1_000_000), column: 'scarce_under', empty: 0 },
    {
      key: 'check',
      label: 'Check first orders over',
      also: ['check over'],
      read: cell.decimal,
      column: 'check_over',
      empty: null,
      as: 'decimal',
    },
  ],
  // One that is new sells from its own site, until others are chosen.
  after: async (tx) => {
    await tx.query(
      'INSERT INTO channel_site (channel_id, site_id) SELECT c.id, c.site_id FROM channel c WHERE NOT EXISTS (SELECT 1 FROM channel_site x WHERE x.channel_id = c.id)',
    );
  },
});

/** The sites that channels sell from, beyond their own. */
export const channelSitesShape = tableShape({
  kind: 'channel-sites',
  says: 'Sites that channels sell from',
  right: 'set-up',
  table: 'channel_site',
  key: ['channel', 'site'],
  changeBy: 'channel_id',
  rowKey: ['channel_id', 'site_id'],
  joins: 'JOIN channel c ON c.id = t.channel_id JOIN site s ON s.id = t.site_id',
  order: 'c.code, s.code',
  columns: [channel, site],
  after: (tx, _act, _batch, ids) => tellAnew(tx, ids),
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
    channel,
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
  // What is changed of it is told to its channel.
  after: (tx, _act, _batch, ids) => tellAnew(tx, ids),
});
