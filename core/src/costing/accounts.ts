import type { OutsideKind } from '../places/index.js';

/** The accounts of the journal: what stock is worth, what is owed to suppliers, what customers owe and pay, and what is set aside for goods that nobody buys. */
export const ACCOUNTS = [
  'stock',
  'not billed yet',
  'bills to pay',
  'cost of goods',
  'count difference',
  'scrap',
  'own use',
  'assembly',
  'in transit',
  'opening',
  'trade debtors',
  'sales',
  'freight charged',
  'sales tax',
  'bank',
  'slow goods',
  'slow goods reserve',
  'exchange difference',
] as const;
export type Account = (typeof ACCOUNTS)[number];

/** The account on the other side of stock, by where goods come from or go to; goods that come from nowhere open the books. */
export function accountFor(outside: OutsideKind | 'nowhere'): Account {
  switch (outside) {
    case 'supplier':
      return 'not billed yet';
    case 'customer':
      return 'cost of goods';
    case 'count-difference':
      return 'count difference';
    case 'scrap':
      return 'scrap';
    case 'own-use':
      return 'own use';
    case 'assembly':
      return 'assembly';
    case 'in-transit':
      return 'in transit';
    case 'nowhere':
      return 'opening';
  }
}
