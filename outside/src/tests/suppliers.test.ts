import { createHmac } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { xmlIn } from '../post.js';
import { checked, despatchAdvice } from '../supplier-papers.js';
import { readOrder, Suppliers } from '../suppliers.js';
import { WorldState } from '../state.js';

const KEY = 'a key that was given out';
const line = (n: number, name: string) =>
  `<cac:OrderLine><cac:LineItem><cbc:ID>${n}</cbc:ID><cbc:Quantity unitCode="C62">4</cbc:Quantity><cac:Price><cbc:PriceAmount currencyID="GBP">20.16</cbc:PriceAmount></cac:Price><cac:Item><cbc:Name>${name}</cbc:Name></cac:Item></cac:LineItem></cac:OrderLine>`;
const ORDER = `<Order xmlns:cac="a" xmlns:cbc="b"><cbc:ID>P-1187</cbc:ID><cac:SellerSupplierParty><cac:Party><cac:PartyIdentification><cbc:ID>QUILLON</cbc:ID></cac:PartyIdentification><cac:PartyName><cbc:Name>Quillon &amp; Sons</cbc:Name></cac:PartyName></cac:Party></cac:SellerSupplierParty>${line(1, 'Jar')}${line(2, 'Lid')}</Order>`;

describe('the suppliers', () => {
  const got: { url: string; signed: boolean; body: string }[] = [];
  let status = 200;
  let house: Server;
  let state: WorldState;
  let suppliers: Suppliers;

  beforeAll(async () => {
    house = createServer((request, response) => {
      const parts: Buffer[] = [];
      request.on('data', (part: Buffer) => parts.push(part));
      request.on('end', () => {
        const body = Buffer.concat(parts);
        const signed = request.headers['x-signature'] === createHmac('sha256', KEY).update(body).digest('hex');
        got.push({ url: request.url ?? '', signed, body: body.toString('utf8') });
        response.writeHead(status, { 'content-type': 'application/json' }).end('{"detail":"comes too late"}');
      });
    });
    await new Promise<void>((done) => house.listen(0, '127.0.0.1', done));
    state = new WorldState(mkdtempSync(join(tmpdir(), 'suppliers-')));
    suppliers = new Suppliers(state, `http://127.0.0.1:${(house.address() as AddressInfo).port}`, KEY);
  });
  afterAll(() => {
    state.write();
    house.close();
  });
  beforeEach(() => {
    got.length = 0;
    status = 200;
  });

  it('find the order in the mail, and hold a changed one in the place of the first', () => {
    const part = (name: string, text: string) =>
      [
        '--b',
        `Content-Disposition: attachment; filename=${name}`,
        'Content-Transfer-Encoding: base64',
        '',
        Buffer.from(text).toString('base64'),
      ].join('\r\n');
    const raw = ['Content-Type: multipart/mixed; boundary="b"', '', part('P-1187.pdf', '%PDF-'), part('P-1187.xml', ORDER), '--b--'].join(
      '\r\n',
    );
    expect(xmlIn(raw)).toEqual([ORDER]);
    for (let i = 0; i < 2; i++) for (const xml of xmlIn(raw)) suppliers.hear(xml);
    expect(state.world.purchases).toMatchObject([
      {
        order: 'P-1187',
        supplier: 'QUILLON',
        name: 'Quillon & Sons',
        said: 'nothing yet',
        lines: [{ line: 1, packs: 4, price: '20.16' }, { line: 2 }],
      },
    ]);
  });

  it('pass over what is no order', () => {
    for (const xml of ['', '<Invoice/>', '<Order></Order>', 'not xml <']) expect(readOrder(xml)).toBeNull();
  });

  it('send what they say, signed, to the stores', async () => {
    expect(await suppliers.answer('P-1187', 'accept')).toMatchObject({ said: 'confirmed' });
    expect(await suppliers.answer('P-1187', 'change')).toMatchObject({ said: 'changed' });
    expect(await suppliers.despatch('P-1187')).toMatchObject({ said: 'on its way', papers: 3 });
    expect(got.map((g) => [g.url, g.signed])).toEqual(Array.from({ length: 3 }, () => ['/api/suppliers/QUILLON/documents', true]));
    expect(got[0]!.body).toContain('<cbc:OrderResponseCode>AP</cbc:OrderResponseCode>');
    expect(got[1]!.body).toContain('<cbc:PriceAmount currencyID="GBP">20.97</cbc:PriceAmount>');
    await expect(suppliers.answer('P-9', 'accept')).rejects.toThrow('No supplier has an order P-9');
  });

  it('say so where the stores do not take it, and say it twice when they misbehave', async () => {
    status = 409;
    expect(await suppliers.answer('P-1187', 'refuse')).toMatchObject({ said: 'not taken: comes too late' });
    state.world.manners.suppliers = 'twice';
    status = 200;
    await suppliers.answer('P-1187', 'accept');
    expect(got.slice(-2).map((g) => g.body)).toEqual([got.at(-1)!.body, got.at(-1)!.body]);
    state.world.manners.suppliers = 'failing';
    await expect(suppliers.answer('P-1187', 'accept')).rejects.toThrow('out of order');
    state.world.manners.suppliers = 'well';
  });

  it('give each pallet a code of its own, with its check digit', () => {
    expect(checked('10614141123456789')).toBe('106141411234567897');
    const purchase = {
      ...state.world.purchases[0]!,
      lines: Array.from({ length: 7 }, (_, i) => ({ line: i + 1, packs: 1, price: '1', name: '<>&' })),
    };
    const codes = [...despatchAdvice(purchase, 'LS-1').matchAll(/<cac:TransportHandlingUnit><cbc:ID>(\d+)</g)].map((m) => m[1] ?? '');
    expect(new Set(codes).size).toBe(3);
    for (const code of codes) expect(checked(code.slice(0, 17))).toBe(code);
  });
});
