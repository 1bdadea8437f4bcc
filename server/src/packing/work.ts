/** What this module does in threads. */
export { parcelListPdf } from './parcel-list.pdf.js';
