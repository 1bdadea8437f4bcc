import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** The days on which a supplier takes orders. */
export class OrderDays1790000000058 implements MigrationInterface {
  name = 'OrderDays1790000000058';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, `ALTER TABLE supplier ADD COLUMN order_days CHAR(7) NOT NULL DEFAULT 'YYYYYYY';`);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, 'ALTER TABLE supplier DROP COLUMN order_days;');
  }
}
