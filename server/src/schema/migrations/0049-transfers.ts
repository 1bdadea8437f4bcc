import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Goods that go from one site to another. */
export class Transfers1790000000049 implements MigrationInterface {
  name = 'Transfers1790000000049';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
CREATE TABLE transfer (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  code VARCHAR(20) NOT NULL,
  from_site_id INT UNSIGNED NOT NULL,
  to_site_id INT UNSIGNED NOT NULL,
  state VARCHAR(12) NOT NULL DEFAULT 'requested',
  place_id INT UNSIGNED NOT NULL,
  note VARCHAR(200) NOT NULL DEFAULT '',
  expected_on DATE NULL,
  carrier VARCHAR(60) NOT NULL DEFAULT '',
  tracking VARCHAR(60) NOT NULL DEFAULT '',
  made_by_id INT UNSIGNED NULL,
  made_at DATETIME(3) NOT NULL DEFAULT (UTC_TIMESTAMP(3)),
  sent_by_id INT UNSIGNED NULL,
  sent_at DATETIME(3) NULL,
  received_at DATETIME(3) NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_transfer_code (code),
  KEY ix_transfer_from (from_site_id, state),
  KEY ix_transfer_to (to_site_id, state),
  CONSTRAINT ck_transfer_state CHECK (state IN ('requested','gathering','on-the-road','arriving','received','cancelled')),
  CONSTRAINT ck_transfer_sites CHECK (from_site_id <> to_site_id),
  CONSTRAINT fk_transfer_from FOREIGN KEY (from_site_id) REFERENCES site (id),
  CONSTRAINT fk_transfer_to FOREIGN KEY (to_site_id) REFERENCES site (id),
  CONSTRAINT fk_transfer_place FOREIGN KEY (place_id) REFERENCES place (id),
  CONSTRAINT fk_transfer_made FOREIGN KEY (made_by_id) REFERENCES person (id),
  CONSTRAINT fk_transfer_sent FOREIGN KEY (sent_by_id) REFERENCES person (id)
);
CREATE TABLE transfer_line (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  transfer_id INT UNSIGNED NOT NULL,
  line INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  units INT UNSIGNED NOT NULL,
  gathered_units INT UNSIGNED NOT NULL DEFAULT 0,
  UNIQUE KEY uq_transfer_line (transfer_id, line),
  KEY ix_transfer_line_item (item_id),
  CONSTRAINT fk_transfer_line_transfer FOREIGN KEY (transfer_id) REFERENCES transfer (id),
  CONSTRAINT fk_transfer_line_item FOREIGN KEY (item_id) REFERENCES item (id)
);
CREATE TABLE transfer_goods (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  transfer_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  lot_id INT UNSIGNED NOT NULL DEFAULT 0,
  units INT UNSIGNED NOT NULL,
  received_units INT UNSIGNED NOT NULL DEFAULT 0,
  damaged_units INT UNSIGNED NOT NULL DEFAULT 0,
  lost_units INT UNSIGNED NOT NULL DEFAULT 0,
  owes VARCHAR(10) NULL,
  settled_note VARCHAR(200) NULL,
  movement_id BIGINT UNSIGNED NOT NULL,
  value DECIMAL(18,6) NOT NULL,
  UNIQUE KEY uq_transfer_goods (transfer_id, item_id, lot_id),
  KEY ix_transfer_goods_item (item_id),
  CONSTRAINT ck_transfer_goods CHECK (received_units + lost_units <= units),
  CONSTRAINT fk_transfer_goods_transfer FOREIGN KEY (transfer_id) REFERENCES transfer (id),
  CONSTRAINT fk_transfer_goods_item FOREIGN KEY (item_id) REFERENCES item (id)
);
`;

const DOWN = `
DROP TABLE transfer_goods;
DROP TABLE transfer_line;
DROP TABLE transfer;
`;
