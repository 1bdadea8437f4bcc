import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import sharp from 'sharp';
import { fetchFile, isInside, NotToBeHad } from '../src/platform/fetch-file.js';
import { type Caller, House } from './house.js';
import { checked, takenIn } from './importing.js';

describe('links to pictures', () => {
  let house: House;
  let maren: Caller;
  let shop: Server;
  let base: string;
  let busy = 0;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    const png = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#7a4' } })
      .png()
      .toBuffer();
    shop = createServer((request, response) => {
      if (request.url === '/jar.png') return void response.end(png);
      if (request.url === '/moved') return void response.writeHead(302, { location: '/jar.png' }).end();
      if (request.url === '/round') return void response.writeHead(302, { location: '/round' }).end();
      if (request.url === '/busy') return void (busy++ === 0 ? response.writeHead(503).end() : response.end(png));
      if (request.url === '/large') return void response.end(Buffer.alloc(9 * 1024 * 1024));
      if (request.url === '/text') return void response.end('<html>no picture</html>');
      response.writeHead(404).end();
    });
    await new Promise<void>((done) => shop.listen(0, '127.0.0.1', done));
    base = `http://127.0.0.1:${(shop.address() as AddressInfo).port}`;
  });
  afterAll(async () => {
    shop.close();
    await house.close();
  });

  const pictured = async (sku: string) =>
    ((await maren.get(`items?search=${sku}`).expect(200)).body as { rows: { sku: string; pictureMark: string | null }[] }).rows.find((r) => r.sku === sku)?.pictureMark; // prettier-ignore
  const tape = async () => ((await maren.get('tape?limit=10')).body as { entries: { title: string; detail: string }[] }).entries;

  it('know what leads into the house, however it is written', () => {
    for (const address of [
      '127.0.0.1',
      '10.1.2.3',
      '172.31.0.9',
      '192.168.4.4',
      '169.254.169.254',
      '::1',
      'fd00::1',
      'fe80::1',
      '::ffff:10.0.0.1',
      'no address',
    ])
      // prettier-ignore
      expect([address, isInside(address)]).toEqual([address, true]);
    for (const address of ['93.184.216.34', '172.32.0.1', '2606:2800:220:1::1'])
      expect([address, isInside(address)]).toEqual([address, false]);
  });

  it('are never followed inside unless an owner allows it, by number, by name or by a redirect', async () => {
    const out = { mostBytes: 1_000_000, timeoutMs: 2_000, inside: false };
    const port = new URL(base).port;
    for (const link of [
      base,
      `http://localhost:${port}/jar.png`,
      `http://[::1]:${port}/`,
      `http://2130706433:${port}/`,
      'file:///etc/passwd',
      'nonsense',
    ])
      // prettier-ignore
      await expect(fetchFile(link, out)).rejects.toBeInstanceOf(NotToBeHad);
  });

  it('bring what they name, over a redirect too; what is too large or goes round in circles is refused', async () => {
    const inside = { mostBytes: 1_000_000, timeoutMs: 2_000, inside: true };
    expect((await fetchFile(`${base}/moved`, inside)).subarray(1, 4).toString()).toBe('PNG');
    for (const path of ['/round', '/large', '/gone']) await expect(fetchFile(base + path, inside)).rejects.toBeInstanceOf(NotToBeHad);
    await expect(fetchFile(`${base}/busy`, inside)).rejects.not.toBeInstanceOf(NotToBeHad);
  });

  it('in a file are fetched once it is in; what could not be is told, and is not asked for again', async () => {
    const file = (link: string, sku: string) => `Artikelnummer;Bezeichnung;Bild\n${sku};Glas;${link}\n`;
    await takenIn(house, maren, 'glas.csv', file(`${base}/jar.png`, 'LINK-1'));
    await house.deliver();
    expect(await pictured('LINK-1')).toBeNull();
    expect((await tape())[0]).toMatchObject({
      title: 'Picture of LINK-1 could not be fetched',
      detail: expect.stringContaining('own network'),
    });
    await maren.put('company/settings/picturesFromInside', { value: 'true' }).expect(204);
    await takenIn(house, maren, 'glas.csv', file(`${base}/jar.png`, 'LINK-1'));
    await takenIn(house, maren, 'glas.csv', file(`${base}/text`, 'LINK-2'));
    await house.deliver();
    expect(await pictured('LINK-1')).toMatch(/^[0-9a-f]+$/);
    expect(await pictured('LINK-2')).toBeNull();
    expect((await tape()).some((e) => e.title === 'Picture of LINK-2 could not be fetched')).toBe(true);
    expect(await house.source.query(`SELECT id FROM outbox WHERE kind = 'picture.fetch' AND state <> 'done'`)).toEqual([]);
  });

  it('must be links', async () => {
    const run = await checked(house, maren, 'glas.csv', 'SKU,Name,Picture link\nLINK-9,Jar,jar.png\nLINK-8,Jar,ftp://x/y.png\n');
    expect(run.faults.map((f) => f.reason)).toEqual(Array(2).fill(expect.stringContaining('A link to a picture')));
  });
});
