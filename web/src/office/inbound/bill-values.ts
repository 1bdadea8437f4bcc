import { micro } from '@vectrum/core/money';
import type { Dto } from '../../api/client';

export interface BilledGoods {
  order: string;
  line: number;
  units: string;
  amount: string;
}
export interface BilledCharge {
  order: string;
  says: string;
  amount: string;
  by: 'value' | 'units' | 'weight' | 'volume';
}

/** Decimal text to the penny, half away from nought. */
export function pennies(amount: string): string {
  const size = (micro(amount.replace('-', '')) + 5_000n) / 10_000n;
  return `${amount.startsWith('-') ? '-' : ''}${size / 100n}.${String(size % 100n).padStart(2, '0')}`;
}

export const fromGoods = (g: Dto['OpenGoodsDto']): BilledGoods => ({
  order: g.order,
  line: g.line,
  units: String(g.units),
  amount: pennies(g.amount),
});
export const fromCharge = (c: Dto['OpenChargeDto']): BilledCharge => ({
  order: c.order,
  says: c.says,
  amount: pennies(c.amount),
  by: c.by as BilledCharge['by'],
});
export const emptyCharge = (order: string): BilledCharge => ({ order, says: 'Freight', amount: '', by: 'value' });

const AMOUNT = /^-?\d{1,12}(\.\d{1,2})?$/;

/** What is typed so far, as an amount; lines that are not amounts yet count for nothing. */
export function billTotal(goods: readonly BilledGoods[], charges: readonly BilledCharge[]): bigint {
  return [...goods, ...charges].reduce((sum, l) => sum + (AMOUNT.test(l.amount) ? micro(l.amount) : 0n), 0n);
}
