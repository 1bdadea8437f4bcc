import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** A round may be walked with a cart, on which its totes stand. */
export class Carts1790000000056 implements MigrationInterface {
  name = 'Carts1790000000056';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
ALTER TABLE \`round\` ADD COLUMN cart_id INT UNSIGNED NULL;
ALTER TABLE \`round\` ADD CONSTRAINT fk_round_cart FOREIGN KEY (cart_id) REFERENCES place (id);
`;

// What stands on a cart stands where the cart does: a house that knows no carts finds its totes at their table.
const DOWN = `
UPDATE place t JOIN place c ON c.id = t.parent_id AND c.kind = 'cart' SET t.parent_id = c.parent_id WHERE t.kind = 'tote';
ALTER TABLE \`round\` DROP FOREIGN KEY fk_round_cart;
ALTER TABLE \`round\` DROP COLUMN cart_id;
`;
