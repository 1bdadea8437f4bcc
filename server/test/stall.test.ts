import { monitorEventLoopDelay, performance } from 'node:perf_hooks';
import ExcelJS from 'exceljs';
import yazl from 'yazl';
import { buffer } from 'node:stream/consumers';
import { type Caller, House } from './house.js';
import { upload } from './importing.js';

let house: House;
let maren: Caller;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
  // The threads and what is read once are there.
  await maren.post('labels/pdf', { designId: (await design()).id, labels: [{ code: 'A-01-1' }], copies: 1, start: 1 }).expect(200);
});
afterAll(() => house.close());

async function design(): Promise<{ id: number }> {
  const all = (await maren.get('labels/designs').expect(200)).body as { id: number; subject: string }[];
  return all.find((d) => d.subject === 'place')!;
}

/** How long something took, and the longest that the event loop stood still meanwhile, both in milliseconds. */
async function stall(work: () => PromiseLike<unknown>): Promise<{ took: number; stood: number }> {
  const watch = monitorEventLoopDelay({ resolution: 2 });
  const begun = performance.now();
  watch.enable();
  await work();
  watch.disable();
  const found = { took: performance.now() - begun, stood: watch.max / 1e6 };
  if (process.env['STALLS']) console.log(expect.getState().currentTestName, found);
  return found;
}

/** A spreadsheet whose shared strings come to `megabytes`, and which is small all the same. */
async function bursting(megabytes: number): Promise<Buffer> {
  const zip = new yazl.ZipFile();
  const sheet =
    '<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData><row r="1"><c r="A1" t="s"><v>0</v></c></row><row r="2"><c r="A2" t="s"><v>1</v></c></row></sheetData></worksheet>';
  const book = new ExcelJS.Workbook();
  book.addWorksheet('Items').addRow(['SKU', 'Name']);
  const one = `<si><t>${'abcdefgh'.repeat(12)}</t></si>`;
  const strings = `<sst xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main">${one.repeat(Math.floor((megabytes * 1024 * 1024) / one.length))}</sst>`;
  const files: Record<string, string> = {
    '[Content_Types].xml':
      '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/><Override PartName="/xl/sharedStrings.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sharedStrings+xml"/></Types>',
    '_rels/.rels':
      '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="xl/workbook.xml"/></Relationships>',
    'xl/workbook.xml':
      '<workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="Items" sheetId="1" r:id="rId1"/></sheets></workbook>',
    'xl/_rels/workbook.xml.rels':
      '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/><Relationship Id="rId2" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/sharedStrings" Target="sharedStrings.xml"/></Relationships>',
    'xl/sharedStrings.xml': strings,
    'xl/worksheets/sheet1.xml': sheet,
  };
  for (const [name, text] of Object.entries(files)) zip.addBuffer(Buffer.from(text), name, { compressionLevel: 9 });
  zip.end();
  return buffer(zip.outputStream);
}

/**
 * The worst of each kind that one request may carry. How long the server stands still is held against how long the answer takes,
 * since a machine that is busy with something else slows both.
 */
describe('the server goes on answering', () => {
  it('while a spreadsheet is read that unpacks to far more than it is', async () => {
    const file = await bursting(160);
    expect(file.length).toBeLessThan(2_000_000);
    const { took, stood } = await stall(async () => {
      const { status } = await upload(maren, 'burst.xlsx', file, 'items');
      expect([201, 400, 413]).toContain(status);
    });
    expect(stood / took).toBeLessThan(0.1);
  });

  it('while thousands of labels are drawn', async () => {
    const { id } = await design();
    const code = (
      await house.source.query<{ code: string }[]>(`SELECT code FROM place WHERE kind = 'pick-face' AND site_id = 1 LIMIT 1`)
    )[0]!.code;
    const labels = Array.from({ length: 5_000 }, () => ({ code }));
    const { took, stood } = await stall(() => maren.post('labels/pdf', { designId: id, labels, copies: 1, start: 1 }));
    expect(stood / took).toBeLessThan(0.1);
  });

  it('since a form with more rows than any has is refused before it is gone through', async () => {
    const lines = Array.from({ length: 100_000 }, () => ({}));
    const much = await maren.post('purchase-orders', { supplier: 'QUILLON', siteId: 1, note: '', lines }).expect(413);
    expect(much.body).toMatchObject({ code: 'too-large' });
    await maren
      .post('labels/pdf', { designId: 1, copies: 1, start: 1, labels: Array.from({ length: 5_001 }, () => ({ code: 'A-01-1' })) })
      .expect(400);
    const odd = [{ code: 'A-01-1' }, { code: 'A-01-1', holds: 'x' }];
    const answer = await maren.post('labels/pdf', { designId: 1, copies: 1, start: 1, labels: odd }).expect(400);
    expect(JSON.stringify(answer.body)).toContain('holds');
  });

  it('while a document of nothing but comments is read, which takes as long as it is, and no longer', async () => {
    const document = (kilobytes: number) => Buffer.from(`<Order>${'<!-- - -->'.repeat(kilobytes * 100)}</Order>`);
    const take = (kilobytes: number) => stall(() => maren.file('post', 'supplier-documents', document(kilobytes)));
    await take(100);
    const small = await take(200);
    const large = await take(1_600);
    // Eight times the length takes about eight times as long; what grew with its square would take sixty-four.
    expect(large.took / small.took).toBeLessThan(24);
  });
});
