import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Sites at which nobody walks rounds: goods go from the shelf into the parcel. */
export class PackedFromTheShelf1790000000035 implements MigrationInterface {
  name = 'PackedFromTheShelf1790000000035';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
ALTER TABLE site ADD COLUMN picks TINYINT NOT NULL DEFAULT 1;
`;

const DOWN = `
ALTER TABLE site DROP COLUMN picks;
`;
