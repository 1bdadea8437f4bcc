/** What picking does in threads. */
export { roundPapersPdf } from './round-list.pdf.js';
export { planRoundsOf } from './rounds-plan.js';
