import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** The site at which a balance is: that of its place, which takes it along. A posting hears it from the row it changes, and asks no place. */
export class BalancesBySite1790000000062 implements MigrationInterface {
  name = 'BalancesBySite1790000000062';

  up(runner: QueryRunner): Promise<void> {
    return runAll(
      runner,
      `
      ALTER TABLE place ADD KEY ix_place_site (id, site_id);
      ALTER TABLE balance ADD COLUMN site_id INT UNSIGNED NULL;
      UPDATE balance b JOIN place p ON p.id = b.place_id SET b.site_id = p.site_id;
      ALTER TABLE balance ADD CONSTRAINT fk_balance_site FOREIGN KEY (place_id, site_id) REFERENCES place (id, site_id) ON UPDATE CASCADE;
      `,
    );
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(
      runner,
      `
      ALTER TABLE balance DROP CONSTRAINT fk_balance_site;
      ALTER TABLE balance DROP COLUMN site_id;
      ALTER TABLE place DROP KEY ix_place_site;
      `,
    );
  }
}
