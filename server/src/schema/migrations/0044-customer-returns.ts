import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** What customers send back: announced or found, as it came, what became of it, and what they got for it. */
export class CustomerReturns1790000000044 implements MigrationInterface {
  name = 'CustomerReturns1790000000044';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
CREATE TABLE customer_return (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  code VARCHAR(20) NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  order_id INT UNSIGNED NULL,
  customer VARCHAR(120) NOT NULL DEFAULT '',
  email VARCHAR(190) NOT NULL DEFAULT '',
  state VARCHAR(12) NOT NULL,
  wish VARCHAR(10) NULL,
  told_by VARCHAR(8) NOT NULL,
  channel_ref VARCHAR(60) NULL,
  note VARCHAR(300) NOT NULL DEFAULT '',
  announced_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  came_at DATETIME(3) NULL,
  settled_at DATETIME(3) NULL,
  settled_as VARCHAR(10) NULL,
  settled_why VARCHAR(200) NOT NULL DEFAULT '',
  settled_by INT UNSIGNED NULL,
  amount DECIMAL(18,2) NULL,
  exchange_order_id INT UNSIGNED NULL,
  went_with VARCHAR(120) NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_customer_return_code (code),
  UNIQUE KEY uq_customer_return_ref (order_id, channel_ref),
  KEY ix_customer_return_state (state, id),
  KEY ix_customer_return_exchange (exchange_order_id),
  CONSTRAINT fk_customer_return_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_customer_return_order FOREIGN KEY (order_id) REFERENCES sales_order (id),
  CONSTRAINT fk_customer_return_exchange FOREIGN KEY (exchange_order_id) REFERENCES sales_order (id),
  CONSTRAINT fk_customer_return_person FOREIGN KEY (settled_by) REFERENCES person (id)
);
CREATE TABLE customer_return_line (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  return_id INT UNSIGNED NOT NULL,
  line INT UNSIGNED NOT NULL,
  order_line_id INT UNSIGNED NULL,
  item_id INT UNSIGNED NOT NULL,
  announced INT UNSIGNED NOT NULL DEFAULT 0,
  reason VARCHAR(20) NOT NULL,
  note VARCHAR(200) NOT NULL DEFAULT '',
  UNIQUE KEY uq_customer_return_line (return_id, line),
  KEY ix_customer_return_line_order (order_line_id),
  KEY ix_customer_return_line_item (item_id),
  CONSTRAINT fk_customer_return_line_return FOREIGN KEY (return_id) REFERENCES customer_return (id),
  CONSTRAINT fk_customer_return_line_order FOREIGN KEY (order_line_id) REFERENCES sales_order_line (id),
  CONSTRAINT fk_customer_return_line_item FOREIGN KEY (item_id) REFERENCES item (id)
);
CREATE TABLE came_back (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  line_id INT UNSIGNED NOT NULL,
  lot_id INT UNSIGNED NOT NULL DEFAULT 0,
  number VARCHAR(60) NULL,
  units INT UNSIGNED NOT NULL,
  came_as VARCHAR(10) NOT NULL,
  fate VARCHAR(12) NOT NULL,
  note VARCHAR(200) NOT NULL DEFAULT '',
  place_id INT UNSIGNED NOT NULL,
  movement_id BIGINT UNSIGNED NOT NULL,
  scrapped_id BIGINT UNSIGNED NULL,
  given_back_id BIGINT UNSIGNED NULL,
  person_id INT UNSIGNED NOT NULL,
  at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  undone_at DATETIME(3) NULL,
  KEY ix_came_back_line (line_id),
  CONSTRAINT fk_came_back_line FOREIGN KEY (line_id) REFERENCES customer_return_line (id),
  CONSTRAINT fk_came_back_place FOREIGN KEY (place_id) REFERENCES place (id),
  CONSTRAINT fk_came_back_movement FOREIGN KEY (movement_id) REFERENCES movement (id),
  CONSTRAINT fk_came_back_person FOREIGN KEY (person_id) REFERENCES person (id),
  CONSTRAINT ck_came_back_units CHECK (units > 0)
);
CREATE TABLE came_back_picture (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  return_id INT UNSIGNED NOT NULL,
  type VARCHAR(40) NOT NULL,
  picture MEDIUMBLOB NOT NULL,
  person_id INT UNSIGNED NOT NULL,
  at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  KEY ix_came_back_picture (return_id),
  CONSTRAINT fk_came_back_picture_return FOREIGN KEY (return_id) REFERENCES customer_return (id),
  CONSTRAINT fk_came_back_picture_person FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE return_refund (
  return_id INT UNSIGNED NOT NULL,
  order_line_id INT UNSIGNED NOT NULL,
  units INT UNSIGNED NOT NULL,
  unbilled INT UNSIGNED NOT NULL DEFAULT 0,
  PRIMARY KEY (return_id, order_line_id),
  KEY ix_return_refund_line (order_line_id),
  CONSTRAINT fk_return_refund_return FOREIGN KEY (return_id) REFERENCES customer_return (id),
  CONSTRAINT fk_return_refund_line FOREIGN KEY (order_line_id) REFERENCES sales_order_line (id),
  CONSTRAINT ck_return_refund CHECK (unbilled <= units)
);
CREATE TABLE return_credit (
  return_id INT UNSIGNED NOT NULL,
  invoice_id INT UNSIGNED NOT NULL,
  PRIMARY KEY (return_id, invoice_id),
  CONSTRAINT fk_return_credit_return FOREIGN KEY (return_id) REFERENCES customer_return (id),
  CONSTRAINT fk_return_credit_invoice FOREIGN KEY (invoice_id) REFERENCES invoice (id)
);
`;

const DOWN = `
DROP TABLE return_credit;
DROP TABLE return_refund;
DROP TABLE came_back_picture;
DROP TABLE came_back;
DROP TABLE customer_return_line;
DROP TABLE customer_return;
`;
