/** Labels, printers and the paper that documents are drawn on. */
export { barcodePng, drawBarcode, drawCells, drawLetterhead, finish, fonts, type Letterhead, newPaper, type Paper } from './paper.js';
export { PrintingModule } from './printing.module.js';
