import { TrackingPolling } from '../src/tracking/index.js';
import { signature } from '../src/platform/signature.js';
import { type Caller, closing, House } from './house.js';
import { OutsideWorld } from './outside-world.js';

const LABEL = Buffer.from('%PDF-1.3 a label').toString('base64');
const KEY = 'carrier-knows-this-house';

/** Parcels on their way: what carriers say, however often and in whatever order, and what is claimed. */
describe('parcels on their way', () => {
  let house: House;
  let world: OutsideWorld;
  let dilys: Caller;
  let maren: Caller;
  let sold = 100;
  let tote = 10;

  beforeAll(async () => {
    world = await OutsideWorld.open();
    house = await House.open({ VECTRUM_OUTSIDE_URL: world.url });
    [dilys, maren] = [await house.as('Dilys'), await house.as('Maren')];
    await house.stock('JAR-454-RD', 'A-01-1', 500);
  });
  beforeEach(() => {
    world.answers = {
      'POST /carriers/harrier/labels': () => ({
        status: 200,
        body: { tracking: `HP${++sold}GB`, price: '3.60', pdf: LABEL, booking: `BK-${sold}` },
      }),
      'POST /carriers/harrier/manifests': () => ({ status: 200, body: {} }),
    };
  });
  afterAll(async () => {
    await house.close();
    await world.close();
  });

  /** A parcel that its carrier has taken. */
  async function gone(): Promise<{ code: string; tracking: string; order: string }> {
    const order = await house.order([['JAR-454-RD', 2]]);
    await house.pickAll(await house.release(order), `T-${tote++}`);
    await dilys.floor({ kind: 'pack', order, parcel: 1, line: 1, units: 2, how: 'scanned' }).expect(200);
    await dilys.floor(closing(order, { weightG: 670 })).expect(200);
    await house.deliver();
    await dilys.post('dispatch/hand-overs', { carrier: 'HARRIER', parcels: [`${order}-1`], driver: 'Odo Fenn' }).expect(200);
    return { code: `${order}-1`, tracking: `HP${sold}GB`, order };
  }
  const at = (hour: number) => new Date(Date.now() - (24 - hour) * 3_600_000).toISOString();
  const says = (message: unknown, key = KEY, carrier = 'HARRIER') => {
    const body = typeof message === 'string' ? message : JSON.stringify(message);
    return house.http
      .post(`/api/carriers/${carrier}/events`)
      .set('content-type', 'application/json')
      .set('x-signature', signature(key, body))
      .send(body);
  };
  const event = (tracking: string, what: string, hour: number, note = '') => ({ tracking, what, at: at(hour), note });
  const travel = async (code: string) =>
    (await house.source.query<{ travel: string | null }[]>('SELECT travel FROM parcel WHERE code = ?', [code]))[0]?.travel;
  const claims = async (state = '') =>
    ((await maren.get(`claims?state=${state}`).expect(200)).body as { rows: { id: number; parcel: string; kind: string; state: string; version: number; note: string }[] }).rows; // prettier-ignore
  const claimOf = async (code: string, state = '') => (await claims(state)).find((c) => c.parcel === code);

  it('stand where the newest word says, heard once, late, twice or in the wrong order', async () => {
    const { code, tracking } = await gone();
    expect((await says({ events: [event(tracking, 'on-the-way', 3), event(tracking, 'delivered', 9)] }).expect(200)).body).toEqual({
      taken: 2,
      unknown: 0,
      refused: [],
    });
    await says({ events: [event(tracking, 'collected', 1)] }).expect(200);
    expect(await travel(code)).toBe('delivered');
    const again = { events: [event(tracking, 'collected', 1)] };
    const message = JSON.stringify(again);
    await says(message).expect(200);
    expect((await says(message).expect(200)).body).toMatchObject({ taken: 0 });
    const journey = (await maren.get(`parcels/${code}/events`).expect(200)).body as { what: string }[];
    expect(journey.map((e) => e.what).slice(-2)).toEqual(['on-the-way', 'delivered']);
  });

  it('are heard of from nobody but the carrier, and a bad word holds up no other', async () => {
    const { code, tracking } = await gone();
    await says({ events: [event(tracking, 'lost', 2)] }, 'another key').expect(401);
    await says({ events: [event(tracking, 'lost', 2)] }, KEY, 'NOBODY').expect(401);
    // Another carrier's word about it is about no parcel of its own.
    expect((await says({ events: [event(tracking, 'lost', 2)] }, KEY, 'NORTHWAY').expect(200)).body).toMatchObject({ unknown: 1 });
    for (const bad of ['[]', '{}', '{"events":{}}', 'null', '"x"', '{"events":[', '{"events":"all"}'])
      expect((await says(bad)).status).toBe(400);
    const { body } = await says({
      events: [7, null, { tracking }, event(tracking, 'eaten', 2), { ...event(tracking, 'lost', 2), at: 'soon' }, { ...event(tracking, 'lost', 2), at: '2999-01-01' }, { tracking: `x'; DROP TABLE parcel`, what: 'lost', at: at(2) }, event(tracking, 'on-the-way', 2, 'n'.repeat(5_000))], // prettier-ignore
    });
    expect(body).toMatchObject({ taken: 1, unknown: 0 });
    expect((body as { refused: unknown[] }).refused).toHaveLength(7);
    expect(await travel(code)).toBe('on-the-way');
  });

  it('that are late, damaged, back or lost are claims for the order desk; a delay is over when it goes on', async () => {
    const { code, tracking, order } = await gone();
    await says({ events: [event(tracking, 'delayed', 2, 'No driver')] }).expect(200);
    expect(await claimOf(code)).toMatchObject({ kind: 'delayed', state: 'open', note: 'No driver' });
    const now = (await maren.get('now').expect(200)).body as { stuck: { code: string; detail: string }[] };
    expect(now.stuck.find((s) => s.code === code)?.detail).toBe('Harrier Post says: delayed');
    await says({ events: [event(tracking, 'on-the-way', 3)] }).expect(200);
    expect(await claimOf(code)).toBeUndefined();
    await says({ events: [event(tracking, 'lost', 4)] }).expect(200);
    const claim = (await claimOf(code))!;
    expect(claim).toMatchObject({ kind: 'lost', state: 'open' });
    const seen = { 'if-match': `"${claim.version}"` };
    await maren.post(`claims/${claim.id}/ask`, { amount: '12', note: 'value of the goods' }, seen).expect(204);
    // Somebody who looked before that must look again; found after all, what was claimed stays to be settled.
    expect((await maren.post(`claims/${claim.id}/drop`, { note: 'no' }, seen)).status).toBe(412);
    await says({ events: [event(tracking, 'delivered', 8)] }).expect(200);
    const sheet = (await maren.get(`claims/${claim.id}`).expect(200)).body as { version: number; worth: string; events: unknown[] };
    expect(sheet).toMatchObject({ state: 'claimed', asked: '12.00', order });
    expect(Number(sheet.worth)).toBeGreaterThan(0);
    await maren.post(`claims/${claim.id}/settle`, { amount: '9.50', note: '' }, { 'if-match': `"${sheet.version}"` }).expect(204);
    expect(await claimOf(code)).toBeUndefined();
    expect((await claims('all')).filter((c) => c.parcel === code).map((c) => c.state)).toEqual(
      expect.arrayContaining(['settled', 'dropped']),
    );
    expect((await maren.post(`claims/${claim.id}/drop`, { note: 'late' }, { 'if-match': `"${sheet.version + 1}"` }).expect(409)).body).toMatchObject({ detail: expect.stringContaining('closed') }); // prettier-ignore
  });

  it('are claimed by hand once, only when they have left, and by the order desk alone', async () => {
    const { code } = await gone();
    const open = (parcel: string, kind = 'damaged') => maren.post('claims', { parcel, kind, note: 'She sent a picture' });
    const both = await Promise.all([open(code), open(code)]);
    expect(both.map((b) => b.status).sort()).toEqual([201, 409]);
    expect((await open('S-1-9')).status).toBe(404);
    expect((await open(code, 'eaten')).status).toBe(400);
    const { id, version } = (await claimOf(code))!;
    for (const bad of ['', '-1', '1e9', '12.345', 'all']) expect((await maren.post(`claims/${id}/ask`, { amount: bad, note: '' }, { 'if-match': `"${version}"` })).status).toBe(400); // prettier-ignore
    expect((await maren.post(`claims/${id}/drop`, { note: '' }, { 'if-match': `"${version}"` })).status).toBe(400);
    expect((await (await house.as('Ines')).get('claims')).status).toBe(403);
    await maren.post(`claims/${id}/drop`, { note: 'It was an old dent' }, { 'if-match': `"${version}"` }).expect(204);
  });

  it('are asked about where the carrier’s own word was lost, from where it was heard last', async () => {
    const { code, tracking } = await gone();
    const asked: string[] = [];
    world.answers['GET /carriers/harrier/events'] = ({ path }) => {
      asked.push(path);
      return { status: 200, body: { events: [event(tracking, 'out-for-delivery', 5), { nonsense: true }], seen: '41' } };
    };
    const poll = async () => {
      await house.source.query('UPDATE carrier_poll SET asked_at = NULL');
      await house.app.get(TrackingPolling).runDue();
    };
    await poll();
    await poll();
    expect(await travel(code)).toBe('out-for-delivery');
    expect(asked.at(-1)).toContain('since=41');
    // One that does not answer is asked again, and nothing is lost.
    world.answers['GET /carriers/harrier/events'] = () => ({ status: 500, body: {} });
    await poll();
    const [kept] = await house.source.query<{ seen: string; why: string }[]>(`SELECT p.seen, p.why FROM carrier_poll p JOIN carrier c ON c.id = p.carrier_id WHERE c.code = 'HARRIER'`); // prettier-ignore
    expect(kept).toEqual({ seen: '41', why: 'Harrier Post answered 500' });
  });

  it('are named to their carrier as handed over, asked again until it has heard', async () => {
    world.answers['POST /carriers/harrier/manifests'] = () => ({ status: 503, body: {} });
    const { code } = await gone();
    await house.deliver();
    const waiting = await house.source.query<unknown[]>(`SELECT id FROM outbox WHERE kind = 'carrier.manifest' AND state = 'failing'`);
    expect(waiting).not.toHaveLength(0);
    world.answers['POST /carriers/harrier/manifests'] = () => ({ status: 200, body: {} });
    await house.source.query(`UPDATE outbox SET next_at = UTC_TIMESTAMP(3) WHERE kind = 'carrier.manifest'`);
    await house.deliver();
    const told = world.at('/manifests').map((h) => JSON.parse(h.body) as { driver: string; parcels: { parcel: string }[] });
    expect(told.filter((m) => m.driver === 'Odo Fenn').flatMap((m) => m.parcels.map((p) => p.parcel))).toContain(code);
  });

  it('of a carrier that answers too late are told and asked about again, under the same number, and nothing is said of them twice', async () => {
    const { code, tracking } = await gone();
    const late = () => new Promise<{ status: number; body: object }>((done) => setTimeout(() => done({ status: 200, body: { events: [event(tracking, 'lost', 4)], seen: '90' } }), 7_000)); // prettier-ignore
    world.answers['POST /carriers/harrier/manifests'] = late;
    world.answers['GET /carriers/harrier/events'] = late;
    await house.source.query('UPDATE carrier_poll SET asked_at = NULL');
    const before = world.at('/manifests').length;
    await Promise.all([house.deliver(), house.app.get(TrackingPolling).runDue()]);
    // Neither holds the house up for longer than its time limit; what came late was not heard.
    expect(await travel(code)).toBeNull();
    world.answers['POST /carriers/harrier/manifests'] = () => ({ status: 200, body: {} });
    world.answers['GET /carriers/harrier/events'] = () => ({ status: 200, body: { events: [event(tracking, 'lost', 4)], seen: '91' } });
    await house.source.query(`UPDATE outbox SET next_at = UTC_TIMESTAMP(3) WHERE kind = 'carrier.manifest'`);
    await house.source.query('UPDATE carrier_poll SET asked_at = NULL');
    await Promise.all([house.deliver(), house.app.get(TrackingPolling).runDue()]);
    const named = world
      .at('/manifests')
      .slice(before)
      .filter((h) => h.body.includes(code));
    expect(named.length).toBeGreaterThan(1);
    expect(new Set(named.map((h) => h.headers['idempotency-key'])).size).toBe(1);
    await house.source.query('UPDATE carrier_poll SET asked_at = NULL');
    await house.app.get(TrackingPolling).runDue();
    expect((await claims('all')).filter((c) => c.parcel === code)).toHaveLength(1);
  }, 30_000);
});
