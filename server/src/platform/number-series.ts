import { num, one, type Tx } from './database/tx.js';

/** The series of documents, by the letter before their number. */
export const SERIES = {
  P: 'Purchase orders',
  A: 'Arrivals',
  Q: 'Inspections',
  B: 'Bills',
  S: 'Sales orders',
  R: 'Rounds',
  H: 'Hand-overs',
  Z: 'Returns to suppliers',
  I: 'Invoices',
  C: 'Credit notes',
  J: 'Exports of the journal',
  G: 'Returns of customers',
  N: 'Counts',
  T: 'Transfers between sites',
  K: 'Assemblies',
} as const;
export type SeriesName = keyof typeof SERIES;

/** How a document of a series is called: P-1187. */
export const seriesCode = (series: SeriesName, number: number) => `${series}-${String(number).padStart(4, '0')}`;

/** The next number of a series. Holds the series' row until the transaction ends. */
export async function nextNumber(tx: Tx, series: string): Promise<number> {
  // One statement makes the row or moves it on, so that the first two callers of a new series do not both begin it.
  await tx.query(
    'INSERT INTO number_series (name, next) VALUES (?, LAST_INSERT_ID(1) + 1) ON DUPLICATE KEY UPDATE next = LAST_INSERT_ID(next) + 1',
    [series],
  );
  return num((await one<{ next: string }>(tx, 'SELECT LAST_INSERT_ID() AS next'))?.next);
}

/** The next code of a series, such as P-1187. */
export async function nextCode(tx: Tx, series: SeriesName): Promise<string> {
  return seriesCode(series, await nextNumber(tx, series));
}

/** Says which number of a series comes next. */
export async function setNextNumber(tx: Tx, series: SeriesName, next: number): Promise<void> {
  await tx.query('INSERT INTO number_series (name, next) VALUES (?, ?) ON DUPLICATE KEY UPDATE next = VALUES(next)', [series, next]);
}
