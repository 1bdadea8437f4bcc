import { BLOCK, isPrepared } from './prepared.js';

export type Heard = (fault: { code?: string } | null, ...more: unknown[]) => void;

/** A statement as a connection is to send it. */
export interface Asked {
  sql: string;
  params: unknown;
  /** In milliseconds; none where it may take as long as it needs. */
  timeout: number | undefined;
  isPrepared: boolean;
}
type Send = (asked: Asked, heard: Heard) => unknown;

const BEGINS = /^(START TRANSACTION|SET TRANSACTION ISOLATION LEVEL [A-Z ]+)$/;
const ENDS = new Set(['COMMIT', 'ROLLBACK']);
const READS = /^\s*SELECT\b/i;

/**
 * Begins a connection's transactions with their first statement, since a trip takes a third of what a small transaction does:
 * where that is a prepared block or a prepared reading, the two are one; else it is sent just before. A transaction that asks
 * nothing is never begun.
 */
export function begunTogether(send: Send): Send {
  let held: Asked[] = [];
  return (asked, heard) => {
    const { sql } = asked;
    if (BEGINS.test(sql)) {
      held.push(asked);
      return done(heard);
    }
    if (held.length === 0) return send(asked, heard);
    const before = held;
    held = [];
    if (ENDS.has(sql)) return done(heard);
    const begin = `${BLOCK} ${before.map((b) => b.sql).join('; ')};`;
    if (asked.isPrepared && sql.startsWith(BLOCK)) return send({ ...asked, sql: `${begin}${sql.slice(BLOCK.length)}` }, heard);
    if (asked.isPrepared && READS.test(sql))
      return send({ ...asked, sql: `${begin} ${sql}; END` }, (fault, answers, ...more) =>
        heard(fault, fault ? answers : (answers as unknown[])[0], ...more),
      );
    return oneByOne(send, [...before, asked], heard);
  };
}

/** Sends one after the other, and none after one that failed; the last one's answer is heard. */
function oneByOne(send: Send, [first, ...others]: readonly Asked[], heard: Heard): void {
  if (first) send(first, others.length === 0 ? heard : (fault) => (fault ? heard(fault) : oneByOne(send, others, heard)));
}

/** What the driver was given to ask. */
export function askedOf(given: string | { sql: string; timeout?: number }, params: unknown): Asked {
  const { sql, timeout } = typeof given === 'string' ? { sql: given, timeout: undefined } : given;
  return { sql, params, timeout, isPrepared: isPrepared(sql, params) };
}

/** As the database answers what has no rows. */
const done = (heard: Heard) => heard(null, { affectedRows: 0, insertId: 0 });
