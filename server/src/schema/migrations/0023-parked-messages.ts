import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** Messages of channels that cannot be understood, kept as they came until somebody mends them or sets them aside. */
export class ParkedMessages1790000000023 implements MigrationInterface {
  name = 'ParkedMessages1790000000023';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return dropAll(runner, ['parked_message']);
  }
}

const UP = `
CREATE TABLE parked_message (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  channel_id INT UNSIGNED NOT NULL,
  came_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  raw MEDIUMTEXT NOT NULL,
  hash CHAR(64) NOT NULL,
  ref VARCHAR(60) NULL,
  why VARCHAR(500) NOT NULL,
  state VARCHAR(10) NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'taken-in', 'set-aside')),
  settled_why VARCHAR(200) NULL,
  order_code VARCHAR(20) NULL,
  settled_by INT UNSIGNED NULL,
  settled_at DATETIME(3) NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_parked_message (channel_id, hash),
  KEY ix_parked_message_ref (channel_id, ref, state),
  KEY ix_parked_message_state (state, came_at),
  CONSTRAINT fk_parked_message_channel FOREIGN KEY (channel_id) REFERENCES channel (id),
  CONSTRAINT fk_parked_message_person FOREIGN KEY (settled_by) REFERENCES person (id)
);
`;
