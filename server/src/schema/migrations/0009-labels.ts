import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** Label designs as data, printers, and the tray of what was sent to them. */
export class Labels1790000000009 implements MigrationInterface {
  name = 'Labels1790000000009';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runAll(runner, 'ALTER TABLE device DROP FOREIGN KEY fk_device_printer, DROP COLUMN printer_id;\n');
    await dropAll(runner, ['print_job', 'printer', 'label_design']);
  }
}

const UP = `
CREATE TABLE label_design (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  name VARCHAR(60) NOT NULL,
  subject VARCHAR(10) NOT NULL,
  media LONGTEXT NOT NULL CHECK (JSON_VALID(media)),
  elements LONGTEXT NOT NULL CHECK (JSON_VALID(elements)),
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_design_name (name),
  CONSTRAINT ck_design_subject CHECK (subject IN ('place','item','badge','document'))
);
CREATE TABLE printer (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  name VARCHAR(60) NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  address VARCHAR(120) NOT NULL,
  UNIQUE KEY uq_printer_name (site_id, name),
  CONSTRAINT fk_printer_site FOREIGN KEY (site_id) REFERENCES site (id)
);
CREATE TABLE print_job (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  printer_id INT UNSIGNED NOT NULL,
  title VARCHAR(120) NOT NULL,
  labels INT UNSIGNED NOT NULL,
  pdf MEDIUMBLOB NOT NULL,
  person_id INT UNSIGNED NULL,
  created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  KEY ix_print_job_created (created_at),
  CONSTRAINT fk_job_printer FOREIGN KEY (printer_id) REFERENCES printer (id),
  CONSTRAINT fk_job_person FOREIGN KEY (person_id) REFERENCES person (id)
);
ALTER TABLE device ADD printer_id INT UNSIGNED NULL, ADD CONSTRAINT fk_device_printer FOREIGN KEY (printer_id) REFERENCES printer (id);
`;
