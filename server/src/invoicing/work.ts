/** What this module does in threads. */
export { statementPdf } from './statement.pdf.js';
export { invoicePdf } from './invoice.pdf.js';
