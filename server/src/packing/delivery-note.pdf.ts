import { type DeliveryNote, drawDeliveryNote, finish, type Letterhead, newPaper } from '../paper/index.js';

/** What left for an order, on A4 and without prices. */
export async function deliveryNotePdf(note: DeliveryNote, from: Letterhead): Promise<Buffer> {
  const paper = newPaper(`Delivery note ${note.parcels[0]?.order ?? ''}`);
  await drawDeliveryNote(paper, note, from);
  return finish(paper);
}
