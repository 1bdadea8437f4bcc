import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { inTransaction, marks, Problem, remove, rows } from '../platform/index.js';
import { tokenHash } from './secrets.js';

/** Somebody or something that tries are counted for. */
export interface Counted {
  /** Kept as a hash: what was typed at the door is nobody's business. */
  who: string;
  /** So many tries cost nothing. */
  free: number;
  /** The longest wait, in seconds. */
  mostS: number;
}

/** The first wait, in seconds; each try beyond it doubles it. */
const FIRST_S = 15;
/** Tries longer ago than this are forgotten. */
const FORGOTTEN_MINUTES = 60;

/**
 * What a sign-in is counted for. Somebody who guesses at one account from one address is locked out there for long, and the
 * account itself for a minute at most, so that nobody can lock another out.
 */
export const signInTries = (account: string, address: string): Counted[] => [
  { who: `account ${account} at ${address}`, free: 6, mostS: 900 },
  { who: `account ${account}`, free: 20, mostS: 60 },
  { who: `address ${address}`, free: 100, mostS: 300 },
];
/** A PIN is short: the device on which it is guessed is locked soon. */
export const badgeTries = (badge: string, deviceId: number): Counted[] => [
  { who: `badge ${badge} on ${deviceId}`, free: 4, mostS: 900 },
  { who: `device ${deviceId}`, free: 10, mostS: 300 },
];
export const enrolTries = (address: string): Counted[] => [{ who: `enrol ${address}`, free: 20, mostS: 300 }];

/**
 * Tries at the door, counted in the database before the secret is looked at: of a thousand that come at once, no more get through
 * than of a thousand that come in turn, at however many servers.
 */
@Injectable()
export class Tries {
  constructor(private readonly source: DataSource) {}

  /** Counts a try; refuses it where one of those that it is counted for must wait. */
  async count(counted: readonly Counted[]): Promise<void> {
    const byHash = new Map(counted.map((c) => [tokenHash(c.who), c]));
    const hashes = [...byHash.keys()].sort();
    await inTransaction(this.source, async (tx) => {
      // Written at once for good: a row that is first read and then written is waited for by two in a circle.
      for (const who of hashes) await tx.query('INSERT INTO sign_in_try (who) VALUES (?) ON DUPLICATE KEY UPDATE who = who', [who]);
      const found = await rows<{ who: string; tries: number; isOld: number; waits: number | null }>(
        tx,
        `SELECT who, tries, last_at < UTC_TIMESTAMP(3) - INTERVAL ? MINUTE AS isOld, TIMESTAMPDIFF(SECOND, UTC_TIMESTAMP(3), locked_until) AS waits FROM sign_in_try WHERE who IN (${marks(hashes)}) ORDER BY who FOR UPDATE`,
        [FORGOTTEN_MINUTES, ...hashes],
      );
      const waits = Math.max(0, ...found.map((f) => Number(f.waits ?? 0)));
      if (waits > 0) throw tooMany(waits);
      for (const { who, tries, isOld } of found) {
        const now = isOld ? 1 : tries + 1;
        const { free = 0, mostS = 0 } = byHash.get(who) ?? {};
        const lockS = now < free ? 0 : Math.min(mostS, FIRST_S * 2 ** (now - free));
        await tx.query(
          'UPDATE sign_in_try SET tries = ?, last_at = UTC_TIMESTAMP(3), locked_until = IF(? = 0, NULL, UTC_TIMESTAMP(3) + INTERVAL ? SECOND) WHERE who = ?',
          [now, lockS, lockS, who],
        );
      }
    });
  }

  /** The secret was right: the account begins anew, and an address that others share is not held against them. */
  async right(counted: readonly Counted[]): Promise<void> {
    const [own] = counted.map((c) => tokenHash(c.who));
    const hashes = counted.map((c) => tokenHash(c.who)).sort();
    // In the order in which tries are counted, and again where the database lets another go first.
    await inTransaction(this.source, async (tx) => {
      for (const who of hashes)
        if (who === own) await remove(tx, 'sign_in_try', { who });
        else
          await tx.query('UPDATE sign_in_try SET tries = GREATEST(CAST(tries AS SIGNED) - 1, 0), locked_until = NULL WHERE who = ?', [who]);
    });
  }
}

function tooMany(seconds: number): Problem {
  const wait = seconds < 90 ? `${seconds} ${seconds === 1 ? 'second' : 'seconds'}` : `${Math.ceil(seconds / 60)} minutes`;
  return new Problem(429, 'sign-in', `Too many wrong tries. Wait ${wait}, or ask whoever sets up people`);
}
