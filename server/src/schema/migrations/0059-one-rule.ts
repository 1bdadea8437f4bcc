import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Of one thing at one place there is one rule for buying, also where two people write it at the same moment. */
export class OneRule1790000000059 implements MigrationInterface {
  name = 'OneRule1790000000059';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
DELETE later FROM buying_rule later JOIN buying_rule first ON first.item_id <=> later.item_id AND first.class <=> later.class AND first.site_id <=> later.site_id AND first.id < later.id;
ALTER TABLE buying_rule ADD COLUMN rule_of VARCHAR(70) AS (CONCAT(COALESCE(item_id, 0), '/', COALESCE(site_id, 0), '/', COALESCE(class, ''))) VIRTUAL;
ALTER TABLE buying_rule ADD UNIQUE KEY uq_buying_rule (rule_of);
`;

const DOWN = `
ALTER TABLE buying_rule DROP KEY uq_buying_rule;
ALTER TABLE buying_rule DROP COLUMN rule_of;
`;
