import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Parcels that stand on a van, who signed for those that it took, what carriers say of them afterwards, what is claimed, and the company's words and mark. */
export class Loading1790000000038 implements MigrationInterface {
  name = 'Loading1790000000038';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
ALTER TABLE parcel ADD COLUMN loaded_at DATETIME(3) NULL, ADD COLUMN booking VARCHAR(60) NULL, ADD COLUMN weight_why VARCHAR(80) NULL, ADD COLUMN travel VARCHAR(20) NULL, ADD COLUMN travel_at DATETIME(3) NULL, ADD KEY ix_parcel_tracking (tracking);
CREATE TABLE hand_over (
  code VARCHAR(20) PRIMARY KEY,
  carrier_id INT UNSIGNED NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  person_id INT UNSIGNED NULL,
  driver VARCHAR(80) NULL,
  signature TEXT NULL,
  at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  KEY ix_hand_over_site (site_id, at),
  CONSTRAINT fk_hand_over_carrier FOREIGN KEY (carrier_id) REFERENCES carrier (id),
  CONSTRAINT fk_hand_over_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_hand_over_person FOREIGN KEY (person_id) REFERENCES person (id)
);
INSERT INTO hand_over (code, carrier_id, site_id, at)
  SELECT p.hand_over, MIN(p.carrier_id), MIN(w.site_id), MIN(p.handed_over_at) FROM parcel p JOIN place w ON w.id = p.place_id WHERE p.hand_over IS NOT NULL AND p.carrier_id IS NOT NULL AND p.handed_over_at IS NOT NULL GROUP BY p.hand_over;
CREATE TABLE parcel_event (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  parcel_id INT UNSIGNED NOT NULL,
  what VARCHAR(20) NOT NULL,
  note VARCHAR(200) NOT NULL DEFAULT '',
  at DATETIME(3) NOT NULL,
  heard_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  UNIQUE KEY uq_parcel_event (parcel_id, at, what),
  CONSTRAINT fk_event_parcel FOREIGN KEY (parcel_id) REFERENCES parcel (id),
  CONSTRAINT ck_event_what CHECK (what IN ('collected','on-the-way','out-for-delivery','delivered','delayed','damaged','returned','lost'))
);
CREATE TABLE carrier_poll (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  carrier_id INT UNSIGNED NOT NULL,
  seen VARCHAR(100) NOT NULL DEFAULT '',
  asked_at DATETIME(3) NULL,
  why VARCHAR(300) NULL,
  UNIQUE KEY uq_poll_carrier (carrier_id),
  CONSTRAINT fk_poll_carrier FOREIGN KEY (carrier_id) REFERENCES carrier (id)
);
CREATE TABLE claim (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  parcel_id INT UNSIGNED NOT NULL,
  kind VARCHAR(20) NOT NULL,
  state VARCHAR(10) NOT NULL DEFAULT 'open',
  note VARCHAR(300) NOT NULL DEFAULT '',
  asked DECIMAL(18,6) NULL,
  paid DECIMAL(18,6) NULL,
  opened_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  changed_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  version INT UNSIGNED NOT NULL DEFAULT 1,
  open_parcel INT UNSIGNED AS (IF(state IN ('open','claimed'), parcel_id, NULL)) PERSISTENT,
  UNIQUE KEY uq_claim_open (open_parcel),
  KEY ix_claim_parcel (parcel_id),
  KEY ix_claim_state (state, opened_at),
  CONSTRAINT fk_claim_parcel FOREIGN KEY (parcel_id) REFERENCES parcel (id),
  CONSTRAINT ck_claim_kind CHECK (kind IN ('delayed','damaged','returned','lost')),
  CONSTRAINT ck_claim_state CHECK (state IN ('open','claimed','settled','dropped'))
);
ALTER TABLE item ADD COLUMN serial_at_packing TINYINT NOT NULL DEFAULT 0;
CREATE TABLE parcel_serial (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  parcel_id INT UNSIGNED NOT NULL,
  order_line_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  serial VARCHAR(60) NOT NULL,
  UNIQUE KEY uq_parcel_serial (item_id, serial),
  KEY ix_serial_parcel (parcel_id),
  KEY ix_serial (serial),
  CONSTRAINT fk_serial_parcel FOREIGN KEY (parcel_id) REFERENCES parcel (id),
  CONSTRAINT fk_serial_line FOREIGN KEY (order_line_id) REFERENCES sales_order_line (id),
  CONSTRAINT fk_serial_item FOREIGN KEY (item_id) REFERENCES item (id)
);
CREATE TABLE letter (
  name VARCHAR(20) PRIMARY KEY,
  subject VARCHAR(150) NOT NULL,
  body TEXT NOT NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1
);
CREATE TABLE company_mark (
  id TINYINT UNSIGNED PRIMARY KEY,
  png MEDIUMBLOB NOT NULL,
  width SMALLINT UNSIGNED NOT NULL,
  height SMALLINT UNSIGNED NOT NULL
);
`;

const DOWN = `
DROP TABLE company_mark;
DROP TABLE letter;
DROP TABLE parcel_serial;
ALTER TABLE item DROP COLUMN serial_at_packing;
DROP TABLE claim;
DROP TABLE carrier_poll;
DROP TABLE parcel_event;
DROP TABLE hand_over;
ALTER TABLE parcel DROP KEY ix_parcel_tracking, DROP COLUMN loaded_at, DROP COLUMN booking, DROP COLUMN weight_why, DROP COLUMN travel, DROP COLUMN travel_at;
`;
