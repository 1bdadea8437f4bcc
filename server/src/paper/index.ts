/** The paper that documents are drawn on: pages, the house's fonts, its letterhead, barcodes. Pure, so that threads draw too. */
export {
  type DeliveryNote,
  drawDeliveryNote,
  drawPackingList,
  drawParcelList,
  type GoodsLine,
  type PackedOrder,
  type PackedParcel,
} from './packing-list.js';
export { barcodePng, drawBarcode, drawCells, drawLetterhead, finish, fonts, type Letterhead, newPaper, type Paper } from './paper.js';
