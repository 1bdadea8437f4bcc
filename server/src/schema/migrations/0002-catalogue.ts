import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** Items with their pack units and barcodes, suppliers, channels and listings. */
export class Catalogue1790000000002 implements MigrationInterface {
  name = 'Catalogue1790000000002';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, SQL);
  }

  down(runner: QueryRunner): Promise<void> {
    return dropAll(runner, ['listing', 'channel', 'supplier_item', 'supplier', 'barcode', 'pack_unit', 'lot', 'item']);
  }
}

const SQL = `
CREATE TABLE item (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  sku VARCHAR(40) NOT NULL,
  name VARCHAR(120) NOT NULL,
  class VARCHAR(40) NOT NULL DEFAULT '',
  picture VARCHAR(40) NOT NULL DEFAULT 'box',
  tracking VARCHAR(12) NOT NULL DEFAULT 'none',
  rotation VARCHAR(4) NOT NULL DEFAULT 'fifo',
  cost DECIMAL(18,6) NULL,
  never_holds_up TINYINT NOT NULL DEFAULT 0,
  home_place_id INT UNSIGNED NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_item_sku (sku),
  KEY ix_item_name (name),
  KEY ix_item_class (class, name),
  CONSTRAINT fk_item_home FOREIGN KEY (home_place_id) REFERENCES place (id),
  CONSTRAINT ck_item_tracking CHECK (tracking IN ('none','lot','lot-expiry')),
  CONSTRAINT ck_item_rotation CHECK (rotation IN ('fifo','fefo'))
);
CREATE TABLE lot (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  item_id INT UNSIGNED NOT NULL,
  code VARCHAR(40) NOT NULL,
  expires_on DATE NULL,
  first_received_on DATE NULL,
  UNIQUE KEY uq_lot (item_id, code),
  CONSTRAINT fk_lot_item FOREIGN KEY (item_id) REFERENCES item (id)
);
CREATE TABLE pack_unit (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  item_id INT UNSIGNED NOT NULL,
  name VARCHAR(30) NOT NULL,
  plural VARCHAR(30) NOT NULL,
  factor INT UNSIGNED NOT NULL,
  weight_g INT UNSIGNED NULL,
  length_mm INT UNSIGNED NULL,
  width_mm INT UNSIGNED NULL,
  height_mm INT UNSIGNED NULL,
  UNIQUE KEY uq_pack_factor (item_id, factor),
  UNIQUE KEY uq_pack_name (item_id, name),
  CONSTRAINT fk_pack_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT ck_pack_factor CHECK (factor >= 1)
);
CREATE TABLE barcode (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  code VARCHAR(60) NOT NULL,
  pack_unit_id INT UNSIGNED NOT NULL,
  UNIQUE KEY uq_barcode_code (code),
  CONSTRAINT fk_barcode_pack FOREIGN KEY (pack_unit_id) REFERENCES pack_unit (id)
);
CREATE TABLE supplier (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  code VARCHAR(20) NOT NULL,
  name VARCHAR(120) NOT NULL,
  email VARCHAR(190) NOT NULL DEFAULT '',
  phone VARCHAR(40) NOT NULL DEFAULT '',
  currency CHAR(3) NOT NULL DEFAULT 'GBP',
  lead_days INT UNSIGNED NOT NULL DEFAULT 14,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_supplier_code (code)
);
CREATE TABLE supplier_item (
  supplier_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  pack_unit_id INT UNSIGNED NOT NULL,
  supplier_sku VARCHAR(40) NOT NULL DEFAULT '',
  price DECIMAL(18,6) NOT NULL,
  PRIMARY KEY (supplier_id, item_id),
  CONSTRAINT fk_supplier_item_supplier FOREIGN KEY (supplier_id) REFERENCES supplier (id),
  CONSTRAINT fk_supplier_item_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT fk_supplier_item_pack FOREIGN KEY (pack_unit_id) REFERENCES pack_unit (id)
);
CREATE TABLE channel (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  code VARCHAR(20) NOT NULL,
  name VARCHAR(80) NOT NULL,
  kind VARCHAR(12) NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  base_url VARCHAR(200) NULL,
  secret VARCHAR(100) NULL,
  poll_cursor VARCHAR(60) NOT NULL DEFAULT '',
  polled_at DATETIME(3) NULL,
  poll_error VARCHAR(300) NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_channel_code (code),
  CONSTRAINT fk_channel_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT ck_channel_kind CHECK (kind IN ('web-shop','marketplace','trade','phone'))
);
CREATE TABLE listing (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  channel_id INT UNSIGNED NOT NULL,
  channel_sku VARCHAR(60) NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  factor INT UNSIGNED NOT NULL DEFAULT 1,
  keep_back INT UNSIGNED NOT NULL DEFAULT 0,
  price DECIMAL(18,6) NOT NULL,
  told_units INT NULL,
  UNIQUE KEY uq_listing (channel_id, channel_sku),
  KEY ix_listing_item (item_id),
  CONSTRAINT fk_listing_channel FOREIGN KEY (channel_id) REFERENCES channel (id),
  CONSTRAINT fk_listing_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT ck_listing_factor CHECK (factor >= 1)
);
`;
