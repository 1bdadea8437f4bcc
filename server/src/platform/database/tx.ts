import { type DataSource, type EntityManager, QueryFailedError } from 'typeorm';
import { Problem } from '../problem.js';

export type Tx = EntityManager;

const DEADLOCK = 1213;
const LOCK_TIMEOUT = 1205;
const DUPLICATE = 1062;
const REFERENCED = 1451;
const UNKNOWN_REFERENCE = 1452;
/** A deadlock's victim is tried this often before the caller is told that the house is busy. */
const TRIES = 8;

function errno(thrown: unknown): number | undefined {
  return thrown instanceof QueryFailedError ? (thrown.driverError as { errno?: number }).errno : undefined;
}

export const isDuplicate = (thrown: unknown) => errno(thrown) === DUPLICATE;
/** A row could not go because another names it. */
export const isReferenced = (thrown: unknown) => errno(thrown) === REFERENCED;
/** A row names another that is not there. */
export const isUnknownReference = (thrown: unknown) => errno(thrown) === UNKNOWN_REFERENCE;

/** What was known when the work began is not so any more: it is to be begun anew. */
export class TryAgain extends Error {}

const mayTryAgain = (thrown: unknown) => {
  const code = errno(thrown);
  return thrown instanceof TryAgain || code === DEADLOCK || code === LOCK_TIMEOUT;
};

/** Runs work in one transaction, under READ COMMITTED as every connection here is; deadlocks, lock time-outs and `TryAgain` are retried a bounded number of times. */
export async function inTransaction<T>(source: DataSource, work: (tx: Tx) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await source.transaction(work);
    } catch (thrown) {
      if (!mayTryAgain(thrown)) throw thrown;
      if (attempt >= TRIES) throw new Problem(503, 'busy', 'Many people are changing this at once. Nothing was changed; try again');
      await new Promise((resolve) => setTimeout(resolve, attempt * 15 * (1 + Math.random())));
    }
  }
}

/** Reads several things as they stood at one moment. */
export function inSnapshot<T>(source: DataSource, read: (tx: Tx) => Promise<T>): Promise<T> {
  return source.transaction('REPEATABLE READ', read);
}

/** Rows of a query, typed by the caller. Sums and counts come as text from the driver: see `num`. */
export function rows<T>(tx: Pick<Tx, 'query'>, sql: string, params: unknown[] = []): Promise<T[]> {
  return tx.query(sql, params);
}

export async function one<T>(tx: Pick<Tx, 'query'>, sql: string, params: unknown[] = []): Promise<T | undefined> {
  return (await rows<T>(tx, sql, params))[0];
}

/** A number that the driver may have given as text (COUNT, SUM, BIGINT). Absent is nought. */
export const num = (value: string | number | null | undefined) => Number(value ?? 0);

/** A JSON column's value: the driver hands it over parsed or as text, depending on how the server describes the column. */
export const parsed = <T>(value: unknown): T => (typeof value === 'string' ? JSON.parse(value) : value) as T;

/** A pattern for what begins with a word; an index serves it. */
export const likeBeginning = (word: string) => `${word.replace(/[\\%_]/g, '\\$&')}%`;

/** A word for LIKE with its own wildcards taken literally. */
export const likeAny = (word: string) => `%${word.replace(/[\\%_]/g, '\\$&')}%`;
