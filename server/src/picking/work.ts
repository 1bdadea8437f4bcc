/** What picking does in threads. */
export { roundListsPdf } from './round-list.pdf.js';
