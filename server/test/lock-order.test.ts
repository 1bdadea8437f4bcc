import type { DataSource } from 'typeorm';
import { LOCK_ORDER, lockFault, locksOf } from '../src/platform/database/lock-order.js';
import { LockWatch } from './lock-watch.js';

describe('the order of locks', () => {
  it('is read from what a statement locks: what it changes, and what it reads to change', () => {
    expect(locksOf('UPDATE `balance` SET units = units + 1 WHERE item_id = 1')).toEqual(['balance']);
    expect(locksOf('DELETE FROM reservation WHERE id = 1')).toEqual(['reservation']);
    expect(locksOf('INSERT INTO balance (item_id) VALUES (1) ON DUPLICATE KEY UPDATE units = 2')).toEqual(['balance']);
    expect(locksOf('INSERT INTO sales_order (code) VALUES (1)')).toEqual([]);
    expect(locksOf('SELECT id FROM sales_order WHERE id = 1')).toEqual([]);
    expect(locksOf('SELECT id FROM `round` r JOIN sales_order o ON o.id = r.id FOR UPDATE')).toEqual(['round', 'sales_order']);
  });

  it('is read from each of several statements in one trip', () => {
    expect(
      locksOf(
        'BEGIN NOT ATOMIC INSERT INTO movement (id) VALUES (?) RETURNING id; UPDATE balance SET units = 1; SELECT id FROM site_stock; END',
      ),
    ).toEqual(['place', 'balance']);
  });

  it('leaves out what is only asked about in brackets', () => {
    expect(locksOf('SELECT id FROM place WHERE id IN (SELECT place_id FROM balance WHERE (units > 0)) LOCK IN SHARE MODE')).toEqual([
      'place',
    ]);
  });

  it('lets a table follow those before it, and be locked again at any time', () => {
    expect(lockFault(['sales_order', 'place'], 'balance')).toBeNull();
    expect(lockFault(['sales_order', 'place', 'site_stock'], 'place')).toBeNull();
    expect(lockFault(['site_stock'], 'customer')).toBeNull();
  });

  it('does not let a document follow its goods', () => {
    for (const late of ['place', 'balance', 'site_stock', 'reservation'] as const)
      expect(lockFault([late], 'sales_order')).toBe(`sales_order is locked after ${late}`);
    expect(lockFault(['sales_order'], 'round')).toBe('round is locked after sales_order');
  });

  it('names each table once', () => {
    expect(new Set(LOCK_ORDER).size).toBe(LOCK_ORDER.length);
  });
});

describe('whoever watches the locks of a house', () => {
  /** A database that only listens. */
  function watched(...statements: string[]): string[] {
    const driver = { createQueryRunner: () => ({ query: (_sql: string) => undefined }) };
    const watch = new LockWatch({ driver } as unknown as DataSource);
    const runner = driver.createQueryRunner() as { query: (sql: string) => unknown };
    for (const sql of statements) runner.query(sql);
    return watch.faults;
  }
  const balance = 'UPDATE balance SET units = 1 WHERE item_id = 1';
  const order = 'SELECT id FROM sales_order WHERE id = 1 FOR UPDATE';

  it('says which statement of a transaction came too late', () => {
    expect(watched('START TRANSACTION', balance, order, 'COMMIT')).toEqual([`sales_order is locked after balance: ${order}`]);
  });

  it('finds nothing in one that keeps to the order', () => {
    expect(watched('START TRANSACTION', order, balance, order, 'COMMIT')).toEqual([]);
  });

  it('begins anew with every transaction, and passes over what stands outside of one', () => {
    expect(watched('START TRANSACTION', balance, 'ROLLBACK', 'START TRANSACTION', order, 'COMMIT', balance, order)).toEqual([]);
  });
});
