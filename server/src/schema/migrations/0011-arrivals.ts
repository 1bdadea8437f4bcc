import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** Arrivals: what comes on a day, from one order, from several or from none; what was announced, and what was booked in. */
export class Arrivals1790000000011 implements MigrationInterface {
  name = 'Arrivals1790000000011';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE item DROP COLUMN min_life_days');
    await dropAll(runner, ['receipt_picture', 'receipt', 'received_pallet', 'announced_goods', 'arrival_order', 'arrival']);
  }
}

const UP = `
ALTER TABLE item ADD min_life_days INT UNSIGNED NULL;
CREATE TABLE arrival (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  code VARCHAR(20) NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  supplier_id INT UNSIGNED NULL,
  state VARCHAR(10) NOT NULL DEFAULT 'open',
  expected_on DATE NULL,
  paper VARCHAR(60) NOT NULL DEFAULT '',
  advice VARCHAR(60) NULL,
  opened_at DATETIME(3) NULL,
  opened_by INT UNSIGNED NULL,
  closed_at DATETIME(3) NULL,
  closed_by INT UNSIGNED NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_arrival_code (code),
  UNIQUE KEY uq_arrival_advice (supplier_id, advice),
  KEY ix_arrival_state (site_id, state, expected_on),
  CONSTRAINT fk_arrival_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_arrival_supplier FOREIGN KEY (supplier_id) REFERENCES supplier (id),
  CONSTRAINT ck_arrival_state CHECK (state IN ('announced','open','closed'))
);
CREATE TABLE arrival_order (
  arrival_id INT UNSIGNED NOT NULL,
  order_id INT UNSIGNED NOT NULL,
  PRIMARY KEY (arrival_id, order_id),
  KEY ix_arrival_order (order_id, arrival_id),
  CONSTRAINT fk_arrival_order_arrival FOREIGN KEY (arrival_id) REFERENCES arrival (id),
  CONSTRAINT fk_arrival_order_order FOREIGN KEY (order_id) REFERENCES purchase_order (id)
);
CREATE TABLE announced_goods (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  arrival_id INT UNSIGNED NOT NULL,
  sscc CHAR(18) NULL,
  order_line_id INT UNSIGNED NULL,
  item_id INT UNSIGNED NOT NULL,
  lot_code VARCHAR(40) NULL,
  expires_on DATE NULL,
  units INT UNSIGNED NOT NULL,
  KEY ix_announced_arrival (arrival_id),
  KEY ix_announced_sscc (sscc),
  CONSTRAINT fk_announced_arrival FOREIGN KEY (arrival_id) REFERENCES arrival (id),
  CONSTRAINT fk_announced_line FOREIGN KEY (order_line_id) REFERENCES purchase_order_line (id),
  CONSTRAINT fk_announced_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT ck_announced_units CHECK (units > 0)
);
CREATE TABLE received_pallet (
  arrival_id INT UNSIGNED NOT NULL,
  sscc CHAR(18) NOT NULL,
  PRIMARY KEY (arrival_id, sscc),
  CONSTRAINT fk_pallet_arrival FOREIGN KEY (arrival_id) REFERENCES arrival (id)
);
CREATE TABLE receipt (
  id BIGINT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  arrival_id INT UNSIGNED NOT NULL,
  order_line_id INT UNSIGNED NULL,
  item_id INT UNSIGNED NOT NULL,
  lot_id INT UNSIGNED NOT NULL DEFAULT 0,
  units INT UNSIGNED NOT NULL,
  taken_as VARCHAR(10) NOT NULL,
  stock_condition VARCHAR(12) NOT NULL,
  reason VARCHAR(20) NULL,
  movement_id BIGINT UNSIGNED NOT NULL,
  person_id INT UNSIGNED NOT NULL,
  at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  undone_at DATETIME(3) NULL,
  UNIQUE KEY uq_receipt_movement (movement_id),
  KEY ix_receipt_arrival (arrival_id, id),
  KEY ix_receipt_line (order_line_id),
  KEY ix_receipt_item (item_id, id),
  KEY ix_receipt_at (at),
  CONSTRAINT fk_receipt_arrival FOREIGN KEY (arrival_id) REFERENCES arrival (id),
  CONSTRAINT fk_receipt_line FOREIGN KEY (order_line_id) REFERENCES purchase_order_line (id),
  CONSTRAINT fk_receipt_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT fk_receipt_movement FOREIGN KEY (movement_id) REFERENCES movement (id),
  CONSTRAINT fk_receipt_person FOREIGN KEY (person_id) REFERENCES person (id),
  CONSTRAINT ck_receipt_as CHECK (taken_as IN ('ordered','extra','unordered','apart'))
);
CREATE TABLE receipt_picture (
  receipt_id BIGINT UNSIGNED PRIMARY KEY,
  type VARCHAR(20) NOT NULL,
  picture MEDIUMBLOB NOT NULL,
  CONSTRAINT fk_receipt_picture FOREIGN KEY (receipt_id) REFERENCES receipt (id)
);
`;
