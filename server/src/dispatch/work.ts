/** What this module does in threads. */
export { consignmentNotePdf } from './consignment-note.pdf.js';
export { handOverListPdf } from './hand-over-list.pdf.js';
