import { createReadStream } from 'node:fs';
import { pipeline } from 'node:stream';
import { CsvError, parse } from 'csv-parse';
import { plain } from '@vectrum/core/cells';
import { badFile, checkedRow, MOST_CELL } from './limits.js';

type Encoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';
const SAMPLE = 4096;

/**
 * The encoding of a text file: by its mark, otherwise UTF-8 where every byte of the file is, otherwise Windows-1252.
 * Refuses what is no text. Reads the file once; memory is bounded.
 */
async function encodingOf(path: string): Promise<Encoding> {
  const strict = new TextDecoder('utf-8', { fatal: true });
  let utf8 = true;
  let first = true;
  for await (const part of createReadStream(path)) {
    const bytes = part as Buffer;
    if (first) {
      if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
      if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
      first = false;
    }
    if (bytes.includes(0)) throw badFile('This is not a text file. Save it as CSV or as XLSX');
    if (utf8) {
      try {
        strict.decode(bytes, { stream: true });
      } catch {
        utf8 = false;
      }
    }
  }
  if (utf8) {
    try {
      strict.decode();
    } catch {
      utf8 = false;
    }
  }
  return utf8 ? 'utf-8' : 'windows-1252';
}

async function* decoded(path: string, encoding: Encoding): AsyncGenerator<string> {
  const decoder = new TextDecoder(encoding);
  for await (const part of createReadStream(path)) yield decoder.decode(part as Buffer, { stream: true });
  yield decoder.decode();
}

/** The sign that parts the cells of the first line: the commonest of comma, semicolon, tab and bar outside quotes. */
export function delimiterOf(text: string): string {
  const line = (/^(?:"(?:[^"]|"")*"|[^\r\n"])*/.exec(text)?.[0] ?? '').replace(/"(?:[^"]|"")*"/g, '');
  const counts = [',', ';', '\t', '|'].map((sign) => ({ sign, n: line.split(sign).length }));
  return counts.reduce((best, c) => (c.n > best.n ? c : best)).sign;
}

/** The rows of a CSV file, heads first, as text. Throws a `file` problem for what cannot be read. */
export async function* readCsv(path: string): AsyncGenerator<string[]> {
  const encoding = await encodingOf(path);
  let sample = '';
  for await (const part of decoded(path, encoding)) {
    sample += part;
    if (sample.length >= SAMPLE) break;
  }
  const parser = parse({
    bom: true,
    delimiter: delimiterOf(sample.replace(/^\ufeff/, '')),
    relax_column_count: true,
    skip_empty_lines: true,
    max_record_size: MOST_CELL * 60,
  });
  pipeline(decoded(path, encoding), parser, () => undefined);
  let n = 0;
  try {
    for await (const record of parser)
      yield checkedRow(
        (record as string[]).map((c) => plain(c).trim()),
        ++n,
      );
  } catch (thrown) {
    if (!(thrown instanceof CsvError)) throw thrown;
    const line = (thrown as CsvError & { lines?: number }).lines;
    throw badFile(`Line ${line ?? n + 1} cannot be read: a quotation mark is open, or a row has no end. Look at it in a text editor`);
  }
}
