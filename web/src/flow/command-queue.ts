import type { Dto } from '../api/client';
import { ProblemError } from '../api/client';
import type { KeptCommand } from './device-store';

const FIRST_WAIT_MS = 400;
const LONGEST_WAIT_MS = 8_000;
/** Somebody who waited longer than this for an answer has gone on. */
const LATE_MS = 15_000;
/** A server that fails on a command this often is asked to keep it as a question. */
const MOST_FAILURES = 5;

/** What came of a command: its answer, or why not. `late`: it waits as a question. */
export type Outcome = { answer: Dto['FloorAnswerDto'] } | { problem: ProblemError; late: boolean };

/** Where the queue keeps its commands; they outlive the page. */
export interface QueueStore {
  /** Lets go of answered commands whose effect the kept tasks show; before any page shows an older one. */
  prune(): Promise<void>;
  load(): Promise<KeptCommand[]>;
  add(command: Omit<KeptCommand, 'seq'>): Promise<number>;
  put(command: KeptCommand): Promise<void>;
  remove(command: KeptCommand): Promise<void>;
}

export interface QueueOptions {
  store: QueueStore;
  /** Sends one command; throws where it is not carried out. */
  post: (command: KeptCommand, late: boolean) => Promise<Dto['FloorAnswerDto']>;
  /** This page, as against those that are gone. */
  page: string;
  now?: () => number;
  sleep?: (ms: number) => Promise<void>;
  /** Runs the sending loop where no other page of this device does. */
  alone?: (work: () => Promise<void>) => Promise<void>;
}

/** What is on its way, for everybody to see. */
export interface QueueState {
  /** Not yet answered, in order. */
  unsent: readonly KeptCommand[];
  offline: boolean;
  /** Nobody is signed in, so that nothing is sent. */
  signedOut: boolean;
  /** Those of people who must sign in here themselves before theirs can be sent. */
  heldBack: readonly string[];
}

/**
 * The one queue of a device: sends commands one after another, in the order in which they were made, whoever made them. It is
 * kept on the device, so that a reload, a restart or a change of person loses nothing. Each goes under its own id until the
 * server has answered; what is refused is told to the flow that waits for it, or becomes a question.
 */
export class CommandQueue {
  /** All that is here has been read; until then nothing is known to be unsent. */
  readonly ready: Promise<void>;
  private list: KeptCommand[] = [];
  private state: QueueState = { unsent: [], offline: false, signedOut: false, heldBack: [] };
  private running = false;
  private again = false;
  private turn: Promise<unknown> = Promise.resolve();
  private wake: (() => void) | undefined;
  private readonly held = new Set<string>();
  private readonly failures = new Map<string, number>();
  private readonly watchers = new Set<() => void>();
  private readonly listeners = new Map<string, (command: KeptCommand, outcome: Outcome) => void>();
  private readonly waiting = new Map<string, (outcome: Outcome) => void>();

  constructor(private readonly options: QueueOptions) {
    this.ready = this.inTurn(() => options.store.prune()).then(() => this.reload());
  }

  /** Reads the store again: another page may have added to it. */
  reload(): Promise<void> {
    return this.inTurn(async () => {
      const kept = await this.options.store.load();
      const known = new Map(this.list.map((c) => [c.id, c]));
      const merged = kept.map((k) => {
        const here = known.get(k.id);
        // Another page may have sent it.
        return here ? Object.assign(here, { tried: here.tried || k.tried, answeredAt: here.answeredAt ?? k.answeredAt }) : k;
      });
      this.list = [...merged, ...this.list.filter((c) => c.seq < 0)];
      this.tell();
      void this.run();
    });
  }

  /** Reading and adding take turns, so that what is added while the store is read is not forgotten. */
  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const done = this.turn.then(work);
    this.turn = done.catch(() => undefined);
    return done;
  }

  get snapshot(): QueueState {
    return this.state;
  }

  watch(fn: () => void): () => void {
    this.watchers.add(fn);
    return () => void this.watchers.delete(fn);
  }

  /** Hears what comes of a task's commands while its page is open. */
  listen(address: string, fn: (command: KeptCommand, outcome: Outcome) => void): () => void {
    this.listeners.set(address, fn);
    return () => {
      if (this.listeners.get(address) === fn) this.listeners.delete(address);
    };
  }

  /** Those of a task whose effect its bundle may not show yet: unsent ones and answered ones. */
  pendingOf(address: string): KeptCommand[] {
    return this.list.filter((c) => c.address === address);
  }

  /** Keeps a command and sends it as soon as it is its turn. Resolves once the device has it. */
  async add(command: Omit<KeptCommand, 'seq' | 'tried' | 'answeredAt' | 'page'>): Promise<void> {
    const kept = { ...command, page: this.options.page, tried: false, answeredAt: null, seq: -1 };
    this.list.push(kept);
    this.tell();
    const { seq: _, ...toStore } = kept;
    await this.inTurn(async () => {
      kept.seq = await this.options.store.add(toStore);
    });
    void this.run();
  }

  /** What comes of a command; resolves when it is answered. */
  outcomeOf(id: string): Promise<Outcome> {
    return new Promise((done) => this.waiting.set(id, done));
  }

  /** Takes back a command that the server cannot have seen. False where it may have. */
  async takeBack(id: string): Promise<boolean> {
    const command = this.list.find((c) => c.id === id);
    if (!command || command.tried || command.answeredAt !== null || command.seq < 0) return false;
    await this.drop(command);
    return true;
  }

  /** A task that shows these commands' effect is shown: the answered ones among them are done with. */
  async seen(address: string, ids: readonly string[]): Promise<void> {
    for (const command of this.pendingOf(address).filter((c) => c.answeredAt !== null && ids.includes(c.id))) await this.drop(command);
  }

  /** The network is back, or somebody has signed in: tries at once. */
  kick(): void {
    this.held.clear();
    this.set({ signedOut: false, heldBack: [] });
    this.wake?.();
    void this.run();
  }

  private async run(): Promise<void> {
    this.again = true;
    if (this.running) return;
    this.running = true;
    try {
      while (this.again) {
        this.again = false;
        await (this.options.alone ?? ((work) => work()))(() => this.sendAll());
      }
    } finally {
      this.running = false;
    }
  }

  private next(): KeptCommand | undefined {
    return this.list.find((c) => c.answeredAt === null && c.seq >= 0 && !this.held.has(c.id));
  }

  private async sendAll(): Promise<void> {
    let wait = FIRST_WAIT_MS;
    for (let command = this.next(); command && !this.state.signedOut; command = this.next()) {
      const result = await this.sendOnce(command);
      if (result === 'again') {
        await this.pause(wait);
        wait = Math.min(LONGEST_WAIT_MS, wait * 2);
      } else wait = FIRST_WAIT_MS;
    }
  }

  private async sendOnce(command: KeptCommand): Promise<'again' | 'done'> {
    if (!command.tried) {
      command.tried = true;
      await this.options.store.put(command);
    }
    const late = this.isLate(command);
    try {
      const answer = await this.options.post(command, late);
      command.answeredAt = this.options.now?.() ?? Date.now();
      await this.options.store.put(command);
      this.set({ offline: false });
      this.finish(command, { answer });
      return 'done';
    } catch (thrown) {
      return this.failed(command, late, thrown);
    }
  }

  private async failed(command: KeptCommand, late: boolean, thrown: unknown): Promise<'again' | 'done'> {
    if (!(thrown instanceof ProblemError) || [429, 502, 503, 504].includes(thrown.status)) {
      this.set({ offline: true });
      return 'again';
    }
    this.set({ offline: false });
    if (thrown.status === 401) {
      this.set({ signedOut: true });
      return 'done';
    }
    if (thrown.code === 'made-by') {
      this.held.add(command.id);
      this.set({ heldBack: [...new Set([...this.state.heldBack, command.person])] });
      return 'done';
    }
    if (thrown.status >= 500) {
      this.failures.set(command.id, (this.failures.get(command.id) ?? 0) + 1);
      return 'again';
    }
    // Whoever waited for it has gone meanwhile: it is asked again, to be kept as a question.
    if (!late && !this.listeners.has(command.address)) return 'again';
    await this.drop(command);
    this.finish(command, { problem: thrown, late: thrown.code === 'late' });
    return 'done';
  }

  /** Whether nobody stands there any more for whom a refusal would be a band. */
  private isLate(command: KeptCommand): boolean {
    const now = this.options.now?.() ?? Date.now();
    const old = now - Date.parse(command.madeAt) > LATE_MS;
    const failing = (this.failures.get(command.id) ?? 0) >= MOST_FAILURES;
    return old || failing || command.page !== this.options.page || !this.listeners.has(command.address);
  }

  private async drop(command: KeptCommand): Promise<void> {
    this.list = this.list.filter((c) => c !== command);
    this.tell();
    await this.options.store.remove(command);
  }

  private finish(command: KeptCommand, outcome: Outcome): void {
    this.tell();
    this.waiting.get(command.id)?.(outcome);
    this.waiting.delete(command.id);
    this.listeners.get(command.address)?.(command, outcome);
  }

  private pause(ms: number): Promise<void> {
    const slept = (this.options.sleep ?? ((wait) => new Promise<void>((done) => setTimeout(done, wait))))(ms);
    return Promise.race([slept, new Promise<void>((done) => (this.wake = done))]);
  }

  private set(change: Partial<QueueState>): void {
    this.state = { ...this.state, ...change };
    this.tell();
  }

  private tell(): void {
    this.state = { ...this.state, unsent: this.list.filter((c) => c.answeredAt === null) };
    for (const watcher of this.watchers) watcher();
  }
}
