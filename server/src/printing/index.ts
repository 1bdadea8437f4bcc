/** Labels and printers. */
export { Papers } from './papers.js';
export { PrintingModule } from './printing.module.js';
