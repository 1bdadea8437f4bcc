import { Injectable } from '@nestjs/common';

interface Line {
  running: Promise<unknown>;
  /** The reading that begins when the running one has ended; whoever asks meanwhile shares it. */
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
    line.next ??= line.running.catch(() => undefined).then(() => this.begin(key, load));
    return line.next as Promise<T>;
  }

  private begin<T>(key: string, load: () => Promise<T>): Promise<T> {
    const running = load();
    const line: Line = { running, next: undefined };
    this.lines.set(key, line);
    const end = () => {
      if (this.lines.get(key) === line && line.next === undefined) this.lines.delete(key);
    };
    running.then(end, end);
    return running;
  }
}
