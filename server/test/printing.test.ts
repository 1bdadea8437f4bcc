import { createServer } from 'node:net';
import { type AddressInfo } from 'node:net';
import { barcodePng } from '../src/paper/paper.js';
import { packingListPdf } from '../src/orders/packing-list.pdf.js';
import { purchaseOrderPdf } from '../src/purchasing/purchase-order.pdf.js';
import { print } from '../src/printing/printer.js';
import type { OrderDto } from '../src/orders/orders.dto.js';
import type { PurchaseOrderDto } from '../src/purchasing/purchasing.dto.js';

const line = (n: number) => ({
  line: n,
  sku: `JAR-${n}`,
  name: `Jar number ${n} with a name that is longer than its cell has room for`,
  picture: 'jar',
  packId: 1,
  pack: 'tray',
  packPlural: 'trays',
  factor: 48,
  unit: 'jar',
  units: 'jars',
  packs: 4,
  ordered: 192,
  closed: 0,
  returned: 0,
  expectedOn: null,
  answer: null,
  received: 0,
  price: '20.160000',
  priceEach: '0.420000',
  goods: '80.640000',
});
const order = (lines: number): PurchaseOrderDto => ({
  code: 'P-1187',
  supplierCode: 'QUILLON',
  supplier: 'Quillon Glassware',
  supplierEmail: '',
  supplierPhone: '',
  siteId: 1,
  site: 'Millrace',
  siteAddress: '1 Weir Lane, Netherwick NW8 1AA',
  state: 'placed',
  currency: 'GBP',
  expectedOn: null,
  note: 'Door 2',
  createdBy: 'Piet',
  createdAt: new Date(),
  placedAt: null,
  placedBy: null,
  firstReceivedAt: null,
  goods: '80.64',
  answer: '',
  answerNote: '',
  changes: [],
  alike: [],
  arrivals: [],
  door: null,
  files: [],
  version: 1,
  lines: Array.from({ length: lines }, (_, i) => line(i + 1)),
});
const pages = (pdf: Buffer) => (pdf.toString('latin1').match(/\/Type \/Page\b/g) ?? []).length;

describe('papers', () => {
  it('a purchase order fits one page, and goes on to the next with many lines', async () => {
    expect(pages(await purchaseOrderPdf(order(4)))).toBe(1);
    expect(pages(await purchaseOrderPdf(order(60)))).toBeGreaterThan(2);
  });

  it('a purchase order without prices is a paper too', async () => {
    const blind = order(2);
    delete blind.goods;
    blind.lines.forEach((l) => {
      delete l.price;
      delete l.priceEach;
      delete l.goods;
    });
    expect((await purchaseOrderPdf(blind)).subarray(0, 5).toString()).toBe('%PDF-');
  });

  it('a packing list holds letters of all Europe', async () => {
    const list = {
      code: 'S-1',
      customer: 'Łódź Şişli Ærø Ζευς',
      addressLine: 'Größe 1',
      city: 'Århus',
      postcode: '8000',
      channelRef: 'W1',
      site: 'Millrace',
      parcels: [],
      lines: Array.from({ length: 40 }, (_, i) => ({
        line: i,
        channelSku: 'X',
        sku: null,
        name: null,
        unit: null,
        units: null,
        wanted: 2,
      })),
    };
    const pdf = await packingListPdf(list as unknown as OrderDto);
    expect(pages(pdf)).toBeGreaterThan(1);
    expect(pdf.toString('latin1')).toContain('DejaVuSans');
  });

  it('a barcode is a picture', async () => {
    expect((await barcodePng('P-1187')).subarray(1, 4).toString()).toBe('PNG');
    await expect(barcodePng('')).rejects.toThrow();
  });
});

describe('the printer', () => {
  it('gets every byte of a paper', async () => {
    const got: Buffer[] = [];
    const server = createServer({ allowHalfOpen: true }, (socket) => {
      socket.on('data', (part: Buffer) => got.push(part));
      socket.on('end', () => socket.end());
    });
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const paper = Buffer.alloc(300_000, 'x');
    await print(`127.0.0.1:${(server.address() as AddressInfo).port}`, paper);
    expect(Buffer.concat(got).equals(paper)).toBe(true);
    server.close();
  });

  it('that is not there, or hangs up, is told to whoever prints', async () => {
    await expect(print('127.0.0.1:9', Buffer.from('x'))).rejects.toThrow();
    const server = createServer((socket) => socket.resetAndDestroy());
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    await expect(print(`127.0.0.1:${(server.address() as AddressInfo).port}`, Buffer.alloc(100_000))).rejects.toThrow();
    server.close();
  });
});
