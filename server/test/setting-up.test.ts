import { createServer } from 'node:net';
import { type Caller, House } from './house.js';

let house: House;
let maren: Caller;
beforeAll(async () => {
  house = await House.open({ SMTP_URL: 'smtp://127.0.0.1:1', VECTRUM_URL: 'https://stores.example.org' });
  maren = await house.as('Maren');
});
afterAll(() => house.close());

const said = (answer: { body: unknown }) => (answer.body as { detail: string }).detail;
const person = (more: object = {}) => ({
  name: 'Hattie Moss',
  email: 'hattie@tarnthistle.example',
  duties: ['picker'],
  siteIds: [1],
  seesCosts: false,
  active: true,
  ...more,
});

interface Person {
  id: number;
  email: string;
  state: string;
  badge: string;
  version: number;
  sessions: number;
  duties: string[];
}
const people = async () => (await maren.get('people').expect(200)).body as Person[];
const called = async (email: string) => (await people()).find((p) => p.email === email)!;

/** Delivers the mail to a stand-in server, and returns the links in it. */
async function linksMailed(): Promise<string[]> {
  const heard: string[] = [];
  const server = createServer((socket) => {
    let data = false;
    socket.write('220 here\r\n');
    socket.on('data', (part: Buffer) => {
      for (const line of part.toString().split('\r\n')) {
        if (data) {
          heard.push(line);
          if (line === '.') {
            data = false;
            socket.write('250 taken\r\n');
          }
        } else if (line === 'DATA') {
          data = true;
          socket.write('354 go on\r\n');
        } else if (line !== '') socket.write(line === 'QUIT' ? '221 bye\r\n' : '250 yes\r\n');
      }
    });
  });
  await new Promise<void>((done) => server.listen(2599, '127.0.0.1', done));
  const { Mailer } = await import('../src/platform/mailer.js');
  Object.assign(house.app.get(Mailer), {
    transport: undefined,
    config: { SMTP_URL: 'smtp://127.0.0.1:2599', MAIL_FROM: 'stores@tarnthistle.example' },
  });
  await house.source.query(`UPDATE outbox SET next_at = UTC_TIMESTAMP(3) WHERE state <> 'done'`);
  await house.deliver();
  await new Promise((done) => server.close(done));
  return [
    ...heard
      .join('\n')
      .replace(/=\n/g, '')
      .matchAll(/https:\/\/stores\.example\.org\/welcome#([\w-]+)/g),
  ].map((m) => m[1]!);
}
const signIn = (email: string, password: string) => house.http.post('/api/session').send({ email, password });

describe('people', () => {
  it('are invited by mail, choose a password once, and come in', async () => {
    await maren.post('people', person()).expect(201);
    expect(await called('hattie@tarnthistle.example')).toMatchObject({ state: 'invited', badge: expect.stringMatching(/^V-\d{8}$/) });
    await signIn('hattie@tarnthistle.example', '').expect(400);
    await signIn('hattie@tarnthistle.example', 'anything-at-all').expect(401);
    const [token] = await linksMailed();
    expect((await house.http.post('/api/door/whose').send({ token }).expect(200)).body).toMatchObject({
      name: 'Hattie Moss',
      purpose: 'invite',
    });
    await house.http.post('/api/door/choose').send({ token, password: 'short' }).expect(400);
    await house.http.post('/api/door/choose').send({ token, password: 'bees-and-thistles', pin: '2468' }).expect(204);
    await house.http.post('/api/door/choose').send({ token, password: 'another-password' }).expect(403);
    await signIn('hattie@tarnthistle.example', 'bees-and-thistles').expect(204);
    expect(await called('hattie@tarnthistle.example')).toMatchObject({ state: 'here', sessions: 1 });
  });

  it('keep no token in the clear, not even in the outbox', async () => {
    await maren.post(`people/${(await called('hattie@tarnthistle.example')).id}/remind`).expect(204);
    const [token] = await linksMailed();
    const kept =
      JSON.stringify(await house.source.query('SELECT payload FROM outbox')) +
      JSON.stringify(await house.source.query('SELECT * FROM person_token'));
    expect(kept).not.toContain(token);
  });

  it('reset a forgotten password by mail, a few times an hour; a stranger learns nothing', async () => {
    const before = Number((await house.source.query<{ n: string }[]>('SELECT COUNT(*) AS n FROM outbox'))[0]!.n);
    await house.http.post('/api/door/reset').send({ email: 'nobody@nowhere.example' }).expect(204);
    for (let i = 0; i < 9; i++) await house.http.post('/api/door/reset').send({ email: 'Joss@tarnthistle.example' }).expect(204);
    const after = Number((await house.source.query<{ n: string }[]>('SELECT COUNT(*) AS n FROM outbox'))[0]!.n);
    expect(after - before).toBe(4);
    const tokens = await linksMailed();
    await house.http.post('/api/door/choose').send({ token: tokens[0], password: 'a-new-password' }).expect(204);
    await signIn('joss@tarnthistle.example', 'a-new-password').expect(204);
    // One link used up all of them.
    await house.http.post('/api/door/choose').send({ token: tokens[1], password: 'yet-another-one' }).expect(403);
  });

  it('change their own password, proving the old one; other devices are signed out', async () => {
    const [here, there] = [await house.as('Ines'), await house.as('Ines')];
    await here.put('session/secrets', { current: 'wrong', password: 'longer-than-ten' }).expect(400);
    await here.put('session/secrets', { current: 'thistle-and-tarn', password: 'longer-than-ten' }).expect(204);
    await here.get('session').expect(200);
    await there.get('session').expect(401);
  });

  it('are signed out everywhere at once when somebody says so, or when they leave', async () => {
    const ruben = await house.as('Ruben');
    const { id, version } = await called('ruben@tarnthistle.example');
    await maren.post(`people/${id}/sign-out`).expect(204);
    await ruben.get('session').expect(401);
    const again = await house.as('Ruben');
    await maren
      .put(`people/${id}`, person({ name: 'Ruben Tay', email: 'ruben@tarnthistle.example', duties: ['receiver'], active: false }), {
        'if-match': `"${version}"`,
      })
      .expect(204);
    await again.get('session').expect(401);
    await signIn('ruben@tarnthistle.example', 'thistle-and-tarn').expect(401);
  });

  it('never leave the house without anybody who sets up people', async () => {
    const { id, version } = await called('maren@tarnthistle.example');
    const answer = await maren
      .put(`people/${id}`, person({ name: 'Maren Holt', email: 'maren@tarnthistle.example', duties: ['buyer'] }), {
        'if-match': `"${version}"`,
      })
      .expect(409);
    expect(said(answer)).toContain('Somebody must be left');
    await maren.get('people').expect(200);
  });

  it.each([
    ['an address that is taken', { email: 'piet@tarnthistle.example' }, 'email'],
    ['no address', { email: 'x' }, 'email'],
    ['a duty that there is not', { email: 'n@x.example', duties: ['king'] }, 'duties'],
    ['a usual site that is not theirs', { email: 'n@x.example', usualSiteId: 2 }, 'usualSiteId'],
    ['a usual duty that is not theirs', { email: 'n@x.example', usualDuty: 'buyer' }, 'usualDuty'],
    ['a site where the one who sets up is not', { email: 'n@x.example', siteIds: [99] }, 'siteIds'],
  ])('are refused with %s', async (_, more, field) => {
    const answer = await maren.post('people', person(more)).expect(400);
    expect(Object.keys((answer.body as { fields: object }).fields)).toContain(field);
  });

  it('see their usual site first', async () => {
    const { id, version } = await called('orla@tarnthistle.example');
    await maren
      .put(
        `people/${id}`,
        person({ name: 'Orla Finch', email: 'orla@tarnthistle.example', duties: ['order-desk'], siteIds: [1, 2, 3], usualSiteId: 3 }),
        { 'if-match': `"${version}"` },
      )
      .expect(204);
    expect((await (await house.as('Orla')).get('session')).body).toMatchObject({
      sites: [{ code: 'BARN' }, { code: 'MILL' }, { code: 'QUAY' }],
    });
  });
});

describe('duties', () => {
  const allow = (duty: string, right: string, allowed: boolean) => maren.put(`duties/${duty}/rights/${right}`, { allowed });
  it('allow what the matrix says, from the next request on', async () => {
    const dilys = await house.as('Dilys');
    await dilys.post('items', {}).expect(403);
    await allow('packer', 'items', true).expect(204);
    await dilys.post('items', {}).expect(400);
    await allow('packer', 'items', false).expect(204);
    await dilys.post('items', {}).expect(403);
  });
  it('leave the owner every right, and know no others', async () => {
    await allow('owner', 'items', false).expect(409);
    await allow('picker', 'fly', true).expect(404);
    await allow('pirate', 'pick', true).expect(404);
  });
  it('are adjusted by two people at once, and both count', async () => {
    await Promise.all([allow('counter', 'items', true), allow('counter', 'pack', true)]);
    const { duties } = (await maren.get('duties')).body as { duties: { duty: string; rights: string[] }[] };
    expect(duties.find((d) => d.duty === 'counter')?.rights).toEqual(expect.arrayContaining(['items', 'pack']));
    await Promise.all([allow('counter', 'items', false), allow('counter', 'pack', false)]);
  });
});

describe('the company', () => {
  const setting = async (name: string) =>
    ((await maren.get('company/settings')).body as { name: string; value: string }[]).find((s) => s.name === name)!.value;

  it('says of each choice what it changes, and refuses a value that makes no sense', async () => {
    const all = (await maren.get('company/settings').expect(200)).body as { says: string; name: string }[];
    expect(all.every((s) => s.says.length > 20)).toBe(true);
    for (const [name, value] of [
      ['overPercent', '101'],
      ['overPercent', '2.5'],
      ['fillRemaining', 'maybe'],
      ['inHousePrefix', '77'],
      ['homeCurrency', 'pounds'],
      ['nothing', '1'],
    ])
      await maren.put(`company/settings/${name}`, { value }).expect(400);
    await maren.put('company/settings/homeCurrency', { value: 'EUR' }).expect(204);
    expect(await setting('homeCurrency')).toBe('EUR');
  });

  it('decides how many too many the dock accepts, and whether the rest is filled in', async () => {
    const made = (
      await maren
        .post('purchase-orders', {
          supplier: 'QUILLON',
          siteId: 1,
          expectedOn: null,
          note: '',
          lines: [{ sku: 'JAR-454-RD', packs: 2, factor: 48, price: '20' }],
        })
        .expect(201)
    ).body as {
      code: string;
    };
    await maren.post(`purchase-orders/${made.code}/place`, {}, { 'if-match': '"1"' }).expect(200);
    await maren.put('company/settings/overPercent', { value: '50' }).expect(204);
    await maren.put('company/settings/fillRemaining', { value: 'true' }).expect(204);
    expect(await maren.task('receive', made.code)).toMatchObject({ overPercent: 50, fillRemaining: true });
  });

  it('decides whether pickers may choose their round', async () => {
    await house.stock('JAR-454-RD', 'A-01-1', 50);
    const soon = await house.order([['JAR-454-RD', 1]], { promisedAt: new Date(Date.now() + 3_600_000).toISOString() });
    const later = await house.order([['JAR-454-RD', 1]], { promisedAt: new Date(Date.now() + 90_000_000).toISOString() });
    const [first, second] = [await house.release(soon), await house.release(later)];
    const dilys = await house.as('Maren');
    await maren.put('company/settings/ownChoice', { value: 'false' }).expect(204);
    expect(said(await dilys.floor({ kind: 'take', round: second }).expect(409))).toContain(`${first} comes first`);
    await maren.put('company/settings/ownChoice', { value: 'true' }).expect(204);
    await dilys.floor({ kind: 'take', round: second }).expect(200);
  });

  it('promises by each site’s working days and departures', async () => {
    const [mill] = (await maren.get('company/calendars').expect(200)).body as { siteId: number; version: number }[];
    const edit = (body: object) =>
      maren.put(`company/calendars/${mill!.siteId}`, { timeZone: 'Europe/London', ...body }, { 'if-match': `"${mill!.version}"` });
    await edit({ workingDays: 'NNNNNNN', departures: [] }).expect(400);
    await edit({ workingDays: 'YYYYYYY', departures: [], timeZone: 'Moon/Crater' }).expect(400);
    await edit({ workingDays: 'YYYYYYY', departures: [{ name: 'Night van', leavesAt: '23:59', closesMinutes: 0, carrier: '' }] }).expect(
      204,
    );
    await edit({ workingDays: 'YYYYYYY', departures: [] }).expect(412);
    const code = await house.order([['JAR-454-RD', 1]]);
    expect(((await maren.get(`orders/${code}`)).body as { promisedAt: string }).promisedAt).toMatch(/T2[23]:59:00/);
  });

  it('moves number series on, never back', async () => {
    await maren.put('company/series', { name: 'S', number: 90_000 }).expect(204);
    expect(await house.order([['JAR-454-RD', 1]])).toBe('S-90000');
    expect(said(await maren.put('company/series', { name: 'S', number: 5 }).expect(409))).toContain('S-90000 was given already');
  });

  it('keeps a tax that items have', async () => {
    const { version } = (await maren.get('company/money')).body as { version: number };
    const seen = { 'if-match': `"${version}"` };
    expect(said(await maren.put('company/money', { currencies: [], taxRates: [] }, seen).expect(409))).toContain('must stay');
    await maren.put('company/money', { currencies: [{ code: 'EUR', rate: '0', asOf: '2026-01-01' }], taxRates: [] }, seen).expect(400);
  });

  it('gains a site with a dock and a table, where its maker works', async () => {
    await maren.post('company/sites', { code: 'loft', name: 'The Loft' }).expect(201);
    await maren.post('company/sites', { code: 'LOFT', name: 'Again' }).expect(400);
    expect((await maren.get('places/LOFT-DOCK').expect(200)).body).toMatchObject({ kind: 'dock', site: 'The Loft' });
  });
});

describe('devices', () => {
  it('are named and given a printer of their own site', async () => {
    const { code } = (await maren.post('devices/enrolments', { siteId: 1, name: 'Phone 9' }).expect(201)).body as { code: string };
    await house.http.post('/api/devices/enrol').send({ code }).expect(204);
    const { id: here } = (await maren.post('labels/printers', { name: 'Here', siteId: 1, address: '192.0.2.1:9100' }).expect(201)).body as {
      id: number;
    };
    const { id: far } = (await maren.post('labels/printers', { name: 'Far', siteId: 2, address: '192.0.2.2:9100' }).expect(201)).body as {
      id: number;
    };
    const device = ((await maren.get('devices')).body as { id: number; name: string }[]).find((d) => d.name === 'Phone 9')!;
    await maren.patch(`devices/${device.id}`, { name: 'Phone 9, dock', printerId: far }).expect(400);
    await maren.patch(`devices/${device.id}`, { name: 'Phone 9, dock', printerId: here }).expect(204);
    expect((await maren.get('devices')).body).toContainEqual(expect.objectContaining({ name: 'Phone 9, dock', printer: 'Here' }));
  });
});
