/** What this module does in threads. */
export { packingListPdf } from './packing-list.pdf.js';
