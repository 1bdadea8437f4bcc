/** What this module does in threads. */
export { transferNotePdf } from './transfer-note.pdf.js';
