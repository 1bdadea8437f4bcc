import { existsSync } from 'node:fs';
import { mkdir, mkdtemp, readdir, readFile, rm, utimes, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { OrderFolder } from '../src/connectors/index.js';
import { trade } from './channel-messages.js';
import { type Caller, House } from './house.js';

let root: string;
let house: House;
let maren: Caller;
beforeAll(async () => {
  root = await mkdtemp(join(tmpdir(), 'orders-in-'));
  house = await House.open({ ORDER_FOLDER: root });
  maren = await house.as('Maren');
  await house.stock('JAR-454-RD', 'A-01-1', 100);
});
afterAll(async () => {
  await house.close();
  await rm(root, { recursive: true, force: true });
});

const csv = (order: string, sku = 'JAR-454-RD') =>
  `order,customer,street,town,postcode,sku,quantity,price\n${order},Fernlea,Mill Lane 4,Ambleforth,AM4 7TQ,${sku},2,0.95\n`;
/** Puts a file into a channel's folder; it was written a while ago. */
async function put(channel: string, name: string, text: string | Buffer, seconds = 60): Promise<string> {
  const at = join(root, channel, name);
  await mkdir(join(root, channel), { recursive: true });
  await writeFile(at, text);
  const then = new Date(Date.now() - seconds * 1000);
  await utimes(at, then, then);
  return at;
}
const looked = () => house.app.get(OrderFolder).runDue();
const within = async (channel: string, folder: string) => (await readdir(join(root, channel, folder)).catch(() => [])).sort();
const known = async (ref: string) =>
  (await house.source.query<{ code: string }[]>('SELECT code FROM sales_order WHERE channel_ref = ?', [ref])).length;

describe('a folder of order files', () => {
  it('is there for each channel, and named on its page', async () => {
    await looked();
    expect(await readdir(root)).toEqual(expect.arrayContaining(['PHONE', 'SHOP', 'TRADE']));
    expect((await maren.get('channels/PHONE').expect(200)).body).toMatchObject({ folder: join(root, 'PHONE') });
  });

  it('takes CSV and UBL in, oldest first, and puts them by; the same file again changes nothing', async () => {
    await put('PHONE', 'first.csv', csv('F-1'));
    await put('TRADE', 'PO-77.xml', trade('PO-77', [['Sellers', 'JAR-454-RD', 4]]));
    await looked();
    expect([await known('F-1'), await known('PO-77')]).toEqual([1, 1]);
    expect(await within('PHONE', 'done')).toEqual([expect.stringMatching(/^\d{8}T\d{9}-first\.csv$/)]);
    await put('PHONE', 'first-again.csv', csv('F-1'));
    await looked();
    expect(await known('F-1')).toBe(1);
    expect(await within('PHONE', 'done')).toHaveLength(2);
    const { rows } = (await maren.get('channels/PHONE/exchanges').expect(200)).body as { rows: { detail: string }[] };
    expect(rows.map((r) => r.detail)).toEqual(
      expect.arrayContaining(['1 taken in, 0 known, 0 put aside', '0 taken in, 1 known, 0 put aside']),
    );
  });

  it('leaves what is still being written, links and folders alone', async () => {
    const fresh = await put('PHONE', 'fresh.csv', csv('F-2'), 0);
    const part = await put('PHONE', 'upload.csv.part', csv('F-3'));
    await mkdir(join(root, 'PHONE', 'a-folder.csv'), { recursive: true });
    await looked();
    expect([existsSync(fresh), existsSync(part), await known('F-2'), await known('F-3')]).toEqual([true, true, 0, 0]);
    await rm(fresh);
  });

  it('sets a file aside of which nothing can be read, with the reason beside it; the next one comes in', async () => {
    await put('PHONE', 'bad.csv', 'name,colour\nFernlea,blue\n', 90);
    await put('PHONE', 'empty.csv', '', 80);
    await put('PHONE', 'big.csv', Buffer.alloc(16_000_001, 'x'), 70);
    await put('PHONE', 'good.csv', csv('F-4'));
    await looked();
    expect(await known('F-4')).toBe(1);
    const refused = await within('PHONE', 'refused');
    expect(refused.filter((f) => !f.endsWith('.why.txt'))).toHaveLength(3);
    const reasons = await Promise.all(
      refused.filter((f) => f.endsWith('.why.txt')).map((f) => readFile(join(root, 'PHONE', 'refused', f), 'utf8')),
    );
    expect(reasons.join()).toMatch(/empty/);
    expect(reasons.join()).toMatch(/Divide it/);
  });

  it('takes up what a server left behind when it died, and waits while another may have it in hand', async () => {
    const taking = (own: string) => join('PHONE', '.taking', own);
    await put(taking('one'), 'left.csv', csv('F-5'), 120);
    await put(taking('two'), 'in-hand.csv', csv('F-6'), 5);
    // Another of the same name does not come over the one in hand.
    await put('PHONE', 'in-hand.csv', csv('F-7'));
    await looked();
    expect([await known('F-5'), await known('F-6'), await known('F-7')]).toEqual([1, 0, 1]);
    expect(await within('PHONE', '.taking')).toEqual(['two']);
    const then = new Date(Date.now() - 120_000);
    await utimes(join(root, taking('two'), 'in-hand.csv'), then, then);
    await looked();
    expect(await known('F-6')).toBe(1);
    expect(await within('PHONE', '.taking')).toEqual([]);
  });

  it('keeps names of any length and letters', async () => {
    const name = `${'ü'.repeat(120)}.csv`;
    await put('PHONE', name, csv('F-8'));
    await looked();
    expect(await known('F-8')).toBe(1);
    expect((await within('PHONE', 'done')).some((f) => f.endsWith('ü.csv'))).toBe(true);
  });

  it('goes on with the other channels where one folder is no folder', async () => {
    await rm(join(root, 'LINDEN'), { recursive: true, force: true });
    await writeFile(join(root, 'LINDEN'), 'in the way');
    await put('PHONE', 'beside.csv', csv('F-9'));
    await looked();
    expect(await known('F-9')).toBe(1);
    await rm(join(root, 'LINDEN'));
  });

  it('of two servers that look at once, one takes a file', async () => {
    for (let i = 0; i < 12; i++) await put('PHONE', `race-${i}.csv`, csv(`RACE-${i}`));
    const folder = house.app.get(OrderFolder);
    const claim = () => (folder as unknown as { claim(): Promise<{ name: string }[]> }).claim();
    const claimed = (await Promise.all(Array.from({ length: 8 }, claim))).flat().map((j) => j.name);
    expect(new Set(claimed).size).toBe(claimed.length);
  });

  it('is left alone with its channel', async () => {
    await house.source.query(`UPDATE channel SET paused = 1 WHERE code = 'TRADE'`);
    const file = await put('TRADE', 'PO-78.xml', trade('PO-78', [['Sellers', 'JAR-454-RD', 4]]));
    await looked();
    expect(existsSync(file)).toBe(true);
    await house.source.query(`UPDATE channel SET paused = 0 WHERE code = 'TRADE'`);
    await looked();
    expect(await known('PO-78')).toBe(1);
  });
});

describe('what a channel does not offer', () => {
  interface Unlisted {
    rows: { sku: string; units: number; price: string | null }[];
    total: number;
  }
  const unlisted = async (code: string) => (await maren.get(`channels/${code}/unlisted`).expect(200)).body as Unlisted;

  it('is told with what lies of it, most first, without what is only laid in, and listed at a price', async () => {
    const before = await unlisted('LINDEN');
    expect(before.rows.some((r) => r.sku === 'CRD-RECIPE')).toBe(false);
    await house.stock('HIV-EKE', 'A-03-1', 7);
    const now = await unlisted('LINDEN');
    expect(now.rows[0]).toMatchObject({ sku: 'HIV-EKE', units: 7, price: '11.500000' });
    expect((await maren.post('channels/LINDEN/listings', [{ sku: 'HIV-EKE', price: '12.10' }]).expect(200)).body).toEqual({ count: 1 });
    const after = await unlisted('LINDEN');
    expect(after.total).toBe(before.total - 1);
    const { items } = (await maren.get('channels/LINDEN').expect(200)).body as { items: { channelSku: string; price: string }[] };
    expect(items.find((l) => l.channelSku === 'HIV-EKE')).toMatchObject({ factor: 1, price: '12.100000' });
    // Twice is once.
    await maren.post('channels/LINDEN/listings', [{ sku: 'HIV-EKE', price: '9.00' }]).expect(200);
    expect((await unlisted('LINDEN')).total).toBe(after.total);
  });

  it('refuses an item that is not there, and lists nothing of what came with it', async () => {
    const { total } = await unlisted('LINDEN');
    await maren
      .post('channels/LINDEN/listings', [
        { sku: 'HIV-QLT', price: '15' },
        { sku: 'NO-SUCH', price: '1' },
      ])
      .expect(400);
    expect((await unlisted('LINDEN')).total).toBe(total);
    await maren.post('channels/LINDEN/listings', [{ sku: 'HIV-QLT', price: 'free' }]).expect(400);
  });
});

it('leaves the sites where the person does not work to those who do', async () => {
  const shop = (await maren.get('channels/SHOP').expect(200)).body as { version: number; name: string; baseUrl: string | null };
  await house.source.query(
    `INSERT INTO channel_site (channel_id, site_id) SELECT c.id, s.id FROM channel c JOIN site s ON s.code = 'BARN' WHERE c.code = 'SHOP'`,
  );
  await house.source.query(
    `DELETE x FROM person_site x JOIN person p ON p.id = x.person_id JOIN site s ON s.id = x.site_id WHERE p.name LIKE 'Maren%' AND s.code = 'BARN'`,
  );
  const again = await house.as('Maren');
  await again
    .put('channels/SHOP', { name: shop.name, baseUrl: shop.baseUrl, siteIds: [1], listings: [] }, { 'if-match': `"${shop.version}"` })
    .expect(200);
  const sites = await house.source.query<{ code: string }[]>(
    `SELECT s.code FROM channel_site x JOIN site s ON s.id = x.site_id JOIN channel c ON c.id = x.channel_id WHERE c.code = 'SHOP' ORDER BY s.code`,
  );
  expect(sites.map((s) => s.code)).toEqual(['BARN', 'MILL']);
});
