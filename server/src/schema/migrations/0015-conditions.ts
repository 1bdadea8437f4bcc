import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Goods can be found to be in another condition where they stand; what stands apart is not the house's. */
export class Conditions1790000000015 implements MigrationInterface {
  name = 'Conditions1790000000015';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
ALTER TABLE movement ADD to_condition VARCHAR(12) NULL AFTER stock_condition;
ALTER TABLE movement DROP CONSTRAINT ck_movement_places;
ALTER TABLE movement DROP CONSTRAINT ck_movement_condition;
ALTER TABLE movement ADD CONSTRAINT ck_movement_condition CHECK (stock_condition IN ('good','held','damaged','to-inspect','apart') AND (to_condition IS NULL OR to_condition IN ('good','held','damaged','to-inspect','apart')));
ALTER TABLE movement ADD CONSTRAINT ck_movement_places CHECK (from_place_id <> to_place_id OR COALESCE(to_condition, stock_condition) <> stock_condition);
`;

const DOWN = `
ALTER TABLE movement DROP CONSTRAINT ck_movement_places;
ALTER TABLE movement DROP CONSTRAINT ck_movement_condition;
ALTER TABLE movement DROP COLUMN to_condition;
ALTER TABLE movement ADD CONSTRAINT ck_movement_condition CHECK (stock_condition IN ('good','held','damaged','to-inspect'));
ALTER TABLE movement ADD CONSTRAINT ck_movement_places CHECK (from_place_id <> to_place_id);
`;
