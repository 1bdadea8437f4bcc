/** What this module does in threads. */
export { labelsPdf } from './label.pdf.js';
