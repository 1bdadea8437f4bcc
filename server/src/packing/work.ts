/** What this module does in threads. */
export { deliveryNotePdf } from './delivery-note.pdf.js';
export { parcelListPdf } from './parcel-list.pdf.js';
