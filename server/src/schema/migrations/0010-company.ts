import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** The company's choices, its money and taxes, the working days and departures of its sites, and who may do what. */
export class Company1790000000010 implements MigrationInterface {
  name = 'Company1790000000010';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runAll(runner, DOWN);
    await dropAll(runner, ['person_token', 'departure', 'tax_rate', 'currency', 'setting']);
  }
}

const UP = `
CREATE TABLE setting (
  name VARCHAR(40) PRIMARY KEY,
  value LONGTEXT NOT NULL CHECK (JSON_VALID(value)),
  changed_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3)
);
CREATE TABLE currency (
  code CHAR(3) PRIMARY KEY,
  rate DECIMAL(18,8) NOT NULL,
  as_of DATE NOT NULL,
  CONSTRAINT ck_currency_rate CHECK (rate > 0)
);
CREATE TABLE tax_rate (
  code VARCHAR(12) PRIMARY KEY,
  name VARCHAR(40) NOT NULL,
  percent DECIMAL(6,3) NOT NULL,
  CONSTRAINT ck_tax_percent CHECK (percent >= 0 AND percent < 1000)
);
CREATE TABLE departure (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  site_id INT UNSIGNED NOT NULL,
  carrier_id INT UNSIGNED NULL,
  name VARCHAR(40) NOT NULL,
  leaves_at TIME NOT NULL,
  closes_minutes INT UNSIGNED NOT NULL DEFAULT 60,
  KEY ix_departure_site (site_id, leaves_at),
  CONSTRAINT fk_departure_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_departure_carrier FOREIGN KEY (carrier_id) REFERENCES carrier (id)
);
INSERT INTO departure (site_id, carrier_id, name, leaves_at, closes_minutes) SELECT p.site_id, c.id, c.name, c.collects_at, 90 FROM carrier c JOIN place p ON p.id = c.lane_place_id;
ALTER TABLE carrier DROP COLUMN collects_at;
ALTER TABLE site ADD working_days CHAR(7) NOT NULL DEFAULT 'YYYYYNN';
ALTER TABLE person
  MODIFY password_hash VARCHAR(200) NULL,
  ADD usual_site_id INT UNSIGNED NULL,
  ADD usual_duty VARCHAR(20) NULL,
  ADD version INT UNSIGNED NOT NULL DEFAULT 1,
  ADD CONSTRAINT fk_person_usual_site FOREIGN KEY (usual_site_id) REFERENCES site (id);
CREATE TABLE person_token (
  token_hash CHAR(64) PRIMARY KEY,
  person_id INT UNSIGNED NOT NULL,
  purpose VARCHAR(8) NOT NULL,
  expires_at DATETIME(3) NOT NULL,
  used_at DATETIME(3) NULL,
  KEY ix_person_token (person_id, purpose),
  CONSTRAINT fk_token_person FOREIGN KEY (person_id) REFERENCES person (id),
  CONSTRAINT ck_token_purpose CHECK (purpose IN ('invite','reset'))
);
`;

const DOWN = `
ALTER TABLE carrier ADD collects_at TIME NOT NULL DEFAULT '15:30';
UPDATE carrier c SET collects_at = COALESCE((SELECT MIN(d.leaves_at) FROM departure d WHERE d.carrier_id = c.id), '15:30');
UPDATE person SET password_hash = '' WHERE password_hash IS NULL;
ALTER TABLE person DROP FOREIGN KEY fk_person_usual_site, DROP COLUMN usual_site_id, DROP COLUMN usual_duty, DROP COLUMN version, MODIFY password_hash VARCHAR(200) NOT NULL;
ALTER TABLE site DROP COLUMN working_days;
`;
