import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** Purchase orders and their lines. */
export class Purchasing1790000000004 implements MigrationInterface {
  name = 'Purchasing1790000000004';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, SQL);
  }

  down(runner: QueryRunner): Promise<void> {
    return dropAll(runner, ['purchase_order_line', 'purchase_order']);
  }
}

const SQL = `
CREATE TABLE purchase_order (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  code VARCHAR(20) NOT NULL,
  supplier_id INT UNSIGNED NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  state VARCHAR(14) NOT NULL DEFAULT 'draft',
  currency CHAR(3) NOT NULL DEFAULT 'GBP',
  expected_on DATE NULL,
  note VARCHAR(500) NOT NULL DEFAULT '',
  created_by INT UNSIGNED NOT NULL,
  created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  placed_at DATETIME(3) NULL,
  placed_by INT UNSIGNED NULL,
  first_received_at DATETIME(3) NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_purchase_order_code (code),
  KEY ix_purchase_order_state (state, expected_on),
  KEY ix_purchase_order_supplier (supplier_id, state),
  CONSTRAINT fk_purchase_order_supplier FOREIGN KEY (supplier_id) REFERENCES supplier (id),
  CONSTRAINT fk_purchase_order_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT ck_purchase_order_state CHECK (state IN ('draft','placed','part-received','received','closed','cancelled'))
);
CREATE TABLE purchase_order_line (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  order_id INT UNSIGNED NOT NULL,
  line INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  pack_unit_id INT UNSIGNED NOT NULL,
  packs INT UNSIGNED NOT NULL,
  factor INT UNSIGNED NOT NULL,
  price DECIMAL(18,6) NOT NULL,
  received_units INT UNSIGNED NOT NULL DEFAULT 0,
  UNIQUE KEY uq_purchase_order_line (order_id, line),
  KEY ix_purchase_order_line_item (item_id),
  CONSTRAINT fk_po_line_order FOREIGN KEY (order_id) REFERENCES purchase_order (id),
  CONSTRAINT fk_po_line_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT fk_po_line_pack FOREIGN KEY (pack_unit_id) REFERENCES pack_unit (id),
  CONSTRAINT ck_po_line CHECK (packs >= 1 AND factor >= 1 AND price >= 0)
);
`;
