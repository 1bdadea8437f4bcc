import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** What is asked for week by week, what is planned from it, and what people make of the proposals. */
export class Planning1790000000054 implements MigrationInterface {
  name = 'Planning1790000000054';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

/** Weeks are whole numbers, one more for each: that of the first of January 1970 is nought. They begin on Mondays. */
const UP = `
CREATE TABLE demand_week (
  site_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  week SMALLINT UNSIGNED NOT NULL,
  ordered_units INT UNSIGNED NOT NULL DEFAULT 0,
  given_units INT UNSIGNED NULL,
  PRIMARY KEY (site_id, item_id, week),
  KEY ix_demand_week (site_id, week),
  KEY ix_demand_item (item_id),
  CONSTRAINT fk_demand_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_demand_item FOREIGN KEY (item_id) REFERENCES item (id)
);
CREATE TABLE demand_read (
  site_id INT UNSIGNED NOT NULL PRIMARY KEY,
  through_week SMALLINT UNSIGNED NOT NULL,
  read_on DATE NOT NULL,
  CONSTRAINT fk_demand_read_site FOREIGN KEY (site_id) REFERENCES site (id)
);
CREATE TABLE item_plan (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  site_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  due_at DATETIME(3) NULL,
  planned_on DATE NULL,
  made_from CHAR(40) NULL,
  method VARCHAR(30) NULL,
  week_mean DOUBLE NOT NULL DEFAULT 0,
  week_sd DOUBLE NOT NULL DEFAULT 0,
  pace DOUBLE NULL,
  point_units INT UNSIGNED NULL,
  size_units INT UNSIGNED NOT NULL DEFAULT 0,
  safety_units INT UNSIGNED NOT NULL DEFAULT 0,
  fill DOUBLE NOT NULL DEFAULT 0,
  lead_days DOUBLE NOT NULL DEFAULT 0,
  lead_sd DOUBLE NOT NULL DEFAULT 0,
  review_days SMALLINT UNSIGNED NOT NULL DEFAULT 7,
  service DOUBLE NOT NULL DEFAULT 0,
  unit_cost DECIMAL(18,6) NULL,
  supplier_id INT UNSIGNED NULL,
  weeks JSON NULL,
  UNIQUE KEY uq_item_plan (site_id, item_id),
  KEY ix_item_plan_due (due_at),
  KEY ix_item_plan_item (item_id),
  CONSTRAINT fk_item_plan_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_item_plan_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT fk_item_plan_supplier FOREIGN KEY (supplier_id) REFERENCES supplier (id)
);
CREATE TABLE buying_rule (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  item_id INT UNSIGNED NULL,
  class VARCHAR(40) NULL,
  site_id INT UNSIGNED NULL,
  service_percent DECIMAL(5,2) NULL,
  review_days SMALLINT UNSIGNED NULL,
  supplier_id INT UNSIGNED NULL,
  like_item_id INT UNSIGNED NULL,
  like_percent SMALLINT UNSIGNED NULL,
  is_fixed TINYINT NOT NULL DEFAULT 0,
  is_dropped TINYINT NOT NULL DEFAULT 0,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  KEY ix_buying_rule_item (item_id),
  CONSTRAINT ck_buying_rule_of CHECK (item_id IS NULL OR class IS NULL),
  CONSTRAINT fk_buying_rule_item FOREIGN KEY (item_id) REFERENCES item (id) ON DELETE CASCADE,
  CONSTRAINT fk_buying_rule_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_buying_rule_supplier FOREIGN KEY (supplier_id) REFERENCES supplier (id),
  CONSTRAINT fk_buying_rule_like FOREIGN KEY (like_item_id) REFERENCES item (id)
);
CREATE TABLE demand_mark (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(60) NOT NULL,
  item_id INT UNSIGNED NULL,
  class VARCHAR(40) NULL,
  site_id INT UNSIGNED NULL,
  from_week SMALLINT UNSIGNED NOT NULL,
  to_week SMALLINT UNSIGNED NOT NULL,
  lift_percent SMALLINT NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  CONSTRAINT ck_demand_mark_weeks CHECK (to_week >= from_week),
  CONSTRAINT ck_demand_mark_of CHECK (item_id IS NULL OR class IS NULL),
  CONSTRAINT fk_demand_mark_item FOREIGN KEY (item_id) REFERENCES item (id) ON DELETE CASCADE,
  CONSTRAINT fk_demand_mark_site FOREIGN KEY (site_id) REFERENCES site (id)
);
CREATE TABLE buying_choice (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  site_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  chosen_on DATE NOT NULL,
  says VARCHAR(10) NOT NULL,
  proposed_units INT UNSIGNED NOT NULL,
  taken_units INT UNSIGNED NOT NULL DEFAULT 0,
  expected_units DOUBLE NOT NULL DEFAULT 0,
  horizon_days SMALLINT UNSIGNED NOT NULL DEFAULT 0,
  until_on DATE NULL,
  why VARCHAR(200) NOT NULL DEFAULT '',
  document VARCHAR(20) NULL,
  person_id INT UNSIGNED NOT NULL,
  made_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  is_over TINYINT NOT NULL DEFAULT 0,
  KEY ix_buying_choice (site_id, item_id, id),
  CONSTRAINT ck_buying_choice_says CHECK (says IN ('taken','later','enough','dropped')),
  CONSTRAINT fk_buying_choice_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_buying_choice_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT fk_buying_choice_person FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE buying_day (
  site_id INT UNSIGNED NOT NULL,
  day DATE NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  units INT UNSIGNED NOT NULL,
  PRIMARY KEY (site_id, day, item_id),
  KEY ix_buying_day_day (day),
  CONSTRAINT fk_buying_day_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_buying_day_item FOREIGN KEY (item_id) REFERENCES item (id)
);
CREATE TABLE back_test (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  site_id INT UNSIGNED NOT NULL,
  asked_by_id INT UNSIGNED NOT NULL,
  asked_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  due_at DATETIME(3) NULL,
  total INT UNSIGNED NOT NULL,
  done INT UNSIGNED NOT NULL DEFAULT 0,
  after_item_id INT UNSIGNED NOT NULL DEFAULT 0,
  result JSON NOT NULL,
  KEY ix_back_test_due (due_at),
  CONSTRAINT fk_back_test_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_back_test_person FOREIGN KEY (asked_by_id) REFERENCES person (id)
);
`;

const DOWN = `
DROP TABLE back_test;
DROP TABLE buying_day;
DROP TABLE buying_choice;
DROP TABLE demand_mark;
DROP TABLE buying_rule;
DROP TABLE item_plan;
DROP TABLE demand_read;
DROP TABLE demand_week;
`;
