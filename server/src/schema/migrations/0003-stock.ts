import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** The ledger: movements, which are only ever added, and the two projections written with them. */
export class Stock1790000000003 implements MigrationInterface {
  name = 'Stock1790000000003';

  async up(runner: QueryRunner): Promise<void> {
    await runAll(runner, SQL);
    for (const event of ['UPDATE', 'DELETE']) {
      await runner.query(
        `CREATE TRIGGER tr_movement_${event.toLowerCase()} BEFORE ${event} ON movement FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'Movements are only ever added'`,
      );
    }
  }

  down(runner: QueryRunner): Promise<void> {
    return dropAll(runner, ['site_stock', 'balance', 'movement']);
  }
}

const SQL = `
CREATE TABLE movement (
  id BIGINT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  item_id INT UNSIGNED NOT NULL,
  lot_id INT UNSIGNED NOT NULL DEFAULT 0,
  stock_condition VARCHAR(12) NOT NULL DEFAULT 'good',
  from_place_id INT UNSIGNED NOT NULL,
  to_place_id INT UNSIGNED NOT NULL,
  units INT NOT NULL,
  reverses_id BIGINT UNSIGNED NULL,
  task VARCHAR(20) NOT NULL,
  document VARCHAR(40) NULL,
  reason VARCHAR(120) NULL,
  how VARCHAR(8) NULL,
  person_id INT UNSIGNED NULL,
  device_id INT UNSIGNED NULL,
  command_id CHAR(36) NULL,
  device_at DATETIME(3) NULL,
  server_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  UNIQUE KEY uq_movement_reverses (reverses_id),
  KEY ix_movement_item (item_id, id),
  KEY ix_movement_from (from_place_id, id),
  KEY ix_movement_to (to_place_id, id),
  KEY ix_movement_document (document, id),
  CONSTRAINT fk_movement_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT fk_movement_from FOREIGN KEY (from_place_id) REFERENCES place (id),
  CONSTRAINT fk_movement_to FOREIGN KEY (to_place_id) REFERENCES place (id),
  CONSTRAINT fk_movement_reverses FOREIGN KEY (reverses_id) REFERENCES movement (id),
  CONSTRAINT ck_movement_units CHECK (units > 0),
  CONSTRAINT ck_movement_places CHECK (from_place_id <> to_place_id),
  CONSTRAINT ck_movement_condition CHECK (stock_condition IN ('good','held','damaged','to-inspect'))
);
CREATE TABLE balance (
  item_id INT UNSIGNED NOT NULL,
  place_id INT UNSIGNED NOT NULL,
  lot_id INT UNSIGNED NOT NULL DEFAULT 0,
  stock_condition VARCHAR(12) NOT NULL DEFAULT 'good',
  units INT NOT NULL,
  bounded TINYINT NOT NULL,
  PRIMARY KEY (item_id, place_id, lot_id, stock_condition),
  KEY ix_balance_place (place_id, item_id),
  CONSTRAINT fk_balance_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT fk_balance_place FOREIGN KEY (place_id) REFERENCES place (id),
  CONSTRAINT ck_balance_not_negative CHECK (bounded = 0 OR units >= 0)
);
CREATE TABLE site_stock (
  site_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  on_hand INT NOT NULL DEFAULT 0,
  held INT NOT NULL DEFAULT 0,
  reserved INT NOT NULL DEFAULT 0,
  PRIMARY KEY (site_id, item_id),
  KEY ix_site_stock_item (item_id),
  CONSTRAINT fk_site_stock_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_site_stock_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT ck_site_stock CHECK (on_hand >= 0 AND held >= 0 AND reserved >= 0)
);
`;
