import type { PackTask } from '@vectrum/core/scan';
import { checkLedger } from '../src/stock/index.js';
import { type Caller, closing, House, pickOf, type TakenStop } from './house.js';

/** Goods that were scanned at their bins need no second scan, where the house says so. */
describe('trusted totes', () => {
  let house: House;
  let dilys: Caller;
  let ines: Caller;
  let maren: Caller;
  let tote = 20;

  beforeAll(async () => {
    house = await House.open();
    [dilys, ines, maren] = [await house.as('Dilys'), await house.as('Ines'), await house.as('Maren')];
    await house.stock('JAR-454-RD', 'A-01-1', 200);
    await house.stock('SMK-LGE', 'A-10-1', 20);
  });
  beforeEach(() => trust(true));
  afterEach(async () => expect(await checkLedger(house.source)).toEqual([]));
  afterAll(() => house.close());

  const trust = (on: boolean) =>
    house.source.query(`REPLACE INTO setting (name, value) VALUES ('trustTotes', ?)`, [JSON.stringify({ is: on })]);
  const task = (code: string) => dilys.task<PackTask & { state: string }>('pack', code);
  const all = (order: string, lines: { line: number; units: number }[], parcel = 1) =>
    dilys.floor({ kind: 'pack-all', order, parcel, lines });

  /** An order of two lines at the table; the second picked by typing where it is said so. */
  async function atTable(how: 'scanned' | 'typed' = 'scanned'): Promise<string> {
    const code = await house.order([['JAR-454-RD', 3], ['SMK-LGE', 1]]); // prettier-ignore
    const round = await house.release(code);
    const { stops } = await ines.task<{ stops: TakenStop[] }>('pick', round);
    const into = await house.placeId(`T-${++tote}`);
    for (const [i, stop] of stops.entries())
      await ines.floor({ ...pickOf(round, stop, stop.units, into), how: i === 1 ? how : 'scanned' }).expect(200);
    await ines.floor({ kind: 'set-down', round, placeId: await house.placeId('TABLE-1') }).expect(200);
    return code;
  }
  const both = (t: PackTask) => t.lines.map((l) => ({ line: l.line, units: l.picked - l.packed }));

  it('go into one parcel at once, which is closed; one undo takes all of it out again', async () => {
    const code = await atTable();
    const before = await task(code);
    expect(before.lines.map((l) => l.trusted)).toEqual([true, true]);
    const { activityId } = (await all(code, both(before)).expect(200)).body as { activityId: number };
    expect((await task(code)).lines.map((l) => [l.picked, l.packed])).toEqual([[3, 3], [1, 1]]); // prettier-ignore
    await dilys.post(`tape/${activityId}/undo`).expect(201);
    expect((await task(code)).lines.map((l) => l.packed)).toEqual([0, 0]);
    await all(code, both(before)).expect(200);
    await dilys.floor(closing(code, { weightSeen: true })).expect(200);
    expect((await maren.get(`orders/${code}`)).body).toMatchObject({ state: 'packed' });
  });

  it('are not trusted where a code was typed, or the house does not say so', async () => {
    const code = await atTable('typed');
    const lines = (await task(code)).lines;
    expect(lines.filter((l) => l.trusted)).toHaveLength(1);
    expect((await all(code, both(await task(code))).expect(409)).body).toMatchObject({
      detail: expect.stringContaining('Scan each of it'),
    });
    // Nothing of it was done.
    expect((await task(code)).lines.map((l) => l.packed)).toEqual([0, 0]);
    await trust(false);
    const own = lines.find((l) => l.trusted)!;
    await all(code, [{ line: own.line, units: own.picked }]).expect(409);
  });

  it('are scanned all the same where each piece of an item is to be scanned', async () => {
    await house.source.query(`UPDATE item SET scan_each = 1 WHERE sku = 'SMK-LGE'`);
    const code = await atTable();
    expect((await task(code)).lines.filter((l) => l.trusted)).toHaveLength(1);
    await house.source.query(`UPDATE item SET scan_each = 0 WHERE sku = 'SMK-LGE'`);
  });

  it('are packed once by two packers at the same moment', async () => {
    const code = await atTable();
    const lines = both(await task(code));
    const answers = await Promise.all([all(code, lines), all(code, lines)]);
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409]);
    expect((await task(code)).lines.map((l) => l.picked - l.packed)).toEqual([0, 0]);
  });
});
