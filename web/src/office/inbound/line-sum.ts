import { dividedBy, micro, priceText, times } from '@vectrum/core/money';

export interface FormLine {
  sku: string;
  factor: number;
  packs: string;
  price: string;
}

/** What a line comes to, both ways; null while it is not complete. */
export function lineSum(line: FormLine): { units: number; each: string; goods: bigint } | null {
  const packs = Number(line.packs);
  if (!Number.isInteger(packs) || packs < 1 || !/^\d{1,10}(\.\d{1,6})?$/.test(line.price)) return null;
  return {
    units: packs * line.factor,
    each: priceText(dividedBy(micro(line.price), line.factor)),
    goods: times(micro(line.price), packs),
  };
}
