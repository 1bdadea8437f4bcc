/** What this module does in threads. */
export { invoicePdf } from './invoice.pdf.js';
