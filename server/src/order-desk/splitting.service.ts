import { Injectable } from '@nestjs/common';
import { keptLine, ordersIn, type OrderState } from '@vectrum/core/orders';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { Reservations } from '../allocation/index.js';
import { changeOrder, keepChanges, OrderStates, OrderWriter } from '../orders/index.js';
import { holdRounds } from '../picking/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  find,
  findAll,
  mustBeAt,
  NEXT,
  notFound,
  one,
  type Row,
  rows,
  sqlList,
  type Tx,
} from '../platform/index.js';
import { CancellingService } from './cancelling.service.js';
import { EditingService } from './editing.service.js';
import type { ReadLine } from './keyed.js';
import { openOrder } from './open-order.js';
import type { SiblingDto, SplitDto } from './order-desk.dto.js';

type Line = Row<'sales_order_line'>;
const PROMISABLE = sqlList(ordersIn('promisable'));

/** Makes two orders of one, and one of two: what is promised goes with the goods that it is promised for. */
@Injectable()
export class SplittingService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly writer: OrderWriter,
    private readonly editing: EditingService,
    private readonly cancelling: CancellingService,
    private readonly reservations: Reservations,
    private readonly states: OrderStates,
    private readonly activity: ActivityService,
  ) {}

  /** Moves units of some lines to a new order, at the same site or at another. Returns its number. */
  split(act: Act, code: string, version: number, input: SplitDto): Promise<{ code: string }> {
    mustBeAt(act.person, input.siteId);
    return this.commands.run(act, 'order.split', { code, version, input }, async (tx) => {
      await holdRounds(tx, code);
      const order = await openOrder(tx, act, code, version);
      await holdParcels(tx, [order.id]);
      mustBePromisable(order);
      const lines = await findAll(tx, 'sales_order_line', { order_id: order.id }, 'line');
      const moved = input.lines.map(({ line, units }) => ({ line: this.splittable(lines, line, units), units }));
      const left = lines.filter((l) => l.quantity > 0 && l.kit_line === null && !moved.some((m) => m.line === l && m.units === l.units));
      if (left.length === 0) throw badForm({ lines: `Nothing of ${code} would be left. Change its site instead` });
      const made = await this.writer.write(tx, act, {
        isPart: true,
        ...(await this.headOf(tx, order)),
        siteId: input.siteId,
        lines: moved.map(({ line, units }) => ({ channelSku: line.channel_sku, itemId: line.item_id, ...packsOf(line, units) })),
      });
      const fresh = await findAll(tx, 'sales_order_line', { order_id: (await find(tx, 'sales_order', { code: made }))?.id ?? 0 }, 'line');
      if (input.siteId === order.site_id)
        for (const [i, { line, units }] of moved.entries()) await this.handOver(tx, order.site_id, line, fresh[i], units);
      await this.editing.apply(tx, act, order, headAsIs(order), remaining(lines, moved), `split, the rest is ${made}`);
      return { code: made };
    });
  }

  /** Takes the lines of another order of the same customer into this one; the other is over. */
  merge(act: Act, code: string, version: number, other: string): Promise<{ code: string }> {
    return this.commands.run(act, 'order.merge', { code, version, other }, async (tx) => {
      await holdRounds(tx, code);
      await holdRounds(tx, other);
      const ids = [await find(tx, 'sales_order', { code }), await find(tx, 'sales_order', { code: other })].map((o) => o?.id ?? 0);
      await this.states.lock(
        tx,
        ids.filter((id) => id > 0),
      );
      const order = await openOrder(tx, act, code, version);
      const from = await find(tx, 'sales_order', { code: other });
      if (!from || from.id === order.id) throw notFound(`Order ${other}`);
      await holdParcels(tx, [order.id, from.id]);
      for (const one of [order, from]) mustBePromisable(one);
      if (from.site_id !== order.site_id || from.channel_id !== order.channel_id || from.postcode !== order.postcode)
        throw badState('They go to other addresses, or from other sites. Only what travels together becomes one order');
      const lines = (await findAll(tx, 'sales_order_line', { order_id: from.id }, 'line')).filter(
        (l) => l.quantity > 0 && l.kit_line === null,
      );
      if (lines.some((l) => l.shipped_units > 0)) throw badState(`Something of ${other} has gone already. It stays an order of its own`);
      const last = await one<{ line: number }>(tx, 'SELECT MAX(line) AS line FROM sales_order_line WHERE order_id = ?', [order.id]);
      await this.writer.lines(
        tx,
        order.id,
        last?.line ?? 0,
        lines.map((l) => ({ channelSku: l.channel_sku, itemId: l.item_id, quantity: l.quantity, factor: l.factor, price: l.price })),
      );
      await this.handAll(tx, order, from, last?.line ?? 0);
      await keepChanges(tx, order.id, act.person.id, [{ line: null, what: 'goods', was: null, becomes: `all of ${other}` }]);
      await changeOrder(tx, order.id, { version: NEXT });
      await this.activity.record(tx, act, {
        kind: 'order-change',
        glyph: 'full',
        title: `${other} goes with ${code}`,
        detail: order.customer,
        document: code,
        siteId: order.site_id,
      });
      await this.cancelling.end(tx, act, from, `goes with ${code}`, { customer: false, channel: false });
      return { code };
    });
  }

  /** Orders that could become one with this: of the same customer, to the same address, and not begun. */
  async siblings(code: string, siteIds: readonly number[]): Promise<SiblingDto[]> {
    return rows<SiblingDto>(
      this.source,
      `SELECT s.code, s.promised_at AS promisedAt, (SELECT COUNT(*) FROM sales_order_line l WHERE l.order_id = s.id AND l.quantity > 0 AND l.kit_line IS NULL) AS \`lines\`
       FROM sales_order o JOIN sales_order s ON s.id <> o.id AND s.state IN ${PROMISABLE} AND s.site_id = o.site_id AND s.channel_id = o.channel_id AND s.customer = o.customer AND s.postcode = o.postcode
       WHERE o.code = ? AND o.state IN ${PROMISABLE} AND o.site_id IN (?) ORDER BY s.promised_at LIMIT 10`,
      [code, [0, ...siteIds]],
    );
  }

  private splittable(lines: readonly Line[], number: number, units: number): Line {
    const line = lines.find((l) => l.line === number);
    if (!line || line.item_id === null || line.kit_line !== null || lines.some((l) => l.kit_line === line.line))
      throw badForm({ lines: `Line ${number} cannot be parted: a kit stays together, and what nobody knows stays where it is` });
    if (units > line.units - line.shipped_units)
      throw badForm({ lines: `Only ${line.units - line.shipped_units} of line ${number} are left` });
    return line;
  }

  /** Another order of the same customer; its number for the channel says that it is the second, third, … part. */
  private async headOf(tx: Tx, order: Row<'sales_order'>) {
    let part = 2;
    while (await find(tx, 'sales_order', { channel_id: order.channel_id, channel_ref: `${order.channel_ref}/${part}` })) part++;
    return {
      channelId: order.channel_id,
      ref: `${order.channel_ref}/${part}`.slice(0, 60),
      customerId: order.customer_id,
      customer: order.customer,
      email: order.email,
      phone: order.phone,
      address: { line: order.address_line, city: order.city, postcode: order.postcode, country: order.country },
      placedAt: order.placed_at,
      promisedAt: order.promised_at,
      speed: order.speed,
      priority: order.priority,
      wholeOnly: order.whole_only === 1,
      notePacker: order.note_packer,
      notePicker: order.note_picker,
    };
  }

  /** What is promised to one line for units that another has now goes with them. */
  private async handOver(tx: Tx, siteId: number, from: Line, to: Line | undefined, units: number): Promise<void> {
    if (from.item_id === null || to === undefined) return;
    const held = async (line: Line) =>
      (
        await one<{ units: number }>(tx, 'SELECT units FROM reservation WHERE order_line_id = ? AND site_id = ? AND place_id IS NULL', [
          line.id,
          siteId,
        ])
      )?.units ?? 0;
    const part = Math.min(await held(from), units - (await held(to)));
    if (part <= 0) return;
    await this.reservations.free(tx, { lineId: from.id, itemId: from.item_id, siteId }, null, part);
    await this.reservations.hold(tx, { lineId: to.id, itemId: from.item_id, siteId }, part);
  }

  private async handAll(tx: Tx, order: Row<'sales_order'>, from: Row<'sales_order'>, after: number): Promise<void> {
    const [old, fresh] = [
      await findAll(tx, 'sales_order_line', { order_id: from.id }, 'line'),
      (await findAll(tx, 'sales_order_line', { order_id: order.id }, 'line')).filter((l) => l.line > after),
    ];
    const open = new Map(fresh.map((l) => [l.id, l.units]));
    for (const line of old.filter((l) => l.units > 0)) {
      const to = fresh.find((l) => l.item_id === line.item_id && (open.get(l.id) ?? 0) >= line.units);
      if (!to) continue;
      open.set(to.id, (open.get(to.id) ?? 0) - line.units);
      await this.handOver(tx, order.site_id, line, to, to.units);
    }
  }
}

/** Parcels are held before any stock is, as everywhere. */
const holdParcels = (tx: Tx, orderIds: readonly number[]) =>
  tx.query('SELECT id FROM parcel WHERE order_id IN (?) ORDER BY id FOR UPDATE', [orderIds]);

function mustBePromisable(order: Row<'sales_order'>): void {
  if (!ordersIn('promisable').includes(order.state as OrderState)) throw badState(`${order.code} is ${order.state} already`);
}

/** So many units of a line in its own pack, or in single units where that does not come out even. */
function packsOf(line: Line, units: number): { quantity: number; factor: number; price: string } {
  if (units % line.factor === 0) return { quantity: units / line.factor, factor: line.factor, price: line.price };
  const price = keptLine({ quantity: (1 / line.factor).toFixed(4), factor: line.factor, price: line.price })?.price;
  return { quantity: units, factor: 1, price: price ?? (Number(line.price) / line.factor).toFixed(6) };
}

/** What stays on the order. */
function remaining(lines: readonly Line[], moved: readonly { line: Line; units: number }[]): ReadLine[] {
  return lines
    .filter((l) => l.quantity > 0 && l.kit_line === null)
    .flatMap((l): ReadLine[] => {
      const gone = moved.find((m) => m.line === l)?.units ?? 0;
      const kept = gone === 0 ? { quantity: l.quantity, factor: l.factor, price: l.price } : packsOf(l, l.units - gone);
      if (kept.quantity === 0) return [];
      return [{ line: l.line, sku: l.channel_sku, itemId: l.item_id, units: kept.quantity * kept.factor, ...kept }];
    });
}

function headAsIs(order: Row<'sales_order'>) {
  return {
    accountId: order.customer_id,
    customer: order.customer,
    email: order.email,
    phone: order.phone,
    addressLine: order.address_line,
    city: order.city,
    postcode: order.postcode,
    country: order.country,
    siteId: order.site_id,
    promisedAt: order.promised_at,
    speed: order.speed,
    priority: order.priority,
    wholeOnly: order.whole_only === 1,
    notePacker: order.note_packer ?? '',
    notePicker: order.note_picker ?? '',
  };
}
