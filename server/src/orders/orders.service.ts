import { Injectable } from '@nestjs/common';
import { ordersIn, type OrderState } from '@vectrum/core/orders';
import { ActivityService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { ChannelsService } from '../channels/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  find,
  findAll,
  mustBeAt,
  mustMatch,
  notFound,
  type Row,
  siteDay,
  timeText,
  type Tx,
  update,
} from '../platform/index.js';
import type { ClearHoldDto, LinkLineDto } from './orders.dto.js';
import { OrderStates } from './order-states.service.js';

const FARTHEST_MS = 366 * 86_400_000;

/** What the order desk does to an order: mend its address, link unknown codes, let it go on, promise it anew. */
@Injectable()
export class OrdersService {
  constructor(
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly allocation: AllocationService,
    private readonly states: OrderStates,
    private readonly channels: ChannelsService,
  ) {}

  /** Mends what held the order; it goes on where nothing is left to mend. */
  clearHold(act: Act, code: string, version: number, input: ClearHoldDto): Promise<{ code: string }> {
    return this.commands.run(act, 'order.clear-hold', { code, version, input }, async (tx) => {
      const order = await find(tx, 'sales_order', { code }, 'lock');
      if (!order) throw notFound(`Order ${code}`);
      mustBeAt(act.person, order.site_id);
      mustMatch(order.version, version);
      if (!ordersIn('promisable').includes(order.state as OrderState)) throw badState(`${code} is ${order.state} already`);
      for (const link of input.links ?? []) await this.link(tx, order, link);
      const address = {
        address_line: input.addressLine ?? order.address_line,
        city: input.city ?? order.city,
        postcode: input.postcode ?? order.postcode,
      };
      const lines = await findAll(tx, 'sales_order_line', { order_id: order.id }, 'id');
      const unknown = lines.filter((l) => l.item_id === null).map((l) => l.channel_sku);
      const holdReason =
        unknown.length > 0
          ? `Unknown code ${unknown.join(', ')}. Link it to an item`
          : address.address_line.trim() === '' || address.postcode.trim() === ''
            ? 'No postcode or street. Ask the customer'
            : null;
      await update(
        tx,
        'sales_order',
        { id: order.id },
        {
          ...address,
          hold_reason: holdReason,
          note_packer: input.notePacker === undefined ? order.note_packer : input.notePacker,
          version: version + 1,
        },
      );
      await this.states.refresh(tx, [order.id]);
      await this.activity.record(tx, act, {
        kind: 'order',
        glyph: holdReason ? 'held' : 'empty',
        title: holdReason ? `${code} still held` : `${code} goes on`,
        detail: holdReason ?? order.customer,
        document: code,
        siteId: order.site_id,
      });
      await this.allocation.settle(
        tx,
        lines.flatMap((l) => (l.item_id === null ? [] : [{ siteId: order.site_id, itemId: l.item_id }])),
      );
      return { code };
    });
  }

  /** Promises an open order for another time; it waits for goods in the place that this gives it. */
  promise(act: Act, code: string, version: number, at: Date): Promise<{ code: string }> {
    const now = Date.now();
    if (Number.isNaN(at.getTime()) || at.getTime() <= now || at.getTime() > now + FARTHEST_MS)
      throw badForm({ at: 'Choose a time from now on, within a year' });
    return this.commands.run(act, 'order.promise', { code, version, at: at.toISOString() }, async (tx) => {
      const order = await find(tx, 'sales_order', { code }, 'lock');
      if (!order) throw notFound(`Order ${code}`);
      mustBeAt(act.person, order.site_id);
      mustMatch(order.version, version);
      if (!ordersIn('promisable').includes(order.state as OrderState)) throw badState(`${code} is ${order.state} already`);
      await update(tx, 'sales_order', { id: order.id }, { promised_at: at, version: version + 1 });
      const { timeZone } = await siteDay(tx, order.site_id);
      await this.activity.record(tx, act, {
        kind: 'order',
        glyph: 'half',
        title: `${code} promised for ${timeText(at, timeZone)}`,
        detail: `before: ${timeText(order.promised_at, timeZone)}`,
        document: code,
        siteId: order.site_id,
      });
      const lines = await findAll(tx, 'sales_order_line', { order_id: order.id }, 'id');
      await this.allocation.settle(
        tx,
        lines.flatMap((l) => (l.item_id === null ? [] : [{ siteId: order.site_id, itemId: l.item_id }])),
      );
      return { code };
    });
  }

  /** Ties a channel's unknown code to an item, for this order and every later one. */
  private async link(tx: Tx, order: Row<'sales_order'>, link: LinkLineDto): Promise<void> {
    const item = await find(tx, 'item', { sku: link.sku.toUpperCase() });
    if (!item) throw badForm({ links: `There is no item ${link.sku}. Type the SKU of one that is here` });
    const line = await find(tx, 'sales_order_line', { order_id: order.id, line: link.line });
    if (!line) throw badForm({ links: `${order.code} has no line ${link.line}` });
    if (line.item_id !== null) return;
    const listing = await this.channels.link(tx, order.channel_id, { channelSku: line.channel_sku, itemId: item.id, price: line.price });
    await update(tx, 'sales_order_line', { id: line.id }, { item_id: listing.itemId, units: line.quantity * listing.factor });
  }
}
