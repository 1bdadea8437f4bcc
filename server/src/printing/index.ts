/** Labels and printers. */
export { PrintingModule } from './printing.module.js';
