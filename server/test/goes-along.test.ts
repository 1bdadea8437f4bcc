import type { PackTask } from '@vectrum/core/scan';
import { ParcelPapers } from '../src/packing/index.js';
import { checkLedger } from '../src/stock/index.js';
import { type Caller, closing, House, keyed } from './house.js';

/** What goes into a parcel beside the goods that were ordered one by one: kits, inserts, the box itself, and a picture of all of it. */
describe('what goes along', () => {
  let house: House;
  let dilys: Caller;
  let maren: Caller;
  let card: number;
  let jar: number;
  let tote = 20;

  beforeAll(async () => {
    house = await House.open();
    [dilys, maren] = [await house.as('Dilys'), await house.as('Maren')];
    await house.stock('JAR-454-RD', 'A-01-1', 300);
    await house.stock('SMK-LGE', 'A-10-1', 60);
    await house.stock('CRD-RECIPE', 'A-02-1', 30);
    jar = await house.itemId('JAR-454-RD');
    card = await house.itemId('CRD-RECIPE');
    const kit = await house.itemId('KIT-CHILD');
    await house.source.query('DELETE FROM item_part WHERE item_id = ?', [kit]);
    for (const [sku, units] of [
      ['JAR-454-RD', 2],
      ['SMK-LGE', 1],
    ] as const)
      // prettier-ignore
      await house.source.query('INSERT INTO item_part (item_id, part_item_id, units) VALUES (?, ?, ?)', [kit, await house.itemId(sku), units]);
    for (const sku of ['KIT-CHILD', 'CRD-RECIPE'])
      await house.source.query(
        `INSERT IGNORE INTO listing (channel_id, channel_sku, item_id, price) SELECT c.id, ?, i.id, 0 FROM channel c JOIN item i ON i.sku = ? WHERE c.code = 'PHONE'`,
        [sku, sku],
      );
  });
  afterEach(async () => {
    await house.source.query('DELETE FROM insert_rule');
    expect(await checkLedger(house.source)).toEqual([]);
  });
  afterAll(() => house.close());

  async function atTable(...lines: [sku: string, quantity: number][]): Promise<string> {
    const code = await house.order(lines);
    await house.pickAll(await house.release(code), `T-${tote++}`);
    return code;
  }
  type Task = PackTask & { state: string; kits: { line: number; parts: { line: number; each: number }[] }[] };
  const task = (code: string) => dilys.task<Task>('pack', code);
  const kitOf = (order: string, t: Task, kits: number, more: object = {}) => ({
    kind: 'pack-kit',
    order,
    parcel: 1,
    kit: t.kits[0]!.line,
    kits,
    how: 'scanned',
    lines: t.kits[0]!.parts.map((p) => ({ line: p.line, units: p.each * kits })),
    ...more, // prettier-ignore
  });
  const sheet = async (code: string) => (await maren.get(`orders/${code}`).expect(200)).body as { state: string; version: number; lines: { sku: string; wanted: number; leftOut: number; along: boolean; price: string }[] }; // prettier-ignore
  const rule = (more: object = {}) =>
    maren.post('inserts', { itemId: card, channelId: null, units: 1, fromValue: null, firstOnly: false, ...more });

  describe('kits', () => {
    it('go in whole, all of their parts or none, and out again with one undo', async () => {
      const code = await atTable(['KIT-CHILD', 3]);
      const before = await task(code);
      expect(before.kits).toMatchObject([{ parts: [{ each: 2 }, { each: 1 }] }]);
      const { activityId } = (await dilys.floor(kitOf(code, before, 2)).expect(200)).body as { activityId: number };
      expect((await task(code)).lines.map((l) => [l.picked, l.packed])).toEqual([[6, 4], [3, 2]]); // prettier-ignore
      expect((await dilys.floor(kitOf(code, before, 2)).expect(409)).body).toMatchObject({ detail: expect.stringContaining('wants 2') });
      // The jars of the refused kits went nowhere.
      expect((await task(code)).lines.map((l) => l.packed)).toEqual([4, 2]);
      await dilys.post(`tape/${activityId}/undo`).expect(201);
      expect((await task(code)).lines.map((l) => l.packed)).toEqual([0, 0]);
      await dilys.floor(kitOf(code, before, 3)).expect(200);
      await dilys.floor(closing(code, { weightSeen: true })).expect(200);
      expect(await sheet(code)).toMatchObject({ state: 'packed' });
    });

    it('whose parts are not those of the order, or are scanned piece by piece, are not taken on trust', async () => {
      const code = await atTable(['KIT-CHILD', 1]);
      const t = await task(code);
      const [jars, smoker] = t.kits[0]!.parts;
      for (const lines of [
        [],
        [{ line: jars!.line, units: 2 }],
        [
          { line: jars!.line, units: 3 },
          { line: smoker!.line, units: 1 },
        ],
      ])
        // prettier-ignore
        expect([400, 409]).toContain((await dilys.floor(kitOf(code, t, 1, { lines }))).status);
      await house.source.query(`UPDATE item SET scan_each = 1 WHERE sku = 'SMK-LGE'`);
      expect((await dilys.floor(kitOf(code, t, 1)).expect(409)).body).toMatchObject({ detail: expect.stringContaining('one by one') });
      await house.source.query(`UPDATE item SET scan_each = 0 WHERE sku = 'SMK-LGE'`);
      expect((await task(code)).lines.map((l) => l.packed)).toEqual([0, 0]);
    });
  });

  describe('inserts at the table', () => {
    const leaveOut = (order: string, line: number, units = 1) => dilys.floor({ kind: 'leave-out', order, lines: [{ line, units }] });

    it('stay behind where somebody says so: the customer reads it, the shelf has them back, and the order is complete', async () => {
      const code = await atTable(['JAR-454-RD', 2], ['CRD-RECIPE', 1]);
      const [goods, card] = (await task(code)).lines;
      expect([goods!.insert, card!.insert]).toEqual([false, true]);
      expect((await leaveOut(code, goods!.line).expect(409)).body).toMatchObject({ detail: expect.stringContaining('waits for it') });
      expect((await leaveOut(code, card!.line, 2).expect(409)).body).toMatchObject({ detail: 'Only 1 of it wait here' });
      const { activityId } = (await leaveOut(code, card!.line).expect(200)).body as { activityId: number };
      const after = await task(code);
      expect(after.lines.map((l) => l.itemId)).toEqual([goods!.itemId]);
      expect(after.spare).toMatchObject([{ itemId: card!.itemId, units: 1 }]);
      expect((await sheet(code)).lines[1]).toMatchObject({ wanted: 0, leftOut: 1 });
      // Said by mistake, it goes along after all.
      await dilys.post(`tape/${activityId}/undo`).expect(201);
      expect((await task(code)).lines.map((l) => l.picked - l.packed)).toEqual([2, 1]);
      expect((await sheet(code)).lines[1]).toMatchObject({ wanted: 1, leftOut: 0 });
      await leaveOut(code, card!.line).expect(200);
      await dilys.floor({ kind: 'pack', order: code, parcel: 1, line: goods!.line, units: 2, how: 'scanned' }).expect(200);
      await dilys.floor(closing(code, { weightSeen: true })).expect(200);
      expect(await sheet(code)).toMatchObject({ state: 'packed' });
      expect(await house.app.get(ParcelPapers).read(`${code}-1`)).toMatchObject({
        follows: [],
        leftOut: [{ code: 'CRD-RECIPE', quantity: 1, note: 'left out this time' }],
      });
    });

    it('are left out once by two packers at the same moment, and never the last thing of an order', async () => {
      const code = await atTable(['JAR-454-RD', 1], ['CRD-RECIPE', 1]);
      const line = (await task(code)).lines.find((l) => l.insert)!.line;
      const both = await Promise.all([leaveOut(code, line), leaveOut(code, line)]);
      expect(both.map((b) => b.status).sort()).toEqual([200, 409]);
      const alone = await atTable(['CRD-RECIPE', 1]);
      expect((await leaveOut(alone, 1).expect(409)).body).toMatchObject({ detail: expect.stringContaining('Nothing else is on it') });
    });
  });

  describe('inserts by rule', () => {
    it('go with the orders that the rule is for, and with no other', async () => {
      const phone = (await house.source.query<{ id: number }[]>(`SELECT id FROM channel WHERE code = 'PHONE'`))[0]!.id;
      await rule({ channelId: phone, fromValue: '5,00' }).expect(201);
      const small = await house.order([['JAR-454-RD', 4]]);
      const large = await house.order([['JAR-454-RD', 5]]);
      const own = await house.order([['JAR-454-RD', 5], ['CRD-RECIPE', 2]]); // prettier-ignore
      expect((await sheet(small)).lines).toHaveLength(1);
      expect((await sheet(large)).lines[1]).toMatchObject({ sku: 'CRD-RECIPE', wanted: 1, along: true });
      expect((await sheet(own)).lines).toHaveLength(2);
    });

    it('of a first order go to a customer once; a quote has its own once it is an order, and a part of an order none of its own', async () => {
      await rule({ firstOnly: true }).expect(201);
      const email = 'new@mail.example';
      const [first, second] = [await house.order([['JAR-454-RD', 2]], { email }), await house.order([['JAR-454-RD', 2]], { email })];
      expect([(await sheet(first)).lines.length, (await sheet(second)).lines.length]).toEqual([2, 1]);
      const quote = keyed({ quote: true, email: 'third@mail.example' });
      const { code } = (await maren.post('orders', quote).expect(201)).body as { code: string };
      const quoted = await sheet(code);
      expect(quoted.lines).toHaveLength(1);
      await maren.post(`orders/${code}/confirm`, {}, { 'if-match': `"${quoted.version}"` }).expect(200);
      expect((await sheet(code)).lines[1]).toMatchObject({ sku: 'CRD-RECIPE', along: true });
    });

    it('hold nothing up where there are none left', async () => {
      await rule({ units: 900 }).expect(201);
      const code = await atTable(['JAR-454-RD', 1]);
      expect(await sheet(code)).toMatchObject({ state: 'picked' });
    });

    it('are kept by whoever sets the house up, for goods that hold nothing up', async () => {
      const wrong = (await rule({ itemId: jar }).expect(400)).body as { fields: object };
      expect(wrong.fields).toMatchObject({ itemId: expect.stringContaining('would hold up orders') });
      for (const bad of [{ units: 0 }, { units: 'many' }, { fromValue: '-1' }, { fromValue: '1e9' }, { channelId: 999_999 }]) await rule(bad).expect(400); // prettier-ignore
      expect((await dilys.post('inserts', {})).status).toBe(403);
      await rule().expect(201);
      const { rules } = (await maren.get('inserts').expect(200)).body as { rules: { id: number; version: number }[] };
      const { id, version } = rules[0]!;
      const body = { itemId: await house.itemId('STK-TT'), channelId: null, units: 2, fromValue: '49.90', firstOnly: true };
      await maren.put(`inserts/${id}`, body, { 'if-match': `"${version}"` }).expect(204);
      expect((await maren.put(`inserts/${id}`, body, { 'if-match': `"${version}"` })).status).toBe(412);
      expect((await maren.get('inserts')).body).toMatchObject({ rules: [{ sku: 'STK-TT', units: 2, fromValue: '49.9', firstOnly: true }] });
      await maren.delete(`inserts/${id}`).expect(204);
      expect((await maren.delete(`inserts/${id}`)).status).toBe(404);
    });
  });

  describe('boxes that are kept as items', () => {
    it('are taken out of their bin with each parcel, put back with one that is opened, and ordered like goods', async () => {
      await house.stock('BOX-POST-1', 'A-03-1', 2);
      const boxes = async () => (await maren.get('boxes/B2').expect(200)).body as { version: number; sku: string | null; stock: { units: number }[] } & Record<string, unknown>; // prettier-ignore
      await house.source.query(
        "REPLACE INTO carton_stock (carton, site_id, units) SELECT 'B2', site_id, 5 FROM place WHERE code = 'A-03-1'",
      );
      const kept = await boxes();
      const change = { ...kept, stock: [], sku: 'NO-SUCH' };
      const put = (body: object, version = kept.version) => maren.put('boxes/B2', body, { 'if-match': `"${version}"` });
      const pick = ({ lengthMm, widthMm, heightMm, tareG, mostG, lowAt }: Record<string, unknown>, sku: string) => ({ lengthMm, widthMm, heightMm, tareG, mostG, lowAt, sku, stock: [] }); // prettier-ignore
      expect((await put(pick(change, 'NO-SUCH')).expect(400)).body).toMatchObject({ fields: { sku: expect.stringContaining('no item') } });
      await put(pick(change, 'KIT-CHILD')).expect(400);
      await put(pick(change, 'BOX-POST-1')).expect(200);
      expect(await boxes()).toMatchObject({ sku: 'BOX-POST-1', stock: [{ units: 2 }] });
      const codes: string[] = [];
      for (let i = 0; i < 3; i++) {
        const code = await atTable(['JAR-454-RD', 1]);
        await dilys.floor({ kind: 'pack', order: code, parcel: 1, line: 1, units: 1, how: 'scanned' }).expect(200);
        await dilys.floor(closing(code, { weightSeen: true })).expect(200);
        codes.push(code);
      }
      // The third came from a heap that nobody had counted: no packer waits for that.
      expect(await house.balance('BOX-POST-1', 'A-03-1')).toBe(0);
      await dilys.floor({ kind: 'open-parcel', order: codes[0]!, parcel: 1 }).expect(200);
      await dilys.floor({ kind: 'open-parcel', order: codes[2]!, parcel: 1 }).expect(200);
      expect(await house.balance('BOX-POST-1', 'A-03-1')).toBe(1);
      const two = [await atTable(['JAR-454-RD', 1]), await atTable(['JAR-454-RD', 1])];
      for (const order of two) await dilys.floor({ kind: 'pack', order, parcel: 1, line: 1, units: 1, how: 'scanned' }).expect(200);
      const closed = await Promise.all(two.map((order) => dilys.floor(closing(order, { weightSeen: true }))));
      expect(closed.map((c) => c.status)).toEqual([200, 200]);
      expect(await house.balance('BOX-POST-1', 'A-03-1')).toBe(0);
      // What had been counted before the item stood still meanwhile: it is there again without the item, neither more nor less.
      await put({ ...pick(change, ''), sku: null }, (await boxes()).version).expect(200);
      expect((await boxes()).stock).toEqual(kept.stock);
    });
  });

  describe('a picture of a parcel', () => {
    const png = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==', 'base64');

    it('is kept with its order, replaced until it has left, and refused where it is none', async () => {
      const code = await atTable(['JAR-454-RD', 1]);
      await dilys.floor({ kind: 'pack', order: code, parcel: 1, line: 1, units: 1, how: 'scanned' }).expect(200);
      expect((await dilys.get(`bench/parcels/${code}-1/picture`)).status).toBe(404);
      expect((await dilys.file('put', `bench/parcels/${code}-1/picture`, Buffer.from('no picture'))).status).toBe(400);
      expect((await dilys.file('put', `bench/parcels/${code}-9/picture`, png)).status).toBe(404);
      await dilys.file('put', `bench/parcels/${code}-1/picture`, png).expect(204);
      expect((await maren.get(`bench/parcels/${code}-1/picture`).expect(200)).headers['content-type']).toBe('image/webp');
      expect((await maren.get(`orders/${code}`)).body).toMatchObject({ parcels: [{ hasPicture: true }] });
    });
  });
});
