import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** How many units of an item there is room for: what is bought never comes to more. */
export class RoomForGoods1790000000063 implements MigrationInterface {
  name = 'RoomForGoods1790000000063';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, 'ALTER TABLE buying_rule ADD COLUMN room_units INT UNSIGNED NULL;');
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, 'ALTER TABLE buying_rule DROP COLUMN room_units;');
  }
}
