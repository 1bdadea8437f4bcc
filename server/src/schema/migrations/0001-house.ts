import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** Sites, people, devices, and what the platform keeps: commands, outbox, activity. */
export class House1790000000001 implements MigrationInterface {
  name = 'House1790000000001';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, SQL);
  }

  down(runner: QueryRunner): Promise<void> {
    return dropAll(runner, [
      'activity',
      'outbox',
      'command',
      'number_series',
      'session',
      'device_enrolment',
      'device',
      'person_site',
      'person',
      'place',
      'site',
    ]);
  }
}

const SQL = `
CREATE TABLE site (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  code VARCHAR(12) NOT NULL,
  name VARCHAR(80) NOT NULL,
  time_zone VARCHAR(40) NOT NULL DEFAULT 'Europe/London',
  UNIQUE KEY uq_site_code (code)
);
CREATE TABLE place (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  site_id INT UNSIGNED NULL,
  parent_id INT UNSIGNED NULL,
  code VARCHAR(40) NOT NULL,
  kind VARCHAR(20) NOT NULL,
  pickable TINYINT NOT NULL DEFAULT 0,
  blocked TINYINT NOT NULL DEFAULT 0,
  walk_order INT NOT NULL DEFAULT 0,
  x_m DECIMAL(8,2) NULL,
  y_m DECIMAL(8,2) NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_place_code (code),
  KEY ix_place_site_kind (site_id, kind, walk_order),
  KEY ix_place_parent (parent_id),
  CONSTRAINT fk_place_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_place_parent FOREIGN KEY (parent_id) REFERENCES place (id),
  CONSTRAINT ck_place_kind CHECK (kind IN ('site','zone','dock','inspection','pick-face','reserve','packing-table','dispatch-lane','quarantine','counter','tote','cart','pallet','parcel','supplier','customer','count-difference','scrap','assembly','in-transit'))
);
CREATE TABLE person (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  name VARCHAR(80) NOT NULL,
  email VARCHAR(190) NOT NULL,
  password_hash VARCHAR(200) NOT NULL,
  badge_code VARCHAR(40) NULL,
  pin_hash VARCHAR(200) NULL,
  duties LONGTEXT NOT NULL CHECK (JSON_VALID(duties)),
  sees_costs TINYINT NOT NULL DEFAULT 0,
  active TINYINT NOT NULL DEFAULT 1,
  failed_signins INT UNSIGNED NOT NULL DEFAULT 0,
  locked_until DATETIME(3) NULL,
  UNIQUE KEY uq_person_email (email),
  UNIQUE KEY uq_person_badge (badge_code)
);
CREATE TABLE person_site (
  person_id INT UNSIGNED NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  PRIMARY KEY (person_id, site_id),
  CONSTRAINT fk_person_site_person FOREIGN KEY (person_id) REFERENCES person (id),
  CONSTRAINT fk_person_site_site FOREIGN KEY (site_id) REFERENCES site (id)
);
CREATE TABLE device (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  name VARCHAR(80) NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  token_hash CHAR(64) NOT NULL,
  enrolled_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  revoked_at DATETIME(3) NULL,
  UNIQUE KEY uq_device_token (token_hash),
  CONSTRAINT fk_device_site FOREIGN KEY (site_id) REFERENCES site (id)
);
CREATE TABLE device_enrolment (
  code_hash CHAR(64) PRIMARY KEY,
  site_id INT UNSIGNED NOT NULL,
  name VARCHAR(80) NOT NULL,
  expires_at DATETIME(3) NOT NULL,
  used_at DATETIME(3) NULL,
  CONSTRAINT fk_enrolment_site FOREIGN KEY (site_id) REFERENCES site (id)
);
CREATE TABLE session (
  token_hash CHAR(64) PRIMARY KEY,
  person_id INT UNSIGNED NOT NULL,
  device_id INT UNSIGNED NULL,
  created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  expires_at DATETIME(3) NOT NULL,
  ended_at DATETIME(3) NULL,
  KEY ix_session_person (person_id),
  CONSTRAINT fk_session_person FOREIGN KEY (person_id) REFERENCES person (id),
  CONSTRAINT fk_session_device FOREIGN KEY (device_id) REFERENCES device (id)
);
CREATE TABLE number_series (
  name VARCHAR(8) PRIMARY KEY,
  next INT UNSIGNED NOT NULL
);
CREATE TABLE command (
  id CHAR(36) PRIMARY KEY,
  name VARCHAR(60) NOT NULL,
  body_hash CHAR(64) NOT NULL,
  person_id INT UNSIGNED NULL,
  device_id INT UNSIGNED NULL,
  device_at DATETIME(3) NULL,
  server_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  done TINYINT NOT NULL,
  result LONGTEXT NULL CHECK (result IS NULL OR JSON_VALID(result))
);
CREATE TABLE outbox (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  receiver VARCHAR(200) NOT NULL,
  kind VARCHAR(40) NOT NULL,
  payload LONGTEXT NOT NULL CHECK (JSON_VALID(payload)),
  document VARCHAR(40) NULL,
  state VARCHAR(10) NOT NULL DEFAULT 'waiting',
  attempts INT UNSIGNED NOT NULL DEFAULT 0,
  next_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  last_error VARCHAR(500) NULL,
  created_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  done_at DATETIME(3) NULL,
  KEY ix_outbox_receiver (receiver, state, id),
  KEY ix_outbox_state (state, id),
  CONSTRAINT ck_outbox_state CHECK (state IN ('waiting','failing','done'))
);
CREATE TABLE activity (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  device_at DATETIME(3) NULL,
  person_id INT UNSIGNED NULL,
  device_id INT UNSIGNED NULL,
  site_id INT UNSIGNED NULL,
  command_id CHAR(36) NULL,
  kind VARCHAR(30) NOT NULL,
  glyph VARCHAR(12) NOT NULL,
  title VARCHAR(200) NOT NULL,
  detail VARCHAR(300) NOT NULL DEFAULT '',
  document VARCHAR(40) NULL,
  how VARCHAR(8) NULL,
  undo_data LONGTEXT NULL CHECK (undo_data IS NULL OR JSON_VALID(undo_data)),
  undone_by INT UNSIGNED NULL,
  KEY ix_activity_at (at),
  KEY ix_activity_document (document, id),
  KEY ix_activity_person (person_id, id)
);
`;
