import { type Caller, House } from './house.js';

/** Ines works at Millrace only; Orla sees all sites. What lies at other sites is as if it were not there. */
let house: House;
let maren: Caller;
let ines: Caller;
let ruben: Caller;
beforeAll(async () => {
  house = await House.open();
  [maren, ines, ruben] = [await house.as('Maren'), await house.as('Ines'), await house.as('Ruben')];
  await house.stock('JAR-454-RD', 'A-01-1', 48);
  await house.stock('JAR-454-RD', 'M-01-1', 700);
});
afterAll(() => house.close());

const elsewhere = async () =>
  (
    await house.source.query<{ code: string; site_id: number }[]>(
      `SELECT code, site_id FROM place WHERE site_id <> 1 AND site_id IS NOT NULL AND kind IN ('dock','pick-face','reserve') ORDER BY id LIMIT 5`,
    )
  ).map((p) => p.code);

describe('a person of one site', () => {
  it('lists its places only, however the list is asked for', async () => {
    for (const query of ['', '?site=2', '?site=3', '?search=QUAY', '?state=blocked', '?sort=code']) {
      const { rows } = (await ines.get(`places${query}`).expect(200)).body as { rows: { siteId: number }[] };
      expect(rows.filter((r) => r.siteId !== 1)).toEqual([]);
    }
    const { rows } = (await maren.get('places?site=2').expect(200)).body as { rows: { siteId: number }[] };
    expect(rows.length).toBeGreaterThan(0);
  });

  it('opens none of the others', async () => {
    for (const code of await elsewhere()) {
      await maren.get(`places/${code}`).expect(200);
      await ines.get(`places/${code}`).expect(404);
    }
    await ines.get('plans/1').expect(200);
    for (const site of [2, 3]) await ines.get(`plans/${site}`).expect(403);
  });

  it('sees zones of that site only', async () => {
    const zones = (await ines.get('zones').expect(200)).body as { siteId: number }[];
    expect(zones.length).toBeGreaterThan(0);
    expect(zones.every((z) => z.siteId === 1)).toBe(true);
  });

  it('counts an item’s stock at that site only, in the list, on the sheet, in the sum and in its movements', async () => {
    const listed = async (who: Caller) =>
      ((await who.get('items?search=JAR-454-RD').expect(200)).body as { rows: { sku: string; onHand: number }[] }).rows[0]!.onHand;
    expect(await listed(maren)).toBe(748);
    expect(await listed(ines)).toBe(48);
    const stock = (await ines.get('items/JAR-454-RD/stock').expect(200)).body as {
      sites: { siteId: number }[];
      bins: { place: string }[];
    };
    expect(stock.sites.map((s) => s.siteId)).toEqual([1]);
    expect(stock.bins.map((b) => b.place)).toEqual(['A-01-1']);
    const farSite = (await house.source.query<{ site_id: number }[]>(`SELECT site_id FROM place WHERE code = 'M-01-1'`))[0]!.site_id;
    await maren.get(`items/JAR-454-RD/why/on-hand/${farSite}`).expect(200);
    await ines.get(`items/JAR-454-RD/why/on-hand/${farSite}`).expect(404);
    const moved = (await ines.get('items/JAR-454-RD/movements').expect(200)).body as { rows: { to: string }[] };
    expect(moved.rows.map((m) => m.to)).toEqual(['A-01-1']);
  });

  it('finds nothing of the others by searching', async () => {
    const [far] = await elsewhere();
    const found = async (who: Caller) => JSON.stringify((await who.get(`find?q=${far}`).expect(200)).body);
    expect(await found(maren)).toContain(far);
    expect(await found(ines)).not.toContain(far);
    const order = await house.order([['JAR-454-RD', 1]]);
    await house.source.query('UPDATE sales_order SET site_id = 2 WHERE code = ?', [order]);
    const opens = async (who: Caller) => ((await who.get(`find?q=${order}`).expect(200)).body as { opens: string | null }).opens;
    expect(await opens(maren)).toBe(`/orders/${order}`);
    expect(await opens(ines)).toBeNull();
    await house.source.query('UPDATE sales_order SET site_id = 1 WHERE code = ?', [order]);
  });

  it('sees nothing on the tape of what was done elsewhere', async () => {
    const sees = async (who: Caller) => JSON.stringify((await who.get('tape').expect(200)).body);
    await maren.post('places', { siteId: 3, code: 'FAR-1', kind: 'reserve', pickable: false }).expect(201);
    expect(await sees(maren)).toContain('FAR-1');
    expect(await sees(ines)).not.toContain('FAR-1');
  });
});

describe('what a person may not do', () => {
  it('is refused by name of the right, and leaves nothing', async () => {
    const places = async () => Number((await house.source.query<{ n: string }[]>('SELECT COUNT(*) AS n FROM place'))[0]!.n);
    const before = await places();
    const refusals = [
      ines.post('places', { siteId: 1, code: 'INES-1', kind: 'reserve', pickable: false }),
      ines.post('places/aisles', {
        siteId: 1,
        from: 'X',
        to: 'Y',
        bays: 2,
        levels: 2,
        pickLevels: 1,
        bayM: 2,
        x: 1,
        y: 1,
        gapM: 3,
        preview: false,
      }),
      ines.post('zones', { siteId: 1, code: 'INES', name: 'Mine', rule: 'none' }),
      ines.put('zones/COLD', { name: 'Mine', rule: 'none' }, { 'if-match': '"1"' }),
      ines.put('plans/1', { widthM: 10, depthM: 10, shapes: [], points: [] }, { 'if-match': '"1"' }),
      ines.put('company/settings/overPercent', { value: 50 }),
      ines.put('duties/picker/rights/set-up', { allowed: true }),
      ines.post('people', { name: 'X', email: 'x@x.example', duties: ['owner'], siteIds: [1], seesCosts: true, active: true }),
      ines.post('devices/enrolments', { name: 'Mine', siteId: 1 }),
      ines.post('labels/printers', { name: 'Mine', siteId: 1, address: '127.0.0.1:9100' }),
    ];
    for (const answer of await Promise.all(refusals)) {
      expect(answer.status).toBe(403);
      expect(answer.body).toMatchObject({ code: 'not-allowed' });
      expect((answer.body as { detail: string }).detail).toMatch(/^[A-Z].{15,}/);
    }
    expect(await places()).toBe(before);
  });

  it('is refused to nobody who may: a receiver ties barcodes, and changes no item', async () => {
    await ruben.post('items/JAR-227-RD/barcodes', { factor: 1, code: 'TIED-BY-RUBEN' }).expect(200);
    const item = (await maren.get('items/JAR-227-RD').expect(200)).body as { version: number };
    await ruben.put('items/JAR-227-RD', {}, { 'if-match': `"${item.version}"` }).expect(403);
    await ruben.post('items/change', { skus: ['JAR-227-RD'], field: 'className', value: 'Mine' }).expect((r) => {
      if (![403, 404].includes(r.status)) throw new Error(`answered ${r.status}`);
    });
    await ines.post('items/JAR-227-RD/barcodes', { factor: 1, code: 'TIED-BY-INES' }).expect(403);
  });
});

describe('what a person arranges for themselves', () => {
  it('is theirs alone', async () => {
    const value = { views: [{ name: 'Clothes', query: 'className=Clothing' }] };
    await ines.put('preferences/item-views', { value }).expect(204);
    expect((await ines.get('preferences/item-views').expect(200)).body).toEqual({ value });
    expect((await ruben.get('preferences/item-views').expect(200)).body).toEqual({ value: {} });
    await ines.put('preferences/item-views', { value: {} }).expect(204);
    expect((await ines.get('preferences/item-views').expect(200)).body).toEqual({ value: {} });
  });

  it('has a bound, and a name that is one', async () => {
    const much = await ines.put('preferences/item-views', { value: { views: ['x'.repeat(21_000)] } }).expect(400);
    expect(much.body).toMatchObject({ fields: { value: expect.stringContaining('too much') } });
    await ines.put('preferences/Item%20Views', { value: {} }).expect(400);
    await ines.put('preferences/item-views', { value: 'text' }).expect(400);
  });
});
