import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** Carriers with a lane at each site and services of their own, and what boxes cost and how many are left. */
export class Carriers1790000000021 implements MigrationInterface {
  name = 'Carriers1790000000021';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runAll(runner, DOWN);
    await dropAll(runner, ['carton_stock', 'carrier_service', 'carrier_lane']);
  }
}

const UP = `
CREATE TABLE carrier_lane (
  carrier_id INT UNSIGNED NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  place_id INT UNSIGNED NOT NULL,
  PRIMARY KEY (carrier_id, site_id),
  CONSTRAINT fk_lane_carrier FOREIGN KEY (carrier_id) REFERENCES carrier (id),
  CONSTRAINT fk_lane_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_lane_place FOREIGN KEY (place_id) REFERENCES place (id)
);
INSERT INTO carrier_lane (carrier_id, site_id, place_id) SELECT c.id, p.site_id, p.id FROM carrier c JOIN place p ON p.id = c.lane_place_id;
ALTER TABLE carrier DROP FOREIGN KEY fk_carrier_lane, DROP COLUMN lane_place_id, MODIFY base_url VARCHAR(200) NULL, MODIFY api_key VARCHAR(200) NULL, ADD version INT UNSIGNED NOT NULL DEFAULT 1;
CREATE TABLE carrier_service (
  carrier_id INT UNSIGNED NOT NULL,
  code VARCHAR(20) NOT NULL,
  name VARCHAR(60) NOT NULL,
  days TINYINT UNSIGNED NOT NULL,
  price DECIMAL(18,6) NOT NULL,
  most_g INT UNSIGNED NOT NULL,
  PRIMARY KEY (carrier_id, code),
  CONSTRAINT fk_service_carrier FOREIGN KEY (carrier_id) REFERENCES carrier (id)
);
ALTER TABLE carton ADD cost DECIMAL(18,6) NOT NULL DEFAULT 0, ADD low_at INT UNSIGNED NOT NULL DEFAULT 0, ADD version INT UNSIGNED NOT NULL DEFAULT 1;
CREATE TABLE carton_stock (
  carton VARCHAR(12) NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  units INT UNSIGNED NOT NULL,
  PRIMARY KEY (carton, site_id),
  CONSTRAINT fk_carton_stock_carton FOREIGN KEY (carton) REFERENCES carton (code),
  CONSTRAINT fk_carton_stock_site FOREIGN KEY (site_id) REFERENCES site (id)
);
`;

/** A carrier stands in one lane again: its first. One that has none anywhere cannot be kept. */
const DOWN = `
ALTER TABLE carton DROP COLUMN cost, DROP COLUMN low_at, DROP COLUMN version;
ALTER TABLE carrier ADD lane_place_id INT UNSIGNED NULL;
UPDATE carrier c SET lane_place_id = (SELECT MIN(l.place_id) FROM carrier_lane l WHERE l.carrier_id = c.id), base_url = COALESCE(base_url, ''), api_key = COALESCE(api_key, '');
DELETE d FROM departure d JOIN carrier c ON c.id = d.carrier_id WHERE c.lane_place_id IS NULL;
DELETE l FROM carrier_service l JOIN carrier c ON c.id = l.carrier_id WHERE c.lane_place_id IS NULL;
DELETE FROM carrier WHERE lane_place_id IS NULL;
ALTER TABLE carrier MODIFY lane_place_id INT UNSIGNED NOT NULL, MODIFY base_url VARCHAR(200) NOT NULL, MODIFY api_key VARCHAR(100) NOT NULL, DROP COLUMN version, ADD CONSTRAINT fk_carrier_lane FOREIGN KEY (lane_place_id) REFERENCES place (id);
`;
