import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { Piscina } from 'piscina';
import { Problem, type ProblemCode } from './problem.js';

/** A function that runs in a thread: `module/function`, how long it may take, and what is said where that or memory runs out. */
export interface Task<F extends (...args: never[]) => unknown> {
  readonly name: string;
  readonly ms: number;
  readonly says: string;
  /** Only for its type. */
  readonly of?: F;
}
export const task = <F extends (...args: never[]) => unknown>(name: string, ms: number, says: string): Task<F> => ({ name, ms, says });

/** What a thread answers: a value, or why there is none, since an error loses its class on the way. */
export type Answer =
  { value: unknown } | { problem: { status: number; code: string; detail: string } } | { fault: string; message: string };

/** Papers are drawn within this time, whatever is on them. */
export const PAPER = [20_000, 'This is more than one paper holds. Part it'] as const;

const MEGABYTES = 384;
const KEPT_MS = 600_000;
/** Beside this file when it is built, in the built server when it is not. */
const FILE = [new URL('../worker.js', import.meta.url), new URL('../../dist/worker.js', import.meta.url)].map((u) => fileURLToPath(u));

/**
 * Whatever grows with its input is done in threads, so that one request never holds up the others: reading files and
 * documents, drawing papers, solving. A thread that takes too long or too much is ended, and its request refused.
 */
@Injectable()
export class Work implements OnApplicationShutdown {
  private pool: Piscina<{ name: string; args: unknown[] }, Answer> | undefined;

  /** Threads are only there once there is something for them to do. */
  private threads(): Piscina<{ name: string; args: unknown[] }, Answer> {
    this.pool ??= new Piscina({
      filename: FILE.find((path) => existsSync(path)) ?? FILE[0] ?? '',
      minThreads: 0,
      maxThreads: Math.max(1, availableParallelism() - 1),
      idleTimeout: KEPT_MS,
      resourceLimits: { maxOldGenerationSizeMb: MEGABYTES },
    });
    return this.pool;
  }

  /** Throws what the function threw, where that was a Problem, and `Fault` where it was another error that it names. */
  async run<F extends (...args: never[]) => unknown>(work: Task<F>, ...args: Parameters<F>): Promise<Awaited<ReturnType<F>>> {
    const answer = await this.threads()
      .run({ name: work.name, args }, { signal: AbortSignal.timeout(work.ms) })
      .catch((thrown: unknown) => {
        if (isSpent(thrown)) throw new Problem(413, 'too-large', work.says);
        throw thrown;
      });
    if ('problem' in answer) throw new Problem(answer.problem.status, answer.problem.code as ProblemCode, answer.problem.detail);
    if ('fault' in answer) throw new Fault(answer.fault, answer.message);
    return asBuffer(answer.value) as Awaited<ReturnType<F>>;
  }

  async onApplicationShutdown(): Promise<void> {
    await this.pool?.destroy();
  }
}

/** What a function in a thread threw, by the name of its class. */
export class Fault extends Error {
  constructor(
    readonly of: string,
    message: string,
  ) {
    super(message);
  }
}

const isSpent = (thrown: unknown): boolean => {
  const { name, code } = thrown as { name?: unknown; code?: unknown };
  return name === 'AbortError' || name === 'TimeoutError' || code === 'ERR_WORKER_OUT_OF_MEMORY';
};

/** Bytes come out of a thread as bytes, whatever they went in as. */
const asBuffer = (value: unknown): unknown =>
  ArrayBuffer.isView(value) ? Buffer.from(value.buffer as ArrayBuffer, value.byteOffset, value.byteLength) : value;
