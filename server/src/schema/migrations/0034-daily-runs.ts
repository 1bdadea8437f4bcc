import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Rules by which orders are sent to picking every day. */
export class DailyRuns1790000000034 implements MigrationInterface {
  name = 'DailyRuns1790000000034';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
CREATE TABLE daily_run (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  site_id INT UNSIGNED NOT NULL,
  runs_at TIME NOT NULL,
  van_at TIME NULL,
  channel_id INT UNSIGNED NULL,
  most_stops INT UNSIGNED NULL,
  pooled TINYINT NOT NULL DEFAULT 0,
  active TINYINT NOT NULL DEFAULT 1,
  person_id INT UNSIGNED NOT NULL,
  last_on DATE NULL,
  last_at DATETIME(3) NULL,
  last_says VARCHAR(300) NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  KEY ix_daily_run_site (site_id, runs_at),
  CONSTRAINT fk_daily_run_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_daily_run_channel FOREIGN KEY (channel_id) REFERENCES channel (id),
  CONSTRAINT fk_daily_run_person FOREIGN KEY (person_id) REFERENCES person (id)
);
`;

const DOWN = `
DROP TABLE daily_run;
`;
