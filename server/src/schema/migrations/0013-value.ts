import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** What stock is worth: layers as they came, with the parts of their cost, a pool an item, entries in two accounts; and bills. */
export class Value1790000000013 implements MigrationInterface {
  name = 'Value1790000000013';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return dropAll(runner, ['value_entry', 'bill_line', 'bill', 'cost_layer_part', 'cost_layer', 'cost_pool']);
  }
}

const UP = `
CREATE TABLE cost_pool (
  item_id INT UNSIGNED PRIMARY KEY,
  units INT NOT NULL DEFAULT 0,
  value DECIMAL(20,6) NOT NULL DEFAULT 0,
  CONSTRAINT fk_cost_pool_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT ck_cost_pool CHECK (units >= 0)
);
CREATE TABLE cost_layer (
  id BIGINT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  item_id INT UNSIGNED NOT NULL,
  movement_id BIGINT UNSIGNED NULL,
  document VARCHAR(40) NULL,
  units INT UNSIGNED NOT NULL,
  units_left INT UNSIGNED NOT NULL,
  value DECIMAL(20,6) NOT NULL,
  value_left DECIMAL(20,6) NOT NULL,
  at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  UNIQUE KEY uq_cost_layer_movement (movement_id),
  KEY ix_cost_layer_item (item_id, units_left, id),
  CONSTRAINT fk_cost_layer_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT fk_cost_layer_movement FOREIGN KEY (movement_id) REFERENCES movement (id),
  CONSTRAINT ck_cost_layer CHECK (units_left <= units)
);
CREATE TABLE cost_layer_part (
  id BIGINT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  layer_id BIGINT UNSIGNED NOT NULL,
  kind VARCHAR(8) NOT NULL,
  says VARCHAR(80) NOT NULL,
  document VARCHAR(40) NULL,
  amount DECIMAL(20,6) NOT NULL,
  KEY ix_cost_layer_part (layer_id),
  CONSTRAINT ck_cost_layer_part CHECK (kind IN ('price','charge','late')),
  CONSTRAINT fk_cost_layer_part FOREIGN KEY (layer_id) REFERENCES cost_layer (id)
);
CREATE TABLE bill (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  code VARCHAR(20) NOT NULL,
  supplier_id INT UNSIGNED NOT NULL,
  ref VARCHAR(60) NOT NULL,
  state VARCHAR(10) NOT NULL DEFAULT 'differs',
  billed_on DATE NOT NULL,
  due_on DATE NULL,
  currency CHAR(3) NOT NULL,
  rate DECIMAL(18,8) NOT NULL,
  note VARCHAR(300) NOT NULL DEFAULT '',
  entered_by INT UNSIGNED NOT NULL,
  entered_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  posted_by INT UNSIGNED NULL,
  posted_at DATETIME(3) NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_bill_code (code),
  UNIQUE KEY uq_bill_ref (supplier_id, ref),
  KEY ix_bill_state (state, id),
  CONSTRAINT fk_bill_supplier FOREIGN KEY (supplier_id) REFERENCES supplier (id),
  CONSTRAINT ck_bill_state CHECK (state IN ('differs','queried','posted'))
);
CREATE TABLE bill_line (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  bill_id INT UNSIGNED NOT NULL,
  line INT UNSIGNED NOT NULL,
  order_line_id INT UNSIGNED NULL,
  order_id INT UNSIGNED NULL,
  says VARCHAR(80) NOT NULL DEFAULT '',
  units INT UNSIGNED NULL,
  amount DECIMAL(18,2) NOT NULL,
  shared_by VARCHAR(8) NULL,
  UNIQUE KEY uq_bill_line (bill_id, line),
  KEY ix_bill_line_order_line (order_line_id),
  KEY ix_bill_line_order (order_id),
  CONSTRAINT fk_bill_line_bill FOREIGN KEY (bill_id) REFERENCES bill (id),
  CONSTRAINT fk_bill_line_order_line FOREIGN KEY (order_line_id) REFERENCES purchase_order_line (id),
  CONSTRAINT fk_bill_line_order FOREIGN KEY (order_id) REFERENCES purchase_order (id),
  CONSTRAINT ck_bill_line CHECK ((order_line_id IS NOT NULL AND units > 0) OR (order_id IS NOT NULL AND shared_by IS NOT NULL))
);
CREATE TABLE value_entry (
  id BIGINT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  item_id INT UNSIGNED NULL,
  movement_id BIGINT UNSIGNED NULL,
  layer_id BIGINT UNSIGNED NULL,
  bill_id INT UNSIGNED NULL,
  document VARCHAR(40) NULL,
  debit VARCHAR(24) NOT NULL,
  credit VARCHAR(24) NOT NULL,
  amount DECIMAL(20,6) NOT NULL,
  KEY ix_value_entry_item (item_id, id),
  KEY ix_value_entry_movement (movement_id),
  KEY ix_value_entry_bill (bill_id),
  KEY ix_value_entry_at (at),
  CONSTRAINT fk_value_entry_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT fk_value_entry_movement FOREIGN KEY (movement_id) REFERENCES movement (id),
  CONSTRAINT fk_value_entry_layer FOREIGN KEY (layer_id) REFERENCES cost_layer (id),
  CONSTRAINT fk_value_entry_bill FOREIGN KEY (bill_id) REFERENCES bill (id),
  CONSTRAINT ck_value_entry CHECK (debit <> credit)
);
INSERT INTO cost_pool (item_id, units, value)
  SELECT b.item_id, SUM(b.units), SUM(b.units) * COALESCE(i.cost, 0) FROM balance b JOIN item i ON i.id = b.item_id WHERE b.bounded = 1 GROUP BY b.item_id HAVING SUM(b.units) > 0;
INSERT INTO cost_layer (item_id, document, units, units_left, value, value_left) SELECT item_id, 'OPENING', units, units, value, value FROM cost_pool;
INSERT INTO value_entry (item_id, layer_id, document, debit, credit, amount) SELECT item_id, id, document, 'stock', 'opening', value FROM cost_layer;
`;
