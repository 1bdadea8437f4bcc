import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Lots that are held everywhere, since something is wrong with them. */
export class Recalls1790000000050 implements MigrationInterface {
  name = 'Recalls1790000000050';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
ALTER TABLE lot ADD KEY ix_lot_code (code);
CREATE TABLE lot_recall (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  lot_id INT UNSIGNED NOT NULL,
  reason VARCHAR(200) NOT NULL,
  person_id INT UNSIGNED NULL,
  held_at DATETIME(3) NOT NULL DEFAULT (UTC_TIMESTAMP(3)),
  freed_by_id INT UNSIGNED NULL,
  freed_at DATETIME(3) NULL,
  told_at DATETIME(3) NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  open_lot INT UNSIGNED AS (IF(freed_at IS NULL, lot_id, NULL)) VIRTUAL,
  UNIQUE KEY uq_lot_recall_open (open_lot),
  CONSTRAINT fk_lot_recall_lot FOREIGN KEY (lot_id) REFERENCES lot (id),
  CONSTRAINT fk_lot_recall_person FOREIGN KEY (person_id) REFERENCES person (id),
  CONSTRAINT fk_lot_recall_freed FOREIGN KEY (freed_by_id) REFERENCES person (id)
);
`;

const DOWN = `
DROP TABLE lot_recall;
ALTER TABLE lot DROP KEY ix_lot_code;
`;
