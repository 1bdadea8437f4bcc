import { ProblemError, type Dto } from '../../api/client';

export interface PriceLine {
  sku: string;
  factor: number;
  supplierSku: string;
  price: string;
  breaks: { from: number; price: string }[];
}

const PRICE = /^\d+(\.\d{1,6})?$/;
const BREAK = /^(\d{1,7})\s*=\s*(\d+(?:\.\d{1,6})?)$/;

/** "SKU, pack of, their code, price, 10=lower price …", one a line. Throws with the line at fault. */
export function readPriceList(text: string): PriceLine[] {
  return text
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean)
    .map((line, i) => {
      const [sku = '', factor = '', supplierSku = '', price = '', ...lower] = line.split(',').map((p) => p.trim());
      if (!sku || !/^\d+$/.test(factor) || !PRICE.test(price))
        throw new ProblemError(400, 'form', `Line ${i + 1} of the price list: write SKU, pack of, their code, price`);
      const breaks = lower.filter(Boolean).map((part) => {
        const [, from, lowerPrice] = BREAK.exec(part) ?? [];
        if (!from || !lowerPrice || Number(from) < 2)
          throw new ProblemError(400, 'form', `Line ${i + 1} of the price list: a lower price is written like 10=19.20, from 2 packs on`);
        return { from: Number(from), price: lowerPrice };
      });
      return { sku, factor: Number(factor), supplierSku, price, breaks };
    });
}

const bare = (price: string) => price.replace(/\.?0+$/, '');

/** A supplier's prices in the form in which they are typed. */
export const listText = (s: Dto['SupplierSheetDto']): string =>
  s.items
    .map((i) =>
      [
        i.sku,
        i.packs.find((p) => p.id === i.packId)?.factor ?? 1,
        i.supplierSku,
        bare(i.price ?? '0.0'),
        ...(i.breaks ?? []).map((b) => `${b.from}=${bare(b.price)}`),
      ].join(', '),
    )
    .join('\n');
