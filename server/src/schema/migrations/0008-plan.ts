import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** Zones with their rules, how much a bin holds, and the plan of each site to scale. */
export class Plan1790000000008 implements MigrationInterface {
  name = 'Plan1790000000008';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runAll(runner, DOWN);
    await dropAll(runner, ['plan_shape']);
  }
}

const UP = `
CREATE TABLE plan_shape (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  site_id INT UNSIGNED NOT NULL,
  kind VARCHAR(12) NOT NULL,
  label VARCHAR(40) NOT NULL DEFAULT '',
  x_m DECIMAL(8,2) NOT NULL,
  y_m DECIMAL(8,2) NOT NULL,
  to_x_m DECIMAL(8,2) NOT NULL,
  to_y_m DECIMAL(8,2) NOT NULL,
  KEY ix_shape_site (site_id),
  CONSTRAINT fk_shape_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT ck_shape_kind CHECK (kind IN ('aisle','walkway','wall'))
);
ALTER TABLE place
  ADD aisle_id INT UNSIGNED NULL,
  ADD along_m DECIMAL(8,2) NULL,
  ADD fixed_order TINYINT NOT NULL DEFAULT 0,
  ADD holds_ml INT UNSIGNED NULL,
  ADD holds_g INT UNSIGNED NULL,
  ADD name VARCHAR(60) NOT NULL DEFAULT '',
  ADD rule VARCHAR(12) NOT NULL DEFAULT 'none',
  ADD KEY ix_place_aisle (aisle_id, along_m),
  ADD CONSTRAINT fk_place_aisle FOREIGN KEY (aisle_id) REFERENCES plan_shape (id),
  ADD CONSTRAINT ck_place_rule CHECK (rule IN ('none','cold','restricted'));
ALTER TABLE movement ADD KEY ix_movement_at (server_at);
ALTER TABLE site ADD width_m DECIMAL(8,2) NOT NULL DEFAULT 40, ADD depth_m DECIMAL(8,2) NOT NULL DEFAULT 30, ADD version INT UNSIGNED NOT NULL DEFAULT 1;
`;

const DOWN = `
ALTER TABLE movement DROP KEY ix_movement_at;
ALTER TABLE site DROP COLUMN width_m, DROP COLUMN depth_m, DROP COLUMN version;
ALTER TABLE place DROP FOREIGN KEY fk_place_aisle, DROP KEY ix_place_aisle, DROP CONSTRAINT ck_place_rule,
  DROP COLUMN aisle_id, DROP COLUMN along_m, DROP COLUMN fixed_order, DROP COLUMN holds_ml, DROP COLUMN holds_g, DROP COLUMN name, DROP COLUMN rule;
`;
