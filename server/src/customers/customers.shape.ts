import { postcodeCut } from '@vectrum/core/cells';
import { cell, fault, tableShape, textOf } from '../exchange/index.js';

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
  ],
});
