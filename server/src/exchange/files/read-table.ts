import { createWriteStream } from 'node:fs';
import { once } from 'node:events';
import { finished } from 'node:stream/promises';
import { readCsv } from './read-csv.js';
import { readXlsx } from './read-xlsx.js';

/**
 * Writes the rows of a file, heads first, into a file of their own beside it, a line of JSON each: so that they come out of the
 * thread that reads them as they are wanted, whatever their number. Returns its path. Throws a `file` problem.
 */
export async function readTable(path: string, kind: 'csv' | 'xlsx'): Promise<string> {
  const target = `${path}.rows`;
  const out = createWriteStream(target);
  try {
    for await (const row of kind === 'xlsx' ? readXlsx(path) : readCsv(path))
      if (!out.write(`${JSON.stringify(row)}\n`)) await once(out, 'drain');
  } finally {
    out.end();
    await finished(out);
  }
  return target;
}
