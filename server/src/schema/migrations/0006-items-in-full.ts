import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** Serial numbers, kits and assemblies, tags, the company's own fields, pictures, and what an item is at each site. */
export class ItemsInFull1790000000006 implements MigrationInterface {
  name = 'ItemsInFull1790000000006';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runAll(runner, DOWN);
    await dropAll(runner, ['customer', 'preference', 'item_picture', 'item_part', 'extra_field', 'item_tag', 'item_site']);
  }
}

const UP = `
ALTER TABLE item
  DROP CONSTRAINT ck_item_tracking,
  ADD kind VARCHAR(10) NOT NULL DEFAULT 'single',
  ADD labour DECIMAL(18,6) NULL,
  ADD storage VARCHAR(12) NOT NULL DEFAULT 'any',
  ADD tax_code VARCHAR(12) NULL,
  ADD extra LONGTEXT NOT NULL DEFAULT '{}' CHECK (JSON_VALID(extra)),
  ADD lacks_barcode TINYINT NOT NULL DEFAULT 1,
  ADD lacks_cost TINYINT NOT NULL DEFAULT 1,
  ADD lacks_size TINYINT NOT NULL DEFAULT 1,
  ADD CONSTRAINT ck_item_tracking CHECK (tracking IN ('none','lot','lot-expiry','serial')),
  ADD CONSTRAINT ck_item_kind CHECK (kind IN ('single','kit','assembly')),
  ADD CONSTRAINT ck_item_storage CHECK (storage IN ('any','cold','restricted'));
CREATE TABLE item_site (
  item_id INT UNSIGNED NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  home_place_id INT UNSIGNED NULL,
  cost DECIMAL(18,6) NULL,
  reorder_point INT UNSIGNED NULL,
  order_up_to INT UNSIGNED NULL,
  PRIMARY KEY (item_id, site_id),
  KEY ix_item_site_home (home_place_id),
  CONSTRAINT fk_item_site_item FOREIGN KEY (item_id) REFERENCES item (id) ON DELETE CASCADE,
  CONSTRAINT fk_item_site_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_item_site_home FOREIGN KEY (home_place_id) REFERENCES place (id),
  CONSTRAINT ck_item_site_levels CHECK (reorder_point IS NULL OR order_up_to IS NULL OR order_up_to >= reorder_point)
);
INSERT INTO item_site (item_id, site_id, home_place_id) SELECT i.id, p.site_id, p.id FROM item i JOIN place p ON p.id = i.home_place_id WHERE p.site_id IS NOT NULL;
ALTER TABLE item DROP FOREIGN KEY fk_item_home, DROP COLUMN home_place_id;
CREATE TABLE item_tag (
  item_id INT UNSIGNED NOT NULL,
  tag VARCHAR(30) NOT NULL,
  PRIMARY KEY (item_id, tag),
  KEY ix_item_tag (tag, item_id),
  CONSTRAINT fk_item_tag_item FOREIGN KEY (item_id) REFERENCES item (id) ON DELETE CASCADE
);
CREATE TABLE extra_field (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  name VARCHAR(30) NOT NULL,
  kind VARCHAR(8) NOT NULL,
  choices LONGTEXT NOT NULL DEFAULT '[]' CHECK (JSON_VALID(choices)),
  position INT UNSIGNED NOT NULL DEFAULT 0,
  UNIQUE KEY uq_extra_field (name),
  CONSTRAINT ck_extra_kind CHECK (kind IN ('text','number','date','yes-no','choice'))
);
CREATE TABLE item_part (
  item_id INT UNSIGNED NOT NULL,
  part_item_id INT UNSIGNED NOT NULL,
  units INT UNSIGNED NOT NULL,
  PRIMARY KEY (item_id, part_item_id),
  KEY ix_item_part (part_item_id),
  CONSTRAINT fk_part_item FOREIGN KEY (item_id) REFERENCES item (id) ON DELETE CASCADE,
  CONSTRAINT fk_part_part FOREIGN KEY (part_item_id) REFERENCES item (id),
  CONSTRAINT ck_part_units CHECK (units > 0 AND item_id <> part_item_id)
);
CREATE TABLE item_picture (
  item_id INT UNSIGNED PRIMARY KEY,
  type VARCHAR(20) NOT NULL,
  mark CHAR(12) NOT NULL,
  large MEDIUMBLOB NOT NULL,
  thumb BLOB NOT NULL,
  CONSTRAINT fk_picture_item FOREIGN KEY (item_id) REFERENCES item (id) ON DELETE CASCADE
);
CREATE TABLE preference (
  person_id INT UNSIGNED NOT NULL,
  name VARCHAR(40) NOT NULL,
  value LONGTEXT NOT NULL CHECK (JSON_VALID(value)),
  PRIMARY KEY (person_id, name),
  CONSTRAINT fk_preference_person FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE customer (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  code VARCHAR(20) NOT NULL,
  name VARCHAR(120) NOT NULL,
  email VARCHAR(190) NOT NULL DEFAULT '',
  phone VARCHAR(40) NOT NULL DEFAULT '',
  address_line VARCHAR(190) NOT NULL DEFAULT '',
  city VARCHAR(80) NOT NULL DEFAULT '',
  postcode VARCHAR(20) NOT NULL DEFAULT '',
  country CHAR(2) NOT NULL DEFAULT 'GB',
  note VARCHAR(300) NOT NULL DEFAULT '',
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_customer_code (code),
  KEY ix_customer_name (name)
);
ALTER TABLE movement ADD unit_cost DECIMAL(18,6) NULL;
ALTER TABLE site_stock ADD KEY ix_site_stock_free (item_id, site_id, on_hand, held, reserved), DROP KEY ix_site_stock_item;
UPDATE item i SET
  lacks_barcode = NOT EXISTS (SELECT 1 FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id WHERE u.item_id = i.id),
  lacks_cost = i.cost IS NULL,
  lacks_size = NOT EXISTS (SELECT 1 FROM pack_unit u WHERE u.item_id = i.id AND u.factor = 1 AND u.weight_g IS NOT NULL AND u.length_mm IS NOT NULL);
`;

const DOWN = `
ALTER TABLE site_stock ADD KEY ix_site_stock_item (item_id), DROP KEY ix_site_stock_free;
ALTER TABLE movement DROP COLUMN unit_cost;
ALTER TABLE item ADD home_place_id INT UNSIGNED NULL, ADD CONSTRAINT fk_item_home FOREIGN KEY (home_place_id) REFERENCES place (id);
UPDATE item i SET home_place_id = (SELECT MIN(s.home_place_id) FROM item_site s WHERE s.item_id = i.id);
UPDATE item SET tracking = 'lot' WHERE tracking = 'serial';
ALTER TABLE item
  DROP CONSTRAINT ck_item_tracking,
  DROP CONSTRAINT ck_item_kind,
  DROP CONSTRAINT ck_item_storage,
  DROP COLUMN kind, DROP COLUMN labour, DROP COLUMN storage, DROP COLUMN tax_code, DROP COLUMN extra,
  DROP COLUMN lacks_barcode, DROP COLUMN lacks_cost, DROP COLUMN lacks_size,
  ADD CONSTRAINT ck_item_tracking CHECK (tracking IN ('none','lot','lot-expiry'));
`;
