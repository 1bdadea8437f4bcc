import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/**
 * What years bring together is found by indexes of its own: orders by when they left, by their channel's number and their
 * customer; what is cleared, by its age. Documents of suppliers that cannot be taken in are kept.
 */
export class Years1790000000026 implements MigrationInterface {
  name = 'Years1790000000026';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  async down(runner: QueryRunner): Promise<void> {
    await dropAll(runner, ['unread_document']);
    await runAll(runner, DOWN);
  }
}

const UP = `
CREATE TABLE unread_document (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  supplier_id INT UNSIGNED NOT NULL,
  hash CHAR(64) NOT NULL,
  document MEDIUMBLOB NOT NULL,
  why VARCHAR(300) NOT NULL,
  came_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  state VARCHAR(10) NOT NULL DEFAULT 'waiting',
  settled_by INT UNSIGNED NULL,
  settled_at DATETIME(3) NULL,
  settled_why VARCHAR(200) NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY uq_unread_document (supplier_id, hash),
  KEY ix_unread_document_state (state, id),
  CONSTRAINT fk_unread_document_supplier FOREIGN KEY (supplier_id) REFERENCES supplier (id),
  CONSTRAINT ck_unread_document_state CHECK (state IN ('waiting','taken-in','set-aside'))
);
ALTER TABLE command ADD KEY ix_command_server_at (server_at);
ALTER TABLE sales_order ADD KEY ix_sales_order_shipped (state, shipped_at, id), ADD KEY ix_sales_order_ref (channel_ref), ADD KEY ix_sales_order_email (email, id), ADD FULLTEXT KEY ft_sales_order_customer (customer);
ALTER TABLE outbox ADD KEY ix_outbox_kind (kind, state, id);
ALTER TABLE movement DROP KEY ix_movement_at, ADD KEY ix_movement_at (server_at, from_place_id, to_place_id);
ALTER TABLE activity ADD KEY ix_activity_undone (undone_by);
ALTER TABLE item ADD KEY ix_item_find (name, sku);
`;

const DOWN = `
ALTER TABLE activity DROP KEY ix_activity_undone;
ALTER TABLE item DROP KEY ix_item_find;
ALTER TABLE movement DROP KEY ix_movement_at, ADD KEY ix_movement_at (server_at);
ALTER TABLE outbox DROP KEY ix_outbox_kind;
ALTER TABLE sales_order DROP KEY ix_sales_order_shipped, DROP KEY ix_sales_order_ref, DROP KEY ix_sales_order_email, DROP KEY ft_sales_order_customer;
ALTER TABLE command DROP KEY ix_command_server_at;
`;
