import { type Caller, House } from './house.js';
import { type Route, routesOf } from './routes.js';

const filled = (path: string) =>
  path
    .replace(/:id|:siteId/g, '1')
    .replace(':figure', 'available')
    .replace(/:\w+/g, 'X-1');

describe('who may use which route', () => {
  let house: House;
  let routes: Route[];

  beforeAll(async () => {
    house = await House.open();
    routes = routesOf(house);
  });
  afterAll(() => house.close());

  const call = (route: Route, cookie?: string) => {
    const request = house.http[route.method as 'get'](filled(route.path));
    return cookie ? request.set('cookie', cookie) : request;
  };

  it('finds the whole API', () => {
    expect(routes.length).toBeGreaterThan(50);
  });

  it('has a rule on every route', () => {
    expect(routes.filter((r) => !r.rights || r.rights.length === 0).map((r) => `${r.method} ${r.path}`)).toEqual([]);
  });

  it('turns everybody away who is not signed in, but for the door and signed messages', async () => {
    const open: string[] = [];
    for (const route of routes) {
      const answer = await call(route);
      if (answer.status !== 401) open.push(`${route.method} ${route.path}`);
      else expect(answer.body).toMatchObject({ code: expect.stringMatching(/signed-out|signature|sign-in/) });
    }
    expect(open.sort()).toEqual(
      routes
        .filter(
          (r) =>
            r.rights?.includes('public') &&
            !/session$|webhook|suppliers\/:code\/documents$|carriers\/:code\/events$|feeds\/(lists|day)/.test(r.path),
        )
        .map((r) => `${r.method} ${r.path}`)
        .concat('delete /api/session', 'post /api/session', 'post /api/channels/:code/webhook')
        .sort(),
    );
  });

  it('turns a bookkeeper away from every act but those of bills and invoices', async () => {
    const books = await house.http.post('/api/session').send({ email: 'beth@tarnthistle.example', password: 'thistle-and-tarn' });
    const cookie = String(books.headers['set-cookie']?.[0]).split(';')[0]!;
    const acts = routes.filter(
      (r) => !r.rights?.some((right) => right === 'public' || right === 'signed-in' || right === 'bills' || right === 'invoices'),
    );
    for (const route of acts) expect((await call(route, cookie)).status).toBe(403);
  });

  it('knows no session that it did not give out', async () => {
    const answer = await house.http.get('/api/session').set('cookie', 'vectrum_session=made-up').expect(401);
    expect(answer.body).toMatchObject({ code: 'signed-out' });
  });
});

describe('what changes something', () => {
  let house: House;
  let changing: Route[];
  beforeAll(async () => {
    house = await House.open();
    changing = routesOf(house).filter((r) => r.method !== 'get');
  });
  afterAll(() => house.close());

  const named = (r: Route) => `${r.method} ${r.path.replace('/api/', '')}`;

  it('happens once under its key, but for the door, signed messages that have a number of their own, and what changes nothing', () => {
    expect(
      changing
        .filter((r) => !r.wantsKey)
        .map(named)
        .sort(),
    ).toEqual(
      [
        'delete session',
        'post session',
        'post session/badge',
        'put session/secrets',
        'post door/reset',
        'post door/whose',
        'post door/choose',
        'post devices/enrol',
        'post first-owner',
        'post invoices/preview',
        'post channels/:code/documents',
        'post channels/:code/webhook',
        'post suppliers/:code/documents',
        'post carriers/:code/events',
        'post carriers/:code/try',
        'post count-rules/try',
        'post labels/pdf',
        'post labels/sample',
        // A preference is one's own, and the same however often it is kept.
        'put preferences/:name',
      ].sort(),
    );
  });

  it('says which version it saw, where what it writes takes the place of what another may have written', () => {
    const records = changing.filter((r) => ['put', 'patch'].includes(r.method) && r.wantsKey && !r.wantsVersion);
    // Each of these is one choice, or one thing whole: nothing that another wrote beside it is lost.
    expect(records.map(named).sort()).toEqual(
      [
        'put company/settings/:name',
        'put bench/parcels/:code/picture',
        'put company/series',
        'put duties/:duty/rights/:right',
        'put items/:sku/picture',
        'put mark',
        'put imports/:id/columns',
        'put receipts/:id/picture',
        'put tape/:id/picture',
        'patch devices/:id',
      ].sort(),
    );
  });

  it('is refused with the version that somebody has moved on from: a release too', async () => {
    await house.stock('JAR-454-RD', 'A-01-1', 20);
    const order = await house.order([['JAR-454-RD', 1]]);
    const maren = await house.as('Maren');
    await maren.post(`orders/${order}/release`).expect(428);
    await maren.post(`orders/${order}/release`, {}, { 'if-match': '"99"' }).expect(412);
  });
});

describe('costs', () => {
  let house: House;
  let seer: Caller;
  let blind: Caller;
  const COST = '17.773311';

  beforeAll(async () => {
    house = await House.open();
    seer = await house.as('Maren');
    blind = await house.as('Orla');
    await house.source.query('UPDATE item SET cost = ? WHERE sku = ?', [COST, 'JAR-454-RD']);
    await house.source.query('UPDATE supplier_item SET price = ?', [COST]);
    const made = await seer.post('purchase-orders', {
      supplier: 'QUILLON',
      siteId: 1,
      note: '',
      lines: [{ sku: 'JAR-454-RD', factor: 48, packs: 2, price: COST }],
    });
    await seer.post(`purchase-orders/${(made.body as { code: string }).code}/place`, {}, { 'if-match': '"1"' }).expect(200);
  });
  afterAll(() => house.close());

  const reads = [
    'items',
    'items/JAR-454-RD',
    'items/JAR-454-RD/stock',
    'items/JAR-454-RD/movements',
    'suppliers',
    'suppliers/QUILLON',
    'purchase-orders',
    'orders',
    'now',
    'line',
    'tape',
    'rounds',
    'floor/book?site=1',
    'bench/queue',
    'dispatch/lanes',
    'find?q=jar',
  ];

  it.each(reads)('are not in %s for a person without the right', async (path) => {
    const answer = await blind.get(path).expect(200);
    expect(answer.text).not.toContain(COST);
    expect(answer.text).not.toMatch(/"(cost|price|priceEach|goods)":"\d/);
  });

  it('are shown to a person with the right', async () => {
    expect((await seer.get('items/JAR-454-RD')).text).toContain(COST);
    expect((await seer.get('suppliers/QUILLON')).text).toContain(COST);
  });

  it('are on no route at all for a person without the right, whatever else they may do', async () => {
    await house.source.query(`UPDATE person SET duties = '["owner"]', sees_costs = 0 WHERE name = 'Corin Vail'`);
    await house.source.query('UPDATE item SET labour = ?, kind = ? WHERE sku = ?', [COST, 'assembly', 'NUC-STD']);
    await house.source.query('UPDATE item SET cost = ?', [COST]);
    await house.source.query('UPDATE item_site SET cost = ?', [COST]);
    await house.stock('JAR-454-RD', 'A-01-1', 3);
    const corin = await house.as('Corin');
    const order = ((await seer.get('purchase-orders')).body.rows as { code: string }[])[0]!.code;
    const fills: Record<string, string>[] = [
      { sku: 'JAR-454-RD', code: 'QUILLON', figure: 'available', name: 'items', kind: 'csv' },
      { sku: 'NUC-STD', code: order, figure: 'on-hand', name: 'prices', kind: 'csv' },
      { sku: 'JAR-454-RD', code: 'A-01-1', figure: 'incoming', name: 'stock', kind: 'csv' },
      { sku: 'JAR-454-RD', code: order, figure: 'projected', name: 'policies', kind: 'csv' },
    ];
    const leaks: string[] = [];
    let answered = 0;
    for (const route of routesOf(house).filter((r) => r.method === 'get' && !/live$/.test(r.path))) {
      for (const fill of fills) {
        const path = route.path.replace(/:(\w+)/g, (_, key: string) => fill[key] ?? '1').replace('/api/', '');
        const query = /floor|practice/.test(path) ? '?site=1' : '?sku=JAR-454-RD&code=JAR-454-RD&q=jar&limit=500&columns=name,cost';
        const answer = await corin.bytes(path + query);
        if (answer.status === 200) answered++;
        if (String(answer.body as Buffer).includes(COST)) leaks.push(path);
      }
    }
    expect(leaks).toEqual([]);
    expect(answered).toBeGreaterThan(60);
  });

  it('cannot be set by a person who may not see them', async () => {
    const { body } = (await seer.get('items/JAR-454-RD')) as {
      body: { version: number; packs: { name: string; plural: string; factor: number; barcodes: string[] }[] };
    };
    const packs = body.packs.map(({ name, plural, factor, barcodes }) => ({ name, plural, factor, barcodes }));
    const change = {
      sku: 'JAR-454-RD',
      name: 'Jar',
      className: 'Jars',
      picture: 'jar',
      tracking: 'none',
      rotation: 'fifo',
      cost: '1',
      neverHoldsUp: false,
      packs,
    };
    await blind.put('items/JAR-454-RD', change, { 'if-match': `"${body.version}"` }).expect(403);
    expect((await seer.get('items/JAR-454-RD')).text).toContain(COST);
  });
});

describe('sites', () => {
  let house: House;
  beforeAll(async () => {
    house = await House.open();
  });
  afterAll(() => house.close());

  it('are closed to people who have no business there', async () => {
    const ines = await house.as('Ines');
    await ines.get('floor/book?site=2').expect(403);
    await ines.get('floor/tasks/store/3').expect(403);
    await ines.get('places/QUAY-DOCK').expect(404);
    expect((await ines.get('places?search=QUAY')).body).toEqual({ rows: [], total: 0 });
  });

  it('hide their purchase orders from others', async () => {
    const piet = await house.as('Piet');
    const made = await piet
      .post('purchase-orders', {
        supplier: 'QUILLON',
        siteId: 2,
        note: '',
        lines: [{ sku: 'JAR-454-RD', factor: 48, packs: 2, price: '1' }],
      })
      .expect(201);
    const { code } = made.body as { code: string };
    const dilys = await house.as('Dilys');
    await dilys.get(`purchase-orders/${code}`).expect(404);
    await piet.get(`purchase-orders/${code}`).expect(200);
  });

  it('says of what is not there that it is not there, also to whoever would take it away', async () => {
    const maren = await house.as('Maren');
    const gone = [
      'inspection-rules/4000000',
      'checklists/4000000',
      'labels/designs/4000000',
      'items/NO-SUCH/picture',
      'order-files/4000000',
    ];
    for (const path of [...gone, 'items/JAR-454-RD/picture']) expect([path, (await maren.delete(path)).status]).toEqual([path, 404]);
  });
});
