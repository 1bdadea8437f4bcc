import { ProblemError } from '../../api/client';

/** "SKU, pack of, their code, price", one a line. Throws with the line at fault. */
export function readPriceList(text: string): { sku: string; factor: number; supplierSku: string; price: string }[] {
  return text
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean)
    .map((line, i) => {
      const [sku = '', factor = '', supplierSku = '', price = ''] = line.split(',').map((p) => p.trim());
      if (!sku || !/^\d+$/.test(factor) || !/^\d+(\.\d{1,6})?$/.test(price))
        throw new ProblemError(400, 'form', `Line ${i + 1} of the price list: write SKU, pack of, their code, price`);
      return { sku, factor: Number(factor), supplierSku, price };
    });
}
