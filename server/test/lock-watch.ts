import type { DataSource } from 'typeorm';
import { LOCK_ORDER, lockFault, locksOf } from '../src/platform/database/lock-order.js';
import type { TableName } from '../src/platform/index.js';

interface Runner {
  query: (sql: string, ...rest: unknown[]) => unknown;
}

const inOrder = (table: string): table is TableName => (LOCK_ORDER as readonly string[]).includes(table);

/** Listens to every transaction of a house, and keeps where one took its locks in another order than the one agreed. */
export class LockWatch {
  private readonly found = new Set<string>();

  constructor(source: DataSource) {
    const driver = source.driver as unknown as { createQueryRunner: (mode: string) => Runner };
    const make = driver.createQueryRunner.bind(driver);
    driver.createQueryRunner = (mode) => this.listen(make(mode));
  }

  /** What was locked out of order, with the statement that did it. */
  get faults(): string[] {
    return [...this.found].sort();
  }

  private listen(runner: Runner): Runner {
    const query = runner.query.bind(runner);
    let held: TableName[] | null = null;
    runner.query = (sql, ...rest) => {
      if (/^\s*START TRANSACTION/i.test(sql)) held = [];
      else if (/^\s*(COMMIT|ROLLBACK)/i.test(sql)) held = null;
      for (const table of held ? locksOf(sql).filter(inOrder) : []) {
        const fault = lockFault(held ?? [], table);
        if (fault) this.found.add(`${fault}: ${sql.replace(/\s+/g, ' ').trim().slice(0, 150)}`);
        if (held && !held.includes(table)) held = [...held, table];
      }
      return query(sql, ...rest);
    };
    return runner;
  }
}
