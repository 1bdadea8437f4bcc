import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** People of the floor need no mail address: they come in by badge and PIN. On the way back each gets one that leads nowhere. */
export class PeopleWithoutMail1790000000041 implements MigrationInterface {
  name = 'PeopleWithoutMail1790000000041';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
ALTER TABLE person MODIFY email VARCHAR(190) NULL;
`;

const DOWN = `
UPDATE person SET email = CONCAT('person-', id, '@nowhere.invalid') WHERE email IS NULL;
ALTER TABLE person MODIFY email VARCHAR(190) NOT NULL;
`;
