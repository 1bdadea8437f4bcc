import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { CustomerReturns } from '../customer-returns/index.js';
import { FollowingService } from '../order-desk/index.js';
import { OrderIntake } from '../orders/index.js';
import { badState, notFound, one, Problem, signatureMatches } from '../platform/index.js';
import { type ChannelAccess, type ChannelMessage, channelOf } from './connector.js';
import { Connectors } from './connectors.js';
import { Exchanges } from './exchanges.js';
import { ParkedMessages } from './parked-messages.js';

/** What became of a message. */
export interface TakenIn {
  /** Our number of the order that it speaks of. */
  code: string;
  /** True where it said nothing new. */
  known: boolean;
  /** What it was, and what it did. */
  what: 'order' | 'change' | 'cancel' | 'return';
}

/** Takes in what channels say: as they send it, as it was fetched, or from a file. */
@Injectable()
export class IntakeService {
  constructor(
    private readonly source: DataSource,
    private readonly connectors: Connectors,
    private readonly intake: OrderIntake,
    private readonly following: FollowingService,
    private readonly returns: CustomerReturns,
    private readonly parked: ParkedMessages,
    private readonly exchanges: Exchanges,
  ) {}

  async fromWebhook(code: string, body: Buffer | undefined, given: string): Promise<TakenIn | null> {
    const channel = await channelOf(this.source, code);
    if (!channel) throw notFound(`Channel ${code}`);
    if (!body || !channel.secret || !signatureMatches(channel.secret, body, given))
      throw new Problem(401, 'signature', 'The signature does not match the message');
    return this.takeIn(channel, body.toString('utf8'), 'sent');
  }

  /**
   * Takes one message of a channel in, whatever it looks like. One that cannot be understood is kept to be mended and, where its sender
   * waits for an answer, refused with what is against it; one that was fetched holds up nothing.
   */
  async takeIn(channel: ChannelAccess, raw: string, how: 'sent' | 'fetched'): Promise<TakenIn | null> {
    try {
      const message = await this.connectors.read(channel, raw);
      const taken = await this.act(channel, message);
      await this.exchanges.note(channel.id, {
        direction: 'in',
        what: taken.what,
        ref: refOf(message),
        went: taken.known ? 'again' : 'well',
        detail: taken.code,
        raw,
      });
      if (taken.what === 'order' && !taken.known) await this.cancelledBefore(channel, refOf(message), taken.code);
      if (!taken.known)
        await this.parked.cameIn(channel.id, message.kind === 'return' ? message.said.returnRef : refOf(message), taken.code);
      return taken;
    } catch (thrown) {
      // Where the house is busy, or its database away, nothing is against the message; it is asked for again.
      if (thrown instanceof Problem && thrown.status >= 500) throw thrown;
      await this.source.query('SELECT 1');
      const why = thrown instanceof Problem ? thrown.detail : `It could not be written down: ${String(thrown)}`;
      const isNew = await this.parked.park(channel, raw, why);
      if (isNew) await this.exchanges.note(channel.id, { direction: 'in', what: 'message', ref: null, went: 'parked', detail: why, raw });
      if (how === 'sent') throw thrown;
      return null;
    }
  }

  /** Does what a message says. Problem 409 where the order that it speaks of does not allow it. */
  async act(channel: ChannelAccess, message: ChannelMessage): Promise<TakenIn> {
    if (message.kind === 'cancel') {
      const order = await one<{ code: string }>(this.source, 'SELECT code FROM sales_order WHERE channel_id = ? AND channel_ref = ?', [
        channel.id,
        message.ref,
      ]);
      if (!order) throw badState(`It cancels ${message.ref}, which has not come in. It is cancelled as soon as it does`);
      const done = await this.following.cancelled(order.code, message.why);
      return { code: order.code, known: done === 'same', what: 'cancel' };
    }
    if (message.kind === 'return') return { ...(await this.returns.announced(channel, message.said)), what: 'return' };
    const { code, known } = await this.intake.takeIn(channel, message.order, message.revision);
    if (!known) return { code, known: false, what: 'order' };
    const done = await this.following.follow(channel, code, message.order, message.revision);
    return { code, known: done !== 'changed', what: done === 'changed' ? 'change' : 'order' };
  }

  /** A cancellation that came before its order waits among what cannot be understood; it counts now. */
  private async cancelledBefore(channel: ChannelAccess, ref: string, code: string): Promise<void> {
    for (const raw of await this.parked.waitingFor(channel.id, ref)) {
      const message = await this.connectors.read(channel, raw).catch(() => null);
      if (message?.kind !== 'cancel' || message.ref !== ref) continue;
      await this.following.cancelled(code, message.why);
    }
  }
}

function refOf(message: ChannelMessage): string {
  switch (message.kind) {
    case 'order':
      return message.order.ref;
    case 'cancel':
      return message.ref;
    case 'return':
      return message.said.ref;
  }
}
