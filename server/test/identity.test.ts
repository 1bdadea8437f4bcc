import { DEMO_PASSWORD, DEMO_PEOPLE } from '../src/demo/people.js';
import { one } from '../src/platform/database/tx.js';
import { House } from './house.js';

const cookieOf = (answer: { headers: Record<string, unknown> }) =>
  String((answer.headers['set-cookie'] as string[] | undefined)?.[0]).split(';')[0]!;

describe('signing in', () => {
  let house: House;
  beforeAll(async () => {
    house = await House.open();
  });
  afterAll(() => house.close());

  const signIn = (email: string, password: string) => house.http.post('/api/session').send({ email, password });

  it('keeps the session in a cookie that scripts and other sites cannot use', async () => {
    const answer = await signIn('Maren@TarnThistle.example', 'thistle-and-tarn').expect(204);
    const cookie = String(answer.headers['set-cookie']?.[0]);
    expect(cookie).toContain('HttpOnly');
    expect(cookie).toContain('SameSite=Strict');
    const me = await house.http.get('/api/session').set('cookie', cookieOf(answer)).expect(200);
    expect(me.body).toMatchObject({ name: 'Maren Holt', seesCosts: true, sites: [{ code: 'MILL' }, { code: 'QUAY' }, { code: 'BARN' }] });
  });

  it('says the same of a wrong password and an unknown address', async () => {
    const wrong = await signIn('piet@tarnthistle.example', 'nope').expect(401);
    const nobody = await signIn('nobody@tarnthistle.example', 'nope').expect(401);
    expect((wrong.body as { detail: string }).detail).toBe((nobody.body as { detail: string }).detail);
  });

  it('locks an account after many wrong tries, even for the right password, and one that is nobody’s alike', async () => {
    for (const who of ['beth', 'nobody-at-all']) {
      const said = [];
      for (let i = 0; i < 8; i++) said.push((await signIn(`${who}@tarnthistle.example`, 'nope')).status);
      expect(said).toEqual([401, 401, 401, 401, 401, 401, 429, 429]);
      const answer = await signIn(`${who}@tarnthistle.example`, 'thistle-and-tarn').expect(429);
      expect((answer.body as { detail: string }).detail).toMatch(/^Too many wrong tries. Wait 1\d seconds/);
    }
  });

  it('lets everybody in who comes at once with the right password, from one address', async () => {
    const emails = DEMO_PEOPLE.map((p) => p.email);
    for (let round = 0; round < 3; round++) {
      await house.source.query('DELETE FROM sign_in_try');
      const answers = await Promise.all(
        [...emails, ...emails, ...emails].map((email) => house.http.post('/api/session').send({ email, password: DEMO_PASSWORD })),
      );
      expect(answers.map((a) => a.status)).toEqual(answers.map(() => 204));
    }
  });

  it('lets no more through of many that come at once', async () => {
    const said = await Promise.all(Array.from({ length: 40 }, () => signIn('dilys@tarnthistle.example', 'nope')));
    expect(said.filter((a) => a.status === 401)).toHaveLength(6);
    expect(said.filter((a) => a.status === 429)).toHaveLength(34);
  });

  it('waits longer each time, and forgets it all where the secret is right', async () => {
    const over = () => house.source.query('UPDATE sign_in_try SET locked_until = NULL');
    const waits = [];
    await over();
    for (let i = 0; i < 3; i++) {
      await signIn('ines@tarnthistle.example', 'nope');
      await over();
    }
    for (let i = 0; i < 6; i++) {
      await signIn('ines@tarnthistle.example', 'nope').expect(401);
      const [row] = await house.source.query<{ s: string }[]>(
        'SELECT MAX(TIMESTAMPDIFF(SECOND, UTC_TIMESTAMP(3), locked_until)) AS s FROM sign_in_try',
      );
      waits.push(Math.round(Number(row?.s ?? 0) / 15));
      await over();
    }
    expect(waits).toEqual([0, 0, 1, 2, 4, 8]);
    await signIn('ines@tarnthistle.example', 'thistle-and-tarn').expect(204);
    for (let i = 0; i < 6; i++) await signIn('ines@tarnthistle.example', 'nope').expect(401);
  });

  it('ends with signing out', async () => {
    const cookie = cookieOf(await signIn('orla@tarnthistle.example', 'thistle-and-tarn'));
    await house.http.delete('/api/session').set('cookie', cookie).expect(204);
    await house.http.get('/api/session').set('cookie', cookie).expect(401);
  });

  it('stores neither passwords, PINs nor tokens in the clear', async () => {
    const people: { password_hash: string; pin_hash: string }[] = await house.source.query('SELECT password_hash, pin_hash FROM person');
    expect(people.every((p) => p.password_hash.startsWith('$argon2id$') && p.pin_hash.startsWith('$argon2id$'))).toBe(true);
    const token = cookieOf(await signIn('maren@tarnthistle.example', 'thistle-and-tarn')).split('=')[1]!;
    const sessions: { token_hash: string }[] = await house.source.query('SELECT token_hash FROM session');
    expect(sessions.some((s) => s.token_hash === token)).toBe(false);
  });
});

describe('shared devices', () => {
  let house: House;
  let device: string;

  beforeAll(async () => {
    house = await House.open();
    const maren = await house.as('Maren');
    const { code } = (await maren.post('devices/enrolments', { siteId: 1, name: 'Phone 3' }).expect(201)).body as { code: string };
    const answer = await house.http.post('/api/devices/enrol').send({ code: code.toLowerCase() }).expect(204);
    device = cookieOf(answer);
    await house.http.post('/api/devices/enrol').send({ code }).expect(403);
  });
  afterAll(() => house.close());

  const badge = (code: string, pin: string, cookie = device) =>
    house.http.post('/api/session/badge').set('cookie', cookie).send({ badge: code, pin });

  it('let people in by badge and PIN', async () => {
    const answer = await badge('v-1005', '4105').expect(204);
    const me = await house.http.get('/api/session').set('cookie', cookieOf(answer)).expect(200);
    expect(me.body).toMatchObject({ name: 'Ines Calder', device: 'Phone 3' });
  });

  it('know no badge where they are not enrolled', async () => {
    expect((await badge('V-1005', '4105', 'vectrum_device=made-up').expect(403)).body).toMatchObject({ code: 'device' });
  });

  it('refuse a wrong PIN', async () => {
    expect((await badge('V-1006', '0000').expect(401)).body).toMatchObject({ code: 'sign-in' });
    expect((await badge('V-1006', 'abcd').expect(400)).body).toMatchObject({ fields: { pin: 'A PIN is 4 to 8 digits' } });
  });

  it('are locked where PINs are guessed, whoever’s they are', async () => {
    await house.source.query('DELETE FROM sign_in_try');
    const said = [];
    for (const code of ['V-1001', 'V-1002', 'V-1003', 'V-1007', 'V-7777777'])
      for (let i = 0; i < 2; i++) said.push((await badge(code, '0000')).status);
    expect(said.every((status) => status === 401)).toBe(true);
    await badge('V-1006', '4106').expect(429);
    await house.source.query('DELETE FROM sign_in_try');
    await badge('V-1006', '4106').expect(204);
  });

  it('are written beside each act done on them', async () => {
    const session = cookieOf(await badge('V-1004', '4104'));
    await house.http
      .post('/api/floor/commands')
      .set({ cookie: `${device}; ${session}`, 'idempotency-key': '2b0b1b7e-7f5e-4f3e-9a55-1d9b0c2f8a11' })
      .send({
        command: {
          kind: 'refused',
          id: '2b0b1b7e-7f5e-4f3e-9a55-1d9b0c2f8a11',
          band: 'unknown',
          title: 'x',
          detail: 'y',
          code: 'z',
          how: 'scanned',
          siteId: 1,
        },
        madeAt: new Date().toISOString(),
        madeBy: (await one<{ id: number }>(house.source, `SELECT id FROM person WHERE name = 'Ruben Tay'`))!.id,
        late: false,
      })
      .expect(200);
    const rows: { device: string; who: string }[] = await house.source.query(
      'SELECT d.name AS device, p.name AS who FROM activity a JOIN device d ON d.id = a.device_id JOIN person p ON p.id = a.person_id ORDER BY a.id DESC LIMIT 1',
    );
    expect(rows[0]).toEqual({ device: 'Phone 3', who: 'Ruben Tay' });
  });

  it('let nobody in once revoked, and end who is in', async () => {
    const session = cookieOf(await badge('V-1005', '4105'));
    const maren = await house.as('Maren');
    const list = (await maren.get('devices')).body as { id: number }[];
    await maren.post(`devices/${list[0]!.id}/revoke`).expect(204);
    await house.http.get('/api/session').set('cookie', session).expect(401);
    await badge('V-1005', '4105').expect(403);
    await maren.post('devices/99999/revoke').expect(404);
  });
});

describe('a new house', () => {
  let house: House;
  beforeAll(async () => {
    house = await House.open({}, false);
  });
  afterAll(() => house.close());

  const owner = {
    name: 'Hedda Brook',
    email: 'hedda@example.org',
    password: 'a long enough one',
    siteName: 'Old Dairy',
    siteCode: 'DAIRY',
  };

  it('asks for its owner', async () => {
    expect((await house.http.get('/api/sign-in-page').expect(200)).body).toMatchObject({ firstRun: true });
    const short = await house.http
      .post('/api/first-owner')
      .send({ ...owner, password: 'short' })
      .expect(400);
    expect(short.body).toMatchObject({ fields: { password: 'A password has at least 10 characters' } });
  });

  it('takes one owner, however many ask at once', async () => {
    const answers = await Promise.all(
      ['a', 'b', 'c'].map((x) => house.http.post('/api/first-owner').send({ ...owner, email: `${x}@example.org`, siteCode: `S${x}` })),
    );
    expect(answers.map((a) => a.status).sort()).toEqual([204, 409, 409]);
    expect((await house.http.get('/api/sign-in-page')).body).toMatchObject({ firstRun: false });
  });
});
