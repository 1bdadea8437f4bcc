/** What this module does in threads. */
export { handOverListPdf } from './hand-over-list.pdf.js';
