import { type Dto, ProblemError } from '../../api/client';

/** "their code, our SKU, holds, keep back, price", one a line. Throws with the line at fault. */
export function readListings(text: string): Dto['EditListingDto'][] {
  return text
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean)
    .map((line, i) => {
      const [channelSku = '', sku = '', factor = '1', keepBack = '0', price = '0'] = line.split(',').map((p) => p.trim());
      if (!channelSku || !sku || !/^\d+$/.test(factor) || !/^\d+$/.test(keepBack))
        throw new ProblemError(400, 'form', `Listing ${i + 1}: write their code, our SKU, holds, keep back, price`);
      return { channelSku, sku, factor: Number(factor), keepBack: Number(keepBack), price };
    });
}
