import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** Versions of printers, and of lists that are replaced as a whole. */
export class Versions1790000000022 implements MigrationInterface {
  name = 'Versions1790000000022';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runAll(runner, 'ALTER TABLE printer DROP COLUMN version;');
    await dropAll(runner, ['list_version']);
  }
}

const UP = `
ALTER TABLE printer ADD version INT UNSIGNED NOT NULL DEFAULT 1;

CREATE TABLE list_version (
  name VARCHAR(40) PRIMARY KEY,
  version INT UNSIGNED NOT NULL
);
`;
