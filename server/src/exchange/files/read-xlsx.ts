import ExcelJS from 'exceljs';
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { promisify } from 'node:util';
import yauzl from 'yauzl';
import { dayIn } from '../../platform/index.js';
import { badFile, checkedRow, MOST_RATIO, MOST_UNPACKED_BYTES } from './limits.js';

const MOST_ENTRIES = 2_000;
const openZip = promisify<string, yauzl.Options, yauzl.ZipFile>(yauzl.open);

/**
 * Unpacks every entry into nothing and counts, so that a file made to burst is refused before anything else reads it. What
 * an entry says of its own size is not believed. Memory is bounded.
 */
async function mustUnpack(path: string): Promise<void> {
  const packed = (await stat(path)).size;
  const most = Math.min(MOST_UNPACKED_BYTES, Math.max(packed * MOST_RATIO, 16 * 1024 * 1024));
  const zip = await openZip(path, { lazyEntries: true, validateEntrySizes: false }).catch(() => {
    throw badFile('This is not a spreadsheet that can be read. Save it as XLSX or as CSV');
  });
  let total = 0;
  let entries = 0;
  try {
    await new Promise<void>((done, fail) => {
      zip.on('error', fail);
      zip.on('end', done);
      zip.on('entry', (entry: yauzl.Entry) => {
        if (++entries > MOST_ENTRIES) return fail(badFile('The spreadsheet holds too many parts. Save its data as CSV'));
        if (entry.fileName.endsWith('/')) return zip.readEntry();
        zip.openReadStream(entry, (fault, stream) => {
          if (fault) return fail(fault);
          stream.on('data', (part: Buffer) => {
            total += part.length;
            if (total > most) stream.destroy(badFile('The spreadsheet unpacks to far more than it should. Save its data as CSV'));
          });
          stream.on('error', fail);
          stream.on('end', () => zip.readEntry());
        });
      });
      zip.readEntry();
    });
  } catch (thrown) {
    if (thrown instanceof Error && 'status' in thrown) throw thrown;
    throw badFile('The spreadsheet is damaged. Open it, save it again, and try once more');
  } finally {
    zip.close();
  }
}

/**
 * A number as it shows: with the noughts in front that its format gives it. One beyond what a spreadsheet can hold has lost
 * digits, which is left to be seen.
 */
function numberText(value: number, format = ''): string {
  if (!Number.isInteger(value)) return String(Number(value.toPrecision(15)));
  if (Math.abs(value) > 999_999_999_999_999) return value.toExponential().toUpperCase();
  return /^0{2,}$/.test(format) ? String(value).padStart(format.length, '0') : String(value);
}

/** A cell as text: dates as ISO days, formulas as what they came to, everything else as it shows. */
function textOf(value: ExcelJS.CellValue, format?: string): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) return Number.isNaN(value.getTime()) ? '' : dayIn('UTC', value);
  if (typeof value === 'number') return numberText(value, format);
  if (typeof value !== 'object') return String(value);
  if ('richText' in value) return value.richText.map((t) => t.text).join('');
  if ('result' in value) return textOf(value.result, format);
  if ('text' in value) return textOf(value.text);
  if ('error' in value) return String(value.error);
  return '';
}

/** How a number is shown. Only asked for numbers, since making a cell of each value is dear. */
const formatOf = (row: ExcelJS.Row, i: number, value: ExcelJS.CellValue): string | undefined =>
  typeof value === 'number' && Number.isInteger(value) ? row.getCell(i).numFmt : undefined;

/** The rows of the first sheet of an XLSX file, heads first, as text. Throws a `file` problem for what cannot be read. */
export async function* readXlsx(path: string): AsyncGenerator<string[]> {
  await mustUnpack(path);
  const reader = new ExcelJS.stream.xlsx.WorkbookReader(createReadStream(path), {
    worksheets: 'emit',
    sharedStrings: 'cache',
    hyperlinks: 'ignore',
    styles: 'cache',
    entries: 'ignore',
  });
  let n = 0;
  try {
    for await (const sheet of reader) {
      for await (const row of sheet) {
        const cells: string[] = [];
        const values = row.values as ExcelJS.CellValue[];
        for (let i = 1; i < values.length; i++) cells.push(textOf(values[i], formatOf(row, i, values[i])).trim());
        const checked = checkedRow(cells, ++n);
        if (checked.length > 0) yield checked;
      }
      break;
    }
  } catch (thrown) {
    if (thrown instanceof Error && 'status' in thrown) throw thrown;
    throw badFile('The spreadsheet cannot be read. Open it, save it again as XLSX, and try once more');
  }
}
