import { randomUUID } from 'node:crypto';
import { type Caller, House, receipt } from './house.js';

interface Task {
  lines: { lineId: number; itemId: number; ordered: number; received: number }[];
  pallets: { sscc: string; received: boolean }[];
  applied: string[];
}

describe('arrivals', () => {
  let house: House;
  let dock: Caller;
  let owner: Caller;
  let buyer: Caller;
  let dockId: number;
  let apartId: number;

  beforeAll(async () => {
    house = await House.open();
    [dock, owner, buyer] = await Promise.all([house.as('Ruben'), house.as('Maren'), house.as('Piet')]);
    [dockId, apartId] = await Promise.all([house.placeId('DOCK-1'), house.placeId('QUARANTINE-1')]);
  });
  afterAll(() => house.close());

  async function placed(lines: [sku: string, packs: number, factor: number][], supplier = 'QUILLON'): Promise<string> {
    const body = { supplier, siteId: 1, note: '', lines: lines.map(([sku, packs, factor]) => ({ sku, packs, factor, price: '10' })) };
    const { code } = (await buyer.post('purchase-orders', body).expect(201)).body as { code: string };
    await buyer.post(`purchase-orders/${code}/place`, {}, { 'if-match': '"1"' }).expect(200);
    return code;
  }
  const task = async (code: string) => await dock.task<Task>('receive', code);
  const take = async (code: string, units: number, more: object = {}, who = dock) => {
    const line = (await task(code)).lines[0];
    return who.floor(
      receipt(code, {
        lineId: line?.lineId,
        itemId: line?.itemId,
        units,
        toPlaceId: dockId,
        how: 'scanned',
        ...more,
      }),
    );
  };
  const arrivalOf = async (answer: ReturnType<typeof take>) => ((await answer).body as { arrival: string }).arrival;
  const receipts = (arrival: string): Promise<{ taken_as: string; units: number; stock_condition: string; reason: string | null }[]> =>
    house.source.query(
      'SELECT r.taken_as, r.units, r.stock_condition, r.reason FROM receipt r JOIN arrival a ON a.id = r.arrival_id WHERE a.code = ? AND r.undone_at IS NULL ORDER BY r.id',
      [arrival],
    );

  /** An arrival as a supplier's despatch advice leaves it. */
  async function announced(
    order: string,
    sscc: string,
    goods: { line: number; units: number; lot?: string; expires?: string }[],
  ): Promise<string> {
    const code = `A-${randomUUID().slice(0, 6)}`;
    const { insertId } = await house.source.query<{ insertId: number }>(
      `INSERT INTO arrival (code, site_id, supplier_id, state, expected_on) SELECT ?, site_id, supplier_id, 'announced', UTC_DATE() FROM purchase_order WHERE code = ?`,
      [code, order],
    );
    await house.source.query('INSERT INTO arrival_order (arrival_id, order_id) SELECT ?, id FROM purchase_order WHERE code = ?', [
      insertId,
      order,
    ]);
    for (const g of goods)
      await house.source.query(
        `INSERT INTO announced_goods (arrival_id, sscc, order_line_id, item_id, lot_code, expires_on, units)
         SELECT ?, ?, l.id, l.item_id, ?, ?, ? FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id WHERE o.code = ? AND l.line = ?`,
        [insertId, sscc, g.lot ?? null, g.expires ?? null, g.units, order, g.line],
      );
    return code;
  }

  it('begin with the first goods, and are one for everybody who counts', async () => {
    const code = await placed([['JAR-454-RD', 4, 48]]);
    const [a, b] = await Promise.all([arrivalOf(take(code, 48)), arrivalOf(take(code, 48, {}, owner))]);
    expect(a).toMatch(/^A-\d{4}$/);
    expect(b).toBe(a);
    expect((await task(a)).lines).toMatchObject([{ ordered: 192, received: 96 }]);
  });

  it('show a phone what another phone did under the other code', async () => {
    const code = await placed([['JAR-454-RD', 4, 48]]);
    const arrival = await arrivalOf(take(code, 48));
    const key = randomUUID();
    const line = (await task(code)).lines[0];
    await dock
      .floor(receipt(arrival, { lineId: line?.lineId, itemId: line?.itemId, units: 48, toPlaceId: dockId, how: 'scanned' }), { id: key })
      .expect(200);
    expect((await dock.task('receive', code, [key])).applied).toEqual([key]);
    expect((await task(arrival)).lines).toMatchObject([{ received: 96 }]);
  });

  it('close with the supplier’s paper, and tell what is short', async () => {
    const code = await placed([
      ['JAR-454-RD', 4, 48],
      ['LID-63-GD', 1, 1000],
    ]);
    await dock.floor({ kind: 'close-arrival', document: code, paper: '' }).expect(409);
    const arrival = await arrivalOf(take(code, 144));
    const closed = (await dock.floor({ kind: 'close-arrival', document: code, paper: 'QG-7781' }).expect(200)).body as object;
    expect(closed).toMatchObject({
      arrival,
      short: [
        { order: code, line: 1, missing: '48 jars' },
        { line: 2, missing: '1,000 lids' },
      ],
    });
    const tape = ((await dock.get('tape?limit=1')).body as { entries: { title: string; detail: string }[] }).entries[0]!;
    expect(tape).toMatchObject({ title: `${arrival} closed` });
    expect(tape.detail).toContain('48 jars');
    await dock.get(`floor/tasks/receive/${arrival}`).expect(409);
    const next = await arrivalOf(take(code, 48));
    expect(next).not.toBe(arrival);
    const again = await dock.floor({ kind: 'close-arrival', document: code, paper: 'QG-7781' }).expect(400);
    expect((again.body as { fields: object }).fields).toEqual({ paper: `Came with ${arrival} already` });
  });

  it('take damaged goods onto their line, but not onto the shelf', async () => {
    const code = await placed([['JAR-340-HX', 1, 48]]);
    const arrival = await arrivalOf(take(code, 3, { condition: 'damaged', toPlaceId: apartId }));
    expect(await receipts(arrival)).toMatchObject([{ taken_as: 'ordered', units: 3, stock_condition: 'damaged' }]);
    expect(await house.figures('JAR-340-HX')).toEqual({ onHand: 3, held: 3, reserved: 0 });
    expect((await task(code)).lines).toMatchObject([{ received: 3 }]);
    expect((await take(code, 3, { toPlaceId: apartId })).body).toMatchObject({ band: 'not-this', title: 'QUARANTINE-1' });
  });

  it('set wrong goods apart, and on no line', async () => {
    const code = await placed([['JAR-227-RD', 1, 48]]);
    const apart = { lineId: null, itemId: await house.itemId('SMK-LGE'), as: 'apart', toPlaceId: apartId };
    expect((await take(code, 2, apart)).body).toMatchObject({ code: 'refused', detail: expect.stringContaining('Say why') as string });
    const arrival = await arrivalOf(take(code, 2, { ...apart, reason: 'wrong goods' }));
    expect(await receipts(arrival)).toMatchObject([{ taken_as: 'apart', units: 2, stock_condition: 'apart', reason: 'wrong goods' }]);
    expect(await house.figures('SMK-LGE')).toMatchObject({ onHand: 2, held: 2 });
    expect((await task(code)).lines).toMatchObject([{ received: 0 }]);
  });

  it('take more than is allowed as an extra line, from those who may', async () => {
    const code = await placed([['JAR-042-MI', 1, 72]]);
    expect((await take(code, 100, { as: 'extra' })).body).toMatchObject({ title: 'More than is allowed' });
    const arrival = await arrivalOf(take(code, 100, { as: 'extra' }, owner));
    expect(await receipts(arrival)).toMatchObject([
      { taken_as: 'ordered', units: 72 },
      { taken_as: 'extra', units: 28 },
    ]);
    expect((await task(code)).lines).toMatchObject([{ received: 100 }]);
  });

  it('need no order, for those who may take goods in so', async () => {
    await dock.post('floor/arrivals', { siteId: 1 }).expect(403);
    const { code } = (await owner.post('floor/arrivals', { siteId: 1, supplier: 'tindra' }).expect(201)).body as { code: string };
    await owner.post('floor/arrivals', { siteId: 1, supplier: 'NOBODY' }).expect(400);
    const goods = { lineId: null, itemId: await house.itemId('VEIL-RND'), as: 'unordered' };
    expect((await take(code, 5, goods)).body).toMatchObject({ title: 'On no order' });
    await take(code, 5, goods, owner);
    expect(await receipts(code)).toMatchObject([{ taken_as: 'unordered', units: 5 }]);
    expect((await owner.floor({ kind: 'close-arrival', document: code, paper: '' }).expect(200)).body).toEqual({
      activityId: expect.any(Number),
      arrival: code,
      short: [],
    });
  });

  it('refuse goods too old for what the item asks', async () => {
    await house.source.query(`UPDATE item SET min_life_days = 90 WHERE sku = 'SYR-05'`);
    const code = await placed([['SYR-05', 2, 4]], 'OULDEN');
    const inDays = (n: number) => new Date(Date.now() + n * 86_400_000).toISOString().slice(0, 10);
    const short = { lot: 'LM-S', expires: inDays(60) };
    expect((await take(code, 4, short)).body).toMatchObject({ title: 'Too short a life' });
    expect((await take(code, 4, { ...short, lineId: null, as: 'apart', reason: 'too old', toPlaceId: apartId })).status).toBe(200);
    expect((await take(code, 4, { lot: 'LM-O', expires: inDays(60), as: 'extra' }, owner)).status).toBe(200);
    expect((await take(code, 4, { lot: 'LM-L', expires: inDays(120) })).status).toBe(200);
  });

  it('know a serial number again', async () => {
    const code = await placed([['SCL-B2', 4, 1]], 'BRINDLEMOOR');
    expect((await take(code, 1, { lot: 'HS-77' })).status).toBe(200);
    expect((await take(code, 1, { lot: 'HS-77' })).body).toMatchObject({ band: 'not-this', title: 'HS-77' });
  });

  it('keep zones closed to goods that come straight to a shelf', async () => {
    await house.source.query(`UPDATE item SET storage = 'cold' WHERE sku = 'JAR-340-HX'`);
    const code = await placed([['JAR-340-HX', 1, 48]]);
    expect((await take(code, 8, { toPlaceId: await house.placeId('A-09-1') })).body).toMatchObject({ band: 'not-this', title: 'A-09-1' });
  });

  describe('as they stand on the paper', () => {
    interface Task { lines: { lineId: number; ordered: number; received: number }[]; whole: object; others: { code: string; also: string[] }[] } // prettier-ignore
    const task = (code: string) => owner.task<Task>('receive', code);
    const left = async (code: string) =>
      (await task(code)).lines.filter((l) => l.received < l.ordered).map((l) => ({ lineId: l.lineId, units: l.ordered - l.received }));
    const whole = async (code: string, by = owner, lines?: object[]) =>
      by.floor({ kind: 'receive-whole', document: code, lines: lines ?? (await left(code)), toPlaceId: dockId, how: 'typed' });

    it('are booked in by those who may once the sample is here, all or nothing, and taken back at once', async () => {
      const code = await placed([['JAR-340-HX', 2, 48], ['SMK-LGE', 3, 1], ['VEIL-RND', 4, 1]], 'QUILLON'); // prettier-ignore
      expect((await task(code)).whole).toEqual({ may: true, sample: 2 });
      expect((await whole(code, dock)).status).toBe(403);
      expect((await whole(code)).body).toMatchObject({ band: 'not-this', title: 'Count the sample first' });
      await owner.put('company/settings/wholeSample', { value: '0' }).expect(204);
      const shown = await left(code);
      expect((await whole(code, owner, shown.slice(1))).body).toMatchObject({ title: 'No longer so' });
      expect((await whole(code, owner, [...shown, ...shown])).status).toBe(409);
      expect((await whole(code, owner, [])).status).toBe(400);
      expect(await receipts(code)).toEqual([]);
      const answers = await Promise.all([whole(code, owner, shown), whole(code, owner, shown)]);
      expect(answers.map((a) => a.status).sort()).toEqual([200, 409]);
      expect(await left(code)).toEqual([]);
      const { activityId } = answers.find((a) => a.status === 200)!.body as { activityId: number };
      await owner.post(`tape/${activityId}/undo`).expect(201);
      expect(await left(code)).toEqual(shown);
    });

    it('know the codes of the other deliveries, and not their own', async () => {
      const [one, two] = [await placed([['SMK-LGE', 1, 1]], 'QUILLON'), await placed([['SMK-LGE', 1, 1]], 'QUILLON')];
      const { others } = await task(one);
      expect(others.map((o) => o.code)).toContain(two);
      expect(others.flatMap((o) => [o.code, ...o.also])).not.toContain(one);
    });
  });

  describe('with pallets announced', () => {
    const SSCC = '395060001343520018';
    let order: string;
    let arrival: string;
    const whole = (sscc = SSCC, more: object = {}) =>
      dock.floor({ kind: 'receive-pallet', document: arrival, sscc, toPlaceId: dockId, how: 'scanned', ...more });

    beforeAll(async () => {
      order = await placed(
        [
          ['FON-025', 10, 5],
          ['SYR-05', 4, 4],
        ],
        'OULDEN',
      );
      arrival = await announced(order, SSCC, [
        { line: 1, units: 50, lot: 'F-1', expires: '2030-01-31' },
        { line: 2, units: 8, lot: 'S-1', expires: '2030-01-31' },
      ]);
    });

    it('receive one whole by one scan, lots and all, once', async () => {
      const answers = await Promise.all([whole(), whole(), whole()]);
      expect(answers.map((a) => a.status).sort()).toEqual([200, 409, 409]);
      expect((await task(arrival)).lines).toMatchObject([{ received: 50 }, { received: 8 }]);
      expect((await task(arrival)).pallets).toMatchObject([{ sscc: SSCC, received: true }]);
      const bins = ((await dock.get('items/FON-025/stock')).body as { bins: unknown[] }).bins;
      expect(bins).toMatchObject([{ lot: 'F-1', expires: '2030-01-31', units: 50, place: 'DOCK-1' }]);
      expect((await task(order)).lines).toMatchObject([{ received: 50 }, { received: 8 }]);
    });

    it('take it back whole', async () => {
      const tape = ((await dock.get('tape?limit=3')).body as { entries: { id: number; title: string }[] }).entries;
      const entry = tape.find((e) => e.title.startsWith(`Pallet ${SSCC}`))!;
      await dock.post(`tape/${entry.id}/undo`).expect(201);
      expect((await task(arrival)).lines).toMatchObject([{ received: 0 }, { received: 0 }]);
      expect((await task(arrival)).pallets).toMatchObject([{ received: false }]);
      expect(await receipts(arrival)).toEqual([]);
      await whole().expect(200);
    });

    it('refuse one that would be too many, and book in nothing of it', async () => {
      const code = await announced(order, '395060001343520025', [
        { line: 2, units: 8, lot: 'S-2', expires: '2030-01-31' },
        { line: 1, units: 50, lot: 'F-2', expires: '2030-01-31' },
      ]);
      const answer = await dock.floor({
        kind: 'receive-pallet',
        document: code,
        sscc: '395060001343520025',
        toPlaceId: dockId,
        how: 'scanned',
      });
      expect(answer.body).toMatchObject({ code: 'refused', band: 'too-many' });
      expect((await task(order)).lines).toMatchObject([{ received: 50 }, { received: 8 }]);
      expect((await whole('395060001343520032')).body).toMatchObject({ band: 'unknown' });
      expect((await whole('12')).status).toBe(400);
    });
  });

  describe('found by a scan', () => {
    const find = async (code: string) =>
      (await dock.get(`floor/due?code=${encodeURIComponent(code)}`).expect(200)).body as {
        opens: string | null;
        choices: { code: string }[];
      };

    it('of the order’s paper, the pallet, or goods that are due', async () => {
      const code = await placed([['TOOL-JH', 2, 20]], 'BRINDLEMOOR');
      expect((await find(code)).opens).toBe(code);
      expect((await find('tool-jh')).opens).toBe(code);
      const second = await placed([['TOOL-JH', 1, 20]], 'BRINDLEMOOR');
      expect(await find('TOOL-JH')).toMatchObject({ opens: null, choices: [{ code }, { code: second }] });
      const arrival = await announced(second, '395060001343520049', [{ line: 1, units: 20 }]);
      expect((await find(']C100395060001343520049')).opens).toBe(arrival);
      expect(await find('5099999999994')).toEqual({ opens: null, choices: [] });
      const due = (await dock.get('floor/receive')).body as { code: string; kind: string; pallets: number }[];
      expect(due.find((d) => d.code === arrival)).toMatchObject({ kind: 'arrival', pallets: 1 });
      expect(due.some((d) => d.code === second)).toBe(false);
    });
  });
});
