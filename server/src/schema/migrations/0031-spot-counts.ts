import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Goods in a bin that somebody has to count, since somebody else has not found them there. */
export class SpotCounts1790000000031 implements MigrationInterface {
  name = 'SpotCounts1790000000031';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

// What has been held on shelves before there were counts waits for one.
const UP = `
CREATE TABLE spot_count (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  site_id INT UNSIGNED NOT NULL,
  place_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  lot_id INT UNSIGNED NOT NULL DEFAULT 0,
  why VARCHAR(60) NOT NULL,
  document VARCHAR(20) NULL,
  raised_by_id INT UNSIGNED NULL,
  raised_at DATETIME(3) NOT NULL DEFAULT (UTC_TIMESTAMP(3)),
  state VARCHAR(10) NOT NULL DEFAULT 'open',
  held_units INT UNSIGNED NOT NULL DEFAULT 0,
  counted_units INT UNSIGNED NULL,
  booked_units INT UNSIGNED NULL,
  counted_by_id INT UNSIGNED NULL,
  counted_at DATETIME(3) NULL,
  settled_by_id INT UNSIGNED NULL,
  settled_at DATETIME(3) NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  open_spot VARCHAR(40) AS (IF(state IN ('open','counted'), CONCAT(item_id, '/', place_id, '/', lot_id), NULL)) VIRTUAL,
  UNIQUE KEY ux_spot_count_open (open_spot),
  KEY ix_spot_count_site (site_id, state),
  KEY ix_spot_count_item (item_id),
  CONSTRAINT ck_spot_count_state CHECK (state IN ('open','counted','settled','dropped')),
  CONSTRAINT fk_spot_count_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_spot_count_place FOREIGN KEY (place_id) REFERENCES place (id),
  CONSTRAINT fk_spot_count_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT fk_spot_count_raised FOREIGN KEY (raised_by_id) REFERENCES person (id),
  CONSTRAINT fk_spot_count_counted FOREIGN KEY (counted_by_id) REFERENCES person (id),
  CONSTRAINT fk_spot_count_settled FOREIGN KEY (settled_by_id) REFERENCES person (id)
);
INSERT INTO spot_count (site_id, place_id, item_id, lot_id, why, held_units)
  SELECT p.site_id, p.id, b.item_id, b.lot_id, 'held on the shelf', b.units FROM balance b JOIN place p ON p.id = b.place_id AND p.kind IN ('pick-face','reserve') WHERE b.stock_condition = 'held' AND b.units > 0;
`;

const DOWN = `
DROP TABLE spot_count;
`;
