import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { changeOrder, clearHolds, type FromChannel, type IncomingOrder, OrderIntake, OrderStates, sayHeld } from '../orders/index.js';
import { holdRounds } from '../picking/index.js';
import { badState, find, findAll, inTransaction, type Row, type Tx } from '../platform/index.js';
import { CancellingService } from './cancelling.service.js';
import { EditingService } from './editing.service.js';
import type { ReadLine } from './keyed.js';

/** What became of an order that its channel said again. */
export type Followed = 'same' | 'older' | 'changed';

/**
 * Follows a channel that says its order anew or cancels it. Only what the channel itself has changed since it said it last is
 * changed: what the desk has mended meanwhile stays.
 */
@Injectable()
export class FollowingService {
  constructor(
    private readonly source: DataSource,
    private readonly editing: EditingService,
    private readonly cancelling: CancellingService,
    private readonly intake: OrderIntake,
    private readonly states: OrderStates,
  ) {}

  /** Problem 409 where the order can be changed no more, 400 where a closed parcel holds what it no longer wants. */
  follow(channel: FromChannel, code: string, said: IncomingOrder, revision: number | null): Promise<Followed> {
    return inTransaction(this.source, async (tx) => {
      await holdRounds(tx, code);
      const order = await find(tx, 'sales_order', { code }, 'lock');
      if (!order) throw badState(`There is no order ${code}`);
      const text = JSON.stringify(said);
      const last = order.channel_said === null ? null : (JSON.parse(order.channel_said) as IncomingOrder);
      // What was said before there was anything to compare it with is taken as it is now.
      if (last === null || isSame(last, said)) {
        await changeOrder(tx, order.id, { channel_said: text, channel_revision: revisionOf(revision, order) });
        return 'same';
      }
      if (revision !== null && order.channel_revision !== null && revision < Number(order.channel_revision)) return 'older';
      const isOver = order.state === 'shipped' || order.state === 'cancelled';
      if (isOver) throw badState(`It changes ${code}, which is ${order.state} already. Ring whoever sent it`);
      if (last.paid === false && said.paid !== false) await this.paid(tx, order);
      await this.editing.apply(tx, null, order, head(order, last, said), await this.lines(tx, channel, order, last, said), '');
      await changeOrder(tx, order.id, { channel_said: text, channel_revision: revisionOf(revision, order) });
      return 'changed';
    });
  }

  /** The channel has cancelled an order. The same again changes nothing. Problem 409 where it has gone. */
  cancelled(code: string, why: string): Promise<Followed> {
    return inTransaction(this.source, async (tx) => {
      await holdRounds(tx, code);
      const order = await find(tx, 'sales_order', { code }, 'lock');
      if (!order) throw badState(`There is no order ${code}`);
      if (order.state === 'cancelled') return 'same';
      if (order.state === 'shipped') throw badState(`It cancels ${code}, which has gone. It comes back as a return`);
      await this.cancelling.end(tx, null, order, why, { customer: false, channel: false });
      return 'changed';
    });
  }

  private async paid(tx: Tx, order: Row<'sales_order'>): Promise<void> {
    await clearHolds(tx, order.id, { kinds: ['payment'] }, null, 'paid, says its channel');
    await sayHeld(tx, order.id);
    await this.states.refresh(tx, [order.id]);
  }

  /** The order's lines with what the channel has changed of its own. */
  private async lines(
    tx: Tx,
    channel: FromChannel,
    order: Row<'sales_order'>,
    last: IncomingOrder,
    said: IncomingOrder,
  ): Promise<ReadLine[]> {
    const there = await findAll(tx, 'sales_order_line', { order_id: order.id }, 'line');
    const [before, now] = [bySku(last), bySku(said)];
    const changed = [...new Set([...before.keys(), ...now.keys()])].filter((sku) => {
      const [a, b] = [before.get(sku), now.get(sku)];
      return a?.quantity !== b?.quantity || Number(a?.price ?? 0) !== Number(b?.price ?? 0);
    });
    const kept = there
      .filter((l) => l.quantity > 0)
      .map((l): ReadLine => {
        const own = changed.includes(l.channel_sku) ? now.get(l.channel_sku) : undefined;
        const quantity = changed.includes(l.channel_sku) ? (own?.quantity ?? 0) : l.quantity;
        return {
          line: l.line,
          sku: l.channel_sku,
          itemId: l.item_id,
          quantity,
          factor: l.factor,
          units: quantity * l.factor,
          price: own?.price ?? l.price,
        };
      });
    const fresh = changed.flatMap((sku) => {
      const line = now.get(sku);
      return line && !kept.some((l) => l.sku === sku) ? [line] : [];
    });
    const added = (await this.intake.lines(tx, channel, fresh)).map((l): ReadLine => ({
      ...l,
      line: null,
      sku: l.channelSku,
      units: l.quantity * l.factor,
    }));
    return [...kept.filter((l) => l.quantity > 0), ...added];
  }
}

/** When it was placed is no change of it: a file says it anew each time. */
const isSame = (a: IncomingOrder, b: IncomingOrder) => JSON.stringify({ ...a, placedAt: '' }) === JSON.stringify({ ...b, placedAt: '' });

const revisionOf = (revision: number | null, order: Row<'sales_order'>) => (revision === null ? order.channel_revision : String(revision));

/** Lines of one code taken together, as a customer's second line of the same goods means more of them. */
function bySku(order: IncomingOrder): Map<string, IncomingOrder['lines'][number]> {
  const lines = new Map<string, IncomingOrder['lines'][number]>();
  for (const line of order.lines) {
    const known = lines.get(line.sku);
    lines.set(line.sku, known ? { ...known, quantity: known.quantity + line.quantity } : line);
  }
  return lines;
}

/** The head of an order with what the channel has changed of its own. */
function head(order: Row<'sales_order'>, last: IncomingOrder, said: IncomingOrder) {
  const changed = <T>(was: T, becomes: T, ours: T): T => (was === becomes ? ours : becomes);
  const promised = changed(last.promisedAt ?? '', said.promisedAt ?? '', '');
  return {
    account: null,
    accountId: order.customer_id,
    customer: changed(last.customer, said.customer, order.customer),
    email: changed(last.email ?? '', said.email ?? '', order.email),
    phone: changed(last.phone ?? '', said.phone ?? '', order.phone),
    addressLine: changed(last.address.line, said.address.line, order.address_line),
    city: changed(last.address.city, said.address.city, order.city),
    postcode: changed(last.address.postcode, said.address.postcode, order.postcode),
    country: changed(last.address.country.toUpperCase(), said.address.country.toUpperCase(), order.country),
    siteId: order.site_id,
    promisedAt: promised === '' ? order.promised_at : new Date(promised),
    speed: changed(last.speed ?? 'standard', said.speed ?? 'standard', order.speed),
    priority: order.priority,
    wholeOnly: order.whole_only === 1,
    notePacker: changed(last.note ?? '', said.note ?? '', order.note_packer ?? ''),
    notePicker: order.note_picker ?? '',
  };
}
