import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Customers who are invoiced in a currency of their own: the books stay in the house's money, the document says the day's rate. */
export class CustomerCurrencies1790000000046 implements MigrationInterface {
  name = 'CustomerCurrencies1790000000046';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
ALTER TABLE customer ADD COLUMN currency CHAR(3) NULL;
ALTER TABLE payment ADD COLUMN gained DECIMAL(18,2) NOT NULL DEFAULT 0;
ALTER TABLE invoice ADD COLUMN shown_currency CHAR(3) NULL, ADD COLUMN shown_rate DECIMAL(18,8) NULL;
`;

const DOWN = `
ALTER TABLE payment DROP COLUMN gained;
ALTER TABLE invoice DROP COLUMN shown_currency, DROP COLUMN shown_rate;
ALTER TABLE customer DROP COLUMN currency;
`;
