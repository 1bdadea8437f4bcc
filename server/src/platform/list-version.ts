import { one, type Tx } from './database/tx.js';
import { mustMatch } from './version.js';

/** The version of a list that is replaced as a whole, such as the tax rates; 1 until it was first changed. */
export async function listVersion(tx: Pick<Tx, 'query'>, name: string): Promise<number> {
  return (await one<{ version: number }>(tx, 'SELECT version FROM list_version WHERE name = ?', [name]))?.version ?? 1;
}

/** Takes hold of a list, so that whoever changes it too waits for this transaction; returns its version. */
export async function holdList(tx: Tx, name: string): Promise<number> {
  await tx.query('INSERT IGNORE INTO list_version (name, version) VALUES (?, 1)', [name]);
  return (await one<{ version: number }>(tx, 'SELECT version FROM list_version WHERE name = ? FOR UPDATE', [name]))?.version ?? 1;
}

/** Takes hold of a list that is to be replaced from the version that was seen. Problem 412 where it has moved on since. */
export async function replaceList(tx: Tx, name: string, seen: number): Promise<void> {
  mustMatch(await holdList(tx, name), seen);
  await tx.query('UPDATE list_version SET version = version + 1 WHERE name = ?', [name]);
}
