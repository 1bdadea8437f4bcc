import { type Caller, House } from './house.js';

interface Slotting {
  orders: number;
  metresAWeek: number;
  metresAfter: number;
  moves: { sku: string; from: string; to: string; changeSku: string | null; metresAWeek: number }[];
  offHome: { sku: string; from: string; to: string; units: number }[];
}

let house: House;
let maren: Caller;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
});
afterAll(() => house.close());

const advice = async () => (await maren.get('sites/1/slotting').expect(200)).body as Slotting;
const homes = (list: [sku: string, place: string][], who = maren) =>
  who.post('items/homes', { siteId: 1, homes: list.map(([sku, place]) => ({ sku, place })) });
const homeOf = async (sku: string) =>
  (
    await house.source.query<{ code: string }[]>(
      'SELECT p.code FROM item_site x JOIN item i ON i.id = x.item_id JOIN place p ON p.id = x.home_place_id WHERE i.sku = ? AND x.site_id = 1',
      [sku],
    )
  )[0]?.code;

describe('where goods should stand', () => {
  it('is said once there are orders, and saves what it says; the goods to carry are listed until they are there', async () => {
    await house.source.query('DELETE FROM item_site WHERE home_place_id IS NOT NULL');
    const far = (
      await house.source.query<{ code: string }[]>(
        `SELECT code FROM place WHERE site_id = 1 AND kind = 'pick-face' AND pickable = 1 AND x_m IS NOT NULL ORDER BY POW(x_m - (SELECT x_m FROM place q WHERE q.site_id = 1 AND q.kind = 'packing-table' ORDER BY walk_order LIMIT 1), 2) DESC LIMIT 1`,
      )
    )[0]!.code;
    await homes([['TOOL-JH', far]]).expect(200);
    expect((await advice()).moves).toEqual([]);
    await house.stock('TOOL-JH', far, 6);
    for (let i = 0; i < 4; i++) await house.order([['TOOL-JH', 1]]);
    const { moves, metresAWeek, metresAfter, orders } = await advice();
    expect(orders).toBe(4);
    expect(moves[0]).toMatchObject({ sku: 'TOOL-JH', from: far, changeSku: null });
    expect(metresAWeek - metresAfter).toBeGreaterThan(0);
    await homes([['TOOL-JH', moves[0]!.to]]).expect(200);
    expect((await advice()).metresAWeek).toBe(metresAfter);
    // Its old face is another's by now: what lies there is to be carried over.
    await homes([['SMK-LGE', far]]).expect(200);
    expect((await advice()).offHome).toMatchObject([{ sku: 'TOOL-JH', from: far, to: moves[0]!.to, units: 6 }]);
  });

  it('lets two change their faces in one act, which is taken back whole; refuses what is not there and whoever may not', async () => {
    await homes([
      ['SMK-SML', 'A-02-1'],
      ['SUIT-M', 'A-03-1'],
    ]).expect(200);
    const { activityId } = (
      await homes([
        ['SMK-SML', 'A-03-1'],
        ['SUIT-M', 'A-02-1'],
      ]).expect(200)
    ).body as { activityId: number };
    expect([await homeOf('SMK-SML'), await homeOf('SUIT-M')]).toEqual(['A-03-1', 'A-02-1']);
    await maren.post(`tape/${activityId}/undo`).expect(201);
    expect([await homeOf('SMK-SML'), await homeOf('SUIT-M')]).toEqual(['A-02-1', 'A-03-1']);
    await homes([['SMK-SML', 'NO-SUCH']]).expect(400);
    await homes([['NO-SUCH', 'A-02-1']]).expect(404);
    await homes([['SMK-SML', 'A-03-1']], await house.as('Ines')).expect(403);
    await maren.get('sites/99/slotting').expect(403);
  });
});
