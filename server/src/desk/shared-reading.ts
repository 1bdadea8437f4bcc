import { Injectable } from '@nestjs/common';

/** Two readings of the same begin so far apart at least: fifty screens ask fifty times a second between them. */
const EVERY_MS = 200;

interface Line {
  /** Ends when the reading has, and when the next one may begin. */
  rested: Promise<unknown>;
  /** The reading that begins then; whoever asks meanwhile shares it. */
  next: Promise<unknown> | undefined;
}

/**
 * Readings that many screens make at once, since they all hear of the same act: one at a time for all who ask the same. Whoever
 * comes while one is being made gets the next, so that nobody is told of a state older than their question.
 */
@Injectable()
export class SharedReading {
  private readonly lines = new Map<string, Line>();

  read<T>(key: string, load: () => Promise<T>): Promise<T> {
    const line = this.lines.get(key);
    if (!line) return this.begin(key, load);
    line.next ??= line.rested.then(() => this.begin(key, load));
    return line.next as Promise<T>;
  }

  private begin<T>(key: string, load: () => Promise<T>): Promise<T> {
    const running = load();
    const rest = new Promise((done) => setTimeout(done, EVERY_MS).unref());
    const line: Line = { rested: Promise.allSettled([running, rest]), next: undefined };
    this.lines.set(key, line);
    void line.rested.then(() => {
      if (this.lines.get(key) === line && line.next === undefined) this.lines.delete(key);
    });
    return running;
  }
}
