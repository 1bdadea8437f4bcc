import { createWriteStream } from 'node:fs';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { finished } from 'node:stream/promises';
import ExcelJS from 'exceljs';
import fc from 'fast-check';
import { delimiterOf, readCsv } from '../src/exchange/files/read-csv.js';
import { checkedRow, MOST_CELL, MOST_COLUMNS, MOST_ROWS } from '../src/exchange/files/limits.js';
import { readXlsx } from '../src/exchange/files/read-xlsx.js';
import { type FileKind, type OutCell, writeTable } from '../src/exchange/files/write.js';

let dir: string;
let n = 0;
beforeAll(async () => {
  dir = await mkdtemp(join(tmpdir(), 'vectrum-test-'));
});
afterAll(() => rm(dir, { recursive: true, force: true }));

const all = async (rows: AsyncGenerator<string[]>) => {
  const found: string[][] = [];
  for await (const row of rows) found.push(row);
  return found;
};
async function csv(content: string | Buffer): Promise<string[][]> {
  const path = join(dir, `${++n}.csv`);
  await writeFile(path, content);
  return all(readCsv(path));
}
async function xlsx(fill: (book: ExcelJS.Workbook) => void): Promise<string[][]> {
  const path = join(dir, `${++n}.xlsx`);
  const book = new ExcelJS.Workbook();
  fill(book);
  await book.xlsx.writeFile(path);
  return all(readXlsx(path));
}
async function written(kind: FileKind, heads: string[], rows: readonly (readonly OutCell[])[]): Promise<string[][]> {
  const path = join(dir, `${++n}.${kind}`);
  const to = createWriteStream(path);
  async function* each() {
    await Promise.resolve();
    yield* rows;
  }
  await writeTable[kind](to, heads, each());
  to.end();
  await finished(to);
  return all(kind === 'csv' ? readCsv(path) : readXlsx(path));
}

describe('the sign that parts cells', () => {
  it.each([
    ['SKU,Name,Cost', ','],
    ['SKU;Name;Cost', ';'],
    ['SKU\tName\tCost', '\t'],
    ['SKU|Name|Cost', '|'],
    ['"Name, with, many, commas";SKU;Cost', ';'],
    ['"a ""quoted"", cell";b', ';'],
    ['"over\ntwo, three, four lines";b;c\n1,2,3,4,5,6', ';'],
    ['alone', ','],
    ['', ','],
  ])('of %j is %j', (text, sign) => {
    expect(delimiterOf(text)).toBe(sign);
  });
});

describe('a CSV file', () => {
  it('keeps what stands in quotation marks together', async () => {
    expect(await csv('SKU,Name\nA,"Jar, ""round""\r\n454 g"\n')).toEqual([
      ['SKU', 'Name'],
      ['A', 'Jar, "round"\r\n454 g'],
    ]);
  });

  it('passes over empty lines and empty cells at the end', async () => {
    expect(await csv('SKU,Name,Note\n\nA,b,\n\n\nB,,\n')).toEqual([['SKU', 'Name', 'Note'], ['A', 'b'], ['B']]);
  });

  it('takes the line ends of every system', async () => {
    for (const end of ['\n', '\r\n', '\r'])
      expect(await csv(`SKU,Name${end}A,b${end}`)).toEqual([
        ['SKU', 'Name'],
        ['A', 'b'],
      ]);
  });

  it('reads UTF-16 of both orders, with their mark', async () => {
    const little = Buffer.from('\ufeffSKU;Name\nA;Größe\n', 'utf16le');
    expect(await csv(little)).toEqual([
      ['SKU', 'Name'],
      ['A', 'Größe'],
    ]);
    expect(await csv(Buffer.from(little).swap16())).toEqual([
      ['SKU', 'Name'],
      ['A', 'Größe'],
    ]);
  });

  it('reads what is not UTF-8 as Windows-1252, also where the first odd letter comes late', async () => {
    const late = Buffer.concat([Buffer.from(`SKU,Name\n${'A,plain\n'.repeat(20_000)}`), Buffer.from([0x42, 0x2c, 0x80, 0x0a])]);
    expect((await csv(late)).at(-1)).toEqual(['B', '€']);
  });

  it('is not taken for Windows-1252 when a letter lies across two parts of the file', async () => {
    const rows = await csv(`SKU,Name\nA,${'é'.repeat(3_000)}\n`.repeat(1) + `B,${'é'.repeat(3_999)}\n`.repeat(20));
    expect(
      new Set(
        rows
          .flat()
          .join('')
          .replace(/[SKUNameAB]/g, ''),
      ),
    ).toEqual(new Set(['é']));
  });

  it('is refused where it is cut off within a letter of no encoding, or holds no text', async () => {
    await expect(csv(Buffer.from([0x53, 0x00, 0x01]))).rejects.toMatchObject({ status: 400, code: 'file' });
  });

  it('says the line where a quotation mark is open', async () => {
    await expect(csv('SKU,Name\nA,"open\nB,c\n')).rejects.toMatchObject({ detail: expect.stringMatching(/Line \d+ .*quotation mark/) });
  });
});

describe('a row', () => {
  it('has bounds, and says where they are passed', () => {
    expect(() => checkedRow(['x'], MOST_ROWS + 2)).toThrow(expect.objectContaining({ detail: expect.stringContaining('200,000 rows') }));
    expect(checkedRow(['x'], MOST_ROWS + 1)).toEqual(['x']);
    expect(() =>
      checkedRow(
        Array.from({ length: MOST_COLUMNS + 1 }, () => 'x'),
        3,
      ),
    ).toThrow(expect.objectContaining({ detail: expect.stringContaining('Row 3') }));
    expect(() => checkedRow(['a', 'x'.repeat(MOST_CELL + 1)], 4)).toThrow(
      expect.objectContaining({ detail: expect.stringContaining('row 4, column 2') }),
    );
    expect(
      checkedRow(
        Array.from({ length: 5_000 }, () => ''),
        2,
      ),
    ).toEqual([]);
  });
});

describe('a spreadsheet', () => {
  it('reads numbers, days, formulas, links and styled text as what they show', async () => {
    const rows = await xlsx((book) => {
      const sheet = book.addWorksheet('Items');
      sheet.addRow(['SKU', 'Cost', 'Since', 'Sum', 'Link', 'Styled', 'Yes', 'Fault']);
      sheet.addRow([
        'A-1',
        0.1 + 0.2,
        new Date(Date.UTC(2026, 4, 14)),
        { formula: 'B2*2', result: 0.6 },
        { text: 'here', hyperlink: 'https://example.org' },
        { richText: [{ text: 'Jar ' }, { text: 'round', font: { bold: true } }] },
        true,
        { error: '#N/A' as ExcelJS.CellErrorValue['error'] },
      ]);
    });
    expect(rows[1]).toEqual(['A-1', '0.3', '2026-05-14', '0.6', 'here', 'Jar round', 'true', '#N/A']);
  });

  it('keeps a code with leading noughts that is written as text', async () => {
    const rows = await xlsx((book) => book.addWorksheet('x').addRows([['EAN'], ['0012345678905']]));
    expect(rows[1]).toEqual(['0012345678905']);
  });

  it('keeps the noughts that only a format shows, and shows where digits were lost', async () => {
    const rows = await xlsx((book) => {
      const sheet = book.addWorksheet('x');
      sheet.addRow(['Code', 'SSCC']);
      sheet.addRow([123, 106141411234567890]).getCell(1).numFmt = '00000';
    });
    expect(rows[1]).toEqual(['00123', '1.0614141123456789E+17']);
  });

  it('is read from its first sheet only', async () => {
    const rows = await xlsx((book) => {
      book.addWorksheet('Items').addRows([['SKU'], ['A']]);
      book.addWorksheet('Notes').addRows([['not'], ['these']]);
    });
    expect(rows).toEqual([['SKU'], ['A']]);
  });

  it('is empty where its first sheet is', async () => {
    expect(await xlsx((book) => void book.addWorksheet('x'))).toEqual([]);
  });
});

describe('a table written as a file', () => {
  const heads = ['Text', 'Number'];

  it.each(['csv', 'xlsx'] as const)('comes back from %s as what it was', async (kind) => {
    const cell = fc
      .string({ unit: 'grapheme', minLength: 1, maxLength: 40 })
      .map((s) => s.replace(/[\p{Cc}\p{Cs}\ufeff\ufffe\uffff]/gu, '').trim());
    const usable = cell.filter((s) => s !== '' && !s.startsWith("'"));
    await fc.assert(
      fc.asyncProperty(fc.array(fc.tuple(usable, fc.integer()), { minLength: 1, maxLength: 8 }), async (rows) => {
        const back = await written(kind, heads, rows);
        expect(back).toEqual([heads, ...rows.map(([t, i]) => [t, String(i)])]);
      }),
      { numRuns: 25 },
    );
  });

  it.each(['=1+1', '+44 20', '-5', '@sum', '\t=1'])('never lets %j be computed', async (text) => {
    const path = join(dir, `${++n}.csv`);
    const to = createWriteStream(path);
    async function* one() {
      await Promise.resolve();
      yield [text];
    }
    await writeTable.csv(to, ['Text'], one());
    to.end();
    await finished(to);
    const { readFile } = await import('node:fs/promises');
    const raw = (await readFile(path, 'utf8')).split('\r\n')[1] ?? '';
    expect(raw.replace(/^"/, '')).not.toMatch(/^[=@\t\r]|^[+-](?![\d.]+"?$)/);
  });

  it('is heads alone where there is nothing in it', async () => {
    expect(await written('csv', heads, [])).toEqual([heads]);
    expect(await written('xlsx', heads, [])).toEqual([heads]);
  });
});
