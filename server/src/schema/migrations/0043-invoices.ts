import type { MigrationInterface, QueryRunner } from 'typeorm';
import { runAll } from './run.js';

/** Invoices and credit notes to customers, what is paid of them, and the journal's way into the company's own books. */
export class Invoices1790000000043 implements MigrationInterface {
  name = 'Invoices1790000000043';

  up(runner: QueryRunner): Promise<void> {
    return runAll(runner, UP);
  }

  down(runner: QueryRunner): Promise<void> {
    return runAll(runner, DOWN);
  }
}

const UP = `
ALTER TABLE customer ADD COLUMN tax_code VARCHAR(12) NULL, ADD COLUMN tax_number VARCHAR(30) NOT NULL DEFAULT '';
ALTER TABLE channel ADD COLUMN prices_hold_tax TINYINT(1) NOT NULL DEFAULT 0;
CREATE TABLE invoice (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  code VARCHAR(20) NOT NULL,
  kind VARCHAR(8) NOT NULL,
  site_id INT UNSIGNED NOT NULL,
  customer_id INT UNSIGNED NULL,
  name VARCHAR(120) NOT NULL,
  email VARCHAR(190) NOT NULL DEFAULT '',
  address_line VARCHAR(190) NOT NULL DEFAULT '',
  city VARCHAR(80) NOT NULL DEFAULT '',
  postcode VARCHAR(20) NOT NULL DEFAULT '',
  country CHAR(2) NOT NULL DEFAULT '',
  tax_number VARCHAR(30) NOT NULL DEFAULT '',
  currency CHAR(3) NOT NULL,
  prices_hold_tax TINYINT(1) NOT NULL DEFAULT 0,
  issued_on DATE NOT NULL,
  due_on DATE NOT NULL,
  note VARCHAR(300) NOT NULL DEFAULT '',
  net DECIMAL(18,2) NOT NULL,
  tax DECIMAL(18,2) NOT NULL,
  gross DECIMAL(18,2) NOT NULL,
  paid DECIMAL(18,2) NOT NULL DEFAULT 0,
  open_amount DECIMAL(18,2) AS (gross - paid) PERSISTENT,
  credits_id INT UNSIGNED NULL,
  reopens TINYINT(1) NOT NULL DEFAULT 0,
  posted_by INT UNSIGNED NOT NULL,
  posted_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  sent_at DATETIME(3) NULL,
  UNIQUE KEY uq_invoice_code (code),
  KEY ix_invoice_customer (customer_id, id),
  KEY ix_invoice_open (open_amount, due_on),
  KEY ix_invoice_credits (credits_id),
  CONSTRAINT fk_invoice_site FOREIGN KEY (site_id) REFERENCES site (id),
  CONSTRAINT fk_invoice_customer FOREIGN KEY (customer_id) REFERENCES customer (id),
  CONSTRAINT fk_invoice_credits FOREIGN KEY (credits_id) REFERENCES invoice (id),
  CONSTRAINT fk_invoice_person FOREIGN KEY (posted_by) REFERENCES person (id),
  CONSTRAINT ck_invoice_kind CHECK (kind = 'invoice' AND credits_id IS NULL OR kind = 'credit' AND credits_id IS NOT NULL),
  CONSTRAINT ck_invoice_sums CHECK (net + tax = gross)
);
CREATE TABLE invoice_line (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  invoice_id INT UNSIGNED NOT NULL,
  line INT UNSIGNED NOT NULL,
  order_line_id INT UNSIGNED NULL,
  credits_line_id INT UNSIGNED NULL,
  sku VARCHAR(40) NOT NULL DEFAULT '',
  name VARCHAR(160) NOT NULL,
  units INT UNSIGNED NOT NULL,
  factor INT UNSIGNED NOT NULL DEFAULT 1,
  pack VARCHAR(30) NOT NULL DEFAULT '',
  price DECIMAL(18,6) NOT NULL,
  discount_percent DECIMAL(6,3) NOT NULL DEFAULT 0,
  amount DECIMAL(18,2) NOT NULL,
  net DECIMAL(18,2) NOT NULL,
  tax_code VARCHAR(12) NOT NULL DEFAULT '',
  tax_percent DECIMAL(7,4) NOT NULL DEFAULT 0,
  UNIQUE KEY uq_invoice_line (invoice_id, line),
  KEY ix_invoice_line_order (order_line_id),
  KEY ix_invoice_line_credits (credits_line_id),
  CONSTRAINT fk_invoice_line_invoice FOREIGN KEY (invoice_id) REFERENCES invoice (id),
  CONSTRAINT fk_invoice_line_order FOREIGN KEY (order_line_id) REFERENCES sales_order_line (id),
  CONSTRAINT fk_invoice_line_credits FOREIGN KEY (credits_line_id) REFERENCES invoice_line (id)
);
CREATE TABLE payment (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  paid_on DATE NOT NULL,
  amount DECIMAL(18,2) NOT NULL,
  used DECIMAL(18,2) NOT NULL DEFAULT 0,
  free_amount DECIMAL(18,2) AS (amount - used) PERSISTENT,
  says VARCHAR(300) NOT NULL DEFAULT '',
  bank_ref VARCHAR(60) NULL,
  noted_by INT UNSIGNED NOT NULL,
  noted_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  taken_back_at DATETIME(3) NULL,
  UNIQUE KEY uq_payment_bank (bank_ref),
  KEY ix_payment_free (free_amount),
  CONSTRAINT fk_payment_person FOREIGN KEY (noted_by) REFERENCES person (id),
  CONSTRAINT ck_payment CHECK (amount > 0 AND used >= 0 AND used <= amount)
);
CREATE TABLE payment_share (
  payment_id INT UNSIGNED NOT NULL,
  invoice_id INT UNSIGNED NOT NULL,
  amount DECIMAL(18,2) NOT NULL,
  PRIMARY KEY (payment_id, invoice_id),
  KEY ix_payment_share_invoice (invoice_id),
  CONSTRAINT fk_payment_share_payment FOREIGN KEY (payment_id) REFERENCES payment (id),
  CONSTRAINT fk_payment_share_invoice FOREIGN KEY (invoice_id) REFERENCES invoice (id)
);
CREATE TABLE own_account (
  account VARCHAR(24) PRIMARY KEY,
  number VARCHAR(20) NOT NULL,
  name VARCHAR(80) NOT NULL DEFAULT ''
);
CREATE TABLE journal_export (
  id INT UNSIGNED PRIMARY KEY AUTO_INCREMENT,
  code VARCHAR(20) NOT NULL,
  through_on DATE NOT NULL,
  entries INT UNSIGNED NOT NULL,
  amount DECIMAL(20,6) NOT NULL,
  made_by INT UNSIGNED NOT NULL,
  made_at DATETIME(3) NOT NULL DEFAULT UTC_TIMESTAMP(3),
  UNIQUE KEY uq_journal_export (code),
  CONSTRAINT fk_journal_export_person FOREIGN KEY (made_by) REFERENCES person (id)
);
ALTER TABLE value_entry ADD COLUMN invoice_id INT UNSIGNED NULL, ADD COLUMN payment_id INT UNSIGNED NULL, ADD COLUMN export_id INT UNSIGNED NULL,
  ADD KEY ix_value_entry_export (export_id, id), ADD KEY ix_value_entry_invoice (invoice_id),
  ADD CONSTRAINT fk_value_entry_invoice FOREIGN KEY (invoice_id) REFERENCES invoice (id),
  ADD CONSTRAINT fk_value_entry_payment FOREIGN KEY (payment_id) REFERENCES payment (id),
  ADD CONSTRAINT fk_value_entry_export FOREIGN KEY (export_id) REFERENCES journal_export (id);
`;

const DOWN = `
DELETE FROM value_entry WHERE invoice_id IS NOT NULL OR payment_id IS NOT NULL;
ALTER TABLE value_entry DROP FOREIGN KEY fk_value_entry_invoice, DROP FOREIGN KEY fk_value_entry_payment, DROP FOREIGN KEY fk_value_entry_export,
  DROP KEY ix_value_entry_export, DROP KEY ix_value_entry_invoice, DROP COLUMN invoice_id, DROP COLUMN payment_id, DROP COLUMN export_id;
DROP TABLE journal_export;
DROP TABLE own_account;
DROP TABLE payment_share;
DROP TABLE payment;
DROP TABLE invoice_line;
DROP TABLE invoice;
ALTER TABLE channel DROP COLUMN prices_hold_tax;
ALTER TABLE customer DROP COLUMN tax_code, DROP COLUMN tax_number;
`;
