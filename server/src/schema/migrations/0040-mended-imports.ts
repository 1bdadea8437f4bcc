import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** In which unit a column of a file is, and what its words are read as: said once, remembered for files of the same shape. */
export class MendedImports1790000000040 implements MigrationInterface {
  name = 'MendedImports1790000000040';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
ALTER TABLE import_run ADD COLUMN units TEXT NOT NULL DEFAULT '[]' CHECK (JSON_VALID(units)), ADD COLUMN words MEDIUMTEXT NOT NULL DEFAULT '{}' CHECK (JSON_VALID(words));
ALTER TABLE import_mapping ADD COLUMN units TEXT NOT NULL DEFAULT '[]' CHECK (JSON_VALID(units)), ADD COLUMN words MEDIUMTEXT NOT NULL DEFAULT '{}' CHECK (JSON_VALID(words));
`;

const DOWN = `
ALTER TABLE import_mapping DROP COLUMN units, DROP COLUMN words;
ALTER TABLE import_run DROP COLUMN units, DROP COLUMN words;
`;
