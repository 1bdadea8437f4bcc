import { postcodeCut } from '@vectrum/core/cells';
import { cell, fault, type MadeLog, type RefIds, skuColumn, tableShape, textOf } from '../exchange/index.js';
import { marks, type Tx } from '../platform/index.js';

const code = (says: string) => cell.code(/^[A-Za-z0-9-]{2,20}$/, says);

/** Customers: one row a customer. */
export const customersShape = tableShape({
  kind: 'customers',
  says: 'Customers',
  right: 'order-desk',
  table: 'customer',
  key: ['code'],
  changeBy: 'code',
  versioned: true,
  order: 't.code',
  check: (_, batch) =>
    batch.flatMap((r) => {
      const cut = postcodeCut(textOf(r, 'postcode'), textOf(r, 'country'));
      return cut ? [fault(r, 'postcode', textOf(r, 'postcode'), cut)] : [];
    }),
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
    {
      key: 'terms',
      label: 'Pays within days',
      also: ['payment terms', 'terms', 'terms days'],
      read: cell.whole(0, 365),
      column: 'terms_days',
      empty: 30,
    },
    { key: 'taxNumber', label: 'Tax number', also: ['vat number', 'vat id'], read: cell.text(30), column: 'tax_number', empty: '' },
    {
      key: 'currency',
      label: 'Currency',
      also: ['invoice currency'],
      read: cell.code(/^[A-Za-z]{3}$/, 'A currency is three letters, such as EUR'),
      column: 'currency',
      empty: null,
    },
    { key: 'whole', label: 'Whole orders only', also: ['ship complete'], read: cell.yesNo, column: 'whole_only', empty: 0, as: 'yes-no' },
  ],
});

const accountColumn = {
  key: 'customer',
  label: 'Customer',
  also: ['customer code', 'account'],
  required: true,
  read: code('A customer code is 2 to 20 letters, digits and hyphens'),
  column: 'customer_id',
  empty: null,
  ref: { table: 'customer', by: 'code', says: (c: string) => `There is no customer ${c}. Take customers in first` },
  select: 'c.code',
};

/** Whoever has a customer's form open is told that it changed; a file that changes nothing tells nobody. */
async function touch(tx: Tx, ids: RefIds, log: MadeLog): Promise<void> {
  if (log.made + log.changed === 0) return;
  const customers = [...(ids.get('customer')?.values() ?? [])];
  if (customers.length > 0) await tx.query(`UPDATE customer SET version = version + 1 WHERE id IN (${marks(customers)})`, customers);
}

/** Where else customers have goods sent: one row a place. */
export const addressesShape = tableShape({
  kind: 'addresses',
  says: 'Customers’ other addresses',
  right: 'order-desk',
  table: 'customer_address',
  key: ['customer', 'name'],
  changeBy: 'name',
  joins: 'JOIN customer c ON c.id = t.customer_id',
  order: 'c.code, t.name',
  columns: [
    accountColumn,
    { key: 'name', label: 'Called', also: ['address name', 'place name'], required: true, read: cell.text(80), column: 'name', empty: '' },
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
  ],
  after: (tx, _act, _batch, ids, log) => touch(tx, ids, log),
});

/** What customers pay: one row a pack. */
export const customerPricesShape = tableShape({
  kind: 'customer-prices',
  says: 'Customers’ own prices',
  right: 'order-desk',
  table: 'customer_price',
  key: ['customer', 'sku', 'factor'],
  changeBy: 'item_id',
  joins: 'JOIN customer c ON c.id = t.customer_id JOIN item i ON i.id = t.item_id',
  order: 'c.code, i.sku, t.factor',
  columns: [
    accountColumn,
    {
      ...skuColumn(),
      column: 'item_id',
      empty: null,
      ref: { table: 'item', by: 'sku', says: (c) => `There is no item ${c}. Take items in first` },
      select: 'i.sku',
    },
    {
      key: 'factor',
      label: 'Units in one',
      also: ['factor', 'units'],
      required: true,
      read: cell.whole(1, 1_000_000),
      column: 'factor',
      empty: 1,
    },
    {
      key: 'price',
      label: 'Customer pays',
      also: ['customer price', 'price'],
      required: true,
      read: cell.decimal,
      column: 'price',
      empty: '0',
      as: 'decimal',
    },
  ],
  after: (tx, _act, _batch, ids, log) => touch(tx, ids, log),
});
