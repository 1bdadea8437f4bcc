/** Labels, printers and the paper that documents are drawn on. */
export { drawBarcode, drawCells, drawLetterhead, finish, type Letterhead, newPaper, type Paper } from './paper.js';
export { PrintingModule } from './printing.module.js';
