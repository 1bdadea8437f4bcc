import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import { Observable, type Subscriber } from 'rxjs';
import { SessionService } from '../identity/index.js';
import type { LiveLinesDto } from './desk.dto.js';
import { type LiveLine, TapeQueries } from './tape.queries.js';

const BEAT_MS = 120;
const LOOK_BACK = 40;
/** So often it is asked whether those who listen are still signed in. */
const STANDING_MS = 1_000;

interface Listener {
  siteIds: readonly number[];
  token: string;
}

/** What people of some sites are told of new lines; undefined where none concerns them. */
function textFor(siteIds: readonly number[], lines: readonly LiveLine[]): string | undefined {
  const theirs = lines.filter(({ siteId }) => siteId === null || siteIds.includes(siteId));
  if (theirs.length === 0) return undefined;
  const told: LiveLinesDto = { entries: theirs.map((line) => line.entry), changed: [...new Set(theirs.flatMap((line) => line.changed))] };
  return JSON.stringify(told);
}

/**
 * Live updates, driven by the activity table, so that any number of servers tell their own listeners of what all of
 * them did. Polls only while somebody listens.
 */
@Injectable()
export class LiveService implements OnModuleDestroy {
  private readonly seen = new Set<number>();
  private last = 0;
  private readonly listeners = new Map<Subscriber<string>, Listener>();
  private asked = 0;
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly tape: TapeQueries,
    private readonly sessions: SessionService,
  ) {}

  /**
   * The new lines of the tape that concern one of these sites, gathered for a moment, as JSON of `LiveLinesDto`. It ends with
   * the session that it was opened under.
   */
  stream(siteIds: readonly number[], token: string): Observable<string> {
    return new Observable((subscriber) => {
      this.listeners.set(subscriber, { siteIds, token });
      if (this.listeners.size === 1) void this.begin();
      return () => {
        this.listeners.delete(subscriber);
        if (this.listeners.size === 0) this.stop();
      };
    });
  }

  /** Streams have no end of their own, and would hold the server open. */
  onModuleDestroy(): void {
    this.stop();
    for (const subscriber of this.listeners.keys()) subscriber.complete();
  }

  private stop(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
  }

  private async begin(): Promise<void> {
    this.last = await this.tape.lastId().catch(() => this.last);
    this.seen.clear();
    for (let id = Math.max(0, this.last - LOOK_BACK); id <= this.last; id++) this.seen.add(id);
    this.schedule();
  }

  private schedule(): void {
    if (this.listeners.size > 0) this.timer = setTimeout(() => void this.beat(), BEAT_MS);
  }

  private async beat(): Promise<void> {
    const fresh = await this.tape.since(this.last, LOOK_BACK).catch(() => []);
    const lines = fresh.filter((line) => !this.seen.has(line.entry.id));
    for (const { entry } of lines) {
      this.seen.add(entry.id);
      this.last = Math.max(this.last, entry.id);
    }
    if (lines.length > 0) this.tell(lines);
    for (const id of this.seen) if (id < this.last - 4 * LOOK_BACK) this.seen.delete(id);
    await this.letGo().catch(() => undefined);
    this.schedule();
  }

  /** Fifty who listen hear the same in as many words: it is written once for all who have the same sites. */
  private tell(lines: readonly LiveLine[]): void {
    const texts = new Map<string, string | undefined>();
    for (const [subscriber, { siteIds }] of this.listeners) {
      const key = siteIds.join();
      if (!texts.has(key)) texts.set(key, textFor(siteIds, lines));
      const text = texts.get(key);
      if (text !== undefined) subscriber.next(text);
    }
  }

  /** Whoever was signed out, or whose device was revoked, hears no more. */
  private async letGo(): Promise<void> {
    if (Date.now() - this.asked < STANDING_MS) return;
    this.asked = Date.now();
    const listening = [...this.listeners];
    const standing = await this.sessions.standing([...new Set(listening.map(([, { token }]) => token))]);
    for (const [subscriber, { token }] of listening) if (!standing.has(token)) subscriber.complete();
  }
}
