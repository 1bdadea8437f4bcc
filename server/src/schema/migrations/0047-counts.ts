import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Counts of many bins, what they may be off by, and when goods were moved that a phone told of later. */
export class Counts1790000000047 implements MigrationInterface {
  name = 'Counts1790000000047';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

// A bin is in one count at a time, so that no two of them book the same difference.
const UP = `
ALTER TABLE movement ADD COLUMN moved_at DATETIME(3) NULL;
CREATE TABLE stock_count (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  code VARCHAR(20) NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  title VARCHAR(160) NOT NULL,
  whole_bins TINYINT NOT NULL DEFAULT 1,
  blind TINYINT NOT NULL DEFAULT 1,
  scan_each TINYINT NOT NULL DEFAULT 0,
  state VARCHAR(10) NOT NULL DEFAULT 'drawn-up',
  made_by_id INT UNSIGNED NULL,
  made_at DATETIME(3) NOT NULL DEFAULT (UTC_TIMESTAMP(3)),
  opened_at DATETIME(3) NULL,
  after_movement BIGINT UNSIGNED NULL,
  reviewed_at DATETIME(3) NULL,
  ended_at DATETIME(3) NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_stock_count_code (code),
  KEY ix_stock_count_site (site_id, state),
  CONSTRAINT ck_stock_count_state CHECK (state IN ('drawn-up','open','review','closed','dropped')),
  CONSTRAINT fk_stock_count_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_stock_count_made FOREIGN KEY (made_by_id) REFERENCES person (id)
);
CREATE TABLE count_bin (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  count_id INT UNSIGNED NOT NULL,
  place_id INT UNSIGNED NOT NULL,
  area VARCHAR(40) NOT NULL DEFAULT '',
  position INT UNSIGNED NOT NULL DEFAULT 0,
  state VARCHAR(10) NOT NULL DEFAULT 'open',
  person_id INT UNSIGNED NULL,
  not_person_id INT UNSIGNED NULL,
  begun_by_id INT UNSIGNED NULL,
  device_id INT UNSIGNED NULL,
  counted_at DATETIME(3) NULL,
  live TINYINT NULL DEFAULT 1,
  UNIQUE KEY uq_count_bin (count_id, place_id),
  UNIQUE KEY uq_count_bin_live (place_id, live),
  CONSTRAINT ck_count_bin_state CHECK (state IN ('open','begun','counted')),
  CONSTRAINT fk_count_bin_count FOREIGN KEY (count_id) REFERENCES stock_count (id),
  CONSTRAINT fk_count_bin_place FOREIGN KEY (place_id) REFERENCES place (id),
  CONSTRAINT fk_count_bin_person FOREIGN KEY (person_id) REFERENCES person (id),
  CONSTRAINT fk_count_bin_not FOREIGN KEY (not_person_id) REFERENCES person (id),
  CONSTRAINT fk_count_bin_begun FOREIGN KEY (begun_by_id) REFERENCES person (id),
  CONSTRAINT fk_count_bin_device FOREIGN KEY (device_id) REFERENCES device (id)
);
CREATE TABLE count_line (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  count_id INT UNSIGNED NOT NULL,
  place_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  lot_id INT UNSIGNED NOT NULL DEFAULT 0,
  damaged TINYINT NOT NULL DEFAULT 0,
  listed TINYINT NOT NULL DEFAULT 1,
  state VARCHAR(10) NOT NULL DEFAULT 'open',
  counted_units INT UNSIGNED NULL,
  looked_at DATETIME(3) NULL,
  person_id INT UNSIGNED NULL,
  how VARCHAR(10) NULL,
  expected_units INT NULL,
  unit_cost DECIMAL(18,6) NULL,
  within_limits TINYINT NULL,
  reason VARCHAR(200) NULL,
  settled_by_id INT UNSIGNED NULL,
  settled_at DATETIME(3) NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_count_line (count_id, place_id, item_id, lot_id, damaged),
  KEY ix_count_line_goods (place_id, item_id, lot_id),
  KEY ix_count_line_item (item_id, settled_at),
  CONSTRAINT ck_count_line_state CHECK (state IN ('open','counted','accepted','dropped')),
  CONSTRAINT fk_count_line_count FOREIGN KEY (count_id) REFERENCES stock_count (id),
  CONSTRAINT fk_count_line_place FOREIGN KEY (place_id) REFERENCES place (id),
  CONSTRAINT fk_count_line_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT fk_count_line_person FOREIGN KEY (person_id) REFERENCES person (id),
  CONSTRAINT fk_count_line_settled FOREIGN KEY (settled_by_id) REFERENCES person (id)
);
CREATE TABLE count_look (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  line_id INT UNSIGNED NOT NULL,
  counted_units INT UNSIGNED NOT NULL,
  looked_at DATETIME(3) NOT NULL,
  person_id INT UNSIGNED NULL,
  KEY ix_count_look_line (line_id),
  CONSTRAINT fk_count_look_line FOREIGN KEY (line_id) REFERENCES count_line (id) ON DELETE CASCADE,
  CONSTRAINT fk_count_look_person FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE count_code (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  count_id INT UNSIGNED NOT NULL,
  place_id INT UNSIGNED NOT NULL,
  code VARCHAR(120) NOT NULL,
  units INT UNSIGNED NOT NULL,
  person_id INT UNSIGNED NULL,
  looked_at DATETIME(3) NOT NULL,
  settled_at DATETIME(3) NULL,
  KEY ix_count_code_count (count_id),
  CONSTRAINT fk_count_code_count FOREIGN KEY (count_id) REFERENCES stock_count (id),
  CONSTRAINT fk_count_code_place FOREIGN KEY (place_id) REFERENCES place (id),
  CONSTRAINT fk_count_code_person FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE count_rule (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  class VARCHAR(40) NULL,
  item_id INT UNSIGNED NULL,
  interval_days INT UNSIGNED NULL,
  units INT UNSIGNED NULL,
  value DECIMAL(18,6) NULL,
  units_percent DECIMAL(6,2) NULL,
  value_percent DECIMAL(6,2) NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  level_key VARCHAR(60) AS (CONCAT(COALESCE(item_id, ''), '/', COALESCE(class, ''))) VIRTUAL,
  UNIQUE KEY uq_count_rule_level (level_key),
  CONSTRAINT fk_count_rule_item FOREIGN KEY (item_id) REFERENCES item (id)
);
`;

const DOWN = `
DROP TABLE count_rule;
DROP TABLE count_code;
DROP TABLE count_look;
DROP TABLE count_line;
DROP TABLE count_bin;
DROP TABLE stock_count;
ALTER TABLE movement DROP COLUMN moved_at;
`;
