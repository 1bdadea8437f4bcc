import { Caller, House } from './house.js';

/** People whom no mail reaches come in all the same: by a link from hand to hand, or by badge and PIN. */
describe('people without mail', () => {
  let house: House;
  let maren: Caller;
  let device: string;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    const { code } = (await maren.post('devices/enrolments', { siteId: 1, name: 'Phone 9' }).expect(201)).body as { code: string };
    const cookies = (await house.http.post('/api/devices/enrol').send({ code }).expect(204)).headers['set-cookie'] as unknown as string[];
    device = cookies[0]!.split(';')[0]!;
  });
  afterAll(() => house.close());

  const person = (more: object = {}) => ({
    name: 'Wim Adler',
    email: '',
    duties: ['picker'],
    siteIds: [1],
    seesCosts: false,
    active: true,
    ...more,
  });
  const add = async (more: object = {}, by: Caller = maren) =>
    ((await by.post('people', person(more)).expect(201)).body as { id: number }).id;
  const sheet = async (id: number) => ((await maren.get('people').expect(200)).body as { id: number; email: string; state: string; badge: string; version: number; hasPin: boolean; mail: { state: string; why: string | null } | null }[]).find((p) => p.id === id)!; // prettier-ignore
  const comeIn = (badge: string, pin: string) => house.http.post('/api/session/badge').set('cookie', device).send({ badge, pin });
  const token = (link: string) => link.split('#')[1]!;

  it('are set up with a badge, and come in with the PIN that is given out; several at a time', async () => {
    const [wim, ada] = [await add(), await add({ name: 'Ada Brook' })];
    expect(await sheet(wim)).toMatchObject({ email: '', state: 'invited', mail: null, hasPin: false });
    expect((await maren.post(`people/${wim}/remind`).expect(409)).body).toMatchObject({
      detail: expect.stringContaining('no mail address'),
    });
    const { pin } = (await maren.post(`people/${wim}/pin`).expect(200)).body as { pin: string };
    expect(pin).toMatch(/^\d{6}$/);
    const { badge, state } = await sheet(wim);
    expect(state).toBe('here');
    await comeIn(badge, '000000').expect(401);
    await comeIn(badge, pin).expect(204);
    expect((await sheet(ada)).state).toBe('invited');
    // A new PIN makes the old one void, and signs out.
    const next = (await maren.post(`people/${wim}/pin`).expect(200)).body as { pin: string };
    if (next.pin !== pin) await comeIn(badge, pin).expect(401);
    await comeIn(badge, next.pin).expect(204);
  });

  it('choose a PIN by a link from hand to hand, once; who has a mail address chooses a password too', async () => {
    const id = await add({ name: 'Bo Carr' });
    const { link } = (await maren.post(`people/${id}/link`).expect(200)).body as { link: string };
    expect((await house.http.post('/api/door/whose').send({ token: token(link) }).expect(200)).body).toMatchObject({ name: 'Bo Carr', email: '' }); // prettier-ignore
    await house.http
      .post('/api/door/choose')
      .send({ token: token(link) })
      .expect(400);
    await house.http
      .post('/api/door/choose')
      .send({ token: token(link), pin: '7531' })
      .expect(204);
    await house.http
      .post('/api/door/choose')
      .send({ token: token(link), pin: '1357' })
      .expect(403);
    await comeIn((await sheet(id)).badge, '7531').expect(204);
    const mailed = await add({ name: 'Cy Dell', email: 'cy@tarnthistle.example' });
    const theirs = (await maren.post(`people/${mailed}/link`).expect(200)).body as { link: string };
    await house.http
      .post('/api/door/choose')
      .send({ token: token(theirs.link), pin: '7531' })
      .expect(400);
    await house.http
      .post('/api/door/choose')
      .send({ token: token(theirs.link), password: 'bees-and-thistles' })
      .expect(204);
  });

  it('are told what became of a mail that did not go out', async () => {
    const id = await add({ name: 'Di Ember', email: 'di@tarnthistle.example' });
    await house.deliver();
    expect((await sheet(id)).mail).toMatchObject({ state: 'failing', why: expect.stringContaining('No mail server is set') });
  });

  it('have keys that are kept nowhere, and are told once', async () => {
    const id = await add({ name: 'Ed Fell' });
    const key = { 'idempotency-key': '11111111-2222-4333-8444-555555555555' };
    const { pin } = (await maren.post(`people/${id}/pin`, {}, key).expect(200)).body as { pin: string };
    expect((await maren.post(`people/${id}/pin`, {}, key).expect(409)).body).toMatchObject({
      detail: expect.stringContaining('told already'),
    });
    const { link } = (await maren.post(`people/${id}/link`).expect(200)).body as { link: string };
    const kept = JSON.stringify(await house.source.query('SELECT * FROM command')) + JSON.stringify(await house.source.query('SELECT * FROM person_token')) + JSON.stringify(await house.source.query('SELECT title, detail FROM activity')); // prettier-ignore
    for (const secret of [pin, token(link)]) expect(kept).not.toContain(secret);
  });

  it('get another key from an owner alone, and none from somebody who may do less than they', async () => {
    const setter = await add({ name: 'Flo Gray', duties: ['set-up'] });
    const { pin } = (await maren.post(`people/${setter}/pin`).expect(200)).body as { pin: string };
    const cookies = (await comeIn((await sheet(setter)).badge, pin).expect(204)).headers['set-cookie'] as unknown as string[];
    const flo = new Caller(house.http, cookies[0]!.split(';')[0]!, setter);
    const fresh = await add({ name: 'Gil Hart', duties: [] }, flo);
    await flo.post(`people/${fresh}/pin`).expect(200);
    expect((await flo.post(`people/${fresh}/pin`).expect(403)).body).toMatchObject({ detail: expect.stringContaining('Only an owner') });
    expect((await flo.post(`people/${fresh}/link`)).status).toBe(403);
    const buyer = await add({ name: 'Hal Ives', duties: ['buyer'] });
    expect((await flo.post(`people/${buyer}/link`)).status).toBe(409);
    expect((await (await house.as('Ines')).post(`people/${fresh}/pin`)).status).toBe(403);
    expect((await flo.post('people/1/pin')).status).not.toBe(200);
  });

  it('may get a mail address later, and lose it as long as they do not sign in with it', async () => {
    const id = await add({ name: 'Ida Jay' });
    const put = async (more: object) =>
      maren.put(`people/${id}`, person({ name: 'Ida Jay', ...more }), { 'if-match': `"${(await sheet(id)).version}"` });
    await put({ email: 'ida@tarnthistle.example' });
    expect((await sheet(id)).email).toBe('ida@tarnthistle.example');
    await put({ email: '' });
    expect((await sheet(id)).email).toBe('');
    expect((await put({ email: 'maren@tarnthistle.example' })).status).toBe(400);
  });
});
