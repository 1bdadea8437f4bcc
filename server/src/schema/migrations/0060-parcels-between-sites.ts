import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Where a site is, and the parcels in which goods go from one to another, with the labels that carriers sold for them. */
export class ParcelsBetweenSites1790000000060 implements MigrationInterface {
  name = 'ParcelsBetweenSites1790000000060';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
ALTER TABLE site
  ADD COLUMN address_line VARCHAR(190) NOT NULL DEFAULT '',
  ADD COLUMN city VARCHAR(80) NOT NULL DEFAULT '',
  ADD COLUMN postcode VARCHAR(20) NOT NULL DEFAULT '',
  ADD COLUMN country VARCHAR(2) NOT NULL DEFAULT '';
CREATE TABLE transfer_parcel (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  transfer_id INT UNSIGNED NOT NULL,
  number INT UNSIGNED NOT NULL,
  code VARCHAR(26) NOT NULL,
  state VARCHAR(12) NOT NULL,
  weight_g INT UNSIGNED NOT NULL,
  carton VARCHAR(20) NULL,
  carrier_id INT UNSIGNED NULL,
  service VARCHAR(40) NULL,
  tracking VARCHAR(60) NULL,
  price DECIMAL(18,6) NULL,
  label_pdf MEDIUMBLOB NULL,
  booking VARCHAR(60) NULL,
  here_at DATETIME(3) NULL,
  UNIQUE KEY uq_transfer_parcel (transfer_id, number),
  UNIQUE KEY uq_transfer_parcel_code (code),
  CONSTRAINT fk_transfer_parcel_transfer FOREIGN KEY (transfer_id) REFERENCES transfer (id),
  CONSTRAINT fk_transfer_parcel_carrier FOREIGN KEY (carrier_id) REFERENCES carrier (id),
  CONSTRAINT ck_transfer_parcel_state CHECK (state IN ('packed','label-asked','labelled','removed')),
  CONSTRAINT ck_transfer_parcel_weight CHECK (weight_g > 0)
);
`;

const DOWN = `
DROP TABLE transfer_parcel;
ALTER TABLE site DROP COLUMN country, DROP COLUMN postcode, DROP COLUMN city, DROP COLUMN address_line;
`;
