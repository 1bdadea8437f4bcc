import { ProblemError } from '../api/client';

const FIRST_WAIT_MS = 400;
const LONGEST_WAIT_MS = 8_000;

interface Job {
  id: string;
  send: () => Promise<unknown>;
  /** `left`: how many commands still wait behind this one. */
  onDone: (problem: ProblemError | null, left: number) => void | Promise<void>;
}

/**
 * Posts commands one after another, in the order in which they were made. A command that found no network is sent again
 * under its own key until the server has answered, so that it is done once and none is lost while the page is open.
 */
export class CommandQueue {
  private readonly jobs: Job[] = [];
  private running = false;

  constructor(
    private readonly onChange: (waiting: number, offline: boolean) => void,
    private readonly sleep: (ms: number) => Promise<void> = (ms) => new Promise((done) => setTimeout(done, ms)),
  ) {}

  add(job: Job): void {
    this.jobs.push(job);
    this.onChange(this.jobs.length, false);
    void this.run();
  }

  private async run(): Promise<void> {
    if (this.running) return;
    this.running = true;
    for (let job = this.jobs[0]; job; job = this.jobs[0]) {
      const problem = await this.sendUntilAnswered(job);
      this.jobs.shift();
      await job.onDone(problem, this.jobs.length);
      this.onChange(this.jobs.length, false);
    }
    this.running = false;
  }

  private async sendUntilAnswered(job: Job): Promise<ProblemError | null> {
    for (let wait = FIRST_WAIT_MS; ; wait = Math.min(LONGEST_WAIT_MS, wait * 2)) {
      try {
        await job.send();
        return null;
      } catch (thrown) {
        if (thrown instanceof ProblemError && thrown.status !== 502 && thrown.status !== 503 && thrown.status !== 504) return thrown;
        this.onChange(this.jobs.length, true);
        await this.sleep(wait);
      }
    }
  }
}
