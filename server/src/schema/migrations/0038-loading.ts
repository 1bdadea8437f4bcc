import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Parcels that stand on a van, and who signed for those that it took. */
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
ALTER TABLE parcel ADD COLUMN loaded_at DATETIME(3) NULL;
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
`;

const DOWN = `
DROP TABLE hand_over;
ALTER TABLE parcel DROP COLUMN loaded_at;
`;
