import { once } from 'node:events';
import { promisify } from 'node:util';
import yauzl from 'yauzl';
import { type Caller, House } from './house.js';

const fromBuffer = promisify<Buffer, yauzl.Options, yauzl.ZipFile>(yauzl.fromBuffer);

const bytesOf = (response: NodeJS.ReadableStream, done: (err: Error | null, body: Buffer) => void) => {
  const parts: Buffer[] = [];
  response.on('data', (part: Buffer) => parts.push(part));
  response.on('end', () => done(null, Buffer.concat(parts)));
};

let house: House;
let maren: Caller;
let piet: Caller;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
  piet = await house.as('Piet');
});
afterAll(() => house.close());

const feed = (list: string, key?: string) =>
  house.http.get(`/api/feeds/lists/${list}`).set(key === undefined ? {} : { authorization: `Bearer ${key}` });
const made = async (who: Caller, name = 'the spreadsheet') =>
  (await who.post('feeds/keys', { name }).expect(201)).body as { id: number; key: string };

describe('a key for other programs', () => {
  it('reads the lists that its maker sees, and nothing else', async () => {
    const { key } = await made(piet);
    const answer = await feed('items.json', key).expect(200);
    const rows = JSON.parse(answer.text) as Record<string, unknown>[];
    expect(rows.length).toBeGreaterThan(50);
    expect((await feed('suppliers.csv', key).expect(200)).text).toMatch(/^\uFEFF?Supplier/);
    await feed('no-such-list.csv', key).expect(404);
    await feed('items.exe', key).expect(404);
    // It is no way in: only a cookie is.
    await house.http.get('/api/items').set('authorization', `Bearer ${key}`).expect(401);
    await house.http.post('/api/feeds/keys').set('authorization', `Bearer ${key}`).send({ name: 'more' }).expect(401);
  });

  it('opens nothing where it is wrong, cut short, taken away, or its maker has left; and says the same each time', async () => {
    const { id, key } = await made(piet, 'once');
    const said: string[] = [];
    for (const wrong of [undefined, '', 'x', key.slice(0, -1), `${key}0`, key.toUpperCase()])
      said.push(String((await feed('items.csv', wrong).expect(401)).body.detail));
    await maren.delete(`feeds/keys/${id}`).expect(404);
    await piet.delete(`feeds/keys/${id}`).expect(200);
    said.push(String((await feed('items.csv', key).expect(401)).body.detail));
    const left = await made(piet, 'left');
    await house.source.query('UPDATE person SET active = 0 WHERE id = ?', [piet.personId]);
    said.push(String((await feed('items.csv', left.key).expect(401)).body.detail));
    await house.source.query('UPDATE person SET active = 1 WHERE id = ?', [piet.personId]);
    await feed('items.csv', left.key).expect(200);
    expect(new Set(said).size).toBe(1);
  });

  it('has the sight of its maker at the moment: fewer sites, fewer rows; no costs, none', async () => {
    const { key } = await made(maren, 'all');
    const text = async (list: string) => (await feed(list, key).expect(200)).text;
    expect(await text('items.csv')).toMatch(/Cost/);
    await house.source.query('UPDATE person SET sees_costs = 0 WHERE id = ?', [maren.personId]);
    expect(await text('items.csv')).not.toMatch(/Cost/);
    await house.source.query('UPDATE person SET sees_costs = 1 WHERE id = ?', [maren.personId]);
    const ruben = await house.as('Ruben');
    const { key: own } = await made(ruben, 'dock');
    await feed('demand.csv', own).expect(403);
  });

  it('is kept as a hash, also in what is kept of the act; said again it has none', async () => {
    const once = { 'idempotency-key': 'a0a0a0a0-0000-4000-8000-0000000000fe' };
    const first = (await maren.post('feeds/keys', { name: 'twice' }, once).expect(201)).body as { id: number; key: string };
    const again = (await maren.post('feeds/keys', { name: 'twice' }, once).expect(201)).body as { id: number; key: string | null };
    expect(again).toEqual({ id: first.id, key: null });
    const kept =
      JSON.stringify(await house.source.query('SELECT * FROM feed_key')) +
      JSON.stringify(await house.source.query("SELECT * FROM command WHERE name LIKE 'feed-key%'"));
    expect(kept).not.toContain(first.key);
    const keys = (await maren.get('feeds/keys').expect(200)).body as { name: string; usedAt: string | null }[];
    expect(keys.find((k) => k.name === 'all')!.usedAt).not.toBeNull();
    expect(keys.find((k) => k.name === 'twice')!.usedAt).toBeNull();
    await maren.post('feeds/keys', { name: '  ' }).expect(400);
  });

  it('brings the figures of the day in one archive, those that its maker may read', async () => {
    const { key } = await made(maren, 'each morning');
    const names = async (bearer: string) => {
      const answer = await house.http
        .get('/api/feeds/day.zip')
        .set('authorization', `Bearer ${bearer}`)
        .buffer(true)
        .parse((response, done) => bytesOf(response as unknown as NodeJS.ReadableStream, done))
        .expect(200);
      expect(answer.headers['content-disposition']).toMatch(/figures-\d{4}-\d\d-\d\d\.zip/);
      const zip = await fromBuffer(answer.body as Buffer, { lazyEntries: false });
      const found: string[] = [];
      zip.on('entry', (e: { fileName: string }) => found.push(e.fileName));
      await once(zip, 'end');
      return found.sort();
    };
    expect(await names(key)).toEqual([
      'buying-BARN.csv',
      'buying-MILL.csv',
      'buying-QUAY.csv',
      'demand.csv',
      'excess-BARN.csv',
      'excess-MILL.csv',
      'excess-QUAY.csv',
      'inbound-lines.csv',
      'items.csv',
      'plans.csv',
      'purchase-orders.csv',
    ]);
    const { key: few } = await made(await house.as('Ines'), 'the picker’s');
    expect(await names(few)).toEqual(['inbound-lines.csv', 'items.csv', 'purchase-orders.csv']);
    await house.http.get('/api/feeds/day.zip').expect(401);
  });
});
