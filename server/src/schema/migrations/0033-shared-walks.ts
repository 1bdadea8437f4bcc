import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Who goes to a stop, where several walk one round. */
export class SharedWalks1790000000033 implements MigrationInterface {
  name = 'SharedWalks1790000000033';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

// Null: whoever walks the round.
const UP = `
ALTER TABLE round_stop ADD COLUMN person_id INT UNSIGNED NULL, ADD KEY ix_round_stop_person (person_id), ADD CONSTRAINT fk_round_stop_person FOREIGN KEY (person_id) REFERENCES person (id);
`;

const DOWN = `
ALTER TABLE round_stop DROP FOREIGN KEY fk_round_stop_person, DROP KEY ix_round_stop_person, DROP COLUMN person_id;
`;
