import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import { Observable, Subject, type Subscriber } from 'rxjs';
import { SessionService } from '../identity/index.js';
import type { LiveEntryDto } from './desk.dto.js';
import { type LiveLine, TapeQueries } from './tape.queries.js';

const BEAT_MS = 120;
const LOOK_BACK = 40;
/** So often it is asked whether those who listen are still signed in. */
const STANDING_MS = 1_000;

/**
 * Live updates, driven by the activity table, so that any number of servers tell their own listeners of what all of
 * them did. Polls only while somebody listens.
 */
@Injectable()
export class LiveService implements OnModuleDestroy {
  private readonly entries = new Subject<LiveLine>();
  private readonly seen = new Set<number>();
  private last = 0;
  private readonly listeners = new Map<Subscriber<LiveEntryDto>, string>();
  private asked = 0;
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly tape: TapeQueries,
    private readonly sessions: SessionService,
  ) {}

  /** Each new line of the tape that concerns one of these sites; it ends with the session that it was opened under. */
  stream(siteIds: readonly number[], token: string): Observable<LiveEntryDto> {
    return new Observable((subscriber) => {
      const inner = this.entries.subscribe((e) => {
        if (e.siteId === null || siteIds.includes(e.siteId)) subscriber.next({ entry: e.entry, changed: e.changed });
      });
      this.listeners.set(subscriber, token);
      if (this.listeners.size === 1) void this.begin();
      return () => {
        inner.unsubscribe();
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
    for (const line of fresh) {
      if (this.seen.has(line.entry.id)) continue;
      this.seen.add(line.entry.id);
      this.last = Math.max(this.last, line.entry.id);
      this.entries.next(line);
    }
    for (const id of this.seen) if (id < this.last - 4 * LOOK_BACK) this.seen.delete(id);
    await this.letGo().catch(() => undefined);
    this.schedule();
  }

  /** Whoever was signed out, or whose device was revoked, hears no more. */
  private async letGo(): Promise<void> {
    if (Date.now() - this.asked < STANDING_MS) return;
    this.asked = Date.now();
    const listening = [...this.listeners];
    const standing = await this.sessions.standing([...new Set(listening.map(([, token]) => token))]);
    for (const [subscriber, token] of listening) if (!standing.has(token)) subscriber.complete();
  }
}
