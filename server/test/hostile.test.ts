import { randomUUID } from 'node:crypto';
import { type Caller, House } from './house.js';

type Method = 'post' | 'put' | 'patch';

/** Every route that changes something and takes a body, by a person who may use it. */
const ROUTES: [Method, string][] = [
  ['post', 'items'],
  ['put', 'items/JAR-454-RD'],
  ['post', 'suppliers'],
  ['put', 'suppliers/QUILLON'],
  ['post', 'channels'],
  ['put', 'channels/SHOP'],
  ['post', 'places'],
  ['patch', 'places/A-01-1'],
  ['post', 'purchase-orders'],
  ['put', 'purchase-orders/P-1180'],
  ['post', 'floor/commands'],
  ['post', 'floor/questions/00000000-0000-4000-8000-000000000000/answer'],
  ['post', 'orders/S-20380/clear-hold'],
  ['post', 'orders/S-20380/promise'],
  ['post', 'dispatch/hand-overs'],
  ['post', 'devices/enrolments'],
  ['post', 'session'],
  ['post', 'session/badge'],
  ['post', 'devices/enrol'],
  ['post', 'first-owner'],
];

const BODIES: [string, unknown][] = [
  ['an empty object', {}],
  ['a list', [1, 2, 3]],
  ['values that are no values', { at: { toString: 1 }, promisedAt: { valueOf: [] } }],
  [
    'wrong types throughout',
    { sku: 5, name: [], lines: 'x', units: 'many', siteId: {}, code: 7, email: 1, password: {}, parcels: 'all', packs: null, line: 'one' },
  ],
  [
    'numbers out of all bounds',
    {
      units: 1e308,
      line: -1,
      itemId: 99999999999,
      toPlaceId: -5,
      stopId: 1e20,
      factor: 0,
      packs: -3,
      siteId: 1e12,
      weightG: -1,
      lines: [{ sku: 'X', factor: 1e9, packs: 1e9, price: '9e99' }],
    },
  ],
  [
    'text meant for other machines',
    {
      sku: "'; DROP TABLE item; --",
      name: '<script>alert(1)</script>',
      code: '../../etc/passwd',
      supplier: '${7*7}',
      email: "a' OR '1'='1",
      password: 'x',
      badge: "'--",
      pin: '0000',
      note: '\u0000\u001d\uffff',
    },
  ],
  ['keys that reach for prototypes', JSON.parse('{"__proto__":{"admin":true},"constructor":{"prototype":{"x":1}}}')],
  ['deep nesting', JSON.parse(`${'{"a":'.repeat(200)}1${'}'.repeat(200)}`)],
];

describe('hostile and careless input', () => {
  let house: House;
  let maren: Caller;
  let before: string;

  const snapshot = async () => {
    const tables = [
      'item',
      'supplier',
      'channel',
      'listing',
      'place',
      'purchase_order',
      'sales_order',
      'movement',
      'balance',
      'round',
      'parcel',
      'device_enrolment',
      'person',
      'outbox',
    ];
    const counts = await Promise.all(
      tables.map(async (t) => Number((await house.source.query<{ n: string }[]>(`SELECT COUNT(*) AS n FROM ${t}`))[0]!.n)),
    );
    return JSON.stringify(counts);
  };

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    await house.stock('JAR-454-RD', 'A-01-1', 10);
    before = await snapshot();
  });
  afterAll(() => house.close());

  const send = (method: Method, path: string, body: object) => maren[method](path, body, { 'if-match': '"1"' });

  function mustBeProblem(answer: { status: number; text: string; headers: Record<string, string> }): void {
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(answer.status).toBeLessThan(500);
    expect(answer.headers['content-type']).toContain('application/problem+json');
    const problem = JSON.parse(answer.text) as { code: string; detail: string; status: number };
    expect(problem.code).toMatch(/^[a-z-]+$/);
    expect(problem.detail.length).toBeGreaterThan(5);
    expect(answer.text).not.toMatch(/node_modules|\bat \w+ \(|SELECT |QueryFailed|\.ts:\d/);
  }

  describe.each(BODIES)('%s', (_, body) => {
    it.each(ROUTES)('%s %s answers with a problem', async (method, path) => {
      mustBeProblem(await send(method, path, body as object));
    });
  });

  it.each(ROUTES)('%s %s refuses what is no JSON', async (method, path) => {
    const answer = await house.http[method](`/api/${path}`)
      .set({ 'content-type': 'application/json', 'idempotency-key': randomUUID() })
      .send('{"a": ');
    mustBeProblem(answer);
    expect(JSON.parse(answer.text)).toMatchObject({ code: 'json' });
  });

  it.each(ROUTES)('%s %s refuses what is too large', async (method, path) => {
    const answer = await send(method, path, { note: 'x'.repeat(600_000) });
    expect(answer.status).toBe(413);
    mustBeProblem(answer);
  });

  it.each([
    'items/%00',
    'items/..%2F..%2Fetc',
    'orders/%F0%9F%90%9D',
    `places/${'A'.repeat(3000)}`,
    'purchase-orders/%27%20OR%201=1',
    'tape?limit=-5&document=%27',
    'find?q=%25%25%25',
    'places?search[]=a&search[]=b',
    'floor/book?site=abc',
    'floor/book?site=1&since=-1',
    'floor/book?site=1&after=x',
    'floor/tasks/pick/R-0612?asked=1,2',
    'floor/tasks/store/abc',
    'floor/tasks/constructor/1',
    'bench/orders/X/rates?weight=NaN',
    'items/JAR-454-RD/why/available/x',
    'items/JAR-454-RD/why/everything/1',
    'items?search[a]=b',
    'tape/abc',
  ])('reading %s neither fails nor tells secrets', async (path) => {
    const answer = await maren.get(path);
    expect(answer.status).toBeLessThan(500);
    if (answer.status >= 400) mustBeProblem(answer);
  });

  it('refuses an address that cannot be decoded', async () => {
    mustBeProblem(await maren.get('items/%E0%A4%A'));
  });

  it('refuses a key that is no UUID, and an If-Match that is no version', async () => {
    mustBeProblem(
      await maren.post('places', { siteId: 1, code: 'Z-1', kind: 'pick-face', pickable: true }, { 'idempotency-key': 'again' }),
    );
    mustBeProblem(await maren.patch('places/A-01-1', { blocked: true }, { 'if-match': 'yesterday' }));
  });

  it('has changed nothing by all this', async () => {
    expect(await snapshot()).toBe(before);
  });
});

describe('a form that another page sends by itself', () => {
  let house: House;
  beforeAll(async () => {
    house = await House.open();
  });
  afterAll(() => house.close());

  const WHO = 'email=maren%40tarnthistle.example&password=thistle-and-tarn';
  it.each([
    ['session', WHO, 'application/x-www-form-urlencoded'],
    ['session', '{"email":"maren@tarnthistle.example","password":"thistle-and-tarn"}', 'text/plain'],
    ['session/badge', 'badge=V-1005&pin=4105', 'application/x-www-form-urlencoded'],
    ['devices/enrol', 'code=ABCDEFGH', 'application/x-www-form-urlencoded'],
    ['door/reset', 'email=maren%40tarnthistle.example', 'application/x-www-form-urlencoded'],
  ])('does nothing at %s (%s as %s)', async (path, body, type) => {
    const answer = await house.http.post(`/api/${path}`).set('content-type', type).send(body);
    expect(answer.status).toBe(400);
    expect(answer.headers['set-cookie']).toBeUndefined();
  });

  it('is told apart from the same words as JSON', async () => {
    const answer = await house.http.post('/api/session').send({ email: 'maren@tarnthistle.example', password: 'thistle-and-tarn' });
    expect(answer.status).toBe(204);
    expect(answer.headers['set-cookie']).toBeDefined();
  });
});
