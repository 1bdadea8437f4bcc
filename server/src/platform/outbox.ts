import { Inject, Injectable } from '@nestjs/common';
import { NOW, update } from './database/write.js';
import type { Logger } from 'pino';
import { DataSource } from 'typeorm';
import { insert } from './database/write.js';
import { num, one, parsed, type Tx } from './database/tx.js';
import { LOGGER } from './tokens.js';
import { claimRows, within, Worker } from './worker.js';

export interface OutboxMessage {
  id: number;
  receiver: string;
  kind: string;
  payload: Record<string, unknown>;
  attempts: number;
}
export type Deliver = (message: OutboxMessage) => Promise<void>;

/** A receiver that has not answered by then is tried again later. */
const DELIVERY_MS = 20_000;
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
export class Outbox extends Worker<OutboxMessage> {
  protected readonly beatMs = BEAT_MS;
  private readonly handlers = new Map<string, Deliver>();

  constructor(
    private readonly source: DataSource,
    @Inject(LOGGER) protected readonly log: Logger,
  ) {
    super();
  }

  handle(kind: string, deliver: Deliver): void {
    this.handlers.set(kind, deliver);
  }

  /** `from` says of which site and document it tells; without a site it is the whole house's, and only owners read of it. */
  async send(
    tx: Tx,
    receiver: string,
    kind: string,
    payload: Record<string, unknown>,
    from: { siteId?: number | null; document?: string } = {},
  ): Promise<void> {
    const { siteId = null, document = null } = from;
    await insert(tx, 'outbox', { receiver, kind, payload: JSON.stringify(payload), site_id: siteId, document });
  }

  /** Tries a message again at once. */
  async retry(tx: Tx, id: number): Promise<boolean> {
    const done = await tx.query<{ affectedRows: number }>(
      `UPDATE outbox SET next_at = UTC_TIMESTAMP(3), state = 'waiting' WHERE id = ? AND state <> 'done'`,
      [id],
    );
    return done.affectedRows > 0;
  }

  /** Tries all that waits for a receiver again at once; returns how many messages that are. */
  async retryAll(tx: Tx, receiver: string): Promise<number> {
    const done = await tx.query<{ affectedRows: number }>(
      `UPDATE outbox SET next_at = UTC_TIMESTAMP(3), attempts = 0 WHERE receiver = ? AND state <> 'done'`,
      [receiver],
    );
    return done.affectedRows;
  }

  /** Has what waits of one kind about a document tried again at once: something that stood in its way has changed. */
  async hurry(tx: Tx, kind: string, document: string): Promise<void> {
    await tx.query(`UPDATE outbox SET next_at = UTC_TIMESTAMP(3), attempts = 0 WHERE kind = ? AND document = ? AND state <> 'done'`, [
      kind,
      document,
    ]);
  }

  /** How many messages still wait; nought means that the outside world knows everything. */
  async waiting(): Promise<number> {
    const row = await one<{ n: string }>(this.source, `SELECT COUNT(*) AS n FROM outbox WHERE state <> 'done'`);
    return num(row?.n);
  }

  protected async claim(most: number): Promise<OutboxMessage[]> {
    const due = await claimRows<OutboxMessage>(this.source, {
      table: 'outbox',
      select: 'j.id, j.receiver, j.kind, j.payload, j.attempts',
      // The oldest that is not through is the only one of its receiver that may go.
      due: `j.next_at <= UTC_TIMESTAMP(3) AND j.id IN (SELECT head.id FROM (SELECT MIN(id) AS id FROM outbox WHERE state <> 'done' GROUP BY receiver) head)`,
      most,
      lease: 'next_at = UTC_TIMESTAMP(3) + INTERVAL ? SECOND, attempts = attempts + 1',
      leaseParams: [LEASE_SECONDS],
    });
    return due.map((message) => ({ ...message, payload: parsed<Record<string, unknown>>(message.payload) }));
  }

  protected async carryOut(message: OutboxMessage): Promise<void> {
    const handler = this.handlers.get(message.kind);
    try {
      if (!handler) throw new Error(`Nobody delivers ${message.kind}`);
      await within(DELIVERY_MS, handler(message), 'It does not answer');
      await update(this.source, 'outbox', { id: message.id }, { state: 'done', done_at: NOW, last_error: null });
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
}
