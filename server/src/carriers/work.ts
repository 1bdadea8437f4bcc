/** What this module does in threads. */
export { ownLabelPdf } from './own-label.pdf.js';
