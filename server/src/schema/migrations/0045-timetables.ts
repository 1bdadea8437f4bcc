import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** What the books do by timetable, and periods that are closed. */
export class Timetables1790000000045 implements MigrationInterface {
  name = 'Timetables1790000000045';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
CREATE TABLE timetable (
  what VARCHAR(12) NOT NULL PRIMARY KEY,
  every VARCHAR(6) NOT NULL,
  person_id INT UNSIGNED NOT NULL,
  last_on DATE NOT NULL,
  last_at DATETIME(3) NULL,
  last_says VARCHAR(300) NOT NULL DEFAULT '',
  version INT UNSIGNED NOT NULL DEFAULT 1,
  CONSTRAINT fk_timetable_person FOREIGN KEY (person_id) REFERENCES person (id),
  CONSTRAINT ck_timetable_every CHECK (every IN ('day','week','month'))
);
CREATE TABLE period_close (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  through_on DATE NOT NULL,
  closed_by INT UNSIGNED NOT NULL,
  closed_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  reopened_by INT UNSIGNED NULL,
  reopened_at DATETIME(3) NULL,
  reopened_why VARCHAR(200) NOT NULL DEFAULT '',
  KEY ix_period_close (through_on),
  CONSTRAINT fk_period_close_person FOREIGN KEY (closed_by) REFERENCES person (id),
  CONSTRAINT fk_period_close_reopened FOREIGN KEY (reopened_by) REFERENCES person (id)
);
`;

const DOWN = `
DROP TABLE period_close;
DROP TABLE timetable;
`;
