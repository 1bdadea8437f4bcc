import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** A round may be sent to somebody before it is begun. */
export class RoundsOfMany1790000000029 implements MigrationInterface {
  name = 'RoundsOfMany1790000000029';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
ALTER TABLE \`round\` ADD COLUMN sent_to_id INT UNSIGNED NULL AFTER picker_id, ADD CONSTRAINT fk_round_sent_to FOREIGN KEY (sent_to_id) REFERENCES person (id);
`;

const DOWN = `
ALTER TABLE \`round\` DROP FOREIGN KEY fk_round_sent_to;
ALTER TABLE \`round\` DROP COLUMN sent_to_id;
`;
