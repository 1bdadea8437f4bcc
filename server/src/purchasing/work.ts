/** What this module does in threads. */
export { purchaseOrderPdf } from './purchase-order.pdf.js';
