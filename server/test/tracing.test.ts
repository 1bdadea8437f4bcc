import { type Caller, House } from './house.js';

interface Trace {
  origins: { kind: string; who: string | null; units: number }[];
  where: { place: string; condition: string; units: number; order: string | null }[];
  went: { order: string; customer: string; email: string; units: number; back: number }[];
  used: { kind: string; units: number; why: string | null }[];
  recalls: { id: number; reason: string; freedAt: string | null; version: number }[];
  movements: number;
}

let house: House;
let maren: Caller;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
});
afterAll(() => house.close());

const of = (lot: string) => `sku=SYR-05&lot=${lot}`;
const lotId = async (code: string) => (await house.source.query<[{ id: number }]>('SELECT id FROM lot WHERE code = ?', [code]))[0].id;
const trace = async (lot: string) => (await maren.get(`trace?${of(lot)}`).expect(200)).body as Trace;
const good = async (lot: string) => (await trace(lot)).where.filter((w) => w.condition === 'good').reduce((n, w) => n + w.units, 0);

describe('a lot', () => {
  it('is found where it lies, with who got it, and is held everywhere at once while others are sent elsewhere', async () => {
    await house.stock('SYR-05', 'K-01-1', 14, { code: 'BAD', expires: '2027-06-01' });
    const bad = { itemId: await house.itemId('SYR-05'), lotId: await lotId('BAD'), condition: 'good', units: 4 };
    const way = { fromPlaceId: await house.placeId('K-01-1'), toPlaceId: await house.placeId('K-01-2') };
    await maren.floor({ kind: 'move', ...way, goods: [bad], how: 'scanned' }).expect(200);
    await house.stock('SYR-05', 'K-02-1', 20, { code: 'FINE', expires: '2028-06-01' });
    const gone = await house.order([['SYR-05', 2]], { email: 'wick@hill.example' });
    await house.shipped(gone, 1, 2, 'K-01-1', await lotId('BAD'));
    const waits = await house.order([['SYR-05', 5]]);
    const round = await house.release(waits);
    const stops = async () =>
      (await maren.task<{ stops: { lot: string | null; units: number; short: number }[] }>('pick', round)).stops.filter(
        (s) => s.units > s.short,
      );
    expect((await stops()).map((s) => s.lot)).toContain('BAD');

    const found = (await maren.get('trace/find?q=BA').expect(200)).body as { lot: string }[];
    expect(found.map((f) => f.lot)).toContain('BAD');
    const before = await trace('BAD');
    expect(before.went).toMatchObject([{ order: gone, units: 2 }]);
    expect(before.where).toMatchObject([
      { place: 'K-01-1', units: 8 },
      { place: 'K-01-2', units: 4 },
    ]);

    await maren.post(`trace/hold?${of('BAD')}`, { reason: '' }).expect(400);
    await maren.post(`trace/hold?${of('NONE')}`, { reason: 'it ferments' }).expect(404);
    const held = (await maren.post(`trace/hold?${of('BAD')}`, { reason: 'it ferments' }).expect(200)).body as { units: number };
    expect(held.units).toBe(12);
    expect(await good('BAD')).toBe(0);
    expect([...new Set((await stops()).map((s) => s.lot))]).toEqual(['FINE']);
    const after = await trace('BAD');
    expect(after.recalls).toMatchObject([{ reason: 'it ferments', freedAt: null }]);

    const told = (await maren.post(`trace/tell?${of('BAD')}`, { orders: [gone] }).expect(200)).body as { written: number; toRing: number };
    expect(told.written + told.toRing).toBe(1);
    expect((await house.outbox('mail.recall')).length).toBe(told.written);
    await maren.post(`trace/tell?${of('BAD')}`, { orders: ['S-9999'] }).expect(400);

    await maren.post(`trace/free?${of('BAD')}`, {}, { 'if-match': `"${after.recalls[0]!.version + 7}"` }).expect(412);
    await maren.post(`trace/free?${of('BAD')}`, {}, { 'if-match': `"${after.recalls[0]!.version}"` }).expect(200);
    expect(await good('BAD')).toBe(12);
    await maren.post(`trace/tell?${of('BAD')}`, { orders: [gone] }).expect(409);
  });

  it('leaves as events of the open standard', async () => {
    const { body } = await maren.get(`trace/epcis.json?${of('FINE')}`).expect(200);
    const document = body as {
      type: string;
      schemaVersion: string;
      epcisBody: { eventList: { type: string; action: string; bizStep: string }[] };
    };
    expect([document.type, document.schemaVersion]).toEqual(['EPCISDocument', '2.0']);
    expect(document.epcisBody.eventList[0]).toMatchObject({ type: 'ObjectEvent', action: 'ADD' });
  });

  it('tells what the house used of it, and opens from the any-field', async () => {
    await maren
      .floor({
        kind: 'issue',
        placeId: await house.placeId('K-02-1'),
        itemId: await house.itemId('SYR-05'),
        lotId: await lotId('FINE'),
        condition: 'good',
        units: 1,
        purpose: 'sample',
        note: 'for the fair',
        costCentre: '',
        how: 'typed',
      })
      .expect(200);
    expect((await trace('FINE')).used).toMatchObject([{ kind: 'own-use', units: 1, why: expect.stringContaining('for the fair') }]);
    const { found } = (await maren.get('find?q=FINE').expect(200)).body as { found: { kind: string; link: string }[] };
    expect(found.find((f) => f.kind === 'Lot')?.link).toBe('/shelves/trace?sku=SYR-05&lot=FINE');
  });
});
