import type { DataSource } from 'typeorm';

/** A view for programs that read the database itself: what a row is, and the statement behind it. `db`: the house's database. */
interface Figure {
  says: string;
  sql: (db: string) => string;
}

/**
 * What other programs may read with SQL. No names or addresses of customers, no secrets; costs stand in a view of their own, `worth`,
 * so that a reader can be given the others without it.
 */
export const FIGURES: Readonly<Record<string, Figure>> = {
  stock: {
    says: 'an item at a site, with what is free of it',
    sql: (db) =>
      `SELECT s.code AS site, i.sku, i.name AS item, i.class, x.on_hand, x.held, x.reserved, x.on_hand - x.held - x.reserved AS available
       FROM ${db}.site_stock x JOIN ${db}.site s ON s.id = x.site_id JOIN ${db}.item i ON i.id = x.item_id`,
  },
  heaps: {
    says: 'goods of one lot and condition in one place',
    sql: (db) =>
      `SELECT s.code AS site, p.code AS place, p.kind, i.sku, l.code AS lot, l.expires_on, b.stock_condition, b.units
       FROM ${db}.balance b JOIN ${db}.place p ON p.id = b.place_id JOIN ${db}.site s ON s.id = p.site_id JOIN ${db}.item i ON i.id = b.item_id LEFT JOIN ${db}.lot l ON l.id = b.lot_id WHERE b.units > 0`,
  },
  movements: {
    says: 'units of a lot that went from one place to another',
    sql: (db) =>
      `SELECT m.id, m.server_at AS at, i.sku, l.code AS lot, m.stock_condition, m.units, f.code AS from_place, fs.code AS from_site, t.code AS to_place, ts.code AS to_site, m.task, m.document, m.reverses_id
       FROM ${db}.movement m JOIN ${db}.item i ON i.id = m.item_id JOIN ${db}.place f ON f.id = m.from_place_id JOIN ${db}.place t ON t.id = m.to_place_id
       LEFT JOIN ${db}.site fs ON fs.id = f.site_id LEFT JOIN ${db}.site ts ON ts.id = t.site_id LEFT JOIN ${db}.lot l ON l.id = m.lot_id`,
  },
  order_lines: {
    says: 'a line of an order, as far as it is',
    sql: (db) =>
      `SELECT o.code AS \`order\`, c.code AS channel, s.code AS site, o.state, o.country, o.placed_at, o.promised_at, o.shipped_at, o.cancelled_at, k.line, i.sku, k.units, k.picked_units, k.packed_units, k.shipped_units, k.price
       FROM ${db}.sales_order_line k JOIN ${db}.sales_order o ON o.id = k.order_id JOIN ${db}.channel c ON c.id = o.channel_id JOIN ${db}.site s ON s.id = o.site_id LEFT JOIN ${db}.item i ON i.id = k.item_id WHERE o.quoted = 0`,
  },
  purchase_lines: {
    says: 'a line of a purchase order, with what is still to come',
    sql: (db) =>
      `SELECT o.code AS \`order\`, v.code AS supplier, s.code AS site, o.state, o.created_at, o.placed_at, COALESCE(k.expected_on, o.expected_on) AS expected_on, k.line, i.sku, k.packs * k.factor AS units, k.received_units, k.open_units
       FROM ${db}.purchase_order_line k JOIN ${db}.purchase_order o ON o.id = k.order_id JOIN ${db}.supplier v ON v.id = o.supplier_id JOIN ${db}.site s ON s.id = o.site_id JOIN ${db}.item i ON i.id = k.item_id`,
  },
  demand: {
    says: 'units of an item that were asked for at a site in the week that begins on a Monday',
    sql: (db) =>
      `SELECT s.code AS site, i.sku, DATE('1969-12-29') + INTERVAL d.week WEEK AS monday, COALESCE(d.given_units, d.ordered_units) AS units
       FROM ${db}.demand_week d JOIN ${db}.site s ON s.id = d.site_id JOIN ${db}.item i ON i.id = d.item_id`,
  },
  plans: {
    says: 'how an item is bought for a site: its forecast of a week, its point to order and its size',
    sql: (db) =>
      `SELECT s.code AS site, i.sku, p.planned_on, p.method, p.week_mean, p.week_sd, p.point_units, p.size_units, p.safety_units, p.lead_days
       FROM ${db}.item_plan p JOIN ${db}.site s ON s.id = p.site_id JOIN ${db}.item i ON i.id = p.item_id`,
  },
  worth: {
    says: 'what an item costs the house, by its books: all units and their value, in the house’s own currency',
    sql: (db) => `SELECT i.sku, x.units, x.value FROM ${db}.cost_pool x JOIN ${db}.item i ON i.id = x.item_id`,
  },
};

/** The reader and the password go into statements that take no parameters: nothing but letters, digits and a few marks. */
const READER = /^[a-z][a-z0-9_]{0,30}$/;
const PASSWORD = /^[\w-]{16,80}$/;

/** Whether there is an account of that name, for whatever host, with rights beyond these figures. */
async function doesMore(source: DataSource, name: string, db: string): Promise<boolean> {
  const found = await source.query<unknown[]>(
    `SELECT 1 FROM information_schema.user_privileges WHERE grantee LIKE ? AND privilege_type <> 'USAGE'
     UNION SELECT 1 FROM information_schema.schema_privileges WHERE grantee LIKE ? AND table_schema <> ?
     UNION SELECT 1 FROM information_schema.table_privileges WHERE grantee LIKE ? AND table_schema <> ?`,
    [`'${name}'@%`, `'${name}'@%`, db, `'${name}'@%`, db],
  );
  return found.length > 0;
}

/**
 * Makes the views anew in a database beside the house's, named `{house}_figures`, and an account that reads them and nothing else.
 * Returns the database's name. Throws where a name or password could be taken for SQL, or the account is the house's own or another
 * program's: made anew, it would lose what it may.
 */
export async function openFigures(
  source: DataSource,
  house: string,
  reader: { name: string; password: string; own: string; seesWorth: boolean },
): Promise<string> {
  const { name, password, own, seesWorth } = reader;
  if (!READER.test(name) || name === own || name === 'root')
    throw new Error('Name the reader with up to 31 small letters, digits or _, and not like an account of the house');
  if (!PASSWORD.test(password)) throw new Error('Give the reader a password of 16 to 80 letters, digits, - or _');
  const db = `${house}_figures`;
  if (await doesMore(source, name, db))
    throw new Error(`There is an account ${name} that does more than read figures. Choose another name`);
  await source.query(`CREATE DATABASE IF NOT EXISTS \`${db}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  for (const [view, { sql }] of Object.entries(FIGURES))
    await source.query(`CREATE OR REPLACE VIEW \`${db}\`.\`${view}\` AS ${sql(`\`${house}\``)}`);
  await source.query(`CREATE OR REPLACE USER '${name}'@'%' IDENTIFIED BY '${password}'`);
  for (const view of Object.keys(FIGURES))
    if (seesWorth || view !== 'worth') await source.query(`GRANT SELECT ON \`${db}\`.\`${view}\` TO '${name}'@'%'`);
  return db;
}
