import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Items of which pickers scan every piece. */
export class ScannedPieceByPiece1790000000036 implements MigrationInterface {
  name = 'ScannedPieceByPiece1790000000036';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
ALTER TABLE item ADD COLUMN scan_each TINYINT NOT NULL DEFAULT 0;
`;

const DOWN = `
ALTER TABLE item DROP COLUMN scan_each;
`;
