import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Goods of a site that documents within the house hold until they are gathered: transfers and assemblies; and the order that a transfer is for. */
export class Earmarks1790000000052 implements MigrationInterface {
  name = 'Earmarks1790000000052';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

/** What was open before holds nothing yet; it is given what is free when that next changes. */
const UP = `
CREATE TABLE earmark (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  document VARCHAR(20) NOT NULL,
  line_id INT UNSIGNED NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  wanted_units INT UNSIGNED NOT NULL,
  units INT UNSIGNED NOT NULL DEFAULT 0,
  UNIQUE KEY uq_earmark (document, line_id),
  KEY ix_earmark_goods (site_id, item_id),
  CONSTRAINT ck_earmark_units CHECK (units <= wanted_units),
  CONSTRAINT fk_earmark_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_earmark_item FOREIGN KEY (item_id) REFERENCES item (id)
);
ALTER TABLE transfer ADD COLUMN order_id INT UNSIGNED NULL, ADD KEY ix_transfer_order (order_id), ADD CONSTRAINT fk_transfer_order FOREIGN KEY (order_id) REFERENCES sales_order (id);
INSERT INTO earmark (document, line_id, site_id, item_id, wanted_units)
  SELECT t.code, l.id, t.from_site_id, l.item_id, l.units - l.gathered_units FROM transfer t JOIN transfer_line l ON l.transfer_id = t.id
  WHERE t.state IN ('requested','gathering') AND l.units > l.gathered_units;
INSERT INTO earmark (document, line_id, site_id, item_id, wanted_units)
  SELECT b.code, p.id, b.site_id, p.item_id, p.units - p.gathered_units FROM build b JOIN build_part p ON p.build_id = b.id
  WHERE b.state IN ('planned','gathering') AND p.units > p.gathered_units;
`;

const DOWN = `
ALTER TABLE transfer DROP FOREIGN KEY fk_transfer_order, DROP KEY ix_transfer_order, DROP COLUMN order_id;
UPDATE site_stock s JOIN (SELECT site_id, item_id, SUM(units) AS units FROM earmark GROUP BY site_id, item_id) e ON e.site_id = s.site_id AND e.item_id = s.item_id SET s.reserved = s.reserved - e.units;
DROP TABLE earmark;
`;
