/** What this module does in threads. */
export { returnSlipPdf } from './return-slip.pdf.js';
