import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** Which deliveries are looked at before they are stock, by which checklist, and what came of it. */
export class Inspection1790000000016 implements MigrationInterface {
  name = 'Inspection1790000000016';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return dropAll(runner, ['inspection_verdict', 'inspection_answer', 'inspection', 'inspection_rule', 'checklist_check', 'checklist']);
  }
}

const UP = `
CREATE TABLE checklist (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  name VARCHAR(60) NOT NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_checklist_name (name)
);
CREATE TABLE checklist_check (
  checklist_id INT UNSIGNED NOT NULL,
  no INT UNSIGNED NOT NULL,
  says VARCHAR(120) NOT NULL,
  kind VARCHAR(10) NOT NULL,
  unit VARCHAR(12) NOT NULL DEFAULT '',
  low VARCHAR(18) NULL,
  high VARCHAR(18) NULL,
  PRIMARY KEY (checklist_id, no),
  CONSTRAINT fk_check_checklist FOREIGN KEY (checklist_id) REFERENCES checklist (id),
  CONSTRAINT ck_check_kind CHECK (kind IN ('yes','measure','words'))
);
CREATE TABLE inspection_rule (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  item_id INT UNSIGNED NULL,
  supplier_id INT UNSIGNED NULL,
  kind VARCHAR(12) NOT NULL,
  n INT UNSIGNED NOT NULL DEFAULT 1,
  checklist_id INT UNSIGNED NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  CONSTRAINT fk_rule_item FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT fk_rule_supplier FOREIGN KEY (supplier_id) REFERENCES supplier (id),
  CONSTRAINT fk_rule_checklist FOREIGN KEY (checklist_id) REFERENCES checklist (id),
  CONSTRAINT ck_rule_covers CHECK (item_id IS NOT NULL OR supplier_id IS NOT NULL),
  CONSTRAINT ck_rule_kind CHECK (kind IN ('always','every','until-proven') AND n > 0)
);
CREATE TABLE inspection (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  code VARCHAR(20) NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  arrival_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  why VARCHAR(120) NOT NULL,
  checks JSON NOT NULL,
  opened_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  closed_at DATETIME(3) NULL,
  passed TINYINT NULL,
  UNIQUE KEY uq_inspection_code (code),
  UNIQUE KEY uq_inspection_delivery (arrival_id, item_id),
  KEY ix_inspection_open (site_id, closed_at, id),
  KEY ix_inspection_item (item_id, id),
  CONSTRAINT fk_inspection_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_inspection_arrival FOREIGN KEY (arrival_id) REFERENCES arrival (id),
  CONSTRAINT fk_inspection_item FOREIGN KEY (item_id) REFERENCES item (id)
);
CREATE TABLE inspection_answer (
  inspection_id INT UNSIGNED NOT NULL,
  no INT UNSIGNED NOT NULL,
  value VARCHAR(120) NOT NULL,
  fulfilled TINYINT NOT NULL,
  person_id INT UNSIGNED NOT NULL,
  at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  PRIMARY KEY (inspection_id, no),
  CONSTRAINT fk_answer_inspection FOREIGN KEY (inspection_id) REFERENCES inspection (id),
  CONSTRAINT fk_answer_person FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE inspection_verdict (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  inspection_id INT UNSIGNED NOT NULL,
  lot_id INT UNSIGNED NOT NULL DEFAULT 0,
  place_id INT UNSIGNED NOT NULL,
  units INT UNSIGNED NOT NULL,
  verdict VARCHAR(10) NOT NULL,
  reason VARCHAR(200) NOT NULL DEFAULT '',
  return_code VARCHAR(20) NULL,
  person_id INT UNSIGNED NOT NULL,
  at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  undone_at DATETIME(3) NULL,
  KEY ix_verdict_inspection (inspection_id, id),
  CONSTRAINT fk_verdict_inspection FOREIGN KEY (inspection_id) REFERENCES inspection (id),
  CONSTRAINT fk_verdict_place FOREIGN KEY (place_id) REFERENCES place (id),
  CONSTRAINT fk_verdict_person FOREIGN KEY (person_id) REFERENCES person (id),
  CONSTRAINT ck_verdict CHECK (verdict IN ('pass','quarantine','back') AND units > 0)
);
`;
