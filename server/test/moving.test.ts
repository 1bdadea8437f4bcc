import type { MoveTask } from '@vectrum/core/scan';
import { type Caller, House } from './house.js';

let house: House;
let maren: Caller;
let ines: Caller;
let joss: Caller;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
  ines = await house.as('Ines');
  joss = await house.as('Joss');
});
afterAll(() => house.close());

const move = async (sku: string, from: string, to: string, units: number, who = ines) =>
  who.floor({
    kind: 'move',
    fromPlaceId: await house.placeId(from),
    toPlaceId: await house.placeId(to),
    goods: [{ itemId: await house.itemId(sku), lotId: 0, condition: 'good', units }],
    how: 'scanned',
  });
const goodsAt = async (sku: string, place: string) => ({
  placeId: await house.placeId(place),
  itemId: await house.itemId(sku),
  lotId: 0,
  condition: 'good',
});
const accounts = async () =>
  (await house.source.query<{ debit: string }[]>(`SELECT debit FROM value_entry WHERE credit = 'stock' ORDER BY id DESC LIMIT 1`))[0]
    ?.debit;

describe('goods on the move', () => {
  it('go from anywhere to anywhere by two scans, and back by an undo', async () => {
    await house.stock('TOOL-JH', 'A-02-1', 12);
    const task = await ines.task<MoveTask>('move', 'a-02-1');
    expect(task.goods).toMatchObject([{ units: 12, spare: 12, condition: 'good' }]);
    const { body } = await move('TOOL-JH', 'A-02-1', 'CART-1', 5).then((r) => r);
    expect(await house.balance('TOOL-JH', 'CART-1')).toBe(5);
    await maren.post(`tape/${(body as { activityId: number }).activityId}/undo`).expect(201);
    expect(await house.balance('TOOL-JH', 'A-02-1')).toBe(12);
    expect((await move('TOOL-JH', 'A-02-1', 'QUAY-DOCK', 5)).status).toBe(409);
    expect((await move('TOOL-JH', 'A-02-1', 'B-01-1', 13)).status).toBe(409);
    expect((await move('TOOL-JH', 'A-02-1', 'T-01', 1)).status).toBe(409);
    await maren.get('floor/tasks/move/T-01').expect(409);
  });

  it('stay where a round comes for them', async () => {
    await house.stock('JAR-454-RD', 'A-03-1', 10);
    await house.release(await house.order([['JAR-454-RD', 4]]));
    expect((await ines.task<MoveTask>('move', 'A-03-1')).goods).toMatchObject([{ units: 10, spare: 6 }]);
    expect((await move('JAR-454-RD', 'A-03-1', 'B-03-1', 7)).status).toBe(409);
    expect((await move('JAR-454-RD', 'A-03-1', 'B-03-1', 6)).status).toBe(200);
    const both = await Promise.all([move('JAR-454-RD', 'B-03-1', 'B-03-2', 5), move('JAR-454-RD', 'B-03-1', 'B-04-1', 5)]);
    expect(both.map((r) => r.status).sort()).toEqual([200, 409]);
  });

  it('are used up for a purpose, with an account of its own, and found in another condition', async () => {
    await house.stock('SMK-LGE', 'A-04-1', 8);
    const at = await goodsAt('SMK-LGE', 'A-04-1');
    await ines
      .floor({ kind: 'issue', ...at, units: 1, purpose: 'sample', note: 'county show', costCentre: '4100', how: 'typed' })
      .expect(200);
    expect(await accounts()).toBe('own use');
    await ines.floor({ kind: 'issue', ...at, units: 1, purpose: 'scrap', note: '', costCentre: '', how: 'typed' }).expect(200);
    expect(await accounts()).toBe('scrap');
    expect(await house.balance('SMK-LGE', 'A-04-1')).toBe(6);
    await ines.floor({ kind: 'condition', ...at, units: 2, becomes: 'held', note: '', how: 'typed' }).expect(403);
    await maren.floor({ kind: 'condition', ...at, units: 2, becomes: 'held', note: 'smells of smoke', how: 'typed' }).expect(200);
    expect(await house.figures('SMK-LGE')).toMatchObject({ onHand: 6, held: 2 });
    await maren.floor({ kind: 'condition', ...at, units: 2, becomes: 'apart', note: '', how: 'typed' }).expect(409);
  });

  it('are put right for a reason: at once where it is little, by somebody else where it is much', async () => {
    await house.stock('SUIT-M', 'A-05-1', 20);
    const correct = (who: Caller, body: object) =>
      who.post('corrections', { place: 'A-05-1', sku: 'SUIT-M', units: 19, reason: 'found behind', ...body });
    await correct(maren, { reason: '' }).expect(400);
    await correct(maren, { place: 'NOWHERE' }).expect(400);
    expect((await correct(joss, {}).expect(200)).body).toMatchObject({ isBooked: false });
    const waiting = (await maren.get('sites/1/spot-counts').expect(200)).body as { sku: string; counted: number; booked: number }[];
    expect(waiting.find((w) => w.sku === 'SUIT-M')).toMatchObject({ counted: 19, booked: 20 });
    expect((await correct(maren, {}).expect(200)).body).toMatchObject({ isBooked: true, says: 'The books follow' });
    expect(await house.balance('SUIT-M', 'A-05-1')).toBe(19);
    expect((await correct(maren, { units: 0 }).expect(200)).body).toMatchObject({ isBooked: expect.any(Boolean) });
  });
});
