import { promisedFor } from '@vectrum/core/promise';
import { Injectable } from '@nestjs/common';
import { ActivityService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { ChannelsService } from '../channels/index.js';
import { CalendarQueries } from '../company/index.js';
import { changeOrder, OrderStates, OrderWriter } from '../orders/index.js';
import { type Act, badForm, badState, CommandLog, find, findAll, mustBeAt, NEXT, Outbox, type Row, type Tx } from '../platform/index.js';
import { accountOf, keptLines } from './keyed.js';
import { openOrder } from './open-order.js';
import type { NewOrderDto } from './order-desk.dto.js';

/** Orders and quotes that are keyed at the desk. */
@Injectable()
export class EntryService {
  constructor(
    private readonly commands: CommandLog,
    private readonly writer: OrderWriter,
    private readonly channels: ChannelsService,
    private readonly calendars: CalendarQueries,
    private readonly states: OrderStates,
    private readonly allocation: AllocationService,
    private readonly activity: ActivityService,
    private readonly outbox: Outbox,
  ) {}

  /** Writes an order or a quote down. A number of the customer's that is here already is refused, since that is the same order. */
  add(act: Act, input: NewOrderDto): Promise<{ code: string }> {
    mustBeAt(act.person, input.siteId);
    if (input.promisedAt && input.promisedAt.getTime() <= Date.now()) throw badForm({ promisedAt: 'Choose a time from now on' });
    return this.commands.run(act, 'order.add', input, async (tx) => {
      const channelId = await this.channelOf(tx, act, input);
      const ref = input.ref.trim() || null;
      const known = ref && (await find(tx, 'sales_order', { channel_id: channelId, channel_ref: ref }));
      if (known) throw badForm({ ref: `Their number ${ref} is here already: ${known.code}. Open that one, or leave the number out` });
      const account = await accountOf(tx, input.account);
      const lines = await keptLines(tx, input.lines, []);
      const code = await this.writer.write(tx, act, {
        channelId,
        ref,
        siteId: input.siteId,
        customerId: account?.id ?? null,
        customer: input.customer.trim(),
        email: input.email.trim(),
        phone: input.phone.trim(),
        address: { line: input.addressLine.trim(), city: input.city.trim(), postcode: input.postcode.trim(), country: input.country },
        placedAt: new Date(),
        promisedAt: input.promisedAt ?? null,
        speed: input.speed,
        priority: input.priority,
        wholeOnly: input.wholeOnly,
        notePacker: input.notePacker.trim() || null,
        notePicker: input.notePicker.trim() || null,
        isQuote: input.quote,
        quotedUntil: input.quote ? (input.quotedUntil ?? null) : null,
        lines: lines.map(({ sku, itemId, quantity, factor, price }) => ({ channelSku: sku, itemId, quantity, factor, price })),
      });
      return { code };
    });
  }

  /** The customer says yes: the quote is an order from now on, promised anew where its time has passed. */
  confirm(act: Act, code: string, version: number, promisedAt: Date | null): Promise<{ code: string }> {
    return this.commands.run(act, 'order.confirm', { code, version, promisedAt }, async (tx) => {
      const order = await openOrder(tx, act, code, version);
      if (order.state !== 'quote') throw badState(`${code} is ${order.state}. Only a quote can be confirmed`);
      const soonest = promisedFor(new Date(), await this.calendars.of(tx, order.site_id));
      const promised = promisedAt ?? (order.promised_at.getTime() < Date.now() ? soonest : order.promised_at);
      await this.addAlong(tx, order);
      await changeOrder(tx, order.id, { quoted: false, placed_at: new Date(), promised_at: promised, version: NEXT });
      await this.states.refresh(tx, [order.id]);
      await this.activity.record(tx, act, {
        kind: 'order',
        glyph: order.hold_reason ? 'held' : 'empty',
        title: `Quote ${code} is an order`,
        detail: order.customer,
        document: code,
        siteId: order.site_id,
      });
      await this.allocation.settleOrder(tx, order);
      return { code };
    });
  }

  /** What goes along by the house's rules is no part of a quote: it comes with the order. */
  private async addAlong(tx: Tx, order: Row<'sales_order'>): Promise<void> {
    const lines = await findAll(tx, 'sales_order_line', { order_id: order.id }, 'line');
    const forWhom = { channelId: order.channel_id, customerId: order.customer_id, email: order.email };
    const along = await this.writer.goAlong(tx, {
      ...forWhom,
      orderId: order.id,
      lines: lines.map((l) => ({ channelSku: l.channel_sku, itemId: l.item_id, quantity: l.quantity, factor: l.factor, price: l.price })),
    });
    await this.writer.lines(tx, order.id, lines.at(-1)?.line ?? 0, along);
  }

  /** Mails the quote, or what was ordered, to the customer, as a paper with prices. */
  mail(act: Act, code: string): Promise<{ code: string }> {
    return this.commands.run(act, 'order.mail', { code }, async (tx) => {
      const order = await find(tx, 'sales_order', { code }, 'lock');
      if (!order) throw badState(`There is no order ${code}`);
      mustBeAt(act.person, order.site_id);
      if (!order.email) throw badState(`No mail address is known for ${order.customer}. Change the order and write it down`);
      await this.outbox.send(
        tx,
        `mail:${order.email}`,
        'mail.order-paper',
        { order: code, to: order.email },
        { siteId: order.site_id, document: code },
      );
      await this.activity.record(tx, act, {
        kind: 'order-change',
        glyph: 'go',
        title: `${order.state === 'quote' ? 'Quote' : 'Confirmation of'} ${code} mailed`,
        detail: order.email,
        document: code,
        siteId: order.site_id,
      });
      return { code };
    });
  }

  private async channelOf(tx: Tx, act: Act, input: NewOrderDto): Promise<number> {
    if (!input.channel) return this.channels.desk(tx, input.siteId);
    const channel = await find(tx, 'channel', { code: input.channel.toUpperCase() });
    if (!channel || !act.person.siteIds.includes(channel.site_id)) throw badForm({ channel: `There is no channel ${input.channel}` });
    return channel.id;
  }
}
