import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** Files taken in: their rows as they were read, what is wrong with them, and what each import made. */
export class Exchange1790000000007 implements MigrationInterface {
  name = 'Exchange1790000000007';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, SQL);
  }

  down(runner: QueryRunner): Promise<void> {
    return dropAll(runner, ['import_made', 'import_fault', 'import_row', 'import_run', 'import_mapping']);
  }
}

const SQL = `
CREATE TABLE import_mapping (
  shape CHAR(64) PRIMARY KEY,
  kind VARCHAR(20) NOT NULL,
  mapping LONGTEXT NOT NULL CHECK (JSON_VALID(mapping))
);
CREATE TABLE import_run (
  id CHAR(36) PRIMARY KEY,
  file_name VARCHAR(190) NOT NULL,
  file_hash CHAR(64) NOT NULL,
  kind VARCHAR(20) NOT NULL,
  columns LONGTEXT NOT NULL CHECK (JSON_VALID(columns)),
  mapping LONGTEXT NOT NULL CHECK (JSON_VALID(mapping)),
  state VARCHAR(10) NOT NULL DEFAULT 'read',
  good_only TINYINT NOT NULL DEFAULT 0,
  total INT UNSIGNED NOT NULL,
  done INT UNSIGNED NOT NULL DEFAULT 0,
  faulty INT UNSIGNED NOT NULL DEFAULT 0,
  made INT UNSIGNED NOT NULL DEFAULT 0,
  changed INT UNSIGNED NOT NULL DEFAULT 0,
  problem VARCHAR(500) NULL,
  person_id INT UNSIGNED NOT NULL,
  command_id CHAR(36) NULL,
  leased_until DATETIME(3) NULL,
  created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  finished_at DATETIME(3) NULL,
  KEY ix_import_state (state, created_at),
  KEY ix_import_created (created_at),
  CONSTRAINT fk_import_person FOREIGN KEY (person_id) REFERENCES person (id),
  CONSTRAINT ck_import_state CHECK (state IN ('read','checking','checked','applying','applied','undone','failed'))
);
CREATE TABLE import_row (
  import_id CHAR(36) NOT NULL,
  n INT UNSIGNED NOT NULL,
  cells LONGTEXT NOT NULL CHECK (JSON_VALID(cells)),
  faulty TINYINT NOT NULL DEFAULT 0,
  PRIMARY KEY (import_id, n),
  CONSTRAINT fk_import_row FOREIGN KEY (import_id) REFERENCES import_run (id) ON DELETE CASCADE
);
CREATE TABLE import_fault (
  import_id CHAR(36) NOT NULL,
  n INT UNSIGNED NOT NULL,
  field VARCHAR(40) NOT NULL,
  value VARCHAR(200) NOT NULL,
  reason VARCHAR(300) NOT NULL,
  PRIMARY KEY (import_id, n, field),
  CONSTRAINT fk_import_fault FOREIGN KEY (import_id) REFERENCES import_run (id) ON DELETE CASCADE
);
CREATE TABLE import_made (
  import_id CHAR(36) NOT NULL,
  seq INT UNSIGNED NOT NULL,
  target VARCHAR(20) NOT NULL,
  before_image LONGTEXT NULL CHECK (before_image IS NULL OR JSON_VALID(before_image)),
  after_image LONGTEXT NOT NULL CHECK (JSON_VALID(after_image)),
  PRIMARY KEY (import_id, seq)
);
`;
