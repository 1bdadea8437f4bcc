import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dropAll, runAll } from './run.js';

/**
 * The floor's codes by version: every change of an item or a place that phones know by its codes marks it, in the transaction
 * that makes it and whoever makes it. And what came too late from a phone without network, until somebody answers it.
 */
export class Floor1790000000019 implements MigrationInterface {
  name = 'Floor1790000000019';

  async up(runner: QueryRunner): Promise<void> {
    await runAll(runner, UP);
    for (const [name, event, marks] of TRIGGERS) await runner.query(`CREATE TRIGGER ${name} AFTER ${event} FOR EACH ROW ${marks}`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const [name] of TRIGGERS) await runner.query(`DROP TRIGGER IF EXISTS ${name}`);
    await runAll(runner, DOWN);
    await dropAll(runner, ['floor_question', 'book_head', 'book_change']);
  }
}

/** Marks a thing as changed; the next reader of the book gives it a version. */
const mark = (kind: 'item' | 'place', ref: string, when = '1 = 1') =>
  `INSERT INTO book_change (kind, ref) SELECT '${kind}', ${ref} FROM DUAL WHERE ${when} ON DUPLICATE KEY UPDATE version = NULL`;
const differs = (...columns: string[]) => `NOT (${columns.map((c) => `OLD.${c} <=> NEW.${c}`).join(' AND ')})`;
const byPack = (row: 'OLD' | 'NEW') =>
  `INSERT INTO book_change (kind, ref) SELECT 'item', u.item_id FROM pack_unit u WHERE u.id = ${row}.pack_unit_id ON DUPLICATE KEY UPDATE version = NULL`;
const listed = (row: 'OLD' | 'NEW') => `${row}.site_id IS NOT NULL AND ${row}.kind NOT IN ('site','zone','parcel')`;

const TRIGGERS: readonly (readonly [name: string, event: string, marks: string])[] = [
  ['tr_book_item_new', 'INSERT ON item', mark('item', 'NEW.id')],
  ['tr_book_item', 'UPDATE ON item', mark('item', 'NEW.id', differs('sku', 'name', 'picture', 'tracking', 'storage', 'min_life_days'))],
  ['tr_book_item_gone', 'DELETE ON item', mark('item', 'OLD.id')],
  ['tr_book_pack_new', 'INSERT ON pack_unit', mark('item', 'NEW.item_id')],
  ['tr_book_pack', 'UPDATE ON pack_unit', mark('item', 'NEW.item_id', differs('name', 'plural', 'factor'))],
  ['tr_book_pack_gone', 'DELETE ON pack_unit', mark('item', 'OLD.item_id')],
  ['tr_book_barcode_new', 'INSERT ON barcode', byPack('NEW')],
  ['tr_book_barcode', 'UPDATE ON barcode', byPack('NEW')],
  ['tr_book_barcode_gone', 'DELETE ON barcode', byPack('OLD')],
  ['tr_book_home_new', 'INSERT ON item_site', mark('item', 'NEW.item_id', 'NEW.home_place_id IS NOT NULL')],
  ['tr_book_home', 'UPDATE ON item_site', mark('item', 'NEW.item_id', differs('home_place_id'))],
  ['tr_book_home_gone', 'DELETE ON item_site', mark('item', 'OLD.item_id', 'OLD.home_place_id IS NOT NULL')],
  ['tr_book_place_new', 'INSERT ON place', mark('place', 'NEW.id', listed('NEW'))],
  [
    'tr_book_place',
    'UPDATE ON place',
    mark('place', 'NEW.id', `(${listed('NEW')} OR ${listed('OLD')}) AND ${differs('code', 'kind', 'site_id', 'blocked', 'parent_id')}`),
  ],
  [
    'tr_book_zone',
    'UPDATE ON place',
    `INSERT INTO book_change (kind, ref) SELECT 'place', p.id FROM place p WHERE p.parent_id = NEW.id AND NEW.kind = 'zone' AND ${differs('rule')} ON DUPLICATE KEY UPDATE version = NULL`,
  ],
  ['tr_book_place_gone', 'DELETE ON place', mark('place', 'OLD.id', listed('OLD'))],
];

const UP = `
CREATE TABLE book_change (
  kind VARCHAR(5) NOT NULL,
  ref INT UNSIGNED NOT NULL,
  version BIGINT UNSIGNED NULL,
  PRIMARY KEY (kind, ref),
  KEY ix_book_change_version (version)
);
CREATE TABLE book_head (
  id TINYINT PRIMARY KEY,
  version BIGINT UNSIGNED NOT NULL
);
INSERT INTO book_head (id, version) VALUES (1, 1);
INSERT INTO book_change (kind, ref, version) SELECT 'item', id, 1 FROM item;
INSERT INTO book_change (kind, ref, version) SELECT 'place', id, 1 FROM place WHERE site_id IS NOT NULL AND kind NOT IN ('site','zone','parcel');
ALTER TABLE command ADD sent_by INT UNSIGNED NULL AFTER person_id;
CREATE TABLE floor_question (
  id CHAR(36) PRIMARY KEY,
  kind VARCHAR(20) NOT NULL,
  command JSON NOT NULL,
  site_id INT UNSIGNED NULL,
  document VARCHAR(40) NULL,
  person_id INT UNSIGNED NOT NULL,
  device_id INT UNSIGNED NULL,
  made_at DATETIME(3) NOT NULL,
  raised_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  what VARCHAR(200) NOT NULL,
  title VARCHAR(200) NOT NULL,
  detail VARCHAR(400) NOT NULL,
  answer VARCHAR(10) NULL,
  answered_by INT UNSIGNED NULL,
  answered_at DATETIME(3) NULL,
  KEY ix_floor_question_open (answered_at, raised_at),
  KEY ix_floor_question_person (person_id, answered_at),
  CONSTRAINT fk_floor_question_person FOREIGN KEY (person_id) REFERENCES person (id),
  CONSTRAINT ck_floor_question CHECK ((answer IS NULL) = (answered_at IS NULL))
);
`;

const DOWN = `
ALTER TABLE command DROP COLUMN sent_by;
`;
