import type { TableName } from './write.js';

/**
 * The order in which a transaction takes rows that others may want at the same time, table by table; within a table it goes by
 * their keys. Two that keep to it can wait for one another, but never in a circle. A table that was locked may be
 * locked again later; one that is not named here is guarded by its document, by the site's figure of the goods (earmarks), or, like the
 * number series, taken whenever a document is made; where two of those meet, the database lets one begin again.
 */
export const LOCK_ORDER: readonly TableName[] = [
  'activity',
  'floor_question',
  'purchase_order',
  'arrival',
  'inspection',
  'supplier_return',
  'customer_return',
  'bill',
  'round',
  'sales_order',
  'parcel',
  'place',
  'balance',
  'site_stock',
  'cost_pool',
  'cost_layer',
  'reservation',
];

/** What is wrong with locking rows of a table after those that a transaction holds already, in words; null where it may. */
export function lockFault(held: readonly TableName[], next: TableName): string | null {
  const rank = LOCK_ORDER.indexOf(next);
  if (rank === -1 || held.includes(next)) return null;
  const later = held.find((table) => LOCK_ORDER.indexOf(table) > rank);
  return later ? `${next} is locked after ${later}` : null;
}

const TABLE = '`?([a-z][a-z_]*)`?';
const NAMED = new RegExp(`\\b(?:FROM|JOIN) ${TABLE}`, 'g');
const CHANGED = new RegExp(`^\\s*(?:UPDATE|DELETE FROM) ${TABLE}`);
const UPSERT = new RegExp(`^\\s*INSERT INTO ${TABLE}[^]*ON DUPLICATE KEY UPDATE`);

/** A movement holds its places through its references, as if it had read them to keep them where they are. */
const REFERS = /^\s*INSERT INTO `?movement\b/;

/** Several statements in one trip. */
const BLOCK = /^BEGIN NOT ATOMIC ([^]*); END$/;

/** The tables in which a statement locks rows, in its own order: those it changes, and those it reads to change. */
export function locksOf(sql: string): string[] {
  const several = BLOCK.exec(sql)?.[1];
  if (several !== undefined) return several.split('; ').flatMap(locksOf);
  if (REFERS.test(sql)) return ['place'];
  const changed = CHANGED.exec(sql)?.[1] ?? UPSERT.exec(sql)?.[1];
  if (!/FOR UPDATE|LOCK IN SHARE MODE/.test(sql)) return changed ? [changed] : [];
  // What stands in brackets is read, not locked.
  let outer = sql;
  for (let before = ''; before !== outer;) [before, outer] = [outer, outer.replace(/\([^()]*\)/g, ' ')];
  return [...outer.matchAll(NAMED)].flatMap((m) => m[1] ?? []);
}
