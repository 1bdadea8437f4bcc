import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** Sales orders and what becomes of them: rounds with their stops, parcels, carriers. */
export class Orders1790000000005 implements MigrationInterface {
  name = 'Orders1790000000005';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, SQL);
  }

  down(runner: QueryRunner): Promise<void> {
    return dropAll(runner, ['parcel_line', 'parcel', 'carrier', 'carton', 'pick_stop', 'pick_round', 'sales_order_line', 'sales_order']);
  }
}

const SQL = `
CREATE TABLE sales_order (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  code VARCHAR(20) NOT NULL,
  channel_id INT UNSIGNED NOT NULL,
  channel_ref VARCHAR(60) NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  state VARCHAR(10) NOT NULL DEFAULT 'open',
  hold_reason VARCHAR(200) NULL,
  customer VARCHAR(120) NOT NULL,
  email VARCHAR(190) NOT NULL DEFAULT '',
  address_line VARCHAR(200) NOT NULL DEFAULT '',
  city VARCHAR(80) NOT NULL DEFAULT '',
  postcode VARCHAR(16) NOT NULL DEFAULT '',
  country CHAR(2) NOT NULL DEFAULT 'GB',
  priority INT NOT NULL DEFAULT 0,
  placed_at DATETIME(3) NOT NULL,
  promised_at DATETIME(3) NOT NULL,
  speed VARCHAR(20) NOT NULL DEFAULT 'standard',
  note_packer VARCHAR(300) NULL,
  note_seen_by INT UNSIGNED NULL,
  note_picker VARCHAR(300) NULL,
  shipped_at DATETIME(3) NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_sales_order_code (code),
  UNIQUE KEY uq_sales_order_ref (channel_id, channel_ref),
  KEY ix_sales_order_state (state, promised_at),
  CONSTRAINT fk_sales_order_channel FOREIGN KEY (channel_id) REFERENCES channel (id),
  CONSTRAINT fk_sales_order_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT ck_sales_order_state CHECK (state IN ('open','held','released','picking','picked','packed','shipped','cancelled'))
);
CREATE TABLE sales_order_line (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  order_id INT UNSIGNED NOT NULL,
  line INT UNSIGNED NOT NULL,
  channel_sku VARCHAR(60) NOT NULL,
  item_id INT UNSIGNED NULL,
  quantity INT UNSIGNED NOT NULL,
  units INT UNSIGNED NOT NULL,
  price DECIMAL(18,6) NOT NULL DEFAULT 0,
  reserved_units INT UNSIGNED NOT NULL DEFAULT 0,
  picked_units INT UNSIGNED NOT NULL DEFAULT 0,
  packed_units INT UNSIGNED NOT NULL DEFAULT 0,
  shipped_units INT UNSIGNED NOT NULL DEFAULT 0,
  UNIQUE KEY uq_sales_order_line (order_id, line),
  KEY ix_sales_order_line_item (item_id),
  CONSTRAINT fk_so_line_order FOREIGN KEY (order_id) REFERENCES sales_order (id),
  CONSTRAINT fk_so_line_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT ck_so_line CHECK (reserved_units <= units AND picked_units <= reserved_units AND packed_units <= picked_units AND shipped_units <= packed_units)
);
CREATE TABLE pick_round (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  code VARCHAR(20) NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  order_id INT UNSIGNED NOT NULL,
  state VARCHAR(10) NOT NULL DEFAULT 'waiting',
  picker_id INT UNSIGNED NULL,
  tote_id INT UNSIGNED NULL,
  created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  begun_at DATETIME(3) NULL,
  finished_at DATETIME(3) NULL,
  UNIQUE KEY uq_round_code (code),
  KEY ix_round_state (state, site_id),
  KEY ix_round_order (order_id),
  KEY ix_round_tote (tote_id, state),
  CONSTRAINT fk_round_order FOREIGN KEY (order_id) REFERENCES sales_order (id),
  CONSTRAINT fk_round_tote FOREIGN KEY (tote_id) REFERENCES place (id),
  CONSTRAINT ck_round_state CHECK (state IN ('waiting','picking','set-down','done'))
);
CREATE TABLE pick_stop (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  round_id INT UNSIGNED NOT NULL,
  order_line_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  lot_id INT UNSIGNED NOT NULL DEFAULT 0,
  place_id INT UNSIGNED NOT NULL,
  units INT UNSIGNED NOT NULL,
  picked_units INT UNSIGNED NOT NULL DEFAULT 0,
  short_units INT UNSIGNED NOT NULL DEFAULT 0,
  KEY ix_stop_round (round_id),
  KEY ix_stop_place (place_id, item_id),
  CONSTRAINT fk_stop_round FOREIGN KEY (round_id) REFERENCES pick_round (id),
  CONSTRAINT fk_stop_line FOREIGN KEY (order_line_id) REFERENCES sales_order_line (id),
  CONSTRAINT fk_stop_place FOREIGN KEY (place_id) REFERENCES place (id),
  CONSTRAINT ck_stop CHECK (picked_units + short_units <= units)
);
CREATE TABLE carton (
  code VARCHAR(12) PRIMARY KEY,
  length_mm INT UNSIGNED NOT NULL,
  width_mm INT UNSIGNED NOT NULL,
  height_mm INT UNSIGNED NOT NULL,
  tare_g INT UNSIGNED NOT NULL,
  most_g INT UNSIGNED NOT NULL
);
CREATE TABLE carrier (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  code VARCHAR(20) NOT NULL,
  name VARCHAR(80) NOT NULL,
  base_url VARCHAR(200) NOT NULL,
  api_key VARCHAR(100) NOT NULL,
  lane_place_id INT UNSIGNED NOT NULL,
  collects_at TIME NOT NULL,
  UNIQUE KEY uq_carrier_code (code),
  CONSTRAINT fk_carrier_lane FOREIGN KEY (lane_place_id) REFERENCES place (id)
);
CREATE TABLE parcel (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  code VARCHAR(24) NOT NULL,
  order_id INT UNSIGNED NOT NULL,
  number INT UNSIGNED NOT NULL,
  place_id INT UNSIGNED NOT NULL,
  state VARCHAR(12) NOT NULL DEFAULT 'open',
  carton VARCHAR(12) NULL,
  weight_g INT UNSIGNED NULL,
  carrier_id INT UNSIGNED NULL,
  service VARCHAR(40) NULL,
  price DECIMAL(18,6) NULL,
  tracking VARCHAR(60) NULL,
  label_pdf MEDIUMBLOB NULL,
  label_asked_at DATETIME(3) NULL,
  labelled_at DATETIME(3) NULL,
  handed_over_at DATETIME(3) NULL,
  hand_over VARCHAR(20) NULL,
  UNIQUE KEY uq_parcel_code (code),
  UNIQUE KEY uq_parcel_number (order_id, number),
  KEY ix_parcel_state (state, carrier_id),
  CONSTRAINT fk_parcel_order FOREIGN KEY (order_id) REFERENCES sales_order (id),
  CONSTRAINT fk_parcel_place FOREIGN KEY (place_id) REFERENCES place (id),
  CONSTRAINT fk_parcel_carrier FOREIGN KEY (carrier_id) REFERENCES carrier (id),
  CONSTRAINT ck_parcel_state CHECK (state IN ('open','label-asked','labelled','gone'))
);
CREATE TABLE parcel_line (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  parcel_id INT UNSIGNED NOT NULL,
  order_line_id INT UNSIGNED NOT NULL,
  lot_id INT UNSIGNED NOT NULL DEFAULT 0,
  units INT UNSIGNED NOT NULL,
  UNIQUE KEY uq_parcel_line (parcel_id, order_line_id, lot_id),
  CONSTRAINT fk_parcel_line_parcel FOREIGN KEY (parcel_id) REFERENCES parcel (id),
  CONSTRAINT fk_parcel_line_line FOREIGN KEY (order_line_id) REFERENCES sales_order_line (id)
);
`;
