import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Codes that the floor scanned and nothing has: kept for whoever keeps items, until they are tied or set aside. */
export class UnmatchedCodes1790000000042 implements MigrationInterface {
  name = 'UnmatchedCodes1790000000042';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
CREATE TABLE unmatched_code (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  site_id INT UNSIGNED NOT NULL,
  code VARCHAR(60) NOT NULL,
  times INT UNSIGNED NOT NULL DEFAULT 1,
  first_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  last_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  last_by INT UNSIGNED NOT NULL,
  document VARCHAR(40) NULL,
  aside_at DATETIME(3) NULL,
  aside_by INT UNSIGNED NULL,
  UNIQUE KEY uq_unmatched_code (site_id, code),
  KEY ix_unmatched_last (last_at),
  CONSTRAINT fk_unmatched_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_unmatched_by FOREIGN KEY (last_by) REFERENCES person (id),
  CONSTRAINT fk_unmatched_aside FOREIGN KEY (aside_by) REFERENCES person (id)
);
`;

const DOWN = `
DROP TABLE unmatched_code;
`;
