import type { QueryRunner } from 'typeorm';
import { num, one } from './tx.js';

/**
 * Does work while one connection holds a lock that has a name, then lets go of it. Whatever must happen once in a house, however
 * many servers there are, goes through here. Throws where the lock could not be had in `waitSeconds`: nothing was done.
 */
export async function underLock<T>(runner: QueryRunner, name: string, waitSeconds: number, work: () => Promise<T>): Promise<T> {
  const lock = await one<{ got: string | number | null }>(runner, 'SELECT GET_LOCK(?, ?) AS got', [name, waitSeconds]);
  if (num(lock?.got) !== 1)
    throw new Error(`Another server has held the lock ${name} for ${waitSeconds} seconds. See what it does, then start again`);
  try {
    return await work();
  } finally {
    await runner.query('SELECT RELEASE_LOCK(?)', [name]);
  }
}
