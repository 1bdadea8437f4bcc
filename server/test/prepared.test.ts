import type { Tx } from '../src/platform/index.js';
import {
  find,
  insert,
  inTransaction,
  isDuplicate,
  more,
  num,
  one,
  prepared,
  preparedTogether,
  remove,
  update,
} from '../src/platform/index.js';
import { House } from './house.js';

let house: House;
beforeAll(async () => {
  house = await House.open();
});
afterAll(() => house.close());

const executed = async (tx: Tx) => {
  const row = await one<{ Value: string }>(tx, `SHOW SESSION STATUS LIKE 'Com_stmt_execute'`);
  return num(row?.Value);
};

describe('statements that connections prepare', () => {
  it('are planned once, and carried out as often as they are asked', async () => {
    await inTransaction(house.source, async (tx) => {
      const before = await executed(tx);
      for (let i = 0; i < 5; i++)
        expect((await prepared<{ id: number }[]>(tx, 'SELECT id FROM site WHERE code = ?', ['MILL']))[0]?.id).toBe(1);
      expect((await executed(tx)) - before).toBe(5);
    });
  });

  it('give what the same text gives, of every type that a row has', async () => {
    await house.stock('JAR-454-RD', 'A-01-1', 12);
    const jar = await house.itemId('JAR-454-RD');
    await inTransaction(house.source, async (tx) => {
      for (const [table, where] of [
        ['item', { id: 1 }],
        ['person', { id: 1 }],
        ['place', { id: 3 }],
        ['site', { id: 1 }],
        ['movement', { item_id: jar }],
        ['cost_pool', { item_id: jar }],
      ] as const) {
        const [column, value] = Object.entries(where)[0] ?? ['id', 1];
        const asText = await one(tx, `SELECT * FROM \`${table}\` WHERE ${column} = ${value} LIMIT 1`);
        expect(asText).toBeDefined();
        expect(await find(tx, table, where as never)).toEqual(asText);
      }
    });
  });

  it('add exactly, also where a floating number would not', async () => {
    await house.source.query(
      'CREATE TABLE IF NOT EXISTS exact_sums (id INT PRIMARY KEY, amount DECIMAL(24, 6) NOT NULL, units BIGINT NOT NULL)',
    );
    await inTransaction(house.source, async (tx) => {
      await tx.query('REPLACE INTO exact_sums VALUES (1, 123456789012345.000001, 9007199254740993)');
      await update(tx, 'exact_sums' as never, { id: 1 } as never, { amount: more('0.000001'), units: more(1) } as never);
      await update(tx, 'exact_sums' as never, { id: 1 } as never, { amount: more('-0.000002'), units: more(-2) } as never);
      expect(await one(tx, 'SELECT amount, CAST(units AS CHAR) AS units FROM exact_sums')).toEqual({
        amount: '123456789012345.000000',
        units: '9007199254740992',
      });
    });
    await house.source.query('DROP TABLE exact_sums');
  });

  it('say what is wrong as others do: what is there twice, and what names nothing', async () => {
    const twice = inTransaction(house.source, (tx) =>
      insert(tx, 'currency', { code: 'EUR', rate: '1', as_of: '2026-01-01' }).then(() =>
        insert(tx, 'currency', { code: 'EUR', rate: '1', as_of: '2026-01-01' }),
      ),
    );
    expect(isDuplicate(await twice.catch((thrown: unknown) => thrown))).toBe(true);
    await expect(inTransaction(house.source, (tx) => remove(tx, 'currency', {}))).rejects.toThrow('Which rows');
  });

  it('go together in one trip, each with what it returns, and are undone together', async () => {
    const made = (code: string) => ({
      before: 'INSERT INTO currency (code, rate, as_of) VALUES',
      given: [[code, 2, '2026-01-01']],
      after: 'RETURNING code, rate',
    });
    const failed = inTransaction(house.source, (tx) => preparedTogether(tx, [made('XAA'), made('XAB'), made('XAA')]));
    expect(isDuplicate(await failed.catch((thrown: unknown) => thrown))).toBe(true);
    await inTransaction(house.source, async (tx) => {
      expect(await prepared(tx, `SELECT code FROM currency WHERE code LIKE ?`, ['XA%'])).toEqual([]);
      expect(await preparedTogether(tx, [made('XAA'), made('XAB')])).toEqual([
        [{ code: 'XAA', rate: '2.00000000' }],
        [{ code: 'XAB', rate: '2.00000000' }],
      ]);
      await remove(tx, 'currency', { code: ['XAA', 'XAB'] });
    });
  });

  it('are asked as text where what they are given is a list, or more than is worth planning', async () => {
    await inTransaction(house.source, async (tx) => {
      const before = await executed(tx);
      expect(await prepared<unknown[]>(tx, 'SELECT id FROM site WHERE id IN (?) ORDER BY id', [[1, 2]])).toHaveLength(2);
      const many = Array.from({ length: 101 }, (_, i) => i + 1);
      expect(
        await prepared<unknown[]>(tx, `SELECT id FROM site WHERE id IN (${many.map(() => '?').join(', ')}) AND id < 3`, many),
      ).toHaveLength(2);
      expect(await executed(tx)).toBe(before);
    });
  });
});
