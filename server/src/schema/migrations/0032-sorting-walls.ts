import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Rounds that are picked for several orders together and sorted into the slots of a wall afterwards. */
export class SortingWalls1790000000032 implements MigrationInterface {
  name = 'SortingWalls1790000000032';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  /** Throws while totes hold goods of several orders: nothing before this knows such totes. */
  async down(runner: QueryRunner): Promise<void> {
    const [shared] = (await runner.query('SELECT COUNT(*) AS n FROM tote_use WHERE order_id IS NULL AND ended_at IS NULL')) as {
      n: string;
    }[];
    if (Number(shared?.n ?? 0) > 0) throw new Error('Sort what was picked for several orders together, then go back');
    await runAll(runner, DOWN);
  }
}

// A tote of a pooled round is in use for no order of its own. One pick may serve several stops: so it is taken back.
const UP = `
ALTER TABLE place DROP CONSTRAINT ck_place_kind;
ALTER TABLE place ADD CONSTRAINT ck_place_kind CHECK (kind IN ('site','zone','dock','inspection','pick-face','reserve','packing-table','sorting-wall','wall-slot','dispatch-lane','quarantine','counter','tote','cart','pallet','parcel','supplier','customer','count-difference','scrap','assembly','in-transit'));
ALTER TABLE place ADD COLUMN wall_columns TINYINT UNSIGNED NULL;
ALTER TABLE \`round\` ADD COLUMN pooled TINYINT NOT NULL DEFAULT 0;
ALTER TABLE tote_use MODIFY order_id INT UNSIGNED NULL;
UPDATE activity SET undo_data = JSON_SET(undo_data, '$.parts', JSON_ARRAY(JSON_OBJECT('stopId', JSON_EXTRACT(undo_data, '$.stopId'), 'units', JSON_EXTRACT(undo_data, '$.units')))) WHERE kind = 'pick' AND JSON_EXISTS(undo_data, '$.stopId');
UPDATE activity SET undo_data = JSON_SET(undo_data, '$.parts', JSON_ARRAY(JSON_OBJECT('stopId', JSON_EXTRACT(undo_data, '$.stopId'), 'units', JSON_EXTRACT(undo_data, '$.units'), 'sought', JSON_EXTRACT(undo_data, '$.sought')))) WHERE kind = 'short' AND JSON_EXISTS(undo_data, '$.stopId');
`;

// Whoever goes back packs out of the slots as if they were totes.
const DOWN = `
UPDATE tote_use u SET u.order_id = (SELECT MIN(x.order_id) FROM round_order x WHERE x.round_id = u.round_id) WHERE u.order_id IS NULL;
ALTER TABLE tote_use MODIFY order_id INT UNSIGNED NOT NULL;
ALTER TABLE \`round\` DROP COLUMN pooled;
ALTER TABLE place DROP COLUMN wall_columns;
UPDATE place SET kind = 'tote' WHERE kind = 'wall-slot';
UPDATE place SET kind = 'packing-table' WHERE kind = 'sorting-wall';
ALTER TABLE place DROP CONSTRAINT ck_place_kind;
ALTER TABLE place ADD CONSTRAINT ck_place_kind CHECK (kind IN ('site','zone','dock','inspection','pick-face','reserve','packing-table','dispatch-lane','quarantine','counter','tote','cart','pallet','parcel','supplier','customer','count-difference','scrap','assembly','in-transit'));
`;
