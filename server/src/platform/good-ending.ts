import type { Server } from 'node:http';
import { type BeforeApplicationShutdown, Injectable } from '@nestjs/common';
import type { NextFunction, Request, Response } from 'express';

/** Requests under way have so long to end; then they are cut off. */
const ENDING_MS = 8_000;
const SWEEP_MS = 100;

/**
 * How a server ends: nobody new is let in, what is under way is answered, and connections that nothing is asked on are closed,
 * since they would be kept open for the next question.
 */
@Injectable()
export class GoodEnding implements BeforeApplicationShutdown {
  private readonly servers = new Set<Server>();
  private ends = false;

  /** Whether this server was told to end. */
  get isEnding(): boolean {
    return this.ends;
  }

  watch(server: Server): void {
    this.servers.add(server);
  }

  /** Says on each answer that is given while the server ends that the connection ends with it. */
  readonly lastAnswers = (_: Request, response: Response, next: NextFunction): void => {
    if (this.ends) response.setHeader('connection', 'close');
    next();
  };

  async beforeApplicationShutdown(): Promise<void> {
    this.ends = true;
    const until = Date.now() + ENDING_MS;
    const closed = [...this.servers].filter((s) => s.listening).map((s) => new Promise((done) => s.close(done)));
    const sweep = setInterval(() => {
      for (const server of this.servers) {
        if (Date.now() < until) server.closeIdleConnections();
        else server.closeAllConnections();
      }
    }, SWEEP_MS);
    await Promise.all(closed);
    clearInterval(sweep);
  }
}
