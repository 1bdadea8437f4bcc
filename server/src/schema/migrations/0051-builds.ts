import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Assemblies that are built here, and taken apart. */
export class Builds1790000000051 implements MigrationInterface {
  name = 'Builds1790000000051';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
CREATE TABLE build (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  code VARCHAR(20) NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  units INT UNSIGNED NOT NULL,
  state VARCHAR(12) NOT NULL DEFAULT 'planned',
  apart TINYINT NOT NULL DEFAULT 0,
  place_id INT UNSIGNED NOT NULL,
  note VARCHAR(200) NOT NULL DEFAULT '',
  built_units INT UNSIGNED NOT NULL DEFAULT 0,
  labour_minutes INT UNSIGNED NULL,
  labour_cost DECIMAL(18,6) NULL,
  parts_cost DECIMAL(18,6) NULL,
  made_by_id INT UNSIGNED NULL,
  made_at DATETIME(3) NOT NULL DEFAULT (UTC_TIMESTAMP(3)),
  built_by_id INT UNSIGNED NULL,
  built_at DATETIME(3) NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_build_code (code),
  KEY ix_build_site (site_id, state),
  CONSTRAINT ck_build_state CHECK (state IN ('planned','gathering','built','cancelled')),
  CONSTRAINT fk_build_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_build_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT fk_build_place FOREIGN KEY (place_id) REFERENCES place (id),
  CONSTRAINT fk_build_made FOREIGN KEY (made_by_id) REFERENCES person (id),
  CONSTRAINT fk_build_built FOREIGN KEY (built_by_id) REFERENCES person (id)
);
CREATE TABLE build_part (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  build_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  units INT UNSIGNED NOT NULL,
  gathered_units INT UNSIGNED NOT NULL DEFAULT 0,
  used_units INT UNSIGNED NOT NULL DEFAULT 0,
  scrapped_units INT UNSIGNED NOT NULL DEFAULT 0,
  UNIQUE KEY uq_build_part (build_id, item_id),
  CONSTRAINT fk_build_part_build FOREIGN KEY (build_id) REFERENCES build (id),
  CONSTRAINT fk_build_part_item FOREIGN KEY (item_id) REFERENCES item (id)
);
`;

const DOWN = `
DROP TABLE build_part;
DROP TABLE build;
`;
