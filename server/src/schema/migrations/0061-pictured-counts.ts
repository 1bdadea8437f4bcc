import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** By which act a reported bin was counted: whoever decides sees the picture that was taken with it. */
export class PicturedCounts1790000000061 implements MigrationInterface {
  name = 'PicturedCounts1790000000061';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, 'ALTER TABLE spot_count ADD COLUMN counted_command CHAR(36) NULL;');
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, 'ALTER TABLE spot_count DROP COLUMN counted_command;');
  }
}
