import { num, one, type Tx } from './database/tx.js';

/** The next code of a series, such as P-1187. Holds the series' row until the transaction ends. */
export async function nextCode(tx: Tx, series: 'P' | 'S' | 'R' | 'H'): Promise<string> {
  // One statement makes the row or moves it on, so that the first two callers of a new series do not both begin it.
  await tx.query(
    'INSERT INTO number_series (name, next) VALUES (?, LAST_INSERT_ID(1) + 1) ON DUPLICATE KEY UPDATE next = LAST_INSERT_ID(next) + 1',
    [series],
  );
  const next = num((await one<{ next: string }>(tx, 'SELECT LAST_INSERT_ID() AS next'))?.next);
  return `${series}-${String(next).padStart(4, '0')}`;
}
