import { type Caller, House } from './house.js';

interface Way {
  kind: string;
  wholeAt: string;
  late: boolean;
  atOrdersSite: boolean;
  sendings: { site: string; leavesAt: string; pieces: number }[];
  waitsFor: { code: string; kind: string }[];
}
const DAY_MS = 86_400_000;
const inDays = (days: number) => new Date(Date.now() + days * DAY_MS).toISOString().slice(0, 10);

describe('how an order that waits can go', () => {
  let house: House;
  let desk: Caller;
  beforeAll(async () => {
    house = await House.open();
    desk = await house.as('Maren');
  });
  afterAll(() => house.close());

  const ways = async (code: string, by = desk) => (await by.get(`orders/${code}/ways`).expect(200)).body as Way[];
  const sheet = async (code: string) => (await desk.get(`orders/${code}`)).body as { version: number; promisedAt: string; state: string };
  async function bought(sku: string, packs: number, expectedOn: string, factor = 48): Promise<string> {
    const { code } = (
      await desk
        .post('purchase-orders', {
          supplier: 'QUILLON',
          siteId: 1,
          note: '',
          expectedOn,
          lines: [{ sku, factor, packs, price: '20.16' }],
        })
        .expect(201)
    ).body as { code: string };
    await desk.post(`purchase-orders/${code}/place`, {}, { 'if-match': '"1"' }).expect(200);
    return code;
  }

  it('is told by what is on order, with the order that it waits for', async () => {
    const code = await house.order([['JAR-454-RD', 20]]);
    expect(await ways(code)).toEqual([]);
    const purchase = await bought('JAR-454-RD', 1, inDays(9));
    const [way, ...more] = await ways(code);
    expect(more).toEqual([]);
    expect(way).toMatchObject({ kind: 'together', late: true, atOrdersSite: true, waitsFor: [{ code: purchase, kind: 'order' }] });
    expect(way!.sendings).toMatchObject([{ site: 'Millrace', leavesAt: way!.wholeAt, pieces: 20 }]);
    expect(Date.parse(way!.wholeAt)).toBeGreaterThan(Date.now() + 8 * DAY_MS);
  });

  it('does not eat what is promised to another, though it lies there for now', async () => {
    await house.stock('JAR-227-RD', 'A-02-1', 10);
    // The first holds eight of ten for a month hence.
    const first = await house.order([['JAR-227-RD', 8]], { promisedAt: new Date(Date.now() + 30 * DAY_MS).toISOString() });
    const second = await house.order([['JAR-227-RD', 5]]);
    expect(await ways(second)).toEqual([]);
    expect((await ways(first))[0]).toMatchObject({ kind: 'together', late: false, waitsFor: [] });
  });

  it('counts on what is overdue for tomorrow, not for now', async () => {
    const purchase = await bought('SUIT-M', 2, inDays(4), 6);
    await house.source.query('UPDATE purchase_order SET expected_on = ? WHERE code = ?', [inDays(-3), purchase]);
    const [way] = await ways(await house.order([['SUIT-M', 7]]));
    expect(way).toMatchObject({ kind: 'together', waitsFor: [{ code: purchase, kind: 'order' }] });
    expect(Date.parse(way!.wholeAt)).toBeGreaterThan(Date.parse(`${inDays(1)}T11:00:00Z`));
  });

  it('is in parts too where some of it is there and the rest comes later', async () => {
    await house.stock('JAR-340-HX', 'A-03-1', 3);
    const purchase = await bought('JAR-340-HX', 1, inDays(9));
    const found = await ways(await house.order([['JAR-340-HX', 7]]));
    expect(found.map((w) => [w.kind, w.waitsFor])).toEqual([
      ['together', [{ code: purchase, kind: 'order' }]],
      ['in parts', [{ code: purchase, kind: 'order' }]],
    ]);
    expect(Date.parse(found[0]!.wholeAt)).toBeGreaterThan(Date.now());
    expect(found[1]!.sendings.map((s) => s.pieces)).toEqual([3, 4]);
  });

  it('names another site that has it, to those who have business there', async () => {
    const [quay] = await house.source.query<{ id: number; code: string }[]>(
      `SELECT p.id, p.code FROM place p JOIN site s ON s.id = p.site_id WHERE s.code = 'QUAY' AND p.kind = 'pick-face' ORDER BY p.id LIMIT 1`,
    );
    await house.stock('BOK-WAX', quay!.code, 9);
    const code = await house.order([['BOK-WAX', 4]]);
    expect((await ways(code))[0]).toMatchObject({ kind: 'together', atOrdersSite: false, sendings: [{ site: 'Quayside', pieces: 4 }] });
    await house.source.query('DELETE FROM person_site WHERE site_id = 2 AND person_id = (SELECT id FROM person WHERE name LIKE ?)', [
      'Orla%',
    ]);
    expect(await ways(code, await house.as('Orla'))).toEqual([]);
    await desk.get('orders/NO-SUCH/ways').expect(404);
  });

  it('is promised anew by the order desk, from the newest view, for a time to come', async () => {
    const code = await house.order([['SMK-LGE', 2]]);
    const { version } = await sheet(code);
    const at = new Date(Date.now() + 5 * DAY_MS).toISOString();
    const match = { 'if-match': `"${version}"` };
    await (await house.as('Ines')).post(`orders/${code}/promise`, { at }, match).expect(403);
    await desk.post(`orders/${code}/promise`, { at: new Date(Date.now() - DAY_MS).toISOString() }, match).expect(400);
    await desk.post(`orders/${code}/promise`, { at: 'soon' }, match).expect(400);
    await desk.post(`orders/${code}/promise`, { at }, match).expect(200);
    expect((await sheet(code)).promisedAt).toBe(at);
    await desk.post(`orders/${code}/promise`, { at }, match).expect(412);
    const tape = (await desk.get(`tape?document=${code}`)).body as { entries: { title: string }[] };
    expect(tape.entries[0]!.title).toMatch(new RegExp(`^${code} promised for \\w{3} \\d+ \\w{3} \\d\\d:\\d\\d$`));
  });

  it('gives an order that is promised later its place behind those who are due before it', async () => {
    const early = await house.order([['SMK-SML', 4]], { promisedAt: new Date(Date.now() + 2 * DAY_MS).toISOString() });
    const late = await house.order([['SMK-SML', 4]], { promisedAt: new Date(Date.now() + 3 * DAY_MS).toISOString() });
    const { version } = await sheet(early);
    await desk
      .post(`orders/${early}/promise`, { at: new Date(Date.now() + 9 * DAY_MS).toISOString() }, { 'if-match': `"${version}"` })
      .expect(200);
    await house.stock('SMK-SML', 'A-11-1', 4);
    const reserved = async (code: string) =>
      ((await desk.get(`orders/${code}`)).body as { lines: { reserved: number }[] }).lines.map((l) => l.reserved);
    expect([await reserved(early), await reserved(late)]).toEqual([[0], [4]]);
  });
});
