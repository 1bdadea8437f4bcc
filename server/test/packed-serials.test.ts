import { checkLedger } from '../src/stock/index.js';
import { type Caller, closing, House, keyed } from './house.js';

/** Serial numbers that are scanned only when a piece is packed. */
describe('serial numbers at packing', () => {
  let house: House;
  let dilys: Caller;
  let maren: Caller;
  let tote = 25;

  beforeAll(async () => {
    house = await House.open();
    [dilys, maren] = [await house.as('Dilys'), await house.as('Maren')];
    await house.stock('SMK-LGE', 'A-10-1', 40);
    await house.source.query(`UPDATE item SET serial_at_packing = 1 WHERE sku = 'SMK-LGE'`);
  });
  afterEach(async () => expect(await checkLedger(house.source)).toEqual([]));
  afterAll(() => house.close());

  async function atTable(units: number): Promise<string> {
    const code = await house.order([['SMK-LGE', units]]);
    await house.pickAll(await house.release(code), `T-${tote++}`);
    return code;
  }
  const pack = (order: string, serial?: string, more: object = {}) =>
    dilys.floor({ kind: 'pack', order, parcel: 1, line: 1, units: 1, how: 'scanned', ...(serial ? { serial } : {}), ...more });
  const kept = async (code: string) =>
    (
      await house.source.query<{ serial: string; parcel: string }[]>(
        'SELECT s.serial, p.code AS parcel FROM parcel_serial s JOIN parcel p ON p.id = s.parcel_id JOIN sales_order o ON o.id = p.order_id WHERE o.code = ? ORDER BY s.id',
        [code],
      )
    ).map((s) => `${s.parcel} ${s.serial}`);

  it('are asked for one by one, and stand on the paper that goes with the parcel', async () => {
    const code = await atTable(2);
    expect((await pack(code).expect(409)).body).toMatchObject({ detail: 'Scan its serial number' });
    expect((await pack(code, 'A1', { units: 2 }).expect(409)).body).toMatchObject({ detail: expect.stringContaining('single pieces') });
    await pack(code, ' a1 ').expect(200);
    expect((await pack(code, 'A1').expect(409)).body).toMatchObject({ title: 'A1', detail: expect.stringContaining(`${code}-1 already`) });
    await pack(code, 'A2').expect(200);
    expect(await kept(code)).toEqual([`${code}-1 A1`, `${code}-1 A2`]);
    await dilys.floor(closing(code, { weightSeen: true })).expect(200);
    expect((await maren.get(`bench/parcels/${code}-1/packing-list`).expect(200)).headers['content-type']).toContain('pdf');
    // The number leads back to whom it went.
    const found = (await maren.get('find?q=A2').expect(200)).body as { found: { code: string }[] };
    expect(found.found.map((f) => f.code)).toContain(code);
  });

  it('are of one piece only, whoever packs it, at the same moment too', async () => {
    const [one, two] = [await atTable(1), await atTable(1)];
    const both = await Promise.all([pack(one, 'B1'), pack(two, 'B1')]);
    expect(both.map((b) => b.status).sort()).toEqual([200, 409]);
  });

  it('come out with their piece: undone, taken into another parcel, or with the order that is cancelled', async () => {
    const code = await atTable(2);
    const { activityId } = (await pack(code, 'C1').expect(200)).body as { activityId: number };
    await dilys.post(`tape/${activityId}/undo`).expect(201);
    expect(await kept(code)).toEqual([]);
    await pack(code, 'C1').expect(200);
    await pack(code, 'C2').expect(200);
    const repack = (more: object) =>
      dilys.floor({ kind: 'repack', order: code, from: 1, to: 2, line: 1, units: 1, how: 'scanned', ...more });
    await repack({}).expect(409);
    await repack({ serial: 'C9' }).expect(409);
    expect(await kept(code)).toEqual([`${code}-1 C1`, `${code}-1 C2`]);
    await repack({ serial: 'C1' }).expect(200);
    expect(await kept(code)).toEqual([`${code}-2 C1`, `${code}-1 C2`]);
    const { version } = (await maren.get(`orders/${code}`)).body as { version: number };
    await maren.post(`orders/${code}/cancel`, { why: 'called off', tell: false }, { 'if-match': `"${version}"` }).expect(200);
    expect(await kept(code)).toEqual([]);
    await pack(await atTable(1), 'C1').expect(200);
  });

  it('of what the desk takes off the order is the one that whoever takes it out scans, before the parcel is closed', async () => {
    const code = await atTable(3);
    for (const serial of ['D1', 'D2', 'D3']) await pack(code, serial).expect(200);
    const out = (serial: string) => dilys.floor({ kind: 'serial-out', order: code, line: 1, serial });
    expect((await out('D1').expect(409)).body).toMatchObject({ detail: expect.stringContaining('Nothing was taken out') });
    const { version, ...order } = (await maren.get(`orders/${code}`)).body as { version: number; lines: { sku: string; line: number; price: string }[] }; // prettier-ignore
    const edit = {
      ...keyed({
        quote: undefined,
        ref: undefined,
        lines: [{ line: order.lines[0]!.line, sku: 'SMK-LGE', factor: 1, quantity: '2', price: '1' }],
      }),
      why: 'one less',
    };
    await maren.put(`orders/${code}`, edit, { 'if-match': `"${version}"` }).expect(200);
    // The piece is put away; its number still stands for one of three.
    const spare = (await dilys.task<{ spare: { itemId: number; units: number; code: string }[] }>('pack', code)).spare;
    expect(spare).toMatchObject([{ units: 1, code: `${code}-1` }]);
    const back = { kind: 'store', itemId: spare[0]!.itemId, lotId: 0, fromPlaceId: await house.placeId(`${code}-1`), toPlaceId: await house.placeId('A-10-1'), units: 1, how: 'scanned' }; // prettier-ignore
    await maren.floor(back).expect(200);
    expect((await dilys.floor(closing(code, { weightSeen: true })).expect(409)).body).toMatchObject({ title: 'Which piece came out?' });
    await out('D9').expect(409);
    await out(' d2 ').expect(200);
    expect(await kept(code)).toEqual([`${code}-1 D1`, `${code}-1 D3`]);
    await dilys.floor(closing(code, { weightSeen: true })).expect(200);
  });
});
