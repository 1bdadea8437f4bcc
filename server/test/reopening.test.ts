import { LabelService } from '../src/packing/labels.service.js';
import { checkLedger } from '../src/stock/index.js';
import { type Caller, closing, House } from './house.js';
import { type Heard, OutsideWorld } from './outside-world.js';

const LABEL = Buffer.from('%PDF-1.3 a label').toString('base64');

describe('parcels opened again, and their labels', () => {
  let house: House;
  let world: OutsideWorld;
  let dilys: Caller;
  let sold = 0;

  beforeAll(async () => {
    world = await OutsideWorld.open();
    house = await House.open({ VECTRUM_OUTSIDE_URL: world.url });
    dilys = await house.as('Dilys');
    await house.stock('JAR-454-RD', 'A-01-1', 500);
  });
  beforeEach(() => {
    // Like a carrier that knows its business: one label for each reference.
    const labels = new Map<string, string>();
    const label = (prefix: string) => (heard: Heard) => {
      const { reference } = JSON.parse(heard.body) as { reference: string };
      if (!labels.has(reference)) labels.set(reference, `${prefix}${++sold}`);
      return { status: 200, body: { tracking: labels.get(reference), price: '3.60', pdf: LABEL } };
    };
    world.answers = {
      'POST /carriers/harrier/rates': () => ({
        status: 200,
        body: { rates: [{ service: 'parcel-48', name: 'Parcel', price: '3.60', days: 2 }] },
      }),
      'POST /carriers/northway/rates': () => ({ status: 200, body: { rates: [] } }),
      'POST /carriers/harrier/labels': label('HP'),
      'POST /carriers/northway/labels': label('NF'),
      'POST /carriers/harrier/voids': () => ({ status: 200, body: {} }),
    };
  });
  afterEach(async () => {
    expect(await checkLedger(house.source)).toEqual([]);
  });
  afterAll(async () => {
    await house.close();
    await world.close();
  });

  let tote = 10;
  async function packed(units: number): Promise<string> {
    const code = await house.order([['JAR-454-RD', units]]);
    await house.pickAll(await house.release(code), `T-${tote++}`);
    await dilys.floor({ kind: 'pack', order: code, parcel: 1, line: 1, units, how: 'scanned' }).expect(200);
    return code;
  }
  const close = (code: string, units: number, more: object = {}) => dilys.floor(closing(code, { weightG: 180 + 245 * units, ...more }));
  const open = (code: string, parcel = 1) => dilys.floor({ kind: 'open-parcel', order: code, parcel });
  const sheet = async (code: string) =>
    (await dilys.get(`orders/${code}`)).body as { state: string; parcels: { code: string; state: string; tracking: string | null }[] };
  const labels = (code: string) =>
    house.source.query<{ reference: string; state: string; tracking: string | null }[]>(
      'SELECT l.reference, l.state, l.tracking FROM parcel_label l JOIN parcel p ON p.id = l.parcel_id JOIN sales_order o ON o.id = p.order_id WHERE o.code = ? ORDER BY l.id',
      [code],
    );
  const voids = () => world.at('/voids').map((r) => (JSON.parse(r.body) as { reference: string }).reference);

  /** Delivers, but the house stops between the carrier's answer and keeping it. */
  async function stopsBeforeKeeping(): Promise<void> {
    const service = house.app.get<unknown, { labels: { answered: () => Promise<boolean> } }>(LabelService);
    const keep = service.labels.answered;
    service.labels.answered = () => Promise.reject(new Error('the power went'));
    await house.deliver();
    service.labels.answered = keep;
  }

  it('gives its label back, takes its box back, and goes by another carrier', async () => {
    const code = await packed(2);
    const boxes = async () =>
      (await house.source.query<{ n: string }[]>(`SELECT SUM(units) AS n FROM carton_stock WHERE carton = 'B2'`))[0]?.n;
    const before = await boxes();
    await close(code, 2).expect(200);
    await house.deliver();
    expect((await sheet(code)).state).toBe('packed');
    await open(code).expect(200);
    expect(await boxes()).toBe(before);
    expect(await sheet(code)).toMatchObject({ state: 'picked', parcels: [{ state: 'open', tracking: null }] });
    await house.deliver();
    expect(voids()).toContain(`${code}-1`);
    await close(code, 2, { service: { carrier: 'NORTHWAY', code: 'pallet-day' } }).expect(200);
    await house.deliver();
    const [first, second] = await labels(code);
    expect(first).toMatchObject({ reference: `${code}-1`, state: 'void' });
    expect(second).toMatchObject({ reference: `${code}-1/2`, state: 'kept', tracking: expect.stringMatching(/^NF/) });
    expect((await sheet(code)).parcels[0]).toMatchObject({ state: 'labelled', tracking: second?.tracking });
  });

  it('is not opened twice, nor once it has left', async () => {
    const code = await packed(2);
    expect((await open(code).expect(409)).body).toMatchObject({ detail: `${code}-1 is open already` });
    await close(code, 2).expect(200);
    await house.deliver();
    const both = await Promise.all([open(code), open(code)]);
    expect(both.map((b) => b.status).sort()).toEqual([200, 409]);
    await close(code, 2).expect(200);
    await house.deliver();
    await dilys.post('dispatch/hand-overs', { carrier: 'HARRIER', parcels: [`${code}-1`] }).expect(200);
    expect((await open(code).expect(409)).body).toMatchObject({ detail: expect.stringContaining('was handed over') });
    await (await house.as('Ruben')).floor({ kind: 'open-parcel', order: code, parcel: 1 }).expect(403);
  });

  it('gives goods to a second parcel; both leave, and not before they are closed', async () => {
    const code = await packed(6);
    const repack = (units: number, more: object = {}) =>
      dilys.floor({ kind: 'repack', order: code, from: 1, to: 2, line: 1, units, how: 'scanned', ...more });
    expect((await repack(7).expect(409)).body).toMatchObject({ band: 'too-many' });
    await repack(2).expect(200);
    expect(await house.balance('JAR-454-RD', `${code}-1`)).toBe(4);
    expect(await house.balance('JAR-454-RD', `${code}-2`)).toBe(2);
    await close(code, 4, { more: true }).expect(200);
    expect((await repack(1).expect(409)).body).toMatchObject({ detail: 'It is closed. Open it first' });
    expect((await sheet(code)).state).toBe('picked');
    await close(code, 2, { parcel: 2 }).expect(200);
    await house.deliver();
    await dilys.post('dispatch/hand-overs', { carrier: 'HARRIER', parcels: [`${code}-1`] }).expect(200);
    await dilys.post('dispatch/hand-overs', { carrier: 'HARRIER', parcels: [`${code}-2`] }).expect(200);
    expect(await sheet(code)).toMatchObject({ state: 'shipped', parcels: [{ state: 'gone' }, { state: 'gone' }] });
  });

  it('does not give goods back to a tote that is in use elsewhere', async () => {
    const code = await house.order([['JAR-454-RD', 2]]);
    await house.pickAll(await house.release(code), 'T-40');
    const { activityId } = (await dilys.floor({ kind: 'pack', order: code, parcel: 1, line: 1, units: 2, how: 'scanned' })).body as {
      activityId: number;
    };
    await close(code, 2).expect(200);
    await open(code).expect(200);
    expect((await dilys.post(`tape/${activityId}/undo`).expect(409)).body).toMatchObject({ code: 'undo' });
  });

  it('is labelled once where the house stopped between the carrier’s answer and keeping it', async () => {
    const code = await packed(2);
    await close(code, 2).expect(200);
    await stopsBeforeKeeping();
    expect((await sheet(code)).parcels[0]).toMatchObject({ state: 'label-asked', tracking: null });
    expect(await labels(code)).toMatchObject([{ state: 'asked', tracking: null }]);
    await house.source.query(`UPDATE outbox SET next_at = UTC_TIMESTAMP(3) WHERE kind = 'carrier.label'`);
    await house.deliver();
    expect(await labels(code)).toMatchObject([{ reference: `${code}-1`, state: 'kept' }]);
  });

  it('has the label voided that was bought before the house stopped, where it goes another way by then', async () => {
    const code = await packed(2);
    await close(code, 2).expect(200);
    await stopsBeforeKeeping();
    await dilys.post(`bench/parcels/${code}-1/service`, { service: { carrier: 'NORTHWAY', code: 'pallet-day' } }).expect(204);
    await house.deliver();
    await house.source.query(`UPDATE outbox SET next_at = UTC_TIMESTAMP(3) WHERE state <> 'done'`);
    await house.deliver();
    expect(voids()).toContain(`${code}-1`);
    expect(await labels(code)).toMatchObject([
      { reference: `${code}-1`, state: 'void' },
      { reference: `${code}-1/2`, state: 'kept' },
    ]);
  });

  it('gives back a label that comes after the parcel was opened again', async () => {
    const code = await packed(2);
    await close(code, 2).expect(200);
    world.answers['POST /carriers/harrier/labels'] = async () => {
      await open(code).expect(200);
      return { status: 200, body: { tracking: `HP${++sold}`, price: '3.60', pdf: LABEL } };
    };
    await house.deliver();
    await house.deliver();
    expect((await sheet(code)).parcels[0]).toMatchObject({ state: 'open', tracking: null });
    expect(await labels(code)).toMatchObject([{ state: 'void' }]);
  });

  it('waits parked, and why, until something is packed', async () => {
    const code = await packed(2);
    await dilys.floor({ kind: 'park', order: code, why: 'no box of that size' }).expect(200);
    const queued = async () =>
      ((await dilys.get('bench/queue')).body as { rows: { order: string; parked: string | null }[] }).rows.find((r) => r.order === code);
    const other = await house.order([['JAR-454-RD', 3]]);
    await house.pickAll(await house.release(other), `T-${tote++}`);
    await dilys.floor({ kind: 'park', order: other, why: '' }).expect(200);
    expect(await queued()).toBeUndefined();
    const rows = ((await dilys.get('bench/queue')).body as { rows: { order: string; parked: string | null }[] }).rows;
    expect(rows.find((r) => r.order === other)).toMatchObject({ parked: '' });
    await dilys.floor({ kind: 'pack', order: other, parcel: 1, line: 1, units: 1, how: 'scanned' }).expect(200);
    const after = ((await dilys.get('bench/queue')).body as { rows: { order: string; parked: string | null }[] }).rows;
    expect(after.find((r) => r.order === other)).toMatchObject({ parked: null });
  });
});
