import { Injectable } from '@nestjs/common';
import { ordersIn } from '@vectrum/core/orders';
import { ActivityService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { Item } from '../catalogue/index.js';
import { ChannelsService } from '../channels/index.js';
import { type Act, badForm, badState, CommandLog, mustBeAt, mustMatch, notFound, type Tx } from '../platform/index.js';
import type { ClearHoldDto, LinkLineDto } from './orders.dto.js';
import { OrderStates } from './order-states.service.js';
import { SalesOrder, SalesOrderLine } from './sales-order.entity.js';

/** What the order desk does to an order: mend its address, link unknown codes, let it go on. */
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
      const order = await tx.findOne(SalesOrder, { where: { code }, lock: { mode: 'pessimistic_write' } });
      if (!order) throw notFound(`Order ${code}`);
      mustBeAt(act.person, order.siteId);
      mustMatch(order.version, version);
      if (!ordersIn('promisable').includes(order.state)) throw badState(`${code} is ${order.state} already`);
      for (const link of input.links ?? []) await this.link(tx, order, link);
      const address = {
        addressLine: input.addressLine ?? order.addressLine,
        city: input.city ?? order.city,
        postcode: input.postcode ?? order.postcode,
      };
      const lines = await tx.findBy(SalesOrderLine, { orderId: order.id });
      const unknown = lines.filter((l) => l.itemId === null).map((l) => l.channelSku);
      const holdReason =
        unknown.length > 0
          ? `Unknown code ${unknown.join(', ')}. Link it to an item`
          : address.addressLine.trim() === '' || address.postcode.trim() === ''
            ? 'No postcode or street. Ask the customer'
            : null;
      await tx.update(SalesOrder, order.id, {
        ...address,
        holdReason,
        notePacker: input.notePacker === undefined ? order.notePacker : input.notePacker,
        version: version + 1,
      });
      await this.states.refresh(tx, [order.id]);
      await this.activity.record(tx, act, {
        kind: 'order',
        glyph: holdReason ? 'held' : 'empty',
        title: holdReason ? `${code} still held` : `${code} goes on`,
        detail: holdReason ?? order.customer,
        document: code,
        siteId: order.siteId,
      });
      await this.allocation.settle(
        tx,
        lines.flatMap((l) => (l.itemId === null ? [] : [{ siteId: order.siteId, itemId: l.itemId }])),
      );
      return { code };
    });
  }

  /** Ties a channel's unknown code to an item, for this order and every later one. */
  private async link(tx: Tx, order: SalesOrder, link: LinkLineDto): Promise<void> {
    const item = await tx.findOneBy(Item, { sku: link.sku.toUpperCase() });
    if (!item) throw badForm({ links: `There is no item ${link.sku}. Type the SKU of one that is here` });
    const line = await tx.findOneBy(SalesOrderLine, { orderId: order.id, line: link.line });
    if (!line) throw badForm({ links: `${order.code} has no line ${link.line}` });
    if (line.itemId !== null) return;
    const listing = await this.channels.link(tx, order.channelId, { channelSku: line.channelSku, itemId: item.id, price: line.price });
    await tx.update(SalesOrderLine, line.id, {
      itemId: listing.itemId,
      units: line.quantity * listing.factor,
    });
  }
}
