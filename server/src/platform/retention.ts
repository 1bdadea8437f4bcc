import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { underLock } from './database/named-lock.js';
import { rows } from './database/tx.js';
import type { TableName } from './database/write.js';

/** For how long something is kept, by the name of the company's choice; `always` is what no choice prolongs, in days. */
export type KeptFor = 'keepDeliveries' | 'keepCommands' | 'keepImports' | 'keepTape' | { always: number };

export interface Kept {
  /** What it is, in the line that is logged. */
  what: string;
  keptFor: KeptFor;
  /** Clears what is older than that, and says how many that were. Runs beside everybody's work: a few rows at a time. */
  clear: (source: DataSource, before: Date) => Promise<number>;
}

const NIGHTLY = 'vectrum-nightly';
const DAY_MS = 86_400_000;
const AT_ONCE = 2_000;

/** What a house writes and need not keep for ever. Modules register what is theirs; the nightly job has it cleared. */
@Injectable()
export class Retention {
  private readonly all: Kept[] = [];

  constructor(private readonly source: DataSource) {}

  register(...kept: readonly Kept[]): void {
    this.all.push(...kept);
  }

  /** Clears everything that has been kept for its days; in one server of a house at a time. Returns how many of each. */
  async run(daysOf: (choice: Exclude<KeptFor, object>) => Promise<number>): Promise<Record<string, number>> {
    const runner = this.source.createQueryRunner();
    try {
      return await underLock(runner, NIGHTLY, 0, async () => {
        const cleared: Record<string, number> = {};
        for (const { what, keptFor, clear } of this.all) {
          const days = typeof keptFor === 'object' ? keptFor.always : await daysOf(keptFor);
          const n = await clear(this.source, new Date(Date.now() - days * DAY_MS));
          if (n > 0) cleared[what] = n;
        }
        return cleared;
      });
    } finally {
      await runner.release();
    }
  }
}

/**
 * Clears rows of a table whose ids go with time: from the oldest on, until one is younger. `only` narrows it. Rows are
 * deleted a few thousand at a time, each time in a transaction of its own.
 */
export async function clearByAge(source: DataSource, table: TableName, age: string, before: Date, only = '1 = 1'): Promise<number> {
  let cleared = 0;
  for (let after = 0; ;) {
    const found = await rows<{ id: number; old: number | string; fits: number | string }>(
      source,
      `SELECT id, \`${age}\` < ? AS old, (${only}) AS fits FROM \`${table}\` WHERE id > ? ORDER BY id LIMIT ${AT_ONCE}`,
      [before, after],
    );
    const ids = found.filter((f) => Number(f.old) === 1 && Number(f.fits) === 1).map((f) => f.id);
    if (ids.length > 0) await source.query(`DELETE FROM \`${table}\` WHERE id IN (?)`, [ids]);
    cleared += ids.length;
    after = found.at(-1)?.id ?? 0;
    if (found.length < AT_ONCE || found.every((f) => Number(f.old) === 0)) return cleared;
  }
}

/** Clears rows that a condition finds by an index of its own, a few thousand at a time. */
export async function clearWhere(source: DataSource, table: TableName, where: string, params: readonly unknown[]): Promise<number> {
  for (let cleared = 0; ;) {
    const { affectedRows } = await source.query<{ affectedRows: number }>(`DELETE FROM \`${table}\` WHERE ${where} LIMIT ${AT_ONCE}`, [
      ...params,
    ]);
    cleared += affectedRows;
    if (affectedRows < AT_ONCE) return cleared;
  }
}
