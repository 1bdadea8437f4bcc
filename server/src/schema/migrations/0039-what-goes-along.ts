import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Inserts that go with orders and may be left out, boxes that are kept as items, and pictures of what was packed. */
export class WhatGoesAlong1790000000039 implements MigrationInterface {
  name = 'WhatGoesAlong1790000000039';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
ALTER TABLE sales_order_line ADD COLUMN left_out INT UNSIGNED NOT NULL DEFAULT 0, ADD COLUMN along TINYINT NOT NULL DEFAULT 0;
ALTER TABLE carton ADD COLUMN item_id INT UNSIGNED NULL, ADD CONSTRAINT fk_carton_item FOREIGN KEY (item_id) REFERENCES item (id);
CREATE TABLE insert_rule (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  item_id INT UNSIGNED NOT NULL,
  channel_id INT UNSIGNED NULL,
  units INT UNSIGNED NOT NULL DEFAULT 1,
  from_value DECIMAL(18,6) NULL,
  first_only TINYINT NOT NULL DEFAULT 0,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  CONSTRAINT fk_insert_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT fk_insert_channel FOREIGN KEY (channel_id) REFERENCES channel (id)
);
CREATE TABLE parcel_picture (
  parcel_id INT UNSIGNED PRIMARY KEY,
  type VARCHAR(40) NOT NULL,
  picture MEDIUMBLOB NOT NULL,
  at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  CONSTRAINT fk_parcel_picture FOREIGN KEY (parcel_id) REFERENCES parcel (id)
);
`;

const DOWN = `
DROP TABLE parcel_picture;
DROP TABLE insert_rule;
ALTER TABLE carton DROP CONSTRAINT fk_carton_item, DROP COLUMN item_id;
ALTER TABLE sales_order_line DROP COLUMN along, DROP COLUMN left_out;
`;
