import type { Tx } from '../platform/index.js';

/** Keeps a value under a name, for a module that has choices of its own beside the company's. */
export async function keepSetting(tx: Pick<Tx, 'query'>, name: string, value: unknown): Promise<void> {
  await tx.query('INSERT INTO setting (name, value) VALUES (?, ?) ON DUPLICATE KEY UPDATE value = VALUES(value)', [
    name,
    JSON.stringify(value),
  ]);
}
