import type { OnApplicationShutdown } from '@nestjs/common';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { inTransaction, rows, type Tx } from './database/tx.js';

/** Rows of a table that are jobs, and how one server takes hold of some of them. */
export interface Claim {
  table: string;
  /** The columns that a job is read with, and the condition under which it is due; `j` is the row's alias. */
  select: string;
  due: string;
  params?: readonly unknown[];
  order?: string;
  /** At most so many at a time; all that are due where it is left out. */
  most?: number;
  /** What is set in the rows that were taken, so that they are not due again before the lease is over. */
  lease: string;
  leaseParams?: readonly unknown[];
}

/**
 * Takes hold of jobs: rows that another server has locked are passed over, and what is taken is leased in the same
 * transaction, so that a server that dies gives its jobs back by itself.
 */
export function claimRows<J extends { id: number | string }>(source: DataSource, claim: Claim): Promise<J[]> {
  return inTransaction(source, async (tx: Tx) => {
    const jobs = await rows<J>(
      tx,
      `SELECT ${claim.select} FROM \`${claim.table}\` j WHERE ${claim.due} ${claim.order ? `ORDER BY ${claim.order}` : ''} ${claim.most ? `LIMIT ${claim.most}` : ''} FOR UPDATE SKIP LOCKED`,
      [...(claim.params ?? [])],
    );
    if (jobs.length > 0)
      await tx.query(`UPDATE \`${claim.table}\` SET ${claim.lease} WHERE id IN (?)`, [...(claim.leaseParams ?? []), jobs.map((j) => j.id)]);
    return jobs;
  });
}

/**
 * Does jobs behind the requests that made them, in as many servers as there are. A worker says how it takes hold of jobs
 * and how it does one; looking for them again and again, never twice at once, and ending in good order is done here.
 */
export abstract class Worker<J> implements OnApplicationShutdown {
  /** How long it rests when nothing was due, in milliseconds. */
  protected abstract readonly beatMs: number;
  protected abstract readonly log: Logger;
  private timer: NodeJS.Timeout | undefined;
  private running: Promise<number> | undefined;
  private again = false;
  private stopped = false;

  /** Takes hold of what is due, with a lease; empty where nothing is. */
  protected abstract claim(): Promise<J[]>;
  /** Does one job and keeps how it ended. What it throws is logged, and the job is due again when its lease is over. */
  protected abstract carryOut(job: J): Promise<void>;

  start(): void {
    this.timer = setInterval(() => this.nudge(), this.beatMs);
  }

  /** Looks for work now. */
  nudge(): void {
    if (this.stopped) return;
    if (this.running) this.again = true;
    else this.runDue().catch(() => undefined);
  }

  /** Does what is due until nothing is left; returns how many jobs that were. A second call while one runs waits for it, then looks once more. */
  async runDue(): Promise<number> {
    while (this.running) await this.running;
    this.running = this.drain().finally(() => {
      this.running = undefined;
      if (!this.again) return;
      this.again = false;
      this.nudge();
    });
    return this.running;
  }

  /** Resolves when nothing is being done. */
  async settled(): Promise<void> {
    while (this.running) await this.running;
  }

  async onApplicationShutdown(): Promise<void> {
    this.stopped = true;
    clearInterval(this.timer);
    await this.settled();
  }

  private async drain(): Promise<number> {
    let done = 0;
    try {
      for (;;) {
        const jobs = this.stopped ? [] : await this.claim();
        if (jobs.length === 0) return done;
        await Promise.all(
          jobs.map((job) => this.carryOut(job).catch((err: unknown) => this.log.warn({ err }, `${this.constructor.name}: a job failed`))),
        );
        done += jobs.length;
      }
    } catch (err) {
      this.log.warn({ err }, `${this.constructor.name} could not look for work`);
      return done;
    }
  }
}
