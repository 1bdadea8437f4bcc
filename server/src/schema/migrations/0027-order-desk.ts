import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/**
 * What the order desk works with: quotes, holds of their own with a reason and an owner, what was changed on an order and why,
 * customers with several addresses and prices of their own; parcels that are taken apart again.
 */
export class OrderDesk1790000000027 implements MigrationInterface {
  name = 'OrderDesk1790000000027';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  async down(runner: QueryRunner): Promise<void> {
    await dropAll(runner, ['customer_price', 'customer_address', 'sales_order_change', 'order_hold']);
    await runAll(runner, DOWN);
  }
}

const STATES = `'open','held','released','picking','picked','packed','shipped','cancelled'`;

const UP = `
ALTER TABLE sales_order
  DROP CONSTRAINT ck_sales_order_state,
  ADD COLUMN customer_id INT UNSIGNED NULL,
  ADD COLUMN phone VARCHAR(40) NOT NULL DEFAULT '',
  ADD COLUMN whole_only TINYINT(1) NOT NULL DEFAULT 0,
  ADD COLUMN quoted TINYINT(1) NOT NULL DEFAULT 0,
  ADD COLUMN quoted_until DATE NULL,
  ADD COLUMN cancelled_why VARCHAR(200) NULL,
  ADD KEY ix_sales_order_customer (customer_id, id),
  ADD KEY ix_sales_order_whole (whole_only, state),
  ADD CONSTRAINT fk_sales_order_customer FOREIGN KEY (customer_id) REFERENCES customer (id),
  ADD CONSTRAINT ck_sales_order_state CHECK (state IN ('quote',${STATES}));
ALTER TABLE sales_order_line ADD COLUMN factor INT UNSIGNED NOT NULL DEFAULT 1;
UPDATE sales_order_line SET factor = GREATEST(1, units DIV quantity) WHERE quantity > 0;
ALTER TABLE parcel DROP CONSTRAINT ck_parcel_state, ADD CONSTRAINT ck_parcel_state CHECK (state IN ('open','label-asked','labelled','gone','void'));
ALTER TABLE channel ADD COLUMN check_over DECIMAL(18,6) NULL;
CREATE TABLE order_hold (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  order_id INT UNSIGNED NOT NULL,
  kind VARCHAR(10) NOT NULL,
  reason VARCHAR(200) NOT NULL,
  owner_id INT UNSIGNED NULL,
  set_by INT UNSIGNED NULL,
  set_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  cleared_by INT UNSIGNED NULL,
  cleared_at DATETIME(3) NULL,
  cleared_why VARCHAR(200) NULL,
  KEY ix_order_hold_order (order_id, cleared_at),
  CONSTRAINT fk_order_hold_order FOREIGN KEY (order_id) REFERENCES sales_order (id),
  CONSTRAINT fk_order_hold_owner FOREIGN KEY (owner_id) REFERENCES person (id),
  CONSTRAINT fk_order_hold_set FOREIGN KEY (set_by) REFERENCES person (id),
  CONSTRAINT fk_order_hold_cleared FOREIGN KEY (cleared_by) REFERENCES person (id),
  CONSTRAINT ck_order_hold_kind CHECK (kind IN ('code','address','payment','stock','check','other'))
);
INSERT INTO order_hold (order_id, kind, reason, set_at)
  SELECT id, IF(hold_reason LIKE 'Unknown code%', 'code', IF(hold_reason LIKE 'No postcode%', 'address', 'other')), hold_reason, placed_at FROM sales_order WHERE hold_reason IS NOT NULL;
CREATE TABLE sales_order_change (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  order_id INT UNSIGNED NOT NULL,
  line INT UNSIGNED NULL,
  what VARCHAR(40) NOT NULL,
  was VARCHAR(200) NOT NULL,
  becomes VARCHAR(200) NOT NULL,
  why VARCHAR(120) NOT NULL DEFAULT '',
  person_id INT UNSIGNED NULL,
  at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  KEY ix_sales_order_change (order_id, id),
  CONSTRAINT fk_sales_order_change_order FOREIGN KEY (order_id) REFERENCES sales_order (id),
  CONSTRAINT fk_sales_order_change_person FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE customer_address (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  customer_id INT UNSIGNED NOT NULL,
  name VARCHAR(80) NOT NULL,
  address_line VARCHAR(190) NOT NULL DEFAULT '',
  city VARCHAR(80) NOT NULL DEFAULT '',
  postcode VARCHAR(20) NOT NULL DEFAULT '',
  country CHAR(2) NOT NULL DEFAULT 'GB',
  UNIQUE KEY uq_customer_address (customer_id, name),
  CONSTRAINT fk_customer_address FOREIGN KEY (customer_id) REFERENCES customer (id)
);
CREATE TABLE customer_price (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  customer_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  factor INT UNSIGNED NOT NULL DEFAULT 1,
  price DECIMAL(18,6) NOT NULL,
  UNIQUE KEY uq_customer_price (customer_id, item_id, factor),
  KEY ix_customer_price_item (item_id),
  CONSTRAINT fk_customer_price_customer FOREIGN KEY (customer_id) REFERENCES customer (id),
  CONSTRAINT fk_customer_price_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT ck_customer_price_factor CHECK (factor > 0)
);
ALTER TABLE customer ADD COLUMN terms_days INT UNSIGNED NOT NULL DEFAULT 30, ADD COLUMN whole_only TINYINT(1) NOT NULL DEFAULT 0;
`;

const DOWN = `
UPDATE sales_order SET state = 'cancelled', cancelled_at = UTC_TIMESTAMP(3) WHERE state = 'quote';
ALTER TABLE customer DROP COLUMN terms_days, DROP COLUMN whole_only;
ALTER TABLE channel DROP COLUMN check_over;
UPDATE parcel SET state = 'open' WHERE state = 'void';
ALTER TABLE parcel DROP CONSTRAINT ck_parcel_state, ADD CONSTRAINT ck_parcel_state CHECK (state IN ('open','label-asked','labelled','gone'));
ALTER TABLE sales_order_line DROP COLUMN factor;
ALTER TABLE sales_order DROP FOREIGN KEY fk_sales_order_customer;
ALTER TABLE sales_order
  DROP CONSTRAINT ck_sales_order_state,
  DROP KEY ix_sales_order_customer,
  DROP KEY ix_sales_order_whole,
  DROP COLUMN customer_id, DROP COLUMN phone, DROP COLUMN whole_only, DROP COLUMN quoted, DROP COLUMN quoted_until, DROP COLUMN cancelled_why,
  ADD CONSTRAINT ck_sales_order_state CHECK (state IN (${STATES}));
`;
