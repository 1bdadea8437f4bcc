import { type Caller, closing, House } from './house.js';

interface Task {
  lines: { line: number; picked: number; packed: number; shelf: string | null }[];
  tote: string | null;
}

/** A site where nobody walks rounds: goods go from the shelf into the parcel. */
describe('packing from the shelf', () => {
  let house: House;
  let maren: Caller;
  let dilys: Caller;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    dilys = await house.as('Dilys');
    await house.stock('SMK-LGE', 'A-10-1', 9);
    await house.stock('BRSH-BEE', 'B-02-1', 9);
    await house.source.query('UPDATE site SET picks = 0 WHERE id = 1');
  });
  // Closing checks the ledger, and what is promised against what orders hold.
  afterAll(() => house.close());

  const order = async (code: string) => (await maren.get(`orders/${code}`)).body as { state: string; version: number };
  const post = async (code: string, what: string, body: object = {}) =>
    maren.post(`orders/${code}/${what}`, body, { 'if-match': `"${(await order(code)).version}"` });
  const sent = async (...lines: [string, number][]) => {
    const code = await house.order(lines);
    await post(code, 'release').then((r) => expect(r.body).toMatchObject({ rounds: [] }));
    return code;
  };
  const task = (code: string) => dilys.task<Task>('pack', code);
  const queued = async (code: string) =>
    ((await dilys.get('bench/queue')).body as { rows: { order: string; tote: string | null; pieces: number }[] }).rows.find(
      (r) => r.order === code,
    );
  const pack = (code: string, line: number, units: number) =>
    dilys.floor({ kind: 'pack', order: code, parcel: 1, line, units, how: 'scanned' });
  const picked = async (code: string) =>
    (
      await house.source.query<{ n: string }[]>(
        'SELECT SUM(picked_units) AS n FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id WHERE o.code = ?',
        [code],
      )
    )[0]!.n;

  it('sends orders to the packing table at once, with the bins that goods lie in, and takes them out as they are packed', async () => {
    const code = await sent(['SMK-LGE', 3], ['BRSH-BEE', 2]);
    expect((await order(code)).state).toBe('picked');
    expect(await queued(code)).toMatchObject({ tote: null, pieces: 5 });
    expect((await task(code)).lines.map((l) => [l.picked, l.packed, l.shelf])).toEqual([
      [3, 0, 'A-10-1'],
      [2, 0, 'B-02-1'],
    ]);
    const act = (await pack(code, 1, 3)).body as { activityId: number };
    expect(await house.balance('SMK-LGE', 'A-10-1')).toBe(6);
    expect(Number(await picked(code))).toBe(3);
    await dilys.post(`tape/${act.activityId}/undo`).expect(201);
    expect([await house.balance('SMK-LGE', 'A-10-1'), Number(await picked(code))]).toEqual([9, 0]);
    await house.packAll(code);
    await dilys.floor(closing(code, { carton: 'B4', weightG: 2_000, weightSeen: true })).expect(200);
    expect((await order(code)).state).toBe('packed');
    expect(await queued(code)).toBeUndefined();
  });

  it('is taken back, changed and cancelled like any other', async () => {
    const code = await sent(['SMK-LGE', 2]);
    await post(code, 'recall').then((r) => expect(r.status).toBe(200));
    expect((await order(code)).state).toBe('open');
    await post(code, 'release').then((r) => expect(r.status).toBe(200));
    await post(code, 'cancel', { why: 'called off', tell: false }).then((r) => expect(r.status).toBe(200));
    expect((await order(code)).state).toBe('cancelled');
    const free = await sent(['SMK-LGE', 6]);
    expect((await order(free)).state).toBe('picked');
    await post(free, 'recall');
    await post(free, 'cancel', { why: 'called off', tell: false });
  });

  it('seeks what is not on its shelf in other bins', async () => {
    await house.stock('TOOL-STD', 'B-05-1', 4);
    const code = await sent(['TOOL-STD', 4]);
    await house.stock('TOOL-STD', 'B-07-1', 3);
    const [itemId, placeId] = [await house.itemId('TOOL-STD'), await house.placeId('B-05-1')];
    await maren.floor({ kind: 'report-spot', itemId, lotId: 0, placeId, there: 2, how: 'scanned' }).expect(200);
    expect((await task(code)).lines[0]!.shelf!.split(', ').sort()).toEqual(['B-05-1', 'B-07-1']);
    await house.packAll(code);
    expect([await house.balance('TOOL-STD', 'B-07-1')]).toEqual([1]);
  });

  it('is switched on with the calendar of a site, and leaves what is under way as it is', async () => {
    await house.source.query('UPDATE site SET picks = 1 WHERE id = 1');
    await house.stock('UNC-FORK', 'B-06-1', 4);
    const code = await house.order([['UNC-FORK', 2]]);
    const round = await house.release(code);
    const sites = (await maren.get('company/calendars')).body as { siteId: number; picks: boolean; version: number }[];
    const { version, siteId, picks, site, ...clock } = sites[0] as unknown as Record<string, unknown>;
    expect([siteId, picks, typeof site]).toEqual([1, true, 'string']);
    await maren.put('company/calendars/1', { ...clock, picks: false }, { 'if-match': `"${String(version)}"` }).expect(204);
    expect((await order(code)).state).toBe('released');
    await house.pickAll(round, 'T-09');
    expect((await order(code)).state).toBe('picked');
  });
});
