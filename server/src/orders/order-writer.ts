import { promisedFor } from '@vectrum/core/promise';
import { Injectable } from '@nestjs/common';
import { ActivityService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { CalendarQueries } from '../company/index.js';
import { type Act, insert, nextCode, one, type Tx, update } from '../platform/index.js';
import { partLines, partsOf } from './kits.js';
import { type GoesAlong, InsertRules } from './insert-rules.service.js';
import { Announcing } from './announcing.js';
import { addHold, type Hold, ownHolds, sayHeld } from './holds.js';

/** A line as it is written down: `quantity` of what was ordered, each of `factor` base units. */
export interface NewLine {
  channelSku: string;
  itemId: number | null;
  quantity: number;
  factor: number;
  price: string;
  /** It was added by the house, and asked for by nobody. */
  along?: boolean;
}
export interface NewOrder {
  channelId: number;
  /** The channel's or the customer's own number; without one it goes by ours. */
  ref: string | null;
  siteId: number;
  customerId?: number | null;
  customer: string;
  email: string;
  phone?: string;
  address: { line: string; city: string; postcode: string; country: string };
  placedAt: Date;
  /** Without one it is promised for the first van that it can catch. */
  promisedAt: Date | null;
  speed: string;
  priority?: number;
  wholeOnly?: boolean;
  notePacker: string | null;
  notePicker?: string | null;
  quotedUntil?: string | null;
  isQuote?: boolean;
  lines: readonly NewLine[];
  holds?: readonly Hold[];
  /** What its channel said, and how often it has said it. */
  said?: string;
  /** A part of another order has had its inserts with that. */
  isPart?: boolean;
  revision?: number | null;
}

/** Writes orders down, whoever they come from: with what holds them, on the tape, and with what can be promised at once. */
@Injectable()
export class OrderWriter {
  constructor(
    private readonly allocation: AllocationService,
    private readonly activity: ActivityService,
    private readonly calendars: CalendarQueries,
    private readonly announcing: Announcing,
    private readonly inserts: InsertRules,
  ) {}

  /** Writes an order and returns its number. `act` is the desk's; null where a channel sent it. */
  async write(tx: Tx, act: Act | null, order: NewOrder): Promise<string> {
    const code = await nextCode(tx, 'S');
    const along = order.isQuote || order.isPart ? [] : await this.goAlong(tx, order);
    const unknown = order.lines.filter((l) => l.itemId === null).map((l) => l.channelSku);
    const quoted = order.isQuote ?? false;
    const holds = [...ownHolds({ addressLine: order.address.line, postcode: order.address.postcode }, unknown), ...(order.holds ?? [])];
    const promisedAt = order.promisedAt ?? promisedFor(new Date(), await this.calendars.of(tx, order.siteId));
    const orderId = await insert(tx, 'sales_order', {
      code,
      channel_id: order.channelId,
      channel_ref: order.ref ?? code,
      site_id: order.siteId,
      state: quoted ? 'quote' : holds.length > 0 ? 'held' : 'open',
      quoted,
      quoted_until: order.quotedUntil ?? null,
      customer_id: order.customerId ?? null,
      customer: order.customer,
      email: order.email,
      phone: order.phone ?? '',
      address_line: order.address.line,
      city: order.address.city,
      postcode: order.address.postcode,
      country: order.address.country.toUpperCase(),
      placed_at: order.placedAt,
      promised_at: promisedAt,
      speed: order.speed,
      priority: order.priority ?? 0,
      whole_only: order.wholeOnly ?? false,
      note_packer: order.notePacker,
      note_picker: order.notePicker ?? null,
      channel_said: order.said ?? null,
      channel_revision: order.revision == null ? null : String(order.revision),
    });
    const written = await this.lines(tx, orderId, 0, [...order.lines, ...along]);
    for (const hold of holds) await addHold(tx, orderId, hold);
    const held = holds.length > 0 ? await sayHeld(tx, orderId) : null;
    await this.activity.record(tx, act, {
      kind: 'order',
      glyph: held ? 'held' : 'empty',
      title: act ? `${code} ${quoted ? 'quoted to' : 'keyed for'} ${order.customer}` : `${code} came in, ${order.customer}`,
      detail: held ?? `${order.lines.length} ${order.lines.length === 1 ? 'line' : 'lines'}${order.ref ? `, their ref ${order.ref}` : ''}`,
      document: code,
      siteId: order.siteId,
    });
    if (quoted) return code;
    await this.allocation.settle(tx, goodsOf(order.siteId, written));
    const { siteId, customer, speed, priority = 0 } = order;
    await this.announcing.tell(tx, { code, siteId, customer, priority, speed, promisedAt, held, byPersonId: act?.person.id ?? null });
    return code;
  }

  /** What goes along with an order by the house's rules. */
  goAlong(tx: Tx, order: Pick<NewOrder, 'channelId' | 'customerId' | 'email' | 'lines'> & { orderId?: number }): Promise<GoesAlong[]> {
    return this.inserts.goAlong(tx, { ...order, customerId: order.customerId ?? null });
  }

  /** Adds lines behind the number `after`, each kit with its parts behind it. Returns all that were written. */
  async lines(tx: Tx, orderId: number, after: number, lines: readonly NewLine[]): Promise<NewLine[]> {
    const kits = await partsOf(
      tx,
      lines.flatMap((l) => (l.itemId === null ? [] : [l.itemId])),
    );
    const written: NewLine[] = [];
    let number = after;
    for (const line of lines) {
      const parts = line.itemId === null ? undefined : kits.get(line.itemId);
      const head = ++number;
      await this.line(tx, orderId, head, line, { isKit: parts !== undefined, kitLine: null });
      written.push(line);
      for (const part of partLines(parts ?? [], line.quantity * line.factor)) {
        await this.line(tx, orderId, ++number, part, { isKit: false, kitLine: head });
        written.push(part);
      }
    }
    return written;
  }

  /** A line whose goods have just been found out: where they are a kit, its parts follow at the end of the order. Returns their items. */
  async openKit(tx: Tx, orderId: number, line: { line: number; itemId: number; units: number }): Promise<number[]> {
    const parts = (await partsOf(tx, [line.itemId])).get(line.itemId);
    if (!parts) return [];
    await update(tx, 'sales_order_line', { order_id: orderId, line: line.line }, { units: 0 });
    const last = await one<{ line: number }>(tx, 'SELECT MAX(line) AS line FROM sales_order_line WHERE order_id = ?', [orderId]);
    let number = last?.line ?? line.line;
    for (const part of partLines(parts, line.units)) await this.line(tx, orderId, ++number, part, { isKit: false, kitLine: line.line });
    return parts.map((p) => p.itemId);
  }

  private async line(
    tx: Tx,
    orderId: number,
    number: number,
    line: NewLine,
    kit: { isKit: boolean; kitLine: number | null },
  ): Promise<void> {
    await insert(tx, 'sales_order_line', {
      order_id: orderId,
      line: number,
      channel_sku: line.channelSku,
      item_id: line.itemId,
      quantity: line.quantity,
      factor: line.factor,
      // A kit is sold as one and picked by its parts: nothing is promised to the kit itself.
      units: kit.isKit ? 0 : line.quantity * line.factor,
      price: line.price,
      along: line.along ?? false,
      kit_line: kit.kitLine,
    });
  }
}

/** The goods of lines at a site, whose promises are to be settled. */
const goodsOf = (siteId: number, lines: readonly { itemId: number | null }[]) =>
  lines.flatMap((l) => (l.itemId === null ? [] : [{ siteId, itemId: l.itemId }]));
