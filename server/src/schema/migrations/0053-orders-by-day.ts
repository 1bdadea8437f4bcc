import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** What was asked for lately at a site is found by when it was ordered. The day comes first, so that the site's reference keeps its own index. */
export class OrdersByDay1790000000053 implements MigrationInterface {
  name = 'OrdersByDay1790000000053';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, 'CREATE INDEX ix_sales_order_placed ON sales_order (placed_at, site_id);');
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, 'DROP INDEX ix_sales_order_placed ON sales_order;');
  }
}
