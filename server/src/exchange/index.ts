/** Files in and out. */
export { ExchangeModule } from './exchange.module.js';
export type { OutCell } from './files/write.js';
export { Folders } from './folders.js';
export { ImportJobs } from './import-jobs.js';
export { listTable, Lists, windows } from './lists.js';
export { idsBy, pages, repeated, unknown } from './lookup.js';
export type { MadeLog } from './made-log.js';
export { Shapes } from './registry.js';
export {
  cell,
  type Cells,
  type Column,
  fault,
  has,
  type ImportRow,
  type Memory,
  numberOf,
  type RowFault,
  type Shape,
  skuColumn,
  text,
  textOf,
  trimmed,
  Wrong,
  yes,
} from './shape.js';
export { type RefIds, type TableColumn, tableShape } from './table-shape.js';
export { delimiterOf } from './files/read-csv.js';
