import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo, type Server } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sampleRecord } from '@vectrum/core/labels';
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader';
import { labelsPdf } from '../src/printing/label.pdf.js';
import { STANDARD_DESIGNS } from '../src/printing/standard-designs.js';
import { type Caller, House } from './house.js';

/** What a label printer's head resolves. */
const DPI = 203;

beforeAll(async () => {
  const wasm = readFileSync(require.resolve('zxing-wasm/reader/zxing_reader.wasm'));
  await prepareZXingModule({
    overrides: { wasmBinary: wasm.buffer.slice(wasm.byteOffset, wasm.byteOffset + wasm.byteLength) },
    fireImmediately: true,
  });
});

/** Prints a PDF to pictures as a label printer would, and reads every barcode on each page. */
async function readBack(pdf: Buffer): Promise<string[][]> {
  const dir = mkdtempSync(join(tmpdir(), 'vectrum-labels-'));
  try {
    writeFileSync(join(dir, 'labels.pdf'), pdf);
    execFileSync('pdftoppm', ['-r', String(DPI), '-gray', '-png', join(dir, 'labels.pdf'), join(dir, 'page')]);
    const pages = readdirSync(dir)
      .filter((f) => f.endsWith('.png'))
      .sort();
    return await Promise.all(
      pages.map(async (f) =>
        (await readBarcodes(new Uint8Array(readFileSync(join(dir, f))), { tryHarder: true, maxNumberOfSymbols: 60 })).map((r) => r.text),
      ),
    );
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}

describe('printed labels, read back by a decoder', () => {
  it.each(STANDARD_DESIGNS.map((d) => [d.name, d] as const))('%s', async (_, design) => {
    const record = sampleRecord(design.subject);
    const [codes = []] = await readBack(await labelsPdf(design, [record]));
    const wanted = design.elements.flatMap((e) =>
      e.kind === 'barcode' ? [e.value.replace(/\{(\w+)\}/g, (_m, k: string) => record[k] ?? '')] : [],
    );
    const plain = (code: string) =>
      code
        .replaceAll('\u001d', '')
        .replace(/[()]/g, '')
        .replace(/^\]C1|^\]d2/, '');
    expect(codes.map(plain).sort()).toEqual(wanted.map(plain).sort());
  });

  it('fill a sheet from its first free place, every code once a copy', async () => {
    const sheet = STANDARD_DESIGNS.find((d) => d.name.startsWith('Item labels, A4'))!;
    const records = ['9521077000010', '9521077000027'].map((barcode, i) => ({ ...sampleRecord('item'), barcode, sku: `SKU-${i}` }));
    const pages = await readBack(await labelsPdf(sheet, records, 2, 23));
    expect(pages.map((p) => p.sort())).toEqual([
      ['9521077000010', '9521077000010'],
      ['9521077000027', '9521077000027'],
    ]);
  });

  it('are still readable where a number is no EAN', async () => {
    const roll = STANDARD_DESIGNS.find((d) => d.name.startsWith('Item label, 57'))!;
    for (const barcode of ['STR-ROLL', '2000000000077', '96385074', '9521077000013']) {
      expect(await readBack(await labelsPdf(roll, [{ ...sampleRecord('item'), barcode }]))).toEqual([[barcode]]);
    }
  });
});

describe('labels of the house', () => {
  let house: House;
  let maren: Caller;
  let printer: Server;
  const printed: Buffer[] = [];
  let answers = true;

  beforeAll(async () => {
    printer = createServer({ allowHalfOpen: true }, (socket) => {
      if (!answers) return void socket.resetAndDestroy();
      const parts: Buffer[] = [];
      socket.on('data', (part: Buffer) => parts.push(part));
      socket.on('end', () => (printed.push(Buffer.concat(parts)), socket.end()));
    });
    await new Promise<void>((done) => printer.listen(0, '127.0.0.1', done));
    house = await House.open();
    maren = await house.as('Maren');
  });
  afterAll(async () => {
    await house.close();
    printer.close();
  });

  interface Design {
    id: number;
    name: string;
    subject: string;
    version: number;
    media: object;
    elements: { id: string }[];
  }
  const designs = async () => (await maren.get('labels/designs').expect(200)).body as Design[];
  const designOf = async (subject: string) => (await designs()).find((d) => d.subject === subject)!;

  it('begin with designs for every subject', async () => {
    expect(new Set((await designs()).map((d) => d.subject))).toEqual(new Set(['place', 'item', 'badge', 'document']));
  });

  it('show the records they are of', async () => {
    const order = (await house.order([['JAR-454-RD', 1]])).toUpperCase();
    for (const [subject, code] of [
      ['place', 'c-07-2'],
      ['item', 'JAR-454-RD'],
      ['badge', 'V-1005'],
      ['document', order],
      ['document', 'VX-CONFIRM'],
    ] as const) {
      const pdf = (
        await maren.post('labels/pdf', { designId: (await designOf(subject)).id, copies: 1, start: 1, labels: [{ code }] }).expect(200)
      ).body as Buffer;
      const [codes] = await readBack(pdf);
      expect(codes).toContain(subject === 'item' ? '9521077000010' : code.toUpperCase());
    }
  });

  it('refuse what is not known, and places of other sites', async () => {
    const ines = await house.as('Ines');
    const ask = (code: string) => ines.post('labels/pdf', { designId: 1, copies: 1, start: 1, labels: [{ code }] });
    await ask('NO-SUCH').expect(404);
    await ask('QUAY-DOCK').expect(404);
    const sheet = (await designs()).find((d) => d.name.startsWith('Shelf labels, A4'))!;
    const wrong = await maren.post('labels/pdf', { designId: sheet.id, copies: 1, start: 11, labels: [{ code: 'A-01-1' }] }).expect(400);
    expect(wrong.body).toMatchObject({ fields: { start: 'The first place of a sheet is 1 to 10' } });
  });

  it('prints nobody’s badge but one’s own for whoever does not set up people', async () => {
    const ines = await house.as('Ines');
    const ask = async (who: typeof maren, code: string) =>
      (await who.post('labels/pdf', { designId: (await designOf('badge')).id, copies: 1, start: 1, labels: [{ code }] })).status;
    expect(await Promise.all([ask(ines, 'V-1005'), ask(ines, 'V-1001'), ask(maren, 'V-1005')])).toEqual([200, 404, 200]);
  });

  it('go to the printer through the outbox, wait in the tray while it is away, and are tried again', async () => {
    const place = await designOf('place');
    const print = () => maren.post('labels/print', { designId: place.id, copies: 2, start: 1, printerId: 0, labels: [{ code: 'A-01-1' }] });
    await print().expect(409);
    const address = `127.0.0.1:${(printer.address() as AddressInfo).port}`;
    await maren.post('labels/printers', { name: 'Table', siteId: 1, address }).expect(201);
    answers = false;
    expect((await print().expect(201)).body).toMatchObject({ printer: 'Table' });
    await house.deliver();
    const tray = async () =>
      (await maren.get('labels/tray').expect(200)).body as { id: number; state: string; title: string; labels: number; problem: string }[];
    const [waiting] = await tray();
    expect(waiting).toMatchObject({ state: 'failing', labels: 2, title: '2 labels: A-01-1', problem: expect.stringMatching(/.+/) });
    answers = true;
    await maren.post(`outbox/${waiting!.id}/retry`).expect(204);
    await house.deliver();
    expect((await tray())[0]).toMatchObject({ state: 'done' });
    expect(await readBack(printed.at(-1)!)).toHaveLength(2);
  });

  it('are designed by those who set up, kept by version, and refused where they could not be printed', async () => {
    const badge = await designOf('badge');
    const body = { name: 'My badge', subject: 'badge', media: badge.media, elements: badge.elements };
    await (await house.as('Ines')).post('labels/designs', body).expect(403);
    const { id } = (await maren.post('labels/designs', body).expect(201)).body as { id: number };
    await maren.post('labels/designs', body).expect(400);
    const over = { ...body, elements: [{ id: 'a', kind: 'text', xMm: 80, yMm: 0, wMm: 50, hMm: 5, text: '{name}' }] };
    expect((await maren.put(`labels/designs/${id}`, over, { 'if-match': '"1"' }).expect(400)).body).toMatchObject({
      detail: expect.stringContaining('over the edge'),
    });
    const strange = { ...body, elements: [{ id: 'a', kind: 'text', xMm: 0, yMm: 0, wMm: 50, hMm: 5, text: '{lot}' }] };
    await maren.post('labels/sample', strange).expect(400);
    await maren.put(`labels/designs/${id}`, { ...body, name: 'Mine' }, { 'if-match': '"1"' }).expect(204);
    await maren.put(`labels/designs/${id}`, body, { 'if-match': '"1"' }).expect(412);
    expect(((await maren.post('labels/sample', body).expect(200)).body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    await maren.delete(`labels/designs/${id}`).expect(204);
    expect((await designs()).some((d) => d.id === id)).toBe(false);
  });
});
