import { drawPackingList, finish, type Letterhead, newPaper } from '../paper/index.js';
import type { OrderDto } from './orders.dto.js';

/** A packing list on A4, without prices; its barcode opens the order wherever it is scanned. */
export function packingListPdf(order: OrderDto, from: Letterhead = { name: '', address: '' }): Promise<Buffer> {
  return packingListsPdf([order], from);
}

/** The packing lists of several orders, each on pages of its own. */
export async function packingListsPdf(orders: readonly OrderDto[], from: Letterhead = { name: '', address: '' }): Promise<Buffer> {
  const paper = newPaper(orders.length === 1 ? `Packing list ${orders[0]?.code ?? ''}` : `${orders.length} packing lists`);
  for (const [i, order] of orders.entries()) {
    if (i > 0) paper.addPage();
    await drawPackingList(paper, order, from);
  }
  return finish(paper);
}
