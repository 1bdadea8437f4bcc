import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** What was asked for lately at a site is found by when it was ordered. */
export class OrdersByDay1790000000053 implements MigrationInterface {
  name = 'OrdersByDay1790000000053';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, 'CREATE INDEX ix_sales_order_placed ON sales_order (site_id, placed_at);');
  }

  down(runner: QueryRunner): Promise<void> {
    // The site's reference needs an index that begins with it.
    return runAll(runner, 'DROP INDEX ix_sales_order_placed ON sales_order;');
  }
}
