import type { LoadTask } from '@vectrum/core/scan';
import { checkLedger } from '../src/stock/index.js';
import { type Caller, closing, House } from './house.js';
import { OutsideWorld } from './outside-world.js';

const LABEL = Buffer.from('%PDF-1.3 a label').toString('base64');

/** A van at the door: parcels are loaded by scan, and the driver signs for those that are on it. */
describe('loading a van', () => {
  let house: House;
  let world: OutsideWorld;
  let dilys: Caller;
  let maren: Caller;
  let sold = 0;
  let tote = 10;

  beforeAll(async () => {
    world = await OutsideWorld.open();
    house = await House.open({ VECTRUM_OUTSIDE_URL: world.url });
    [dilys, maren] = [await house.as('Dilys'), await house.as('Maren')];
    await house.stock('JAR-454-RD', 'A-01-1', 500);
    const label = () => ({ status: 200, body: { tracking: `HP${++sold}GB`, price: '3.60', pdf: LABEL } });
    world.answers = { 'POST /carriers/harrier/labels': label, 'POST /carriers/northway/labels': label };
  });
  afterEach(async () => expect(await checkLedger(house.source)).toEqual([]));
  afterAll(async () => {
    await house.close();
    await world.close();
  });

  /** A parcel with its label, in its carrier's lane. */
  async function parcel(carrier = 'HARRIER', service = 'parcel-48'): Promise<string> {
    const code = await house.order([['JAR-454-RD', 2]]);
    await house.pickAll(await house.release(code), `T-${tote++}`);
    await dilys.floor({ kind: 'pack', order: code, parcel: 1, line: 1, units: 2, how: 'scanned' }).expect(200);
    await dilys.floor(closing(code, { weightG: 670, service: { carrier, code: service } })).expect(200);
    await house.deliver();
    return `${code}-1`;
  }
  const lane = (carrier = 'HARRIER') => dilys.task<LoadTask>('load', `1-${carrier}`);
  const load = (parcels: string[], more: object = {}) =>
    dilys.floor({ kind: 'load', siteId: 1, carrier: 'HARRIER', parcels, early: false, how: 'scanned', ...more });
  const sign = (parcels: string[], more: object = {}) =>
    dilys.floor({ kind: 'hand-over', siteId: 1, carrier: 'HARRIER', parcels, driver: 'Odo Fenn', signature: 'M10 20L300 150', ...more });
  const orderOf = (code: string) => code.slice(0, -2);
  const state = async (code: string) => ((await maren.get(`orders/${orderOf(code)}`)).body as { state: string }).state;

  it('takes what is loaded and leaves what missed it; the list shows who signed', async () => {
    const [one, two, left] = [await parcel(), await parcel(), await parcel()];
    await load([one]).expect(200);
    await load([two]).expect(200);
    expect((await load([one]).expect(409)).body).toMatchObject({ band: 'too-many', detail: 'It is on the van already' });
    const task = await lane();
    expect(task.parcels.filter((p) => p.loaded).map((p) => p.code)).toEqual([one, two]);
    await sign([one, two]).expect(200);
    expect([await state(one), await state(two), await state(left)]).toEqual(['shipped', 'shipped', 'packed']);
    expect((await lane()).parcels.map((p) => p.code)).toContain(left);
    const [newest] = ((await maren.get('dispatch/hand-overs').expect(200)).body as { rows: { code: string }[] }).rows;
    expect(newest).toMatchObject({ driver: 'Odo Fenn', parcels: 2, signed: true, person: expect.stringContaining('Dilys') });
    const list = await maren.get(`dispatch/hand-overs/${newest!.code}/list`).expect(200);
    expect((list.body as Buffer).subarray(0, 4).toString()).toBe('%PDF');
    expect((await sign([one]).expect(409)).body).toMatchObject({ detail: `${one} was handed over already` });
  });

  it('refuses what is of another lane, held, without label or cancelled, and says so', async () => {
    const [freight, mine] = [await parcel('NORTHWAY', 'pallet-day'), await parcel()];
    expect((await load([freight]).expect(409)).body).toMatchObject({
      band: 'not-this',
      detail: expect.stringContaining('Northway Freight: lane'),
    });
    await house.source.query(`UPDATE sales_order SET hold_reason = 'address in doubt' WHERE code = ?`, [orderOf(mine)]);
    expect((await load([mine]).expect(409)).body).toMatchObject({ detail: expect.stringContaining('address in doubt') });
    await house.source.query('UPDATE sales_order SET hold_reason = NULL WHERE code = ?', [orderOf(mine)]);
    // All of them or none.
    expect((await load([mine, 'S-1-1']).expect(409)).body).toMatchObject({ title: 'S-1-1' });
    expect((await lane()).parcels.find((p) => p.code === mine)?.loaded).toBe(false);
    await load([mine]).expect(200);
    expect((await dilys.floor({ kind: 'open-parcel', order: orderOf(mine), parcel: 1 }).expect(409)).body).toMatchObject({
      detail: expect.stringContaining('Take it off first'),
    });
    const { version } = (await maren.get(`orders/${orderOf(mine)}`)).body as { version: number };
    await maren.post(`orders/${orderOf(mine)}/cancel`, { why: 'called off', tell: false }, { 'if-match': `"${version}"` }).expect(200);
    expect((await sign([mine]).expect(409)).body).toMatchObject({ detail: expect.stringContaining('Take it off the van') });
  });

  it('takes along what a later van is meant for only when told so', async () => {
    const code = await parcel();
    await house.source.query('UPDATE sales_order SET promised_at = UTC_TIMESTAMP() + INTERVAL 4 DAY WHERE code = ?', [orderOf(code)]);
    expect((await load([code]).expect(409)).body).toMatchObject({ detail: expect.stringContaining('later van') });
    await load([code], { early: true }).expect(200);
  });

  it('is taken back by an undo or by hand, as long as the van stands there', async () => {
    const code = await parcel();
    const { activityId } = (await load([code]).expect(200)).body as { activityId: number };
    await dilys.post(`tape/${activityId}/undo`).expect(201);
    expect((await lane()).parcels.find((p) => p.code === code)?.loaded).toBe(false);
    const again = (await load([code]).expect(200)).body as { activityId: number };
    await dilys.floor({ kind: 'unload', siteId: 1, carrier: 'HARRIER', parcel: code }).expect(200);
    await dilys.floor({ kind: 'unload', siteId: 1, carrier: 'HARRIER', parcel: code }).expect(409);
    await load([code]).expect(200);
    await sign([code]).expect(200);
    expect((await dilys.post(`tape/${again.activityId}/undo`)).status).toBe(409);
  });

  it('loads a parcel once, with two people at the door, and hands it over once', async () => {
    const code = await parcel();
    const loaded = await Promise.all([load([code]), load([code])]);
    expect(loaded.map((l) => l.status).sort()).toEqual([200, 409]);
    const signed = await Promise.all([sign([code]), sign([code])]);
    expect(signed.map((s) => s.status).sort()).toEqual([200, 409]);
  });

  it('names what is wrong with a message', async () => {
    const code = await parcel();
    for (const more of [{ driver: '' }, { signature: 'M0 0<script>' }, { signature: 'M0 0'.repeat(9_000) }, { parcels: [] }])
      expect((await sign([code], more)).status).toBe(400);
    // Nobody loads where they do not work.
    await house.source.query('DELETE FROM person_site WHERE person_id = ? AND site_id = 1', [dilys.personId]);
    expect((await load([code])).status).toBe(403);
    expect((await sign([code])).status).toBe(403);
    await house.source.query('INSERT INTO person_site (person_id, site_id) VALUES (?, 1)', [dilys.personId]);
    expect((await dilys.get('floor/tasks/load/nonsense')).status).toBe(404);
    expect((await dilys.get('floor/tasks/load/2-HARRIER')).status).toBeGreaterThanOrEqual(403);
    expect((await (await house.as('Ines')).get('floor/tasks/load/1-HARRIER')).status).toBe(403);
  });

  it('shows what has missed its van, and parcels that no carrier has been found for', async () => {
    const code = await parcel();
    await house.source.query('UPDATE sales_order SET promised_at = UTC_TIMESTAMP() - INTERVAL 1 HOUR WHERE code = ?', [orderOf(code)]);
    const { missed } = (await maren.get('dispatch/trouble').expect(200)).body as { missed: { code: string }[] };
    expect(missed.find((m) => m.code === orderOf(code))).toMatchObject({ parcels: code, nextAt: expect.any(String) });
  });
});
