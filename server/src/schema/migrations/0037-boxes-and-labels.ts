import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** How items lie in boxes, orders that wait at the packing table, its scales, and every label that was asked of a carrier: none is paid for and forgotten. */
export class BoxesAndLabels1790000000037 implements MigrationInterface {
  name = 'BoxesAndLabels1790000000037';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
ALTER TABLE item ADD COLUMN keep_upright TINYINT NOT NULL DEFAULT 0, ADD COLUMN fragile TINYINT NOT NULL DEFAULT 0;
ALTER TABLE parcel ADD KEY ix_parcel_hand_over (hand_over);
CREATE TABLE scale (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  site_id INT UNSIGNED NOT NULL,
  name VARCHAR(60) NOT NULL,
  address VARCHAR(120) NOT NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_scale_name (site_id, name),
  CONSTRAINT fk_scale_site FOREIGN KEY (site_id) REFERENCES site (id)
);
ALTER TABLE sales_order ADD COLUMN parked_at DATETIME(3) NULL, ADD COLUMN parked_why VARCHAR(80) NULL;
CREATE TABLE parcel_label (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  parcel_id INT UNSIGNED NOT NULL,
  carrier_id INT UNSIGNED NOT NULL,
  service VARCHAR(40) NOT NULL,
  reference VARCHAR(40) NOT NULL,
  state VARCHAR(10) NOT NULL DEFAULT 'asked',
  tracking VARCHAR(60) NULL,
  price DECIMAL(18,6) NULL,
  asked_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  UNIQUE KEY uq_label_reference (reference),
  KEY ix_label_parcel (parcel_id, state),
  CONSTRAINT fk_label_parcel FOREIGN KEY (parcel_id) REFERENCES parcel (id),
  CONSTRAINT fk_label_carrier FOREIGN KEY (carrier_id) REFERENCES carrier (id),
  CONSTRAINT ck_label_state CHECK (state IN ('asked','kept','unwanted','void'))
);
INSERT INTO parcel_label (parcel_id, carrier_id, service, reference, state, tracking, price, asked_at)
  SELECT id, carrier_id, COALESCE(service, ''), code, IF(state = 'void', 'unwanted', 'kept'), tracking, price, COALESCE(labelled_at, CURRENT_TIMESTAMP(3)) FROM parcel WHERE tracking IS NOT NULL AND carrier_id IS NOT NULL;
UPDATE outbox x JOIN parcel_label l ON l.tracking = JSON_VALUE(x.payload, '$.tracking') SET x.payload = JSON_SET(x.payload, '$.label', l.id) WHERE x.kind = 'carrier.void' AND x.state <> 'done';
`;

const DOWN = `
ALTER TABLE sales_order DROP COLUMN parked_at, DROP COLUMN parked_why;
DROP TABLE parcel_label;
DROP TABLE scale;
ALTER TABLE parcel DROP KEY ix_parcel_hand_over;
ALTER TABLE item DROP COLUMN keep_upright, DROP COLUMN fragile;
`;
