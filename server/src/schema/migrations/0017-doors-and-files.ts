import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** The door at which goods are expected, and files kept with purchase orders. */
export class DoorsAndFiles1790000000017 implements MigrationInterface {
  name = 'DoorsAndFiles1790000000017';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
ALTER TABLE purchase_order ADD door_id INT UNSIGNED NULL, ADD CONSTRAINT fk_order_door FOREIGN KEY (door_id) REFERENCES place (id);
ALTER TABLE arrival ADD door_id INT UNSIGNED NULL, ADD CONSTRAINT fk_arrival_door FOREIGN KEY (door_id) REFERENCES place (id);
CREATE TABLE purchase_order_file (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  order_id INT UNSIGNED NOT NULL,
  name VARCHAR(120) NOT NULL,
  bytes INT UNSIGNED NOT NULL,
  content MEDIUMBLOB NOT NULL,
  person_id INT UNSIGNED NOT NULL,
  at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  KEY ix_order_file (order_id, id),
  CONSTRAINT fk_order_file_order FOREIGN KEY (order_id) REFERENCES purchase_order (id),
  CONSTRAINT fk_order_file_person FOREIGN KEY (person_id) REFERENCES person (id)
);
`;

const DOWN = `
DROP TABLE purchase_order_file;
ALTER TABLE arrival DROP CONSTRAINT fk_arrival_door, DROP COLUMN door_id;
ALTER TABLE purchase_order DROP CONSTRAINT fk_order_door, DROP COLUMN door_id;
`;
