import { Inject, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import type { Logger } from 'pino';
import { DataSource } from 'typeorm';
import { inTransaction, one, parsed, rows, type Tx } from './database/tx.js';
import { LOGGER } from './tokens.js';

export interface OutboxMessage {
  id: number;
  receiver: string;
  kind: string;
  payload: Record<string, unknown>;
  attempts: number;
}
export type Deliver = (message: OutboxMessage) => Promise<void>;

/** A worker that dies holds its message this long before another takes it. */
const LEASE_SECONDS = 30;
const FIRST_DELAY_S = 1;
const LONGEST_DELAY_S = 300;
const BEAT_MS = 250;

/**
 * What leaves the building. A message is written in the transaction of the act it tells of, and delivered at least once,
 * in order for each receiver, with a growing delay between tries. A receiver is as small as its order must be kept: a shop, but one
 * parcel of a carrier, so that a label that cannot be had holds up no other. Several servers may run this side by side.
 */
@Injectable()
export class Outbox implements OnApplicationShutdown {
  private readonly handlers = new Map<string, Deliver>();
  private timer: NodeJS.Timeout | undefined;
  private busy: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly source: DataSource,
    @Inject(LOGGER) private readonly log: Logger,
  ) {}

  handle(kind: string, deliver: Deliver): void {
    this.handlers.set(kind, deliver);
  }

  async send(tx: Tx, receiver: string, kind: string, payload: Record<string, unknown>, document: string | null = null): Promise<void> {
    await tx.query('INSERT INTO outbox (receiver, kind, payload, document) VALUES (?, ?, ?, ?)', [
      receiver,
      kind,
      JSON.stringify(payload),
      document,
    ]);
  }

  start(): void {
    const beat = () => {
      this.busy = this.deliverDue()
        .catch((err: unknown) => this.log.warn({ err }, 'outbox beat failed'))
        .finally(() => {
          if (this.timer) this.timer = setTimeout(beat, BEAT_MS);
        });
    };
    this.timer = setTimeout(beat, BEAT_MS);
  }

  async onApplicationShutdown(): Promise<void> {
    clearTimeout(this.timer);
    this.timer = undefined;
    await this.busy;
  }

  /** Delivers what is due, one message for each receiver at a time, until nothing is left. Returns how many went out. */
  async deliverDue(): Promise<number> {
    let sent = 0;
    for (;;) {
      const claimed = await this.claim();
      if (claimed.length === 0) return sent;
      await Promise.all(claimed.map((message) => this.deliver(message)));
      sent += claimed.length;
    }
  }

  /** Tries a message again at once. */
  async retry(tx: Tx, id: number): Promise<boolean> {
    const done = await tx.query<{ affectedRows: number }>(
      `UPDATE outbox SET next_at = UTC_TIMESTAMP(3), state = 'waiting' WHERE id = ? AND state <> 'done'`,
      [id],
    );
    return done.affectedRows > 0;
  }

  private claim(): Promise<OutboxMessage[]> {
    return inTransaction(this.source, async (tx) => {
      const due = await rows<OutboxMessage>(
        tx,
        `SELECT o.id, o.receiver, o.kind, o.payload, o.attempts FROM outbox o
         JOIN (SELECT MIN(id) AS id FROM outbox WHERE state <> 'done' GROUP BY receiver) head ON head.id = o.id
         WHERE o.next_at <= UTC_TIMESTAMP(3) FOR UPDATE SKIP LOCKED`,
      );
      for (const message of due) {
        message.payload = parsed<Record<string, unknown>>(message.payload);
        await tx.query('UPDATE outbox SET next_at = UTC_TIMESTAMP(3) + INTERVAL ? SECOND, attempts = attempts + 1 WHERE id = ?', [
          LEASE_SECONDS,
          message.id,
        ]);
      }
      return due;
    });
  }

  private async deliver(message: OutboxMessage): Promise<void> {
    const handler = this.handlers.get(message.kind);
    try {
      if (!handler) throw new Error(`Nobody delivers ${message.kind}`);
      await handler(message);
      await this.source.query(`UPDATE outbox SET state = 'done', done_at = UTC_TIMESTAMP(3), last_error = NULL WHERE id = ?`, [message.id]);
    } catch (thrown) {
      const why = thrown instanceof Error ? thrown.message : String(thrown);
      const wait = Math.min(LONGEST_DELAY_S, FIRST_DELAY_S * 2 ** message.attempts);
      await this.source.query(
        `UPDATE outbox SET state = 'failing', next_at = UTC_TIMESTAMP(3) + INTERVAL ? SECOND, last_error = ? WHERE id = ?`,
        [wait, why.slice(0, 500), message.id],
      );
      this.log.warn({ receiver: message.receiver, kind: message.kind, id: message.id, why }, 'outbox delivery failed');
    }
  }

  /** How many messages still wait; nought means that the outside world knows everything. */
  async waiting(): Promise<number> {
    const row = await one<{ n: string }>(this.source, `SELECT COUNT(*) AS n FROM outbox WHERE state <> 'done'`);
    return Number(row?.n ?? 0);
  }
}
