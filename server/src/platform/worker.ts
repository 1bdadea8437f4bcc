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

/** A job that takes longer than this is given up; its lease is longer, so that no other server has begun it meanwhile. */
const JOB_MS = 25_000;
/** A server that ends waits so long for jobs under way. What is not done by then is done again when its lease is over. */
const ENDING_MS = 5_000;

/** Gives work a limit of time. What goes on behind it is nobody's concern any more. */
export function within<T>(ms: number, work: Promise<T>, why: string): Promise<T> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, fail) => (timer = setTimeout(() => fail(new Error(why)), ms)));
  return Promise.race([work, late]).finally(() => clearTimeout(timer));
}

/**
 * Does jobs behind the requests that made them, in as many servers as there are. A worker says how it takes hold of jobs
 * and how it does one; looking for them again and again, never twice at once, and ending in good order is done here. Each job
 * goes by itself: one that gets no answer holds up no other.
 */
export abstract class Worker<J> implements OnApplicationShutdown {
  /** How long it rests when nothing was due, in milliseconds. */
  protected abstract readonly beatMs: number;
  protected abstract readonly log: Logger;
  /** So many jobs are under way at once. */
  protected readonly atOnce: number = 60;
  /** A job may take so long. */
  protected readonly jobMs: number = JOB_MS;
  private timer: NodeJS.Timeout | undefined;
  private running: Promise<number> | undefined;
  private again = false;
  private stopped = false;
  private readonly underWay = new Set<Promise<unknown>>();
  private wake: (() => void) | undefined;

  /** Takes hold of what is due, with a lease; empty where nothing is. `most`: so many at the most. */
  protected abstract claim(most: number): Promise<J[]>;
  /** Does one job and keeps how it ended. What it throws is logged, and the job is due again when its lease is over. */
  protected abstract carryOut(job: J): Promise<void>;

  start(): void {
    this.timer = setInterval(() => this.nudge(), this.beatMs);
  }

  /** Looks for work now. */
  nudge(): void {
    if (this.stopped) return;
    this.again = true;
    this.wake?.();
    if (!this.running) this.runDue().catch(() => undefined);
  }

  /** Does what is due until nothing is left; returns how many jobs that were. A second call while one runs waits for it, then looks once more. */
  async runDue(): Promise<number> {
    while (this.running) await this.running;
    this.running = this.drain().finally(() => (this.running = undefined));
    return this.running;
  }

  /** Resolves when nothing is being done. */
  async settled(): Promise<void> {
    while (this.running) await this.running;
  }

  async onApplicationShutdown(): Promise<void> {
    this.stopped = true;
    clearInterval(this.timer);
    this.wake?.();
    await within(ENDING_MS, this.settled(), 'not settled').catch(() => this.log.warn(`${this.constructor.name} ended with jobs under way`));
  }

  private async drain(): Promise<number> {
    let done = 0;
    try {
      for (;;) {
        this.again = false;
        const room = this.atOnce - this.underWay.size;
        const jobs = this.stopped || room <= 0 ? [] : await this.claim(room);
        for (const job of jobs) this.begin(job);
        done += jobs.length;
        // Somebody asked, or a job ended, while it was looked: what is due now may not have been then.
        if (jobs.length > 0 || (this.again && !this.stopped)) continue;
        if (this.underWay.size === 0) return done;
        await Promise.race([...this.underWay, new Promise<void>((woken) => (this.wake = woken))]);
      }
    } catch (err) {
      this.log.warn({ err }, `${this.constructor.name} could not look for work`);
      return done;
    }
  }

  private begin(job: J): void {
    const carried = within(this.jobMs, this.carryOut(job), 'It took too long')
      .catch((err: unknown) => this.log.warn({ err }, `${this.constructor.name}: a job failed`))
      .finally(() => {
        this.underWay.delete(carried);
        this.again = true;
      });
    this.underWay.add(carried);
  }
}
