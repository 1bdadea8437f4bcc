import { type Asked, begunTogether, type Heard } from '../src/platform/database/begin.js';
import { inSnapshot, inTransaction, num, one, prepared, preparedTogether } from '../src/platform/index.js';
import { House } from './house.js';

const asked = (sql: string, isPrepared = false): Asked => ({ sql, params: [], timeout: 700, isPrepared });

describe('the first statement of a transaction', () => {
  let sent: string[];
  let answers: (sql: string) => [fault: { code?: string } | null, ...more: unknown[]];
  let ask: (sql: string, isPrepared?: boolean) => unknown[];

  beforeEach(() => {
    sent = [];
    answers = (sql) => [null, `answer to ${sql}`];
    const send = begunTogether(({ sql }: Asked, heard: Heard) => {
      sent.push(sql);
      heard(...answers(sql));
    });
    ask = (sql, isPrepared) => {
      let said: unknown[] = ['nothing'];
      send(asked(sql, isPrepared), (...all) => (said = all));
      return said;
    };
  });

  it('goes in one trip with its beginning where it is a prepared block, and what follows goes alone', () => {
    expect(ask('START TRANSACTION')[0]).toBeNull();
    ask('BEGIN NOT ATOMIC INSERT INTO a VALUES (?); END', true);
    ask('BEGIN NOT ATOMIC INSERT INTO b VALUES (?); END', true);
    ask('COMMIT');
    expect(sent).toEqual([
      'BEGIN NOT ATOMIC START TRANSACTION; INSERT INTO a VALUES (?); END',
      'BEGIN NOT ATOMIC INSERT INTO b VALUES (?); END',
      'COMMIT',
    ]);
  });

  it('is answered as it is alone where it is a prepared reading', () => {
    answers = () => [null, [[{ id: 1 }], { affectedRows: 0 }]];
    ask('SET TRANSACTION ISOLATION LEVEL REPEATABLE READ');
    ask('START TRANSACTION');
    expect(ask('SELECT id FROM a', true)).toEqual([null, [{ id: 1 }]]);
    expect(sent).toEqual(['BEGIN NOT ATOMIC SET TRANSACTION ISOLATION LEVEL REPEATABLE READ; START TRANSACTION; SELECT id FROM a; END']);
  });

  it('is sent after its beginning where it is anything else, and not at all where that failed', () => {
    ask('START TRANSACTION');
    expect(ask('UPDATE a SET b = 1', true)).toEqual([null, 'answer to UPDATE a SET b = 1']);
    ask('COMMIT');
    answers = () => [{ code: 'GONE' }];
    ask('START TRANSACTION');
    expect(ask('DELETE FROM a')).toEqual([{ code: 'GONE' }]);
    expect(sent).toEqual(['START TRANSACTION', 'UPDATE a SET b = 1', 'COMMIT', 'START TRANSACTION']);
  });

  it('is told of a fault of the whole, and need not come: what asks nothing is never begun', () => {
    for (const end of ['COMMIT', 'ROLLBACK']) {
      ask('START TRANSACTION');
      expect(ask(end)[0]).toBeNull();
    }
    expect(sent).toEqual([]);
    answers = () => [{ code: 'ER_LOCK_DEADLOCK' }];
    ask('START TRANSACTION');
    expect(ask('SELECT 1', true)[0]).toEqual({ code: 'ER_LOCK_DEADLOCK' });
  });
});

describe('transactions that begin with their first statement', () => {
  let house: House;
  beforeAll(async () => {
    house = await House.open();
    await house.source.query('CREATE TABLE begun (id INT PRIMARY KEY, n INT NOT NULL)');
    await house.source.query('INSERT INTO begun VALUES (1, 1)');
  });
  afterAll(async () => {
    await house.source.query('DROP TABLE begun');
    await house.close();
  });
  const now = async () => num((await one<{ n: number }>(house.source, 'SELECT n FROM begun WHERE id = 1'))?.n);
  const change = (by: number) => house.source.query('UPDATE begun SET n = n + ? WHERE id = 1', [by]);

  it('see one moment where they are to', async () => {
    const begun = await now();
    await inSnapshot(house.source, async (tx) => {
      const read = async () => (await prepared<{ n: number }[]>(tx, 'SELECT n FROM begun WHERE id = ?', [1]))[0]?.n;
      expect(await read()).toBe(begun);
      await change(5);
      expect(await read()).toBe(begun);
    });
    await inTransaction(house.source, async (tx) => {
      const read = async () => (await prepared<{ n: number }[]>(tx, 'SELECT n FROM begun WHERE id = ?', [1]))[0]?.n;
      expect(await read()).toBe(begun + 5);
      await change(1);
      expect(await read()).toBe(begun + 6);
    });
  });

  it('hold what they lock from it on, and take all of it back', async () => {
    const begun = await now();
    const failed = inTransaction(house.source, async (tx) => {
      await prepared(tx, 'SELECT n FROM begun WHERE id = ? FOR UPDATE', [1]);
      let isDone = false;
      const other = change(10).then(() => (isDone = true));
      await new Promise((r) => setTimeout(r, 100));
      expect(isDone).toBe(false);
      await tx.query('UPDATE begun SET n = 0 WHERE id = 1');
      setTimeout(() => void other, 0);
      throw new Error('not after all');
    });
    await expect(failed).rejects.toThrow('not after all');
    for (const end = Date.now() + 5_000; Date.now() < end && (await now()) === begun;) await new Promise((r) => setTimeout(r, 20));
    expect(await now()).toBe(begun + 10);
    const twice = inTransaction(house.source, (tx) =>
      preparedTogether(tx, [
        { before: 'INSERT INTO begun VALUES', given: [[2, 2]], after: 'RETURNING id' },
        { before: 'INSERT INTO begun VALUES', given: [[2, 2]], after: 'RETURNING id' },
      ]),
    );
    await expect(twice).rejects.toThrow();
    expect(await one(house.source, 'SELECT n FROM begun WHERE id = 2')).toBeUndefined();
  });
});
