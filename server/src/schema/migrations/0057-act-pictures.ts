import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/** Pictures that people take of what they did with goods: used up, found damaged, counted otherwise than the books say. */
export class ActPictures1790000000057 implements MigrationInterface {
  name = 'ActPictures1790000000057';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return dropAll(runner, ['act_picture']);
  }
}

const UP = `
CREATE TABLE act_picture (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  command_id CHAR(36) NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  type VARCHAR(20) NOT NULL,
  picture MEDIUMBLOB NOT NULL,
  UNIQUE KEY uq_act_picture (command_id),
  KEY ix_act_picture_at (at),
  CONSTRAINT fk_act_picture_site FOREIGN KEY (site_id) REFERENCES site (id)
);
`;
