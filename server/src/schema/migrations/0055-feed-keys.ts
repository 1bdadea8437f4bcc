import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Keys by which other programs read lists, each with the sight of whoever made it. Only the hash of a key is kept. */
export class FeedKeys1790000000055 implements MigrationInterface {
  name = 'FeedKeys1790000000055';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, 'DROP TABLE feed_key;');
  }
}

const UP = `
CREATE TABLE feed_key (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(60) NOT NULL,
  person_id INT UNSIGNED NOT NULL,
  key_hash CHAR(64) NOT NULL,
  made_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  used_at DATETIME(3) NULL,
  UNIQUE KEY uq_feed_key (key_hash),
  CONSTRAINT fk_feed_key_person FOREIGN KEY (person_id) REFERENCES person (id)
);
`;
