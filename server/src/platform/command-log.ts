import { createHash } from 'node:crypto';
import { preparedTogether } from './database/prepared.js';
import { update } from './database/write.js';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { Act } from './act.js';
import { inTransaction, isDuplicate, one, parsed, type Tx } from './database/tx.js';
import { Problem } from './problem.js';

interface StoredCommand {
  body_hash: string;
  result: unknown;
}

/** JSON with members in one order, so that equal requests have equal hashes. */
function canonical(value: unknown): string {
  return JSON.stringify(value, (_, v: unknown) =>
    v && typeof v === 'object' && !Array.isArray(v) && !(v instanceof Date)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v,
  );
}

/**
 * Carries out each command once. The key, the hash of what was asked and the answer are stored in the transaction that
 * does the work, so a command that was acknowledged is done, and one that is sent again gets the first answer. The row goes in
 * first: it finds out whether the key is new, and one who sends the same meanwhile waits for it.
 */
@Injectable()
export class CommandLog {
  constructor(private readonly source: DataSource) {}

  /** Runs `work` under the act's key. `name` and `asked` identify the request; another request under the key is refused with 422. */
  async run<T>(act: Act, name: string, asked: unknown, work: (tx: Tx) => Promise<T>): Promise<T> {
    const hash = createHash('sha256')
      .update(`${name}\n${canonical(asked)}`)
      .digest('hex');
    try {
      return await inTransaction(this.source, async (tx) => {
        await preparedTogether(tx, [
          {
            before: 'INSERT INTO command (id, name, body_hash, person_id, sent_by, device_id, device_at, done) VALUES',
            given: [[act.key, name, hash, act.person.id, act.sentBy ?? null, act.deviceId, act.deviceAt, 0]],
            after: 'RETURNING id',
          },
        ]);
        const result = await work(tx);
        await update(tx, 'command', { id: act.key }, { done: 1, result: JSON.stringify(result ?? null) });
        return JSON.parse(JSON.stringify(result ?? null)) as T;
      });
    } catch (thrown) {
      if (!isDuplicate(thrown)) throw thrown;
      const other = await this.stored(act.key, hash);
      if (other) return other.result as T;
      throw new Problem(409, 'taken', 'That code is already in use. Choose another');
    }
  }

  private async stored(key: string, hash: string): Promise<StoredCommand | undefined> {
    const found = await one<StoredCommand>(this.source, 'SELECT body_hash, result FROM command WHERE id = ?', [key]);
    if (found && found.body_hash !== hash) {
      throw new Problem(422, 'key-reused', 'This Idempotency-Key was used for another request. Make a new one');
    }
    return found && { ...found, result: parsed<unknown>(found.result) };
  }
}
