import { dividedBy, micro, priceText, times } from '@vectrum/core/money';

export interface FormLine {
  sku: string;
  factor: number;
  packs: string;
  price: string;
  /** ISO date of its own; empty where the order's day holds. */
  expectedOn: string;
}
export interface FormCharge {
  says: string;
  amount: string;
  by: 'value' | 'units' | 'weight' | 'volume';
}
export interface OrderValues {
  supplier: string;
  siteId: number;
  expectedOn: string;
  door: string;
  note: string;
  lines: FormLine[];
  charges: FormCharge[];
}

export const emptyLine: FormLine = { sku: '', factor: 1, packs: '', price: '', expectedOn: '' };

/** What a line comes to, both ways; null while it is not complete. */
export function lineSum(line: Pick<FormLine, 'factor' | 'packs' | 'price'>): { units: number; each: string; goods: bigint } | null {
  const packs = Number(line.packs);
  if (!Number.isInteger(packs) || packs < 1 || !/^\d{1,10}(\.\d{1,6})?$/.test(line.price)) return null;
  return {
    units: packs * line.factor,
    each: priceText(dividedBy(micro(line.price), line.factor)),
    goods: times(micro(line.price), packs),
  };
}
