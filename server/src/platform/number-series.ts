import { one, type Tx } from './database/tx.js';

/** The next code of a series, such as P-1187. Holds the series' row until the transaction ends. */
export async function nextCode(tx: Tx, series: 'P' | 'S' | 'R' | 'H'): Promise<string> {
  const row = await one<{ next: number }>(tx, 'SELECT next FROM number_series WHERE name = ? FOR UPDATE', [series]);
  const next = row?.next ?? 1;
  await tx.query('INSERT INTO number_series (name, next) VALUES (?, ?) ON DUPLICATE KEY UPDATE next = VALUES(next)', [series, next + 1]);
  return `${series}-${String(next).padStart(4, '0')}`;
}
