/**
 * Sends what was chosen one after another, so that an earlier choice never arrives after a later one; of those that wait only the
 * last is sent. Whoever leaves the page while one waits has it sent at once.
 */
export class LatestOnly<T> {
  private isBusy = false;
  private waiting: { value: T } | null = null;

  constructor(private readonly send: (value: T) => Promise<unknown>) {}

  choose(value: T): void {
    this.waiting = { value };
    if (!this.isBusy) void this.run();
  }

  /** The page is about to go: nothing can wait any longer. */
  leave(): void {
    const last = this.take();
    if (last) void this.send(last.value).catch(() => undefined);
  }

  private async run(): Promise<void> {
    this.isBusy = true;
    for (let next = this.take(); next; next = this.take()) await this.send(next.value).catch(() => undefined);
    this.isBusy = false;
  }

  private take(): { value: T } | null {
    const taken = this.waiting;
    this.waiting = null;
    return taken;
  }
}
