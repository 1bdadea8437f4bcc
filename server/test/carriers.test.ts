import { createHmac } from 'node:crypto';
import { one } from '../src/platform/database/tx.js';
import { checked, takenIn } from './importing.js';
import { type Caller, closing, House } from './house.js';
import { OutsideWorld } from './outside-world.js';

const SERVICE = { code: 'local', name: 'Van round', days: 1, price: '4.50', mostG: 15_000 };
const KEY = 'a-key-that-nobody-may-read';

describe('carriers, boxes and channels made by hand', () => {
  let house: House;
  let world: OutsideWorld;
  let maren: Caller;
  let dilys: Caller;

  beforeAll(async () => {
    world = await OutsideWorld.open();
    house = await House.open({ VECTRUM_OUTSIDE_URL: world.url });
    maren = await house.as('Maren');
    dilys = await house.as('Dilys');
    await house.stock('JAR-454-RD', 'A-01-1', 100);
    await maren.post('places', { code: 'LANE-OWN', kind: 'dispatch-lane', pickable: false, siteId: 1 }).expect(201);
  });
  afterAll(async () => {
    await house.close();
    await world.close();
  });

  const carrier = (code: string, more: object = {}) => ({
    code,
    name: `Carrier ${code}`,
    baseUrl: null,
    lanes: [{ siteId: 1, place: 'LANE-OWN' }],
    services: [SERVICE],
    ...more,
  });
  const box = (code: string, more: object = {}) => ({
    code,
    lengthMm: 200,
    widthMm: 150,
    heightMm: 100,
    tareG: 80,
    mostG: 4_000,
    lowAt: 5,
    stock: [{ siteId: 1, units: 2 }],
    ...more,
  });
  const put = (path: string, version: number, { code: _, ...body }: Record<string, unknown>) =>
    maren.put(path, body, { 'if-match': `"${version}"` });

  describe('a carrier', () => {
    it('without a system sells the services that were said, and its parcel gets a label of our own', async () => {
      await maren.post('carriers', carrier('ROUND')).expect(201);
      const tried = await maren.post('carriers/ROUND/try', { weightG: 900, postcode: 'NW1 1AA', country: 'GB' }).expect(200);
      expect(tried.body).toEqual({
        rates: [
          { carrier: 'ROUND', carrierName: 'Carrier ROUND', service: 'local', name: 'Van round', price: '4.5', days: 1, surcharges: [] },
        ],
      });
      expect((await maren.post('carriers/ROUND/try', { weightG: 15_001, postcode: 'NW1 1AA', country: 'GB' })).body).toEqual({ rates: [] });

      const order = await house.order([['JAR-454-RD', 2]]);
      await house.pickAll(await house.release(order));
      await house.packAll(order);
      await dilys.floor(closing(order, { service: { carrier: 'ROUND', code: 'local' } })).expect(200);
      await house.deliver();
      const parcel = await one<{ state: string; tracking: string; lane: string }>(
        house.source,
        'SELECT p.state, p.tracking, w.code AS lane FROM parcel p JOIN place b ON b.id = p.place_id JOIN place w ON w.id = b.parent_id WHERE p.code = ?',
        [`${order}-1`],
      );
      expect(parcel).toEqual({ state: 'labelled', tracking: `${order}-1`, lane: 'LANE-OWN' });
      const label = await maren.bytes(`dispatch/parcels/${order}-1/label`);
      expect((label.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');

      // Its lane must stay while a parcel stands in it, and can go afterwards.
      const { version } = (await maren.get('carriers/ROUND').expect(200)).body as { version: number };
      const kept = await put('carriers/ROUND', version, carrier('ROUND', { lanes: [] })).expect(400);
      expect((kept.body as { detail: string }).detail).toContain(`${order}-1 waits for this carrier`);
      await maren.post('dispatch/hand-overs', { carrier: 'ROUND', parcels: [`${order}-1`] }).expect(200);
      await put('carriers/ROUND', version, carrier('ROUND', { lanes: [] })).expect(200);
      await put('carriers/ROUND', version, carrier('ROUND')).expect(412);
    });

    it('with a system keeps its key to itself', async () => {
      const made = carrier('SYSTEM', { baseUrl: `${world.url}/carriers/harrier`, services: [] });
      expect((await maren.post('carriers', made).expect(400)).body).toMatchObject({ fields: { apiKey: expect.any(String) as string } });
      await maren.post('carriers', { ...made, apiKey: KEY }).expect(201);
      const told = JSON.stringify([
        (await maren.get('carriers')).body,
        (await maren.get('carriers/SYSTEM')).body,
        (await maren.get('exports/data/carriers.csv')).text,
        await house.source.query('SELECT * FROM command'),
        await house.source.query('SELECT * FROM activity'),
      ]);
      expect(told).not.toContain(KEY);
      // Another name leaves the key as it is.
      await put('carriers/SYSTEM', 1, { ...made, name: 'Another name' }).expect(200);
      world.answers['POST /carriers/harrier/rates'] = () => ({ status: 200, body: { rates: [] } });
      await maren.post('carriers/SYSTEM/try', { weightG: 900, postcode: 'NW1 1AA', country: 'GB' }).expect(200);
      expect(world.at('/carriers/harrier/rates').at(-1)?.headers['authorization']).toBe(`Bearer ${KEY}`);
      world.answers['POST /carriers/harrier/rates'] = () => ({ status: 401, body: { message: 'This key is not known' } });
      const refused = await maren.post('carriers/SYSTEM/try', { weightG: 900, postcode: 'NW1 1AA', country: 'GB' }).expect(502);
      expect((refused.body as { detail: string }).detail).toContain('This key is not known');
    });

    it.each([
      ['a lane that is a shelf', { lanes: [{ siteId: 1, place: 'A-01-1' }] }, 'lanes'],
      ['a lane that is nowhere', { lanes: [{ siteId: 1, place: 'NOWHERE' }] }, 'lanes'],
      [
        'two lanes at a site',
        {
          lanes: [
            { siteId: 1, place: 'LANE-OWN' },
            { siteId: 1, place: 'LANE-HARRIER' },
          ],
        },
        'lanes',
      ],
      ['neither services nor a system', { services: [] }, 'services'],
      ['two services of one code', { services: [SERVICE, { ...SERVICE, code: 'LOCAL' }] }, 'services'],
      ['a price in words', { services: [{ ...SERVICE, price: 'dear' }] }, 'services.0.price'],
      ['an address of another kind', { baseUrl: 'file:///etc/passwd', apiKey: KEY }, 'baseUrl'],
    ])('is refused with %s', async (_, more, field) => {
      const answer = await maren.post('carriers', carrier('FAULTY', more)).expect(400);
      expect(Object.keys((answer.body as { fields: object }).fields)).toContain(field);
      await maren.get('carriers/FAULTY').expect(404);
    });

    it('is not set up by whoever may not, nor at a site where they do not work', async () => {
      await dilys.post('carriers', carrier('SNEAK')).expect(403);
      await dilys.post('boxes', box('SNEAK')).expect(403);
      const beth = await house.as('Beth');
      const answer = await beth.post('carriers', carrier('SNEAK'));
      expect(answer.status).toBe(403);
    });
  });

  describe('a box', () => {
    const left = async () => ((await maren.get('boxes/X1')).body as { stock: { units: number }[] }).stock[0]?.units;
    async function packed(): Promise<void> {
      const order = await house.order([['JAR-454-RD', 1]]);
      await house.pickAll(await house.release(order), 'T-02');
      await house.packAll(order);
      await dilys.floor(closing(order, { carton: 'X1', weightG: 80 + 245, service: null })).expect(200);
    }

    it('is taken by each parcel that is closed, and never below none', async () => {
      await maren.post('boxes', box('X1', { cost: '0.19' })).expect(201);
      expect(await left()).toBe(2);
      for (const expected of [1, 0, 0]) {
        await packed();
        expect(await left()).toBe(expected);
      }
    });

    it('is counted at one site without touching another, and keeps a cost from those who may not see it', async () => {
      const { version } = (await maren.get('boxes/X1')).body as { version: number };
      await put('boxes/X1', version, box('X1', { stock: [{ siteId: 2, units: 40 }] })).expect(200);
      const sheet = (await maren.get('boxes/X1')).body as { cost: string; stock: object[] };
      expect(sheet).toMatchObject({
        cost: '0.19',
        stock: [
          { siteId: 1, units: 0 },
          { siteId: 2, units: 40 },
        ],
      });
      expect(((await dilys.get('boxes')).body as { cost?: string }[]).every((b) => b.cost === undefined)).toBe(true);
      await put('boxes/X1', version, box('X1')).expect(412);
      await maren.post('boxes', box('x1')).expect(400);
      await maren.post('boxes', box('X2', { lengthMm: 0 })).expect(400);
    });

    it('comes and goes in files, as lanes and services do', async () => {
      await takenIn(
        house,
        maren,
        'boxes.csv',
        'Box,"Length, mm","Width, mm","Height, mm","Weighs, g","Carries, g",Cost\nK9,300,200,150,120,8000,0.40\n',
      );
      expect((await maren.get('boxes/K9')).body).toMatchObject({ lengthMm: 300, mostG: 8_000, cost: '0.4', stock: [] });
      await takenIn(house, maren, 'services.csv', 'Carrier,Service,Name,Days,Price,"Carries, g"\nROUND,slow,Slow van,3,2.10,20000\n');
      expect((await maren.get('carriers/ROUND')).body).toMatchObject({ ownServices: [{ code: 'slow', price: '2.1' }, { code: 'local' }] });
      const lanes = await checked(house, maren, 'lanes.csv', 'Carrier,Site,Lane\nROUND,MILL,A-01-1\n');
      expect(lanes.faults).toMatchObject([{ reason: 'This is not a dispatch lane of the site' }]);
      await takenIn(house, maren, 'lanes.csv', 'Carrier,Site,Lane\nROUND,MILL,LANE-OWN\n');
      expect((await maren.get('carriers/ROUND')).body).toMatchObject({ lanes: [{ siteId: 1, place: 'LANE-OWN' }] });
    });
  });

  describe('the secret of a channel', () => {
    const order = (ref: string) =>
      JSON.stringify({
        ref,
        placedAt: new Date().toISOString(),
        customer: 'Wick Hill Farm',
        email: 'wickhill@mail.example',
        address: { line: '2 Beacon Row', city: 'Netherwick', postcode: 'NW8 2RE', country: 'GB' },
        lines: [{ sku: 'W-JAR', quantity: 1, price: '2.40' }],
      });
    const send = (body: string, secret: string) =>
      house.http
        .post('/api/channels/ONLINE/webhook')
        .set({ 'content-type': 'application/json', 'x-signature': createHmac('sha256', secret).update(body).digest('hex') })
        .send(body);

    it('is told once, signs orders, and is void when a new one is given', async () => {
      const listing = { channelSku: 'W-JAR', sku: 'JAR-454-RD', factor: 1, keepBack: 0, price: '2.40' };
      await maren.post('channels', { code: 'ONLINE', name: 'Online', kind: 'web-shop', siteId: 1, listings: [listing] }).expect(201);
      expect((await maren.get('channels/ONLINE')).body).toMatchObject({ hasSecret: false });
      expect((await send(order('N-0'), '')).status).toBe(401);
      const give = async () => ((await maren.post('channels/ONLINE/secret').expect(201)).body as { secret: string }).secret;
      const first = await give();
      expect((await send(order('N-1'), first)).status).toBe(200);
      const second = await give();
      expect(second).not.toBe(first);
      expect((await send(order('N-2'), first)).status).toBe(401);
      expect((await send(order('N-2'), second)).status).toBe(200);
      const told = JSON.stringify([(await maren.get('channels/ONLINE')).body, (await maren.get('channels')).body]);
      expect(told).toContain('"hasSecret":true');
      expect(told).not.toContain(second);
    });
  });
});
