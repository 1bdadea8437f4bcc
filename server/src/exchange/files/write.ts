import ExcelJS from 'exceljs';
import { once } from 'node:events';
import type { Writable } from 'node:stream';
import { stringify } from 'csv-stringify';
import { harmless } from '@vectrum/core/cells';

export type FileKind = 'csv' | 'xlsx' | 'json';
/** Text stays text; numbers are written as numbers. */
export type OutCell = string | number;

/** Writes a table as CSV: UTF-8 with its mark, so that spreadsheets read every letter; nothing that begins like a formula. */
async function writeCsv(to: Writable, heads: readonly string[], rows: AsyncIterable<readonly OutCell[]>): Promise<void> {
  const out = stringify({ bom: true, record_delimiter: 'windows' });
  out.pipe(to, { end: false });
  const write = async (cells: readonly OutCell[]) => {
    if (!out.write(cells.map((c) => (typeof c === 'number' ? String(c) : harmless(c))))) await once(out, 'drain');
  };
  await write(heads);
  for await (const row of rows) await write(row);
  out.end();
  await once(out, 'end');
}

/** Writes a table as XLSX, row by row; text is typed as text, so that nothing in it is ever computed. */
async function writeXlsx(to: Writable, heads: readonly string[], rows: AsyncIterable<readonly OutCell[]>): Promise<void> {
  const book = new ExcelJS.stream.xlsx.WorkbookWriter({ stream: to, useSharedStrings: false, useStyles: true });
  const sheet = book.addWorksheet('Sheet 1', { views: [{ state: 'frozen', ySplit: 1 }] });
  const head = sheet.addRow([...heads]);
  head.font = { bold: true };
  head.commit();
  for await (const row of rows) sheet.addRow([...row]).commit();
  sheet.commit();
  await book.commit();
}

/** Writes a table as a JSON array, an object a row under the heads of its columns. */
async function writeJson(to: Writable, heads: readonly string[], rows: AsyncIterable<readonly OutCell[]>): Promise<void> {
  let before = '[\n';
  for await (const row of rows) {
    if (!to.write(`${before}${JSON.stringify(Object.fromEntries(heads.map((head, i) => [head, row[i] ?? ''])))}`)) await once(to, 'drain');
    before = ',\n';
  }
  to.write(before === '[\n' ? '[]\n' : '\n]\n');
}

/** Writes a table to a stream as it comes; memory is bounded. The stream is left open. */
export const writeTable: Readonly<Record<FileKind, typeof writeCsv>> = { csv: writeCsv, xlsx: writeXlsx, json: writeJson };

export const MEDIA_TYPES: Readonly<Record<FileKind, string>> = {
  csv: 'text/csv; charset=utf-8',
  json: 'application/json; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
};
