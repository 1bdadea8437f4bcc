import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** An item says at a site when its pick face is filled up again, and up to what. */
export class Refills1790000000030 implements MigrationInterface {
  name = 'Refills1790000000030';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
ALTER TABLE item_site ADD COLUMN refill_below INT UNSIGNED NULL, ADD COLUMN refill_up_to INT UNSIGNED NULL,
  ADD CONSTRAINT ck_item_site_refill CHECK (refill_below IS NULL OR refill_up_to IS NULL OR refill_up_to >= refill_below);
`;

const DOWN = `
ALTER TABLE item_site DROP CONSTRAINT ck_item_site_refill;
DELETE FROM item_site WHERE home_place_id IS NULL AND cost IS NULL AND reorder_point IS NULL AND order_up_to IS NULL;
ALTER TABLE item_site DROP COLUMN refill_below, DROP COLUMN refill_up_to;
`;
