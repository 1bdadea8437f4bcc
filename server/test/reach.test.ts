import { randomUUID } from 'node:crypto';
import { type Caller, House, receipt } from './house.js';
import { checked, settled } from './importing.js';
import { routesOf } from './routes.js';

/** Everything at the far site carries this in its name. */
const FAR = 'FARSIDE';
const FAR_SITE = 3;
const DUTIES = ['buyer', 'order-desk', 'receiver', 'storer', 'picker', 'packer', 'counter', 'reviewer', 'bookkeeper', 'set-up'];

let house: House;
let maren: Caller;
/** Codes of documents of the far site, by the word that its route uses. */
const far: Record<string, string> = {};

beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
  await house.source.query(`UPDATE site SET name = '${FAR}', code = 'FARS' WHERE id = ${FAR_SITE}`);
  await house.source.query(`UPDATE place SET code = CONCAT('${FAR}-', id), name = '${FAR}' WHERE site_id = ${FAR_SITE}`);
  await maren
    .post('channels', {
      code: FAR,
      name: FAR,
      kind: 'phone',
      siteId: FAR_SITE,
      baseUrl: null,
      listings: [{ sku: 'JAR-454-RD', channelSku: 'JAR-454-RD', factor: 1, keepBack: 0, price: '1' }],
    })
    .expect(201);
  await maren.post('labels/printers', { name: FAR, siteId: FAR_SITE, address: '127.0.0.1:9' }).expect(201);
  await maren.post('devices/enrolments', { name: FAR, siteId: FAR_SITE }).expect(201);
  await maren.post('people', {
    name: FAR,
    email: `${FAR}@mail.example`,
    duties: ['picker'],
    siteIds: [FAR_SITE],
    seesCosts: false,
    active: true,
  });
  const sku = 'JAR-454-RD';
  const bin = (
    await house.source.query<{ code: string; id: number }[]>(
      `SELECT id, code FROM place WHERE site_id = ${FAR_SITE} AND kind = 'pick-face' AND pickable = 1 ORDER BY id DESC LIMIT 1`,
    )
  )[0]!;
  const dock = (
    await house.source.query<{ code: string; id: number }[]>(
      `SELECT id, code FROM place WHERE site_id = ${FAR_SITE} AND kind = 'dock' LIMIT 1`,
    )
  )[0]!;
  far['place'] = bin.code;
  await house.stock(sku, bin.code, 40);
  await house.source.query(`REPLACE INTO item_site (item_id, site_id, home_place_id, reorder_point) VALUES (?, ?, ?, 77)`, [
    await house.itemId(sku),
    FAR_SITE,
    bin.id,
  ]);
  await house.source.query(
    `INSERT INTO plan_shape (site_id, kind, label, x_m, y_m, to_x_m, to_y_m) VALUES (${FAR_SITE}, 'wall', '${FAR}', 1, 1, 2, 2)`,
  );
  await house.source
    .query(`INSERT INTO carrier_lane (carrier_id, site_id, place_id) SELECT 1, ${FAR_SITE}, id FROM place WHERE id = ${bin.id}`)
    .catch(() => undefined);
  far['order'] = await house.order([[sku, 2]], { channel: FAR, ref: `${FAR}-1` });
  far['round'] = await house.release(far['order']);
  const made = await maren.post('purchase-orders', {
    supplier: 'QUILLON',
    siteId: FAR_SITE,
    note: FAR,
    lines: [{ sku, factor: 48, packs: 2, price: '1' }],
  });
  far['purchase-order'] = (made.body as { code: string }).code;
  await maren.post(`purchase-orders/${far['purchase-order']}/place`, {}, { 'if-match': '"1"' }).expect(200);
  const { lines } = await maren.task<{ lines: { lineId: number; itemId: number }[] }>('receive', far['purchase-order']);
  const goods = { lineId: lines[0]!.lineId, itemId: lines[0]!.itemId, units: 48, toPlaceId: dock.id };
  far['arrival'] = ((await maren.floor(receipt(far['purchase-order'], goods)).expect(200)).body as { arrival: string }).arrival;
  const bill = {
    supplier: 'QUILLON',
    ref: FAR,
    billedOn: '2026-05-14',
    note: FAR,
    goods: [],
    charges: [{ order: far['purchase-order'], says: FAR, amount: '45.00', by: 'value' }],
  };
  far['bill'] = ((await maren.post('bills', bill).expect(201)).body as { code: string }).code;
});
afterAll(() => house.close());

/** Corin, as one who has these duties at the first site only. */
async function as(duties: readonly string[], seesCosts: boolean): Promise<Caller> {
  await house.source.query(`UPDATE person SET duties = ?, sees_costs = ?, usual_site_id = NULL WHERE name = 'Corin Vail'`, [
    JSON.stringify(duties),
    seesCosts ? 1 : 0,
  ]);
  await house.source.query(`DELETE FROM person_site WHERE site_id <> 1 AND person_id = (SELECT id FROM person WHERE name = 'Corin Vail')`);
  return house.as('Corin');
}

/** Rights only add up: who has all duties at one site reads all that anybody there does. */
const KINDS: [string, string[], boolean][] = [
  ['no right at all', [], false],
  ['all duties but the owner’s', DUTIES, false],
  ['all duties but the owner’s, with costs', DUTIES, true],
];

describe('whoever works at one site', () => {
  it.each(KINDS)('reads nothing of another on any route or in any file: %s', async (_, duties, seesCosts) => {
    const caller = await as(duties, seesCosts);
    const codes = [...Object.values(far), 'NONE'];
    const leaks: string[] = [];
    let answered = 0;
    const kinds = ((await maren.get('imports/kinds').expect(200)).body as { kind: string }[]).map((k) => k.kind);
    const lists = [
      'carriers',
      'boxes',
      'orders',
      'rounds',
      'channels',
      'customers',
      'places',
      'people',
      'devices',
      'tape',
      'suppliers',
      'items',
      'movements',
      'purchase-orders',
    ];
    for (const route of routesOf(house).filter((r) => r.method === 'get' && !/live$|zip$/.test(r.path))) {
      const fills: Record<string, string>[] = /lists/.test(route.path)
        ? lists.map((name) => ({ name, kind: 'csv' }))
        : /data/.test(route.path)
          ? kinds.map((name) => ({ name, kind: 'csv' }))
          : /:code/.test(route.path)
            ? codes.map((code) => ({ code }))
            : /:(id|siteId)/.test(route.path)
              ? ['1', '2', '3'].map((id) => ({ id, siteId: id, figure: 'on-hand' }))
              : [{}];
      for (const fill of fills) {
        const path = route.path
          .replace(/:(\w+)/g, (__, key: string) => fill[key] ?? { sku: 'JAR-454-RD', key: '1' }[key] ?? '1')
          .replace('/api/', '');
        for (const query of [
          `?sku=JAR-454-RD&code=${far['place']}&q=${FAR}&limit=500&search=`,
          `?q=${far['order']}&search=${FAR}&site=${FAR_SITE}&kind=`,
        ]) {
          const answer = await caller.bytes(path + query);
          if (answer.status === 200) answered++;
          // The one code that was looked up is said again; what is known of it is not.
          const told = answer.status === 200 ? String(answer.body as Buffer).replaceAll(`"${far['place']}"`, '') : '';
          if (told.includes(FAR) || Object.values(far).some((code) => told.includes(`"${code}"`))) leaks.push(path);
        }
      }
    }
    expect([...new Set(leaks)]).toEqual([]);
    expect(answered).toBeGreaterThan(30);
  });
});

describe('whoever sets up one site', () => {
  /** What each kind of file could change at another site. */
  const TRIES: [kind: string, heads: string, row: () => string, says: RegExp][] = [
    ['sites', 'Site,Site name', () => 'FARS,Taken', /not set up/],
    ['plan', 'Site,Drawn,Label,"From x, m","From y, m","To x, m","To y, m"', () => 'FARS,wall,Mine,1,1,2,2', /no site FARS/],
    ['zones', 'Zone,Zone name,Site', () => 'NEWZONE,Mine,FARS', /no site FARS/],
    ['walls', 'Wall,Site,Slots in a row', () => 'NEWWALL,FARS,4', /no site FARS/],
    ['places', 'Place,Site,Blocked', () => `${far['place']},MILL,yes`, /not set up/],
    ['places', 'Place,Site', () => 'NEW-1,FARS', /no site FARS/],
    ['policies', 'SKU,Site,Reorder point', () => 'JAR-454-RD,FARS,1', /no site FARS/],
    ['policies', 'SKU,Site,Home bin', () => `JAR-454-RD,MILL,${far['place']}`, /no place/],
    ['demand', 'SKU,Site,Week,Units asked for', () => 'JAR-454-RD,FARS,2026-W05,9', /no site FARS/],
    ['buying-rules', 'Class,Site,"Ordered every, days"', () => 'Books,FARS,9', /no site FARS/],
    ['buying-rules', 'Class,"Ordered every, days"', () => 'Books,9', /at all of them/],
    ['lanes', 'Carrier,Site,Lane', () => `HARRIER,FARS,${far['place']}`, /no site FARS/],
    ['channels', 'Channel,Name,Kind of channel,Site', () => `${FAR},Mine,phone,MILL`, /not set up/],
    ['channels', 'Channel,Name,Kind of channel,Site', () => 'NEWCH,Mine,phone,FARS', /no site FARS/],
    ['listings', 'Channel,Channel’s code,SKU,Price', () => `${FAR},MINE,BOK-WAX,1`, /no channel/],
    ['stock', 'SKU,Place,Count', () => `BOK-WAX,${far['place']},4`, /not set up/],
  ];

  it.each(TRIES)('changes nothing of another by a file of %s (%s)', async (kind, heads, row, says) => {
    const caller = await as(DUTIES, false);
    const run = await checked(house, caller, 'far.csv', `${heads}\n${row()}\n`, { kind });
    expect(run.faults.map((f) => f.reason).join('; ')).toMatch(says);
    expect(run.faulty).toBe(1);
  });

  it('joins no site that was there before by a file of sites', async () => {
    const caller = await as(DUTIES, false);
    const run = await checked(house, caller, 'sites.csv', 'Site,Site name\nNEWS,New site\n', { kind: 'sites' });
    await caller.post(`imports/${run.id}/apply`, { goodRowsOnly: false }).expect(204);
    expect(await settled(house, caller, run.id)).toMatchObject({ state: 'applied' });
    const { sites } = (await caller.get('session').expect(200)).body as { sites: { code: string }[] };
    expect(sites.map((s) => s.code).sort()).toEqual(['MILL', 'NEWS']);
    await caller.post(`imports/${run.id}/undo`).expect(204);
  });

  it('goes on with no import of another', async () => {
    const run = await checked(house, maren, 'mine.csv', 'SKU,Name\nMINE-1,Mine\n', { kind: 'items' });
    const caller = await as(DUTIES, false);
    await caller.get(`imports/${run.id}`).expect(404);
    await caller.post(`imports/${run.id}/apply`, { goodRowsOnly: false }).expect(404);
    await caller.post(`imports/${run.id}/undo`).expect(404);
    expect(JSON.stringify((await caller.get('imports').expect(200)).body)).not.toContain(run.id);
  });

  it('sends nothing again that leaves from another', async () => {
    const caller = await as(DUTIES, false);
    const [row] = await house.source.query<{ id: number }[]>(
      `SELECT id FROM outbox WHERE site_id = ${FAR_SITE} OR site_id IS NULL LIMIT 1`,
    );
    await caller.post(`outbox/${row!.id}/retry`).expect(404);
  });
});

interface Listed {
  id: number;
  name: string;
  email: string;
  duties: string[];
  siteIds: number[];
  seesCosts: boolean;
  version: number;
  asked: { email: string | null; duties: string[] | null; by: string } | null;
}

describe('nobody gives or takes more than they have', () => {
  const person = async (by: Caller, name: string) =>
    ((await by.get('people').expect(200)).body as Listed[]).find((p) => p.name.startsWith(name))!;
  const change = async (by: Caller, name: string, more: object) => {
    const { version, id, ...p } = await person(maren, name);
    const body = {
      name: p.name,
      email: p.email,
      duties: p.duties,
      siteIds: p.siteIds.filter((s) => s === 1),
      seesCosts: p.seesCosts,
      active: true,
    };
    return by.put(`people/${id}`, { ...body, ...more }, { 'if-match': `"${version}"` });
  };
  const invite = (by: Caller, more: object) =>
    by.post('people', {
      name: 'New',
      email: `${randomUUID()}@mail.example`,
      duties: [],
      siteIds: [1],
      seesCosts: false,
      active: true,
      ...more,
    });
  const fields = (answer: { body: unknown }) => Object.keys((answer.body as { fields?: object }).fields ?? {});

  it('when somebody is invited', async () => {
    const setter = await as(['set-up'], false);
    for (const [more, field] of [
      [{ duties: ['owner'] }, 'duties'],
      [{ duties: ['buyer'] }, 'duties'],
      [{ seesCosts: true }, 'seesCosts'],
      [{ siteIds: [FAR_SITE] }, 'siteIds'],
    ] as const) {
      const answer = await invite(setter, more);
      expect([answer.status, fields(answer)]).toEqual([400, [field]]);
    }
    await invite(setter, { duties: ['set-up'] }).expect(201);
  });

  it('when somebody is changed, themselves or another', async () => {
    const setter = await as(['set-up'], false);
    expect(fields(await change(setter, 'Corin', { duties: ['set-up', 'owner'] }))).toEqual(['duties']);
    expect(fields(await change(setter, 'Corin', { duties: ['set-up', 'bookkeeper'] }))).toEqual(['duties']);
    expect(fields(await change(setter, 'Corin', { seesCosts: true }))).toEqual(['seesCosts']);
    expect(fields(await change(setter, 'Corin', { siteIds: [1, 2] }))).toEqual(['siteIds']);
    expect(fields(await change(setter, 'Maren', { duties: ['set-up'] }))).toEqual(['duties']);
    expect((await change(setter, 'Maren', { active: false })).status).toBe(409);
    expect((await change(setter, 'Maren', { email: 'mine@mail.example' })).status).toBe(409);
    expect((await person(maren, 'Maren')).email).toBe('maren@tarnthistle.example');
  });

  it('and what a duty allows is an owner’s to say', async () => {
    const setter = await as(DUTIES, true);
    await setter.put('duties/set-up/rights/bills', { allowed: true }).expect(403);
    await maren.put('duties/picker/rights/items', { allowed: true }).expect(204);
    await maren.put('duties/picker/rights/items', { allowed: false }).expect(204);
  });

  it('and whom they do not see they do not change', async () => {
    const setter = await as(DUTIES, false);
    const { id, version } = await person(maren, FAR);
    expect(await person(setter, FAR)).toBeUndefined();
    const body = { name: 'X', email: 'x@mail.example', duties: [], siteIds: [1], seesCosts: false, active: true };
    await setter.put(`people/${id}`, body, { 'if-match': `"${version}"` }).expect(404);
    await setter.post(`people/${id}/remind`).expect(404);
    await setter.post(`people/${id}/sign-out`).expect(404);
  });
});

describe('another address or other duties', () => {
  const listed = async (name: string) => ((await maren.get('people').expect(200)).body as Listed[]).find((p) => p.name.startsWith(name))!;
  const ask = async (by: Caller, name: string, more: object) => {
    const { version, id, ...p } = await listed(name);
    const body = { name: p.name, email: p.email, duties: p.duties, siteIds: [1], seesCosts: p.seesCosts, active: true, ...more };
    await by.put(`people/${id}`, body, { 'if-match': `"${version}"` }).expect(204);
    return id;
  };

  it('wait for the person, who is told at the address they have', async () => {
    const setter = await as(DUTIES, false);
    const id = await ask(setter, 'Ines', { email: 'thief@mail.example' });
    expect(await listed('Ines')).toMatchObject({ email: 'ines@tarnthistle.example', asked: { email: 'thief@mail.example', duties: null } });
    const mails = await house.outbox('mail.person-change');
    expect(mails.at(-1)).toMatchObject({ to: 'ines@tarnthistle.example', text: expect.stringContaining('thief@mail.example') });
    await setter.post(`people/${id}/change`, { agree: true }).expect(403);
    const ines = await house.as('Ines');
    expect((await ines.get('session').expect(200)).body).toMatchObject({ asked: { email: 'thief@mail.example', by: 'Corin Vail' } });
    await ines.post('session/change', { agree: false }).expect(204);
    expect(await listed('Ines')).toMatchObject({ email: 'ines@tarnthistle.example', asked: null });
    await ines.post('session/change', { agree: true }).expect(404);
  });

  it('are taken back by whoever asked, and agreed to by the person or an owner', async () => {
    const setter = await as(DUTIES, false);
    const id = await ask(setter, 'Ines', { duties: ['picker', 'packer'] });
    await setter.post(`people/${id}/change`, { agree: false }).expect(204);
    await ask(setter, 'Ines', { duties: ['picker', 'packer'] });
    expect((await listed('Ines')).duties).not.toContain('packer');
    await maren.post(`people/${id}/change`, { agree: true }).expect(204);
    expect((await listed('Ines')).duties).toEqual(['picker', 'packer']);
  });

  it('are not agreed to once whoever asked has lost what they asked for, but by an owner', async () => {
    const setter = await as(DUTIES, false);
    const id = await ask(setter, 'Joss', { duties: ['picker', 'buyer'] });
    await as(['set-up'], false);
    const joss = await house.as('Joss');
    const refused = await joss.post('session/change', { agree: true }).expect(409);
    expect(refused.body).toMatchObject({ detail: expect.stringContaining('not ask for it any more') });
    expect((await listed('Joss')).duties).toEqual(['picker']);
    await maren.post(`people/${id}/change`, { agree: true }).expect(204);
    expect((await listed('Joss')).duties).toEqual(['picker', 'buyer']);
  });

  it('count at once where an owner changes them, and links that went to the address before are void', async () => {
    const id = await ask(maren, 'Ruben', { email: 'ruben.tay@mail.example' });
    expect((await listed('Ruben')).email).toBe('ruben.tay@mail.example');
    expect((await house.outbox('mail.person-change')).at(-1)).toMatchObject({ to: 'ruben@tarnthistle.example' });
    const open = await house.source.query('SELECT 1 FROM person_token WHERE person_id = ? AND used_at IS NULL', [id]);
    expect(open).toEqual([]);
  });
});
