import { Problem } from '../../platform/index.js';

export const MOST_FILE_BYTES = 64 * 1024 * 1024;
export const MOST_ROWS = 200_000;
export const MOST_COLUMNS = 200;
export const MOST_CELL = 4_000;
/** What a packed file may come to when it is unpacked, and how much larger than the file that may be. */
export const MOST_UNPACKED_BYTES = 512 * 1024 * 1024;
export const MOST_RATIO = 250;

export const badFile = (says: string) => new Problem(400, 'file', says);

/** Checks one row of a file as it comes; trailing empty cells are dropped. */
export function checkedRow(cells: string[], n: number): string[] {
  if (n > MOST_ROWS + 1) throw badFile(`The file has more than ${MOST_ROWS.toLocaleString('en-GB')} rows. Part it into several`);
  let last = cells.length;
  while (last > 0 && cells[last - 1] === '') last--;
  if (last > MOST_COLUMNS) throw badFile(`Row ${n} has more than ${MOST_COLUMNS} columns`);
  const long = cells.findIndex((c) => c.length > MOST_CELL);
  if (long >= 0) throw badFile(`The cell in row ${n}, column ${long + 1} has more than ${MOST_CELL} characters. Shorten it`);
  return cells.slice(0, last);
}
