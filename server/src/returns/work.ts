/** What this module does in threads. */
export { returnNotePdf } from './return-note.pdf.js';
