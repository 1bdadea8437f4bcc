import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Goods that the house uses itself leave it for a place of their own, beside scrap. */
export class OwnUse1790000000048 implements MigrationInterface {
  name = 'OwnUse1790000000048';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, kinds(`'own-use',`));
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, `UPDATE place SET kind = 'scrap' WHERE kind = 'own-use';${kinds('')}`);
  }
}

const kinds = (more: string) => `
ALTER TABLE place DROP CONSTRAINT ck_place_kind;
ALTER TABLE place ADD CONSTRAINT ck_place_kind CHECK (kind IN (${more}'site','zone','dock','inspection','pick-face','reserve','packing-table','sorting-wall','wall-slot','dispatch-lane','quarantine','counter','tote','cart','pallet','parcel','supplier','customer','count-difference','scrap','assembly','in-transit'));
`;
