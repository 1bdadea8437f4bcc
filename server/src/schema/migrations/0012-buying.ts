import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** Orders in full: charges, days by line, answers of suppliers, what is closed short, and the history after placing. */
export class Buying1790000000012 implements MigrationInterface {
  name = 'Buying1790000000012';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runAll(runner, DOWN);
    await dropAll(runner, [
      'supplier_document',
      'purchase_order_change',
      'purchase_order_charge',
      'supplier_price_break',
      'supplier_contact',
    ]);
  }
}

const UP = `
ALTER TABLE supplier
  ADD terms VARCHAR(80) NOT NULL DEFAULT '',
  ADD working_days CHAR(7) NOT NULL DEFAULT 'YYYYYNN',
  ADD least_value DECIMAL(18,2) NULL,
  ADD least_units INT UNSIGNED NULL,
  ADD least_pallets INT UNSIGNED NULL;
CREATE TABLE supplier_contact (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  supplier_id INT UNSIGNED NOT NULL,
  position INT UNSIGNED NOT NULL,
  name VARCHAR(80) NOT NULL,
  role VARCHAR(60) NOT NULL DEFAULT '',
  email VARCHAR(190) NOT NULL DEFAULT '',
  phone VARCHAR(40) NOT NULL DEFAULT '',
  KEY ix_supplier_contact (supplier_id, position),
  CONSTRAINT fk_supplier_contact FOREIGN KEY (supplier_id) REFERENCES supplier (id)
);
CREATE TABLE supplier_price_break (
  supplier_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  from_packs INT UNSIGNED NOT NULL,
  price DECIMAL(18,6) NOT NULL,
  PRIMARY KEY (supplier_id, item_id, from_packs),
  CONSTRAINT fk_break_supplier_item FOREIGN KEY (supplier_id, item_id) REFERENCES supplier_item (supplier_id, item_id) ON DELETE CASCADE,
  CONSTRAINT ck_break CHECK (from_packs >= 2 AND price >= 0)
);
ALTER TABLE purchase_order
  ADD answer VARCHAR(12) NOT NULL DEFAULT '',
  ADD answer_note VARCHAR(300) NOT NULL DEFAULT '',
  ADD CONSTRAINT ck_purchase_order_answer CHECK (answer IN ('','acknowledged','confirmed','to-settle','queried','refused'));
ALTER TABLE purchase_order_line
  ADD expected_on DATE NULL,
  ADD closed_units INT UNSIGNED NOT NULL DEFAULT 0,
  ADD open_units INT AS (GREATEST(0, CAST(packs * factor AS SIGNED) - CAST(received_units AS SIGNED) - CAST(closed_units AS SIGNED))) STORED,
  ADD answer VARCHAR(10) NULL,
  ADD answer_packs INT UNSIGNED NULL,
  ADD answer_price DECIMAL(18,6) NULL,
  ADD answer_on DATE NULL,
  ADD answer_note VARCHAR(200) NOT NULL DEFAULT '',
  ADD CONSTRAINT ck_po_line_answer CHECK (answer IS NULL OR answer IN ('accepted','changed','refused'));
CREATE TABLE purchase_order_charge (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  order_id INT UNSIGNED NOT NULL,
  position INT UNSIGNED NOT NULL,
  says VARCHAR(60) NOT NULL,
  amount DECIMAL(18,2) NOT NULL,
  shared_by VARCHAR(8) NOT NULL DEFAULT 'value',
  KEY ix_po_charge (order_id, position),
  CONSTRAINT fk_po_charge FOREIGN KEY (order_id) REFERENCES purchase_order (id),
  CONSTRAINT ck_po_charge CHECK (amount > 0 AND shared_by IN ('value','units','weight','volume'))
);
CREATE TABLE purchase_order_change (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  order_id INT UNSIGNED NOT NULL,
  line INT UNSIGNED NULL,
  what VARCHAR(30) NOT NULL,
  was VARCHAR(200) NOT NULL,
  becomes VARCHAR(200) NOT NULL,
  why VARCHAR(120) NOT NULL DEFAULT '',
  person_id INT UNSIGNED NOT NULL,
  at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  KEY ix_po_change (order_id, id),
  CONSTRAINT fk_po_change FOREIGN KEY (order_id) REFERENCES purchase_order (id),
  CONSTRAINT fk_po_change_person FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE supplier_document (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  supplier_id INT UNSIGNED NOT NULL,
  kind VARCHAR(16) NOT NULL,
  ref VARCHAR(60) NOT NULL,
  concerns VARCHAR(20) NOT NULL,
  says VARCHAR(200) NOT NULL,
  document MEDIUMBLOB NOT NULL,
  person_id INT UNSIGNED NOT NULL,
  at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  UNIQUE KEY uq_supplier_document (supplier_id, kind, ref),
  KEY ix_supplier_document (concerns),
  CONSTRAINT fk_document_supplier FOREIGN KEY (supplier_id) REFERENCES supplier (id),
  CONSTRAINT fk_document_person FOREIGN KEY (person_id) REFERENCES person (id)
);
`;

const DOWN = `
ALTER TABLE purchase_order_line DROP CONSTRAINT ck_po_line_answer, DROP COLUMN open_units;
ALTER TABLE purchase_order_line DROP COLUMN expected_on, DROP COLUMN closed_units, DROP COLUMN answer, DROP COLUMN answer_packs, DROP COLUMN answer_price, DROP COLUMN answer_on, DROP COLUMN answer_note;
ALTER TABLE purchase_order DROP CONSTRAINT ck_purchase_order_answer, DROP COLUMN answer, DROP COLUMN answer_note;
ALTER TABLE supplier DROP COLUMN terms, DROP COLUMN working_days, DROP COLUMN least_value, DROP COLUMN least_units, DROP COLUMN least_pallets;
`;
