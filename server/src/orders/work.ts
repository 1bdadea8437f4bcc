/** What this module does in threads. */
export { packingListPdf } from './packing-list.pdf.js';
export { pricedPaperPdf } from './priced-paper.pdf.js';
