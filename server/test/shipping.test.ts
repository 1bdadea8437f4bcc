import { type Carton, rankCartons } from '@vectrum/core/cartons';
import { goodsWeightG, type PackLine, type PackTask } from '@vectrum/core/scan';
import { Mailer } from '../src/platform/mailer.js';
import { type Caller, House, closing } from './house.js';
import { OutsideWorld } from './outside-world.js';

const LABEL = Buffer.from('%PDF-1.3 a label').toString('base64');

describe('packing and dispatch', () => {
  let house: House;
  let world: OutsideWorld;
  let dilys: Caller;
  const mails: { to: string; subject: string; text: string; attachments: { filename: string }[] }[] = [];

  beforeAll(async () => {
    world = await OutsideWorld.open();
    house = await House.open({ VECTRUM_OUTSIDE_URL: world.url });
    house.app.get(Mailer).send = (mail) => {
      mails.push(mail);
      return Promise.resolve();
    };
    dilys = await house.as('Dilys');
    await house.stock('JAR-454-RD', 'A-01-1', 500);
    await house.stock('FON-025', 'K-01-1', 2, { code: 'ONE', expires: '2027-06-01' });
    await house.stock('FON-025', 'K-02-1', 2, { code: 'TWO', expires: '2027-07-01' });
  });
  beforeEach(() => {
    world.answers = {
      'POST /carriers/harrier/rates': () => ({
        status: 200,
        body: {
          rates: [
            { service: 'parcel-48', name: 'Parcel', price: '3.60', days: 2 },
            { service: 'parcel-24', name: 'Next day', price: '2.10', days: 1 },
          ],
        },
      }),
      'POST /carriers/northway/rates': () => ({ status: 200, body: { rates: [] } }),
      'POST /carriers/harrier/labels': () => ({ status: 200, body: { tracking: 'HP10000000GB', price: '3.60', pdf: LABEL } }),
    };
  });
  afterAll(async () => {
    await house.close();
    await world.close();
  });

  let tote = 10;
  async function picked(lines: [string, number][], more: object = {}): Promise<string> {
    const code = await house.order(lines, more);
    await house.pickAll(await house.release(code), `T-${String(tote++)}`);
    return code;
  }
  const label = (code: string, more: object = {}) => dilys.floor(closing(code, more));
  const sheet = async (code: string) =>
    (await dilys.get(`orders/${code}`)).body as {
      state: string;
      parcels: { code: string; state: string; tracking: string }[];
      lines: { packed: number; shipped: number }[];
    };
  const handOver = (...parcels: string[]) => dilys.post('dispatch/hand-overs', { carrier: 'HARRIER', parcels });

  it('finds the order by tote, by docket and by parcel', async () => {
    const code = await picked([['JAR-454-RD', 2]]);
    expect((await dilys.task<{ order: string }>('pack', `T-${tote - 1}`)).order).toBe(code);
    await dilys.get('floor/tasks/pack/T-40').expect(404);
    const unpicked = await house.order([['JAR-454-RD', 2]]);
    const early = await dilys.get(`floor/tasks/pack/${unpicked}`).expect(409);
    expect((early.body as { detail: string }).detail).toBe(`${unpicked} is not picked yet. It opens here once its goods are set down`);
    const bench = await dilys.task<Omit<PackTask, 'lines'> & { cartons: Carton[]; lines: (PackLine & { longestMm: number | null })[] }>(
      'pack',
      code,
    );
    expect(goodsWeightG(bench, [{ line: 1, units: 2 }])).toBe(490);
    const goods = bench.lines.map((l) => ({ ...l, units: l.picked }));
    expect(rankCartons(bench.cartons, goods).filter((c) => c.proposed)).toHaveLength(1);
  });

  it('moves proved goods into the parcel and refuses one too many', async () => {
    const code = await picked([['JAR-454-RD', 2]]);
    await dilys.floor({ kind: 'pack', order: code, parcel: 1, line: 1, units: 2, how: 'scanned' }).expect(200);
    const over = await dilys.floor({ kind: 'pack', order: code, parcel: 1, line: 1, units: 1, how: 'scanned' });
    expect(over.body).toMatchObject({ band: 'too-many', title: '1 jar over' });
    expect(await house.balance('JAR-454-RD', `${code}-1`)).toBe(2);
  });

  it('carries lots from tote to parcel and back again on undo', async () => {
    const code = await picked([['FON-025', 3]]);
    const { activityId } = (await dilys.floor({ kind: 'pack', order: code, parcel: 1, line: 1, units: 3, how: 'scanned' })).body as {
      activityId: number;
    };
    const kept: { lot: string; units: number }[] = await house.source.query(
      'SELECT l.code AS lot, pl.units FROM parcel_line pl JOIN lot l ON l.id = pl.lot_id JOIN parcel p ON p.id = pl.parcel_id WHERE p.code = ? ORDER BY l.code',
      [`${code}-1`],
    );
    expect(kept).toEqual([
      { lot: 'ONE', units: 2 },
      { lot: 'TWO', units: 1 },
    ]);
    await dilys.post(`tape/${activityId}/undo`).expect(201);
    expect((await sheet(code)).lines[0]).toMatchObject({ packed: 0 });
    expect(await house.balance('FON-025', `${code}-1`)).toBe(0);
  });

  it('prints no label before everything is in and the note is read', async () => {
    const code = await picked([['JAR-454-RD', 2]], { note: 'No prices, please' });
    expect((await label(code).expect(409)).body).toMatchObject({ detail: '2 pieces are still to scan into the parcel' });
    await house.packAll(code);
    expect(((await label(code).expect(409)).body as { detail: string }).detail).toContain('note');
    await dilys.floor({ kind: 'note-seen', order: code }).expect(200);
    await label(code).expect(200);
  });

  it('has the note acknowledged by the packer’s own badge where the house wants that', async () => {
    await house.source.query(`REPLACE INTO setting (name, value) VALUES ('noteByBadge', '{"is":true}')`);
    const code = await picked([['JAR-454-RD', 1]], { note: 'No prices' });
    const [own] = await house.source.query<{ badge: string }[]>('SELECT badge_code AS badge FROM person WHERE id = ?', [dilys.personId]);
    expect(await dilys.task<{ noteBadge: string | null }>('pack', code)).toMatchObject({ noteBadge: own!.badge });
    const read = (more: object = {}) => dilys.floor({ kind: 'note-seen', order: code, ...more });
    expect((await read().expect(409)).body).toMatchObject({ detail: expect.stringContaining('scan your own badge') });
    await read({ badge: 'V-1' }).expect(409);
    await read({ badge: own!.badge.toLowerCase() }).expect(200);
    // Whoever has none is not kept from it.
    await house.source.query('UPDATE person SET badge_code = NULL WHERE id = ?', [dilys.personId]);
    expect(await dilys.task<{ noteBadge: string | null }>('pack', code)).toMatchObject({ noteBadge: null });
    await house.source.query('UPDATE person SET badge_code = ? WHERE id = ?', [own!.badge, dilys.personId]);
    await house.source.query(`DELETE FROM setting WHERE name = 'noteByBadge'`);
  });

  it('asks to look into a parcel whose weight is off, and believes who has looked', async () => {
    const code = await picked([['JAR-454-RD', 2]]);
    await house.packAll(code);
    const heavy = await label(code, { weightG: 900 }).expect(409);
    expect(heavy.body).toMatchObject({ title: 'Weight is off', band: 'too-many' });
    expect((await label(code, { weightG: 300 }).expect(409)).body).toMatchObject({ band: 'not-this' });
    expect((await label(code, { weightG: 30_000 }).expect(400)).body).toMatchObject({ code: 'form' });
    await label(code, { weightG: 900, weightSeen: true, weightWhy: 'more padding' }).expect(200);
    expect(await sheet(code)).toMatchObject({ state: 'packed', parcels: [{ weightWhy: 'more padding' }] });
  });

  it('compares carriers, cheapest first, and names those that are silent', async () => {
    world.answers['POST /carriers/northway/rates'] = () => ({ status: 500, body: { message: 'out of order' } });
    const code = await picked([['JAR-454-RD', 1]]);
    const { rates, silent } = (await dilys.get(`bench/orders/${code}/rates?weight=500`).expect(200)).body as {
      rates: { service: string }[];
      silent: string[];
    };
    expect(rates.map((r) => r.service)).toEqual(['parcel-24', 'parcel-48']);
    expect(silent).toEqual(['Northway Freight: out of order']);
    await dilys.get(`bench/orders/${code}/rates?weight=light`).expect(400);
  });

  it('proposes the cheapest that is fast enough, and takes it where nobody has chosen', async () => {
    world.answers['POST /carriers/harrier/rates'] = (heard) => {
      const { sizeMm } = JSON.parse(heard.body) as { sizeMm: number[] | null };
      return {
        status: 200,
        body: {
          rates: [
            { service: 'parcel-48', name: 'Parcel', price: '3.60', days: 2 },
            {
              service: 'parcel-24',
              name: 'Next day',
              price: sizeMm ? '5.30' : '9.99',
              days: 1,
              surcharges: [{ name: 'large', price: '1.00' }],
            },
          ],
        },
      };
    };
    const code = await picked([['JAR-454-RD', 2]], { speed: 'express' });
    const { rates } = (await dilys.get(`bench/orders/${code}/rates?weight=670&box=B2`).expect(200)).body as { rates: object[] };
    expect(rates).toMatchObject([
      { service: 'parcel-24', price: '5.30', keeps: true, surcharges: [{ name: 'large' }] },
      { service: 'parcel-48', keeps: false, surcharges: [] },
    ]);
    await house.packAll(code);
    await label(code, { service: null }).expect(200);
    await house.deliver();
    const kept = await house.source.query<{ service: string }[]>('SELECT service FROM parcel WHERE code = ?', [`${code}-1`]);
    expect(kept).toEqual([{ service: 'parcel-24' }]);
  });

  it('keeps the label request while the carrier is down, and gets it when it is back', async () => {
    world.answers['POST /carriers/harrier/labels'] = () => ({ status: 503, body: { message: 'out of order' } });
    const code = await picked([['JAR-454-RD', 2]]);
    await house.packAll(code);
    await label(code).expect(200);
    await house.deliver();
    const lanes = (await dilys.get('dispatch/lanes')).body as { carrier: string; parcels: { code: string; trouble: string | null }[] }[];
    expect(lanes.find((l) => l.carrier === 'HARRIER')!.parcels.find((p) => p.code === `${code}-1`)!.trouble).toBe('out of order');
    expect((await handOver(`${code}-1`).expect(409)).body).toMatchObject({ code: 'state' });
    world.answers['POST /carriers/harrier/labels'] = () => ({ status: 200, body: { tracking: 'HP7', price: '3.60', pdf: LABEL } });
    const maren = await house.as('Maren');
    const failing = ((await maren.get('outbox')).body.rows as { id: number; state: string; kind: string }[]).find(
      (o) => o.state === 'failing' && o.kind === 'carrier.label',
    )!;
    await maren.post(`outbox/${failing.id}/retry`).expect(204);
    await house.deliver();
    expect((await sheet(code)).parcels[0]).toMatchObject({ state: 'labelled', tracking: 'HP7' });
    const pdf = await dilys.get(`dispatch/parcels/${code}-1/label`).expect(200);
    expect(pdf.headers['content-type']).toBe('application/pdf');
  });

  it('goes another way where the carrier will not have it, and only while it has no label', async () => {
    world.answers['POST /carriers/harrier/labels'] = (body) =>
      JSON.stringify(body).includes('parcel-24')
        ? { status: 200, body: { tracking: 'HP24', price: '2.10', pdf: LABEL } }
        : { status: 422, body: { message: 'We do not deliver there' } };
    const code = await picked([['JAR-454-RD', 2]]);
    await house.packAll(code);
    await label(code).expect(200);
    await house.deliver();
    const bench = async () =>
      (await dilys.task<{ allParcels: { code: string; state: string; problem: string | null; weightG: number }[] }>('pack', code))
        .allParcels[0];
    expect(await bench()).toMatchObject({ state: 'label-asked', problem: 'We do not deliver there', weightG: 670 });
    const send = (service: object | null) => dilys.post(`bench/parcels/${code}-1/service`, { service });
    await send({ carrier: 'NOBODY', code: 'x' }).expect(404);
    await (await house.as('Ruben')).post(`bench/parcels/${code}-1/service`, { service: null }).expect(403);
    await send({ carrier: 'HARRIER', code: 'parcel-24' }).expect(204);
    await house.deliver();
    expect((await sheet(code)).parcels[0]).toMatchObject({ state: 'labelled', tracking: 'HP24' });
    expect(await bench()).toMatchObject({ state: 'labelled', problem: null });
    expect((await send(null).expect(409)).body).toMatchObject({ detail: expect.stringContaining('has its label') });
  });

  it('hands over: stock is gone, the promise kept, shop and customer are told', async () => {
    const before = await house.figures('JAR-454-RD');
    const code = await picked([['JAR-454-RD', 2]], { channel: 'SHOP', ref: 'W-4711' });
    await house.packAll(code);
    await label(code).expect(200);
    await house.deliver();
    const answer = await handOver(`${code}-1`).expect(200);
    expect(answer.body).toMatchObject({ code: expect.stringMatching(/^H-/), parcels: 1 });
    const list = await dilys.bytes(`dispatch/hand-overs/${(answer.body as { code: string }).code}/list`).expect(200);
    expect((list.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    await dilys.get('dispatch/hand-overs/H-999/list').expect(404);
    const after = await house.figures('JAR-454-RD');
    expect(after.onHand).toBe(before.onHand - 2);
    expect(after.reserved).toBe(before.reserved);
    expect(await sheet(code)).toMatchObject({ state: 'shipped', parcels: [{ state: 'gone' }], lines: [{ shipped: 2 }] });
    await house.deliver();
    const told = world.at('/shop/orders/W-4711/shipments/');
    expect(JSON.parse(told[0]!.body)).toMatchObject({
      carrier: 'Harrier Post',
      tracking: 'HP10000000GB',
      complete: true,
      lines: [{ units: 2 }],
    });
    expect(mails.at(-1)).toMatchObject({
      to: 'wickhill@mail.example',
      subject: 'Your order W-4711 is on its way',
      attachments: [{ filename: `${code}-1.pdf` }],
    });
    expect(mails.at(-1)!.text).toContain('HP10000000GB');
    expect(mails.at(-1)!.text).toContain('In it:\n  2 jars Jar 454 g, round\n\nWith it your order is complete.');
  });

  it('hands nothing over twice, nor half a list', async () => {
    const [one, two] = [await picked([['JAR-454-RD', 2]]), await picked([['JAR-454-RD', 2]])];
    for (const code of [one, two]) {
      await house.packAll(code);
      await label(code).expect(200);
    }
    await house.deliver();
    await handOver(`${one}-1`).expect(200);
    expect((await handOver(`${two}-1`, `${one}-1`).expect(409)).body).toMatchObject({ detail: `${one}-1 was handed over already` });
    expect((await sheet(two)).state).toBe('packed');
    await handOver(`${two}-1`, 'S-99999-1').expect(404);
    const both = await Promise.all([handOver(`${two}-1`), handOver(`${two}-1`)]);
    expect(both.map((b) => b.status).sort()).toEqual([200, 409]);
  });

  it('says what is in each parcel, with lots, and what follows', async () => {
    await house.stock('FON-025', 'K-03-1', 6, { code: 'THREE', expires: '2027-08-01' });
    const code = await picked([
      ['JAR-454-RD', 4],
      ['FON-025', 2],
    ]);
    const pack = (parcel: number, line: number, units: number) =>
      dilys.floor({ kind: 'pack', order: code, parcel, line, units, how: 'scanned' }).expect(200);
    await pack(1, 1, 3);
    await label(code, { weightG: 180 + 3 * 245, more: true }).expect(200);
    await pack(2, 1, 1);
    await pack(2, 2, 2);
    await label(code, { parcel: 2, weightG: 180 + 245 + 2 * 2520 }).expect(200);
    await house.deliver();
    await handOver(`${code}-1`).expect(200);
    await house.deliver();
    expect(mails.at(-1)).toMatchObject({ attachments: [{ filename: `${code}-1.pdf` }] });
    expect(mails.at(-1)!.text).toContain('Parcel 1 of 2');
    expect(mails.at(-1)!.text).toMatch(
      /In it:\n {2}3 jars Jar 454 g, round\n\nNot in it:\n {2}1 jar Jar 454 g, round \(in another parcel\)\n {2}2 packs Fondant pack 2\.5 kg \(in another parcel\)/,
    );
    await handOver(`${code}-2`).expect(200);
    await house.deliver();
    expect(mails.at(-1)!.text).toMatch(/1 pack Fondant pack 2\.5 kg \(lot \w+, best before 2027-0\d-01\)/);
    expect(mails.at(-1)!.text).toContain('With it your order is complete.');
    const list = await dilys.bytes(`bench/parcels/${code}-2/packing-list`).expect(200);
    expect((list.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    await dilys.get('bench/parcels/S-99999-1/packing-list').expect(404);
  });

  it('prints a packing list with the order’s barcode', async () => {
    const code = await house.order([['JAR-454-RD', 1]], { customer: 'Łódź Beekeepers' });
    const pdf = await dilys.get(`orders/${code}/packing-list`).expect(200);
    expect((pdf.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
  });
});
