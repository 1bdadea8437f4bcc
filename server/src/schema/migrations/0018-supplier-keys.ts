import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Suppliers whose systems send documents by themselves, under a key. */
export class SupplierKeys1790000000018 implements MigrationInterface {
  name = 'SupplierKeys1790000000018';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
ALTER TABLE supplier ADD document_key VARCHAR(80) NULL;
ALTER TABLE supplier_document MODIFY person_id INT UNSIGNED NULL;
`;

const DOWN = `
DELETE FROM supplier_document WHERE person_id IS NULL;
ALTER TABLE supplier_document MODIFY person_id INT UNSIGNED NOT NULL;
ALTER TABLE supplier DROP COLUMN document_key;
`;
