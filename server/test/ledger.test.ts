import { randomUUID } from 'node:crypto';
import type { Movement } from '@vectrum/core/ledger';
import { actAs } from '../src/demo/morning.js';
import type { Act } from '../src/platform/act.js';
import { inTransaction } from '../src/platform/database/tx.js';
import { LedgerService } from '../src/stock/ledger.service.js';
import { checkLedger } from '../src/stock/ledger-check.js';
import { House } from './house.js';

describe('the ledger', () => {
  let house: House;
  let ledger: LedgerService;
  let act: Act;
  let jar: number;
  let bin: number;
  let tote: number;

  beforeAll(async () => {
    house = await House.open();
    ledger = house.app.get(LedgerService);
    act = await actAs(house.source, 'Ines');
    jar = await house.itemId('JAR-454-RD');
    bin = await house.placeId('A-01-1');
    tote = await house.placeId('T-01');
    await house.stock('JAR-454-RD', 'A-01-1', 100);
  });
  afterAll(() => house.close());

  const move = (fromPlaceId: number, toPlaceId: number, units: number): Movement => ({
    itemId: jar,
    lotId: 0,
    condition: 'good',
    fromPlaceId,
    toPlaceId,
    units,
  });
  const post = (...movements: Movement[]) =>
    inTransaction(house.source, (tx) => ledger.post(tx, { ...act, key: randomUUID() }, movements, { task: 'store', document: 'TEST' }));

  it('moves both balances and leaves the site as it was', async () => {
    await post(move(bin, tote, 10));
    expect(await house.balance('JAR-454-RD', 'A-01-1')).toBe(90);
    expect(await house.balance('JAR-454-RD', 'T-01')).toBe(10);
    expect(await house.figures('JAR-454-RD')).toEqual({ onHand: 100, held: 0, reserved: 0 });
  });

  it('counts goods at the site to which another server has carried their tote meanwhile', async () => {
    const far = await house.placeId('T-09');
    await post(move(bin, far, 1), move(far, bin, 1));
    const glove = await house.itemId('GLV-L');
    const shelf = await house.stock('GLV-L', 'A-05-1', 9).then(() => house.placeId('A-05-1'));
    await house.source.query('UPDATE place SET site_id = 2 WHERE id = ?', [far]);
    const at = () =>
      house.source.query<{ site: number; units: number }[]>(
        'SELECT site_id AS site, on_hand AS units FROM site_stock WHERE item_id = ? AND on_hand > 0 ORDER BY site_id',
        [glove],
      );
    // None of these lay in it when it was last seen, and of the others a row is there that went along.
    await post({ ...move(shelf, far, 4), itemId: glove }, move(bin, far, 2));
    expect(await at()).toEqual([
      { site: 1, units: 5 },
      { site: 2, units: 4 },
    ]);
    expect(await checkLedger(house.source)).toEqual([]);
    await post({ ...move(far, shelf, 4), itemId: glove }, move(far, bin, 2));
    await house.source.query('UPDATE place SET site_id = 1 WHERE id = ?', [far]);
    expect(await at()).toEqual([{ site: 1, units: 9 }]);
    await expect(post({ ...move(bin, 999_999, 1) })).rejects.toMatchObject({ code: 'not-found' });
    expect(await checkLedger(house.source)).toEqual([]);
  });

  it('refuses to go below nought and changes nothing', async () => {
    await expect(post(move(tote, bin, 4), move(tote, bin, 7))).rejects.toMatchObject({ code: 'stock' });
    expect(await house.balance('JAR-454-RD', 'T-01')).toBe(10);
  });

  it('takes nothing from where none ever was, names the place, and leaves no trace there', async () => {
    const never = await house.placeId('K-04-1');
    await expect(post(move(bin, tote, 1), move(never, tote, 1))).rejects.toMatchObject({
      code: 'stock',
      detail: expect.stringContaining('K-04-1') as string,
    });
    expect(await house.source.query('SELECT * FROM balance WHERE place_id = ?', [never])).toEqual([]);
    expect(await house.balance('JAR-454-RD', 'T-01')).toBe(10);
    // What comes there later is bounded as anywhere in the house.
    await post(move(bin, never, 2));
    await expect(post(move(never, bin, 3))).rejects.toMatchObject({ detail: expect.stringContaining('K-04-1') as string });
    await post(move(never, bin, 2));
  });

  it('writes what moves in two statements, whatever there is of it', async () => {
    await post(move(bin, tote, 1));
    const shelves = await Promise.all(['A-04-1', 'A-05-1', 'A-06-1'].map((code) => house.placeId(code)));
    for (const shelf of shelves) await post(move(bin, shelf, 1), move(shelf, bin, 1));
    const asked = await house.statements(() => post(...shelves.flatMap((shelf) => [move(bin, shelf, 2), move(shelf, bin, 1)])));
    expect(asked.filter((sql) => /^\s*(INSERT|UPDATE|SELECT)/.test(sql)).length).toBe(2);
    for (const shelf of shelves) await post(move(shelf, bin, 1));
    await post(move(tote, bin, 1));
  });

  it.each([0, -3, 1.5])('refuses %p units', async (units) => {
    await expect(post(move(bin, tote, units))).rejects.toMatchObject({ code: 'stock' });
  });

  it('refuses a movement from a place to itself', async () => {
    await expect(post(move(bin, bin, 1))).rejects.toMatchObject({ code: 'stock' });
  });

  it('refuses a place that is not there', async () => {
    await expect(post(move(bin, 4_000_000, 1))).rejects.toMatchObject({ status: 404 });
  });

  it('undoes by an opposite movement that names the one it reverses, once', async () => {
    const { ids } = await post(move(bin, tote, 5));
    await inTransaction(house.source, (tx) => ledger.reverse(tx, { ...act, key: randomUUID() }, ids, 'TEST'));
    expect(await house.balance('JAR-454-RD', 'T-01')).toBe(10);
    const again = inTransaction(house.source, (tx) => ledger.reverse(tx, { ...act, key: randomUUID() }, ids, 'TEST'));
    await expect(again).rejects.toMatchObject({ code: 'undo' });
    const kept: { n: string }[] = await house.source.query('SELECT COUNT(*) AS n FROM movement WHERE reverses_id = ?', [ids[0]]);
    expect(Number(kept[0]!.n)).toBe(1);
  });

  it('lets nobody change or remove a movement', async () => {
    await expect(house.source.query('UPDATE movement SET units = 1')).rejects.toThrow('only ever added');
    await expect(house.source.query('DELETE FROM movement')).rejects.toThrow('only ever added');
  });

  it('keeps every unit when forty movements cross each other', async () => {
    const other = await house.placeId('A-02-1');
    await post(move(bin, other, 40));
    const there = await house.balance('JAR-454-RD', 'A-01-1');
    await Promise.all(Array.from({ length: 40 }, (_, i) => post(i % 2 === 0 ? move(bin, other, 1) : move(other, bin, 1))));
    expect(await house.balance('JAR-454-RD', 'A-01-1')).toBe(there);
    expect(await house.balance('JAR-454-RD', 'A-02-1')).toBe(40);
  });

  it('gives out no more than is there, however many ask at once', async () => {
    const shelf = await house.placeId('A-03-1');
    await post(move(bin, shelf, 10));
    const asked = await Promise.allSettled(Array.from({ length: 25 }, () => post(move(shelf, tote, 1))));
    expect(asked.filter((a) => a.status === 'fulfilled')).toHaveLength(10);
    expect(await house.balance('JAR-454-RD', 'A-03-1')).toBe(0);
  });

  it('is found clean, and a tampered balance is found out', async () => {
    expect(await checkLedger(house.source)).toEqual([]);
    await house.source.query('UPDATE balance SET units = units + 1 WHERE place_id = ? AND item_id = ?', [bin, jar]);
    const findings = await checkLedger(house.source);
    expect(findings.some((f) => f.startsWith('The balances of an item do not sum to nought'))).toBe(true);
    expect(findings.some((f) => f.startsWith('A balance differs from the sum of its movements: JAR-454-RD in A-01-1, 1 units'))).toBe(true);
    await house.source.query('UPDATE balance SET units = units - 1 WHERE place_id = ? AND item_id = ?', [bin, jar]);
  });
});
