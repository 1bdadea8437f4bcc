import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/**
 * Who may change and read what of others: changes of people wait for an answer, and what leaves the house says of which site it
 * tells. A house that was left without an owner gets one: whoever sets up has been here longest.
 */
export class Reach1790000000025 implements MigrationInterface {
  name = 'Reach1790000000025';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  async down(runner: QueryRunner): Promise<void> {
    await dropAll(runner, ['person_change']);
    await runAll(runner, DOWN);
  }
}

const UP = `
CREATE TABLE person_change (
  person_id INT UNSIGNED PRIMARY KEY,
  email VARCHAR(190) NULL,
  duties JSON NULL,
  asked_by INT UNSIGNED NOT NULL,
  asked_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  CONSTRAINT fk_person_change_person FOREIGN KEY (person_id) REFERENCES person (id),
  CONSTRAINT fk_person_change_by FOREIGN KEY (asked_by) REFERENCES person (id)
);
ALTER TABLE outbox ADD site_id INT UNSIGNED NULL;
SET @heir = (SELECT id FROM person WHERE active = 1 AND password_hash IS NOT NULL ORDER BY JSON_CONTAINS(duties, '"set-up"') DESC, id LIMIT 1);
SET @owners = (SELECT COUNT(*) FROM person WHERE active = 1 AND password_hash IS NOT NULL AND JSON_CONTAINS(duties, '"owner"'));
UPDATE person SET duties = JSON_ARRAY_APPEND(duties, '$', 'owner'), version = version + 1 WHERE id = @heir AND @owners = 0;
`;

const DOWN = `
ALTER TABLE outbox DROP COLUMN site_id;
`;
