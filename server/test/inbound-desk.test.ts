import { type Caller, House, receipt } from './house.js';

interface Line {
  order: string | null;
  day: string | null;
  sku: string;
  units: number;
  late: boolean;
  by: string | null;
  takenAs: string;
}
interface Code {
  id: number;
  code: string;
  times: number;
  document: string | null;
}

describe('what the desk does about inbound', () => {
  let house: House;
  let buyer: Caller;
  let dock: Caller;
  let owner: Caller;

  beforeAll(async () => {
    house = await House.open();
    buyer = await house.as('Piet');
    dock = await house.as('Ruben');
    owner = await house.as('Maren');
  });
  afterAll(() => house.close());

  async function placed(expectedOn: string, packs = 4): Promise<string> {
    const lines = [
      { sku: 'JAR-454-RD', factor: 48, packs, price: '20.16' },
      { sku: 'LID-63-GD', factor: 1000, packs: 1, price: '48' },
    ];
    const { code } = (await buyer.post('purchase-orders', { supplier: 'QUILLON', siteId: 1, note: '', expectedOn, lines }).expect(201))
      .body as { code: string };
    await buyer.post(`purchase-orders/${code}/place`, {}, { 'if-match': '"1"' }).expect(200);
    return code;
  }

  describe('lines by their days', () => {
    const list = async (query: string) => ((await buyer.get(`inbound-lines?${query}`).expect(200)).body as { rows: Line[] }).rows;
    let old: string;
    let next: string;

    beforeAll(async () => {
      old = await placed('2020-03-01');
      next = await placed('2090-03-01');
      const line = (await dock.task<{ lines: { lineId: number; itemId: number }[] }>('receive', old)).lines[0]!;
      await dock
        .floor(
          receipt(old, { lineId: line.lineId, itemId: line.itemId, units: 48, toPlaceId: await house.placeId('DOCK-1'), how: 'scanned' }),
        )
        .expect(200);
    });

    it('are due between two days, the late first, with what is still to come of each', async () => {
      const due = await list('what=due');
      expect(due.filter((l) => l.order === old)).toMatchObject([
        { sku: 'JAR-454-RD', units: 144, late: true, day: '2020-03-01' },
        { sku: 'LID-63-GD', units: 1000, late: true },
      ]);
      expect((await list('from=2090-01-01')).map((l) => l.order)).toEqual([next, next]);
      expect((await list('to=2020-03-01')).every((l) => l.order === old)).toBe(true);
      expect((await list(`search=quillon lid ${next}`)).map((l) => l.sku)).toEqual(['LID-63-GD']);
      expect(await list('search=100%25')).toEqual([]);
    });

    it('came in on a day of the site, with who booked them in', async () => {
      const today = (await house.source.query<{ d: string }[]>('SELECT DATE(UTC_TIMESTAMP()) AS d'))[0]?.d;
      expect(await list('what=received')).toMatchObject([
        { order: old, units: 48, takenAs: 'ordered', by: expect.stringMatching(/^Ruben/) },
      ]);
      expect(await list('what=received&to=2020-01-01')).toEqual([]);
      expect(await list('what=received&from=2099-01-01')).toEqual([]);
      expect(today).toBeDefined();
    });

    it('refuse what is no day, and come as a file of just these', async () => {
      for (const wrong of ['2026-02-30', 'today', '1']) await buyer.get(`inbound-lines?from=${wrong}`).expect(400);
      const { text } = await buyer.get('exports/lists/inbound-lines.csv?what=due&from=2090-01-01').expect(200);
      expect(text.trim().split('\n')).toHaveLength(3);
    });
  });

  describe('what a supplier says on the telephone', () => {
    const sheet = async (code: string) =>
      (await buyer.get(`purchase-orders/${code}`).expect(200)).body as { version: number; answer: string; answerNote: string; state: string; lines: { packs: number; price: string }[] }; // prettier-ignore
    const say = async (code: string, body: object) =>
      buyer.post(
        `purchase-orders/${code}/spoken-answer`,
        { note: 'Ms Quill', lines: [], ...body },
        { 'if-match': `"${(await sheet(code)).version}"` },
      );
    const mails = async () =>
      Number((await house.source.query<{ n: string }[]>(`SELECT COUNT(*) AS n FROM outbox WHERE kind LIKE 'mail.%'`))[0]?.n);

    it('is kept, confirms or waits to be taken, and nobody is written to', async () => {
      const code = await placed('2090-04-01');
      const before = await mails();
      expect((await say(code, { says: 'accepted' })).status).toBe(200);
      expect(await sheet(code)).toMatchObject({ answer: 'confirmed', answerNote: 'Ms Quill' });
      expect((await say(code, { says: 'changed', lines: [{ line: 1, says: 'changed', packs: 3, price: '21.00' }] })).status).toBe(200);
      const waits = await sheet(code);
      expect(waits.answer).toBe('to-settle');
      await buyer.post(`purchase-orders/${code}/answer`, { says: 'accept', note: '' }, { 'if-match': `"${waits.version}"` }).expect(200);
      expect((await sheet(code)).lines[0]).toMatchObject({ packs: 3, price: expect.stringMatching(/^21\.00/) });
      expect(await mails()).toBe(before);
    });

    it('is refused where it says nothing, is about no line, comes twice, or is not for whoever says it', async () => {
      const code = await placed('2090-04-01');
      expect((await say(code, { says: 'changed' })).status).toBe(400);
      expect((await say(code, { says: 'changed', lines: [{ line: 9, says: 'refused' }] })).status).toBe(400);
      await buyer
        .post(`purchase-orders/${code}/spoken-answer`, { says: 'accepted', note: '', lines: [] }, { 'if-match': '"1"' })
        .expect(412);
      await dock
        .post(`purchase-orders/${code}/spoken-answer`, { says: 'accepted', note: '', lines: [] }, { 'if-match': '"2"' })
        .expect(403);
      expect((await say(code, { says: 'refused' })).status).toBe(200);
      expect(await sheet(code)).toMatchObject({ answer: 'refused', state: 'placed' });
    });
  });

  describe('codes that nothing has', () => {
    const scan = (code: string, how = 'scanned', by = dock) =>
      by
        .floor({ kind: 'refused', band: 'unknown', title: code, detail: 'On nothing here', code, how, siteId: 1, document: 'P-77' })
        .expect(200);
    const open = async () => ((await owner.get('unmatched-codes').expect(200)).body as { rows: Code[] }).rows;

    it('are kept once each, with how often and where; damaged codes, pallets, words and places are none', async () => {
      await scan('9521077990007');
      await scan('9521077990007', 'typed');
      for (const [code, how] of [
        ['(00)395060001343520018', 'scanned'],
        ['some words', 'typed'],
        ['DOCK-1', 'scanned'],
        ['x'.repeat(61), 'scanned'],
      ])
        // prettier-ignore
        await scan(code ?? '', how);
      await dock.floor({ kind: 'refused', band: 'not-this', title: 'Lids', detail: '', code: 'NOT-UNKNOWN', how: 'scanned', siteId: 1 });
      expect(await open()).toMatchObject([{ code: expect.stringMatching(/9521077990007$/), times: 2, document: 'P-77' }]);
      const now = (await owner.get('now').expect(200)).body as { stuck: { title: string; link: string }[] };
      expect(now.stuck.find((s) => s.link === '/shelves/codes')?.title).toMatch(/9521077990007 is on nothing/);
    });

    it('are matched once for all, and known on the floor from then on', async () => {
      const [row] = await open();
      await dock.get('unmatched-codes').expect(403);
      await dock.post(`unmatched-codes/${row?.id}/match`, { sku: 'JAR-454-RD', factor: 1 }).expect(403);
      await owner.post(`unmatched-codes/${row?.id}/match`, { sku: 'JAR-454-RD', factor: 7 }).expect(400);
      const answers = await Promise.all(
        [1, 2].map(() => owner.post(`unmatched-codes/${row?.id}/match`, { sku: 'JAR-454-RD', factor: 48 })),
      );
      expect(answers.map((a) => a.status).sort()[0]).toBe(201);
      expect(await open()).toEqual([]);
      expect((await dock.get('look?code=9521077990007').expect(200)).body).toMatchObject({
        kind: 'item',
        item: { sku: 'JAR-454-RD', holds: 48 },
      });
    });

    it('are set aside for good', async () => {
      await scan('POSTER-1');
      const [row] = await open();
      await owner.post(`unmatched-codes/${row?.id}/set-aside`).expect(204);
      await scan('POSTER-1');
      expect(await open()).toEqual([]);
      await owner.post(`unmatched-codes/${row?.id}/set-aside`).expect(409);
      await owner.post('unmatched-codes/999999/set-aside').expect(404);
    });
  });

  it('finds what is due by words of the supplier or the goods', async () => {
    const code = await placed('2090-05-01');
    const find = async (words: string) =>
      ((await dock.get(`floor/due?code=${encodeURIComponent(words)}`).expect(200)).body as { choices: { code: string }[] }).choices;
    expect((await find('quill')).map((d) => d.code)).toContain(code);
    expect((await find('lid gold')).map((d) => d.code)).toContain(code);
    expect(await find('nobody_sells')).toEqual([]);
  });
});
