import { type GatherTask, nextGather, type TakeInTask } from '@vectrum/core/scan';
import type { TransferDto } from '../src/transfers/transfers.dto.js';
import { type Caller, House } from './house.js';
import { OutsideWorld } from './outside-world.js';

const PDF = Buffer.from('%PDF-1.4 a label').toString('base64');

let house: House;
let world: OutsideWorld;
let maren: Caller;
let ines: Caller;
beforeAll(async () => {
  world = await OutsideWorld.open();
  house = await House.open({ VECTRUM_OUTSIDE_URL: world.url });
  [maren, ines] = [await house.as('Maren'), await house.as('Ines')];
  await house.stock('JAR-454-RD', 'A-01-1', 200);
});
afterAll(async () => {
  await house.close();
  await world.close();
});
beforeEach(() => {
  world.heard.length = 0;
  world.answers = {
    'POST /carriers/harrier/rates': () => ({
      status: 200,
      body: { rates: [{ service: 'std', name: 'Standard', price: '4.10', days: 2 }] },
    }),
    'POST /carriers/harrier/labels': ({ body }) => ({
      status: 200,
      body: { tracking: `TRK-${(JSON.parse(body) as { parcel: string }).parcel}`, price: '4.10', pdf: PDF },
    }),
  };
});

const said = (answer: { body: unknown }) => (answer.body as { detail: string }).detail;
const sheet = async (t: string) => (await maren.get(`transfers/${t}`).expect(200)).body as TransferDto;
const seen = async (t: string) => ({ 'if-match': `"${(await sheet(t)).version}"` });
const pack = async (t: string, body: object, who = maren) =>
  who.post(`transfers/${t}/parcels`, { weightG: 3_000, box: null, service: null, ...body }, await seen(t));
const byPost = { service: { carrier: 'HARRIER', code: 'std' } };
const send = async (t: string) => maren.post(`transfers/${t}/send`, { carrier: '', tracking: '' }, await seen(t));

/** A transfer to the quay, gathered. */
async function gathered(): Promise<string> {
  const lines = [{ sku: 'JAR-454-RD', units: 10 }];
  const { code } = (await maren.post('transfers', { fromSiteId: 1, toSiteId: 2, note: '', lines }).expect(201)).body as { code: string };
  for (;;) {
    const next = nextGather(await ines.task<GatherTask>('gather', code), { pending: [] });
    if (!next) return code;
    const { line, bin, units } = next;
    const what = { lineId: line.lineId, itemId: line.itemId, lotId: bin.lotId, placeId: bin.placeId, units, how: 'scanned' };
    await ines.floor({ kind: 'gather', document: code, ...what }).expect(200);
  }
}

describe('parcels of a transfer', () => {
  it('go with the labels that a carrier sells for them, printed where they leave, told to it once they have left', async () => {
    const t = await gathered();
    const rates = (await maren.get(`transfers/${t}/parcels/rates?weight=3000`).expect(200)).body as { rates: object[] };
    expect(rates.rates).toMatchObject([{ carrier: 'HARRIER', service: 'std', price: '4.10', keeps: true }]);
    expect(JSON.parse(world.at('/rates')[0]?.body ?? '{}')).toMatchObject({
      weightG: 3_000,
      to: { name: 'Quayside', postcode: 'NW1 6XE', country: 'GB' },
    });

    expect((await pack(t, byPost)).body).toEqual({ code: `${t}-1` });
    await pack(t, {});
    expect((await ines.task<GatherTask>('gather', t)).parcels).toEqual([
      { code: `${t}-1`, carrier: 'Harrier Post', isReady: false },
      { code: `${t}-2`, carrier: null, isReady: true },
    ]);
    expect(said(await send(t))).toContain(`The label of ${t}-1 has not come yet`);
    await house.deliver();
    const [first, second] = (await sheet(t)).parcels;
    expect(first).toMatchObject({ state: 'labelled', tracking: `TRK-${t}-1`, price: '4.100000', problem: null });
    expect(second).toMatchObject({ state: 'packed', tracking: null });
    expect(((await maren.bytes(`transfers/${t}/parcels/${t}-1/label`).expect(200)).body as Buffer).toString()).toContain('%PDF');
    expect((await maren.get(`transfers/${t}/parcels/${t}-2/label`)).status).toBe(409);
    const [print] = await house.source.query<{ n: string }[]>(
      `SELECT COUNT(*) AS n FROM outbox WHERE kind = 'print.label' AND document = ?`,
      [t],
    );
    expect(Number(print?.n)).toBe(1);
    await maren.post(`transfers/${t}/parcels/${t}-1/print`).expect(204);

    expect((await send(t)).status).toBe(200);
    expect(await sheet(t)).toMatchObject({ state: 'on-the-road', carrier: 'Harrier Post', tracking: `TRK-${t}-1` });
    await house.deliver();
    expect(world.at('/manifests').map((h) => JSON.parse(h.body) as object)).toMatchObject([
      { reference: t, parcels: [{ parcel: `${t}-1`, tracking: `TRK-${t}-1`, weightG: 3_000 }] },
    ]);
    expect(said(await pack(t, {}))).toContain('has left');
  });

  it('are noted one by one where they come, and what was not scanned is seen', async () => {
    const t = await gathered();
    for (let i = 0; i < 2; i++) await pack(t, {});
    await send(t);
    const task = () => maren.task<TakeInTask>('take-in', t);
    expect((await task()).parcels).toEqual([1, 2].map((n) => ({ code: `${t}-${n}`, tracking: null, isHere: false })));
    const here = { kind: 'parcel-here', document: t, parcel: `${t}-1` };
    for (let i = 0; i < 2; i++) await maren.floor(here).expect(200);
    expect((await task()).parcels.map((p) => p.isHere)).toEqual([true, false]);
    expect((await maren.floor({ ...here, parcel: `${t}-9` })).status).toBe(409);
    // Whoever works at the other site alone takes nothing in here.
    expect((await ines.floor(here)).status).toBe(403);
    expect((await sheet(t)).parcels.map((p) => p.hereAt !== null)).toEqual([true, false]);
  });

  it('are taken out again before they leave: their labels are given back, also those that come too late', async () => {
    const t = await gathered();
    await pack(t, byPost);
    await house.deliver();
    await pack(t, byPost);
    const out = async (n: number) => maren.delete(`transfers/${t}/parcels/${t}-${n}`, await seen(t));
    expect((await out(1)).status).toBe(200);
    // The second is taken out while its carrier is still at it.
    let answer: () => void = () => undefined;
    const asked = new Promise<void>((begun) => {
      world.answers['POST /carriers/harrier/labels'] = () => {
        begun();
        return new Promise((done) => (answer = () => done({ status: 200, body: { tracking: 'LATE', price: '4.10', pdf: PDF } })));
      };
    });
    const delivered = house.deliver();
    await asked;
    await out(2);
    answer();
    await delivered;
    await house.deliver();
    const given = world.at('/voids').map((h) => JSON.parse(h.body) as { reference: string });
    expect(new Set(given.map((g) => g.reference))).toEqual(new Set([`${t}-1`, `${t}-2`]));
    expect((await sheet(t)).parcels).toEqual([]);
    // A number is never given twice, since a carrier knows it.
    expect((await pack(t, {})).body).toEqual({ code: `${t}-3` });
    expect((await out(1)).status).toBe(404);
  });

  it('are given back where the transfer is called off', async () => {
    const t = await gathered();
    await pack(t, byPost);
    await house.deliver();
    await maren.post(`transfers/${t}/cancel`, {}, await seen(t)).expect(200);
    await house.deliver();
    expect(world.at('/voids')).toHaveLength(1);
  });

  it('tell why a label does not come, and leave another way', async () => {
    const t = await gathered();
    world.answers['POST /carriers/harrier/labels'] = () => ({ status: 422, body: { message: 'Postcode is not served' } });
    await pack(t, byPost);
    await house.deliver();
    expect((await sheet(t)).parcels).toMatchObject([{ state: 'label-asked', problem: expect.stringContaining('Postcode is not served') }]);
    await maren.delete(`transfers/${t}/parcels/${t}-1`, await seen(t)).expect(200);
    await pack(t, {});
    expect((await send(t)).status).toBe(200);
  });

  it('are refused where they make no sense', async () => {
    const t = await gathered();
    expect((await pack(t, { weightG: 0 })).status).toBe(400);
    expect((await pack(t, { box: 'NO-SUCH' })).status).toBe(400);
    expect((await pack(t, { service: { carrier: 'NOBODY', code: 'std' } })).status).toBe(400);
    expect((await maren.post(`transfers/${t}/parcels`, { weightG: 5, box: null, service: null }, { 'if-match': '"999"' })).status).toBe(
      412,
    );
    await house.source.query(`UPDATE site SET postcode = '' WHERE id = 2`);
    expect(said(await pack(t, byPost))).toContain('Nobody has said where that site is');
    expect(said(await maren.get(`transfers/${t}/parcels/rates?weight=3000`))).toContain('Set its address in Setup');
    await house.source.query(`UPDATE site SET postcode = 'NW1 6XE' WHERE id = 2`);
    // Whoever keeps the books packs nothing.
    const beth = await house.as('Beth');
    expect((await pack(t, {}, beth)).status).toBe(403);
  });
});
