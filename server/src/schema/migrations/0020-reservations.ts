import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/**
 * What is promised becomes rows that follow the goods: at a site, at a bin and lot, in a tote, in a parcel. A round may hold
 * several orders and a tote says for whom it is used, so that the state of an order follows from its lines.
 */
export class Reservations1790000000020 implements MigrationInterface {
  name = 'Reservations1790000000020';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runAll(runner, DOWN);
    await dropAll(runner, ['container_move', 'tote_use', 'round_order', 'reservation']);
    await runAll(runner, DOWN_ROUNDS);
  }
}

const UP = `
CREATE TABLE reservation (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  order_line_id INT UNSIGNED NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  place_id INT UNSIGNED NULL,
  lot_id INT UNSIGNED NOT NULL DEFAULT 0,
  units INT UNSIGNED NOT NULL,
  place_key INT UNSIGNED AS (COALESCE(place_id, 0)) PERSISTENT,
  UNIQUE KEY uq_reservation (order_line_id, site_id, place_key, lot_id),
  KEY ix_reservation_place (place_id, item_id, lot_id),
  KEY ix_reservation_site (site_id, item_id),
  CONSTRAINT fk_reservation_line FOREIGN KEY (order_line_id) REFERENCES sales_order_line (id),
  CONSTRAINT fk_reservation_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_reservation_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT fk_reservation_place FOREIGN KEY (place_id) REFERENCES place (id),
  CONSTRAINT ck_reservation CHECK (place_id IS NOT NULL OR lot_id = 0)
);
INSERT INTO reservation (order_line_id, site_id, item_id, place_id, lot_id, units)
  SELECT pl.order_line_id, w.site_id, l.item_id, p.place_id, pl.lot_id, pl.units FROM parcel_line pl JOIN parcel p ON p.id = pl.parcel_id AND p.state <> 'gone' JOIN place w ON w.id = p.place_id JOIN sales_order_line l ON l.id = pl.order_line_id WHERE pl.units > 0;
INSERT INTO reservation (order_line_id, site_id, item_id, place_id, lot_id, units)
  SELECT s.order_line_id, r.site_id, s.item_id, r.tote_id, s.lot_id, SUM(s.picked_units) - COALESCE(MAX(k.units), 0)
  FROM pick_stop s JOIN pick_round r ON r.id = s.round_id AND r.state IN ('picking','set-down') AND r.tote_id IS NOT NULL
    LEFT JOIN (SELECT pl.order_line_id, pl.lot_id, SUM(pl.units) AS units FROM parcel_line pl JOIN parcel p ON p.id = pl.parcel_id AND p.state = 'open' GROUP BY pl.order_line_id, pl.lot_id) k ON k.order_line_id = s.order_line_id AND k.lot_id = s.lot_id
  GROUP BY s.order_line_id, r.site_id, s.item_id, r.tote_id, s.lot_id HAVING SUM(s.picked_units) > COALESCE(MAX(k.units), 0);
INSERT INTO reservation (order_line_id, site_id, item_id, place_id, lot_id, units)
  SELECT s.order_line_id, r.site_id, s.item_id, s.place_id, s.lot_id, SUM(s.units - s.picked_units - s.short_units)
  FROM pick_stop s JOIN pick_round r ON r.id = s.round_id AND r.state IN ('waiting','picking') GROUP BY s.order_line_id, r.site_id, s.item_id, s.place_id, s.lot_id HAVING SUM(s.units - s.picked_units - s.short_units) > 0;
INSERT INTO reservation (order_line_id, site_id, item_id, units)
  SELECT l.id, o.site_id, l.item_id, l.reserved_units - l.shipped_units - COALESCE(v.units, 0)
  FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id LEFT JOIN (SELECT order_line_id, SUM(units) AS units FROM reservation GROUP BY order_line_id) v ON v.order_line_id = l.id
  WHERE l.item_id IS NOT NULL AND l.reserved_units - l.shipped_units > COALESCE(v.units, 0);
ALTER TABLE sales_order_line DROP CONSTRAINT ck_so_line;
ALTER TABLE sales_order_line DROP COLUMN reserved_units;
ALTER TABLE sales_order_line ADD CONSTRAINT ck_so_line CHECK (picked_units <= units AND packed_units <= picked_units AND shipped_units <= packed_units);
ALTER TABLE sales_order ADD cancelled_at DATETIME(3) NULL;
UPDATE sales_order SET cancelled_at = UTC_TIMESTAMP(3) WHERE state = 'cancelled';
CREATE TABLE round_order (
  round_id INT UNSIGNED NOT NULL,
  order_id INT UNSIGNED NOT NULL,
  PRIMARY KEY (round_id, order_id),
  KEY ix_round_order_order (order_id),
  CONSTRAINT fk_round_order_round FOREIGN KEY (round_id) REFERENCES pick_round (id),
  CONSTRAINT fk_round_order_order FOREIGN KEY (order_id) REFERENCES sales_order (id)
);
INSERT INTO round_order (round_id, order_id) SELECT id, order_id FROM pick_round;
CREATE TABLE tote_use (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  tote_id INT UNSIGNED NOT NULL,
  round_id INT UNSIGNED NOT NULL,
  order_id INT UNSIGNED NOT NULL,
  begun_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  set_down_at DATETIME(3) NULL,
  ended_at DATETIME(3) NULL,
  open_tote INT UNSIGNED AS (IF(ended_at IS NULL, tote_id, NULL)) PERSISTENT,
  UNIQUE KEY uq_tote_use_open (open_tote),
  KEY ix_tote_use_round (round_id),
  KEY ix_tote_use_order (order_id, ended_at),
  CONSTRAINT fk_tote_use_tote FOREIGN KEY (tote_id) REFERENCES place (id),
  CONSTRAINT fk_tote_use_round FOREIGN KEY (round_id) REFERENCES pick_round (id),
  CONSTRAINT fk_tote_use_order FOREIGN KEY (order_id) REFERENCES sales_order (id)
);
INSERT INTO tote_use (tote_id, round_id, order_id, begun_at, set_down_at, ended_at)
  SELECT tote_id, id, order_id, COALESCE(begun_at, created_at), finished_at, IF(state IN ('picking','set-down'), NULL, COALESCE(finished_at, created_at)) FROM pick_round WHERE tote_id IS NOT NULL;
ALTER TABLE pick_round DROP FOREIGN KEY fk_round_order;
ALTER TABLE pick_round DROP FOREIGN KEY fk_round_tote;
ALTER TABLE pick_round DROP KEY ix_round_order;
ALTER TABLE pick_round DROP KEY ix_round_tote;
ALTER TABLE pick_round DROP COLUMN order_id;
ALTER TABLE pick_round DROP COLUMN tote_id;
ALTER TABLE pick_round RENAME TO \`round\`;
ALTER TABLE pick_stop RENAME TO round_stop;
CREATE TABLE container_move (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  place_id INT UNSIGNED NOT NULL,
  from_parent_id INT UNSIGNED NULL,
  to_parent_id INT UNSIGNED NULL,
  from_site_id INT UNSIGNED NOT NULL,
  to_site_id INT UNSIGNED NOT NULL,
  person_id INT UNSIGNED NULL,
  at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  KEY ix_container_move_place (place_id, id),
  CONSTRAINT fk_container_move_place FOREIGN KEY (place_id) REFERENCES place (id)
);
`;

const DOWN = `
ALTER TABLE round_stop RENAME TO pick_stop;
ALTER TABLE \`round\` RENAME TO pick_round;
ALTER TABLE pick_round ADD order_id INT UNSIGNED NULL AFTER site_id;
ALTER TABLE pick_round ADD tote_id INT UNSIGNED NULL AFTER picker_id;
INSERT INTO pick_round (code, site_id, order_id, state, picker_id, created_at, begun_at, finished_at)
  SELECT CONCAT(r.code, '-', x.order_id), r.site_id, x.order_id, r.state, r.picker_id, r.created_at, r.begun_at, r.finished_at FROM pick_round r JOIN round_order x ON x.round_id = r.id
  WHERE x.order_id > (SELECT MIN(y.order_id) FROM round_order y WHERE y.round_id = r.id);
UPDATE pick_stop s JOIN sales_order_line l ON l.id = s.order_line_id JOIN pick_round r ON r.id = s.round_id JOIN pick_round n ON n.code = CONCAT(r.code, '-', l.order_id) SET s.round_id = n.id;
UPDATE tote_use u JOIN pick_round r ON r.id = u.round_id JOIN pick_round n ON n.code = CONCAT(r.code, '-', u.order_id) SET u.round_id = n.id;
UPDATE pick_round r SET order_id = COALESCE(order_id, (SELECT MIN(x.order_id) FROM round_order x WHERE x.round_id = r.id)), tote_id = (SELECT u.tote_id FROM tote_use u WHERE u.round_id = r.id ORDER BY u.id DESC LIMIT 1);
ALTER TABLE sales_order_line ADD reserved_units INT UNSIGNED NOT NULL DEFAULT 0 AFTER price;
UPDATE sales_order_line l SET reserved_units = l.shipped_units + COALESCE((SELECT SUM(v.units) FROM reservation v WHERE v.order_line_id = l.id), 0);
ALTER TABLE sales_order_line DROP CONSTRAINT ck_so_line;
ALTER TABLE sales_order_line ADD CONSTRAINT ck_so_line CHECK (reserved_units <= units AND picked_units <= reserved_units AND packed_units <= picked_units AND shipped_units <= packed_units);
ALTER TABLE sales_order DROP COLUMN cancelled_at;
`;

const DOWN_ROUNDS = `
ALTER TABLE pick_round MODIFY order_id INT UNSIGNED NOT NULL;
ALTER TABLE pick_round ADD KEY ix_round_order (order_id);
ALTER TABLE pick_round ADD KEY ix_round_tote (tote_id, state);
ALTER TABLE pick_round ADD CONSTRAINT fk_round_order FOREIGN KEY (order_id) REFERENCES sales_order (id);
ALTER TABLE pick_round ADD CONSTRAINT fk_round_tote FOREIGN KEY (tote_id) REFERENCES place (id);
`;
