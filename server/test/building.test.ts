import { type GatherTask, nextGather } from '@vectrum/core/scan';
import { type Caller, House } from './house.js';

interface Build {
  state: string;
  version: number;
  builtUnits: number;
  labourCost: string;
  partsCost: string;
  unitCost: string;
  parts: { partId: number; sku: string; units: number; gathered: number; used: number; scrapped: number }[];
}

let house: House;
let maren: Caller;
let ines: Caller;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
  ines = await house.as('Ines');
});
afterAll(() => house.close());

const sheet = async (k: string) => (await maren.get(`builds/${k}`).expect(200)).body as Build;
const act = async (k: string, what: string, body: object = {}) =>
  maren.post(`builds/${k}/${what}`, body, { 'if-match': `"${(await sheet(k)).version}"` });
const plan = async (units: number) =>
  ((await maren.post('builds', { siteId: 1, sku: 'NUC-STD', units, note: '' }).expect(201)).body as { code: string }).code;
async function gatherAll(k: string): Promise<void> {
  for (;;) {
    const next = nextGather(await ines.task<GatherTask>('gather', k), { pending: [] });
    if (!next) return;
    const { line, bin, units } = next;
    await ines
      .floor({
        kind: 'gather',
        document: k,
        lineId: line.lineId,
        itemId: line.itemId,
        lotId: bin.lotId,
        placeId: bin.placeId,
        units,
        how: 'scanned',
      })
      .expect(200);
  }
}
/** What the account of assemblies owes beyond the labour that was put in. */
const assembly = async () =>
  Number(
    (
      await house.source.query<{ n: string | null }[]>(
        `SELECT SUM(IF(debit = 'assembly', amount, 0)) - SUM(IF(credit = 'assembly', amount, 0)) AS n FROM value_entry`,
      )
    )[0]?.n ?? 0,
  );
const finish = (k: string, more: object = {}) => act(k, 'finish', { units: 2, place: 'C-01-1', parts: [], ...more });

describe('an assembly', () => {
  it('is planned, gathered part by part, and built at the cost of its parts and labour to the penny', async () => {
    await house.stock('HIV-CRN', 'A-02-1', 5);
    await house.stock('FRM-SN1', 'A-02-2', 9);
    const can = (await maren.get('builds/buildable?site=1').expect(200)).body as { sku: string; buildable: number; scarce: string }[];
    expect(can.find((c) => c.sku === 'NUC-STD')?.buildable).toBe(4);
    const k = await plan(3);
    expect((await finish(k)).status).toBe(409);
    await gatherAll(k);
    expect((await sheet(k)).parts.map((p) => [p.sku, p.gathered])).toEqual(
      expect.arrayContaining([
        ['HIV-CRN', 3],
        ['FRM-SN1', 6],
      ]),
    );
    const before = await assembly();
    // Two came out instead of three: one board was spoilt, and what is left over goes back.
    const parts = (await sheet(k)).parts.map((p) => ({
      partId: p.partId,
      used: p.sku === 'HIV-CRN' ? 2 : 4,
      scrapped: p.sku === 'HIV-CRN' ? 1 : 0,
    }));
    expect((await finish(k, { parts: parts.map((p) => ({ ...p, used: 9 })) })).status).toBe(400);
    expect((await finish(k, { place: 'QUAY-DOCK' })).status).toBe(400);
    expect((await finish(k, { parts, labourMinutes: 45, hourly: '16' })).status).toBe(200);
    const built = await sheet(k);
    expect(built).toMatchObject({ state: 'built', builtUnits: 2, labourCost: '12.000000' });
    expect(Number(built.unitCost) * 2).toBeCloseTo(Number(built.partsCost) + 12, 5);
    expect(await assembly()).toBeCloseTo(before - 12, 5);
    expect(await house.balance('NUC-STD', 'C-01-1')).toBe(2);
    expect([await house.balance('HIV-CRN', 'DOCK-1'), await house.balance('FRM-SN1', 'DOCK-1')]).toEqual([0, 2]);
    const [entry] = await house.source.query<{ id: number }[]>(`SELECT id FROM activity WHERE kind = 'built' AND document = ?`, [k]);
    await maren.post(`tape/${entry!.id}/undo`).expect(201);
    expect((await sheet(k)).state).toBe('gathering');
    expect(await house.balance('NUC-STD', 'C-01-1')).toBe(0);
    await act(k, 'cancel');
    expect([await house.balance('HIV-CRN', 'A-02-1'), await house.balance('FRM-SN1', 'A-02-2')]).toEqual([5, 9]);
  });

  it('is taken apart, its worth shared among its parts', async () => {
    await house.stock('HIV-CRN', 'B-02-1', 2);
    await house.stock('FRM-SN1', 'B-02-2', 4);
    const k = await plan(2);
    await gatherAll(k);
    await finish(k, { place: 'C-02-1' });
    const before = await assembly();
    await maren.post('builds/apart', { place: 'C-02-1', sku: 'NUC-STD', units: 3, note: '' }).expect(409);
    await maren.post('builds/apart', { place: 'C-02-1', sku: 'FRM-SN1', units: 1, note: '' }).expect(400);
    await maren.post('builds/apart', { place: 'C-02-1', sku: 'NUC-STD', units: 1, note: 'a corner is split' }).expect(200);
    expect(await house.balance('NUC-STD', 'C-02-1')).toBe(1);
    expect(await house.balance('FRM-SN1', 'DOCK-1')).toBe(2);
    expect(await assembly()).toBeCloseTo(before, 5);
  });

  it('is refused where it makes no sense', async () => {
    await maren.post('builds', { siteId: 1, sku: 'KIT-START', units: 1, note: '' }).expect(400);
    await maren.post('builds', { siteId: 1, sku: 'NOPE', units: 1, note: '' }).expect(400);
    await maren.get('builds/K-9999').expect(404);
    await maren.get('floor/tasks/gather/X-1').expect(404);
    expect(((await maren.get('builds?state=all').expect(200)).body as { total: number }).total).toBeGreaterThan(1);
  });
});
