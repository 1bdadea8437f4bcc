import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/**
 * What channels say and are told: every exchange as it came, an order as its channel said it last, the sites that a channel
 * sells from, what it was told of each listing and what it believes. Kits on orders are picked by their parts.
 */
export class Connectors1790000000028 implements MigrationInterface {
  name = 'Connectors1790000000028';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  async down(runner: QueryRunner): Promise<void> {
    await dropAll(runner, ['channel_exchange', 'channel_site']);
    await runAll(runner, DOWN);
  }
}

const UP = `
ALTER TABLE sales_order ADD COLUMN channel_said MEDIUMTEXT NULL, ADD COLUMN channel_revision BIGINT UNSIGNED NULL;
ALTER TABLE sales_order_line ADD COLUMN kit_line INT UNSIGNED NULL;
ALTER TABLE channel
  ADD COLUMN share_percent INT UNSIGNED NOT NULL DEFAULT 100,
  ADD COLUMN scarce_under INT UNSIGNED NOT NULL DEFAULT 0,
  ADD COLUMN paused TINYINT(1) NOT NULL DEFAULT 0,
  ADD COLUMN next_poll_at DATETIME(3) NULL,
  ADD COLUMN next_push_at DATETIME(3) NULL,
  ADD COLUMN push_tries INT UNSIGNED NOT NULL DEFAULT 0,
  ADD COLUMN push_error VARCHAR(300) NULL,
  ADD COLUMN answered_at DATETIME(3) NULL;
CREATE TABLE channel_site (
  channel_id INT UNSIGNED NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  PRIMARY KEY (channel_id, site_id),
  CONSTRAINT fk_channel_site_channel FOREIGN KEY (channel_id) REFERENCES channel (id) ON DELETE CASCADE,
  CONSTRAINT fk_channel_site_site FOREIGN KEY (site_id) REFERENCES site (id)
);
INSERT INTO channel_site (channel_id, site_id) SELECT id, site_id FROM channel;
ALTER TABLE listing
  ADD COLUMN due TINYINT(1) NOT NULL DEFAULT 1,
  ADD COLUMN told_at DATETIME(3) NULL,
  ADD COLUMN believed_units INT NULL,
  ADD COLUMN believed_at DATETIME(3) NULL,
  ADD KEY ix_listing_due (due, channel_id);
CREATE TABLE channel_exchange (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  channel_id INT UNSIGNED NOT NULL,
  at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  direction VARCHAR(3) NOT NULL CHECK (direction IN ('in','out')),
  what VARCHAR(20) NOT NULL,
  ref VARCHAR(60) NULL,
  went VARCHAR(10) NOT NULL CHECK (went IN ('well','again','parked','failed')),
  detail VARCHAR(300) NOT NULL DEFAULT '',
  raw MEDIUMTEXT NULL,
  KEY ix_channel_exchange (channel_id, id),
  KEY ix_channel_exchange_at (at),
  CONSTRAINT fk_channel_exchange FOREIGN KEY (channel_id) REFERENCES channel (id)
);
UPDATE outbox SET kind = 'channel.shipment' WHERE kind = 'shop.shipment' AND state <> 'done';
UPDATE outbox SET state = 'done' WHERE kind = 'shop.stock' AND state <> 'done';
`;

const DOWN = `
ALTER TABLE listing DROP KEY ix_listing_due, DROP COLUMN due, DROP COLUMN told_at, DROP COLUMN believed_units, DROP COLUMN believed_at;
ALTER TABLE channel
  DROP COLUMN share_percent, DROP COLUMN scarce_under, DROP COLUMN paused, DROP COLUMN next_poll_at, DROP COLUMN next_push_at,
  DROP COLUMN push_tries, DROP COLUMN push_error, DROP COLUMN answered_at;
ALTER TABLE sales_order_line DROP COLUMN kit_line;
ALTER TABLE sales_order DROP COLUMN channel_said, DROP COLUMN channel_revision;
`;
