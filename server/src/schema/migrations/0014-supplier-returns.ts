import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** Goods that went back to their supplier, and the credit that is expected for them. */
export class SupplierReturns1790000000014 implements MigrationInterface {
  name = 'SupplierReturns1790000000014';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return dropAll(runner, ['supplier_return_line', 'supplier_return']);
  }
}

const UP = `
CREATE TABLE supplier_return (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  code VARCHAR(20) NOT NULL,
  supplier_id INT UNSIGNED NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  state VARCHAR(10) NOT NULL DEFAULT 'sent',
  reason VARCHAR(200) NOT NULL,
  currency CHAR(3) NOT NULL,
  expected DECIMAL(18,2) NOT NULL,
  credit_ref VARCHAR(60) NULL,
  credited DECIMAL(18,2) NULL,
  sent_by INT UNSIGNED NOT NULL,
  sent_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  credited_by INT UNSIGNED NULL,
  credited_at DATETIME(3) NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_supplier_return_code (code),
  KEY ix_supplier_return_state (site_id, state, id),
  CONSTRAINT fk_supplier_return_supplier FOREIGN KEY (supplier_id) REFERENCES supplier (id),
  CONSTRAINT fk_supplier_return_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT ck_supplier_return_state CHECK (state IN ('sent','credited','taken back'))
);
CREATE TABLE supplier_return_line (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  return_id INT UNSIGNED NOT NULL,
  line INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  lot_id INT UNSIGNED NOT NULL DEFAULT 0,
  stock_condition VARCHAR(12) NOT NULL,
  units INT UNSIGNED NOT NULL,
  order_line_id INT UNSIGNED NULL,
  expected DECIMAL(18,6) NOT NULL,
  movement_id BIGINT UNSIGNED NOT NULL,
  UNIQUE KEY uq_supplier_return_line (return_id, line),
  KEY ix_supplier_return_order_line (order_line_id),
  CONSTRAINT fk_return_line_return FOREIGN KEY (return_id) REFERENCES supplier_return (id),
  CONSTRAINT fk_return_line_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT fk_return_line_order_line FOREIGN KEY (order_line_id) REFERENCES purchase_order_line (id),
  CONSTRAINT fk_return_line_movement FOREIGN KEY (movement_id) REFERENCES movement (id),
  CONSTRAINT ck_return_line_units CHECK (units > 0)
);
`;
