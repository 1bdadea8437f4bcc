/** What this module does in threads. */
export { packingListPdf, packingListsPdf } from './packing-list.pdf.js';
export { pricedPaperPdf } from './priced-paper.pdf.js';
