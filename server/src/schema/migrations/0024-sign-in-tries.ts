import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** How often somebody tried to get in, by what they tried as and from where; counted before a try is looked at. */
export class SignInTries1790000000024 implements MigrationInterface {
  name = 'SignInTries1790000000024';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  async down(runner: QueryRunner): Promise<void> {
    await dropAll(runner, ['sign_in_try']);
    await runAll(runner, DOWN);
  }
}

const UP = `
CREATE TABLE sign_in_try (
  who CHAR(64) PRIMARY KEY,
  tries INT UNSIGNED NOT NULL DEFAULT 0,
  last_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  locked_until DATETIME(3) NULL
);
ALTER TABLE person DROP COLUMN failed_signins, DROP COLUMN locked_until;
`;

const DOWN = `
ALTER TABLE person ADD failed_signins INT UNSIGNED NOT NULL DEFAULT 0, ADD locked_until DATETIME(3) NULL;
`;
