import { Injectable } from '@nestjs/common';
import { ordersIn, type OrderState } from '@vectrum/core/orders';
import { ActivityService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { ChannelsService } from '../channels/index.js';
import {
  changeOrder,
  changeLine,
  addHold,
  clearHolds,
  followOwnHolds,
  keepChanges,
  OrderStates,
  OrderWriter,
  OWN_HOLDS,
  sayHeld,
} from '../orders/index.js';
import { holdRounds, RecallService } from '../picking/index.js';
import { type DocumentChange, type Act, badForm, badState, CommandLog, find, NEXT, one, type Row, type Tx } from '../platform/index.js';
import { openOrder } from './open-order.js';
import type { ClearHoldDto, HoldDto, LinkLineDto } from './order-desk.dto.js';

/** What makes an order wait for somebody, and what lets it go on: mended by the desk, or set and cleared by hand with a reason. */
@Injectable()
export class HoldsService {
  constructor(
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly allocation: AllocationService,
    private readonly states: OrderStates,
    private readonly channels: ChannelsService,
    private readonly recalls: RecallService,
    private readonly writer: OrderWriter,
  ) {}

  /** Mends what held the order by itself; it goes on where nothing else holds it. */
  mend(act: Act, code: string, version: number, input: ClearHoldDto): Promise<{ code: string }> {
    return this.commands.run(act, 'order.clear-hold', { code, version, input }, async (tx) => {
      const order = await openOrder(tx, act, code, version);
      if (!ordersIn('promisable').includes(order.state as OrderState)) throw badState(`${code} is ${order.state} already`);
      for (const link of input.links ?? []) await this.link(tx, order, link);
      const address = {
        address_line: input.addressLine ?? order.address_line,
        city: input.city ?? order.city,
        postcode: input.postcode ?? order.postcode,
      };
      const changes: DocumentChange[] = [
        { line: null, what: 'street', was: order.address_line, becomes: address.address_line },
        { line: null, what: 'town', was: order.city, becomes: address.city },
        { line: null, what: 'postcode', was: order.postcode, becomes: address.postcode },
        ...(input.links ?? []).map((l) => ({ line: l.line, what: 'goods', was: null, becomes: l.sku.toUpperCase() })),
      ];
      await keepChanges(tx, order.id, act.person.id, changes);
      await changeOrder(tx, order.id, {
        ...address,
        note_packer: input.notePacker === undefined ? order.note_packer : input.notePacker,
        version: NEXT,
      });
      await followOwnHolds(tx, { id: order.id, addressLine: address.address_line, postcode: address.postcode }, act.person.id);
      return this.goOn(tx, act, order);
    });
  }

  /** Holds an order for a reason, with who is to see to it. What is sent to picking and not begun is recalled. */
  hold(act: Act, code: string, version: number, input: HoldDto): Promise<{ code: string }> {
    return this.commands.run(act, 'order.hold', { code, version, input }, async (tx) => {
      await holdRounds(tx, code);
      const order = await openOrder(tx, act, code, version);
      if (!ordersIn('live').includes(order.state as OrderState)) throw badState(`${code} is ${order.state}. There is nothing to hold`);
      const owner = input.ownerId ? await find(tx, 'person', { id: input.ownerId }) : undefined;
      if (input.ownerId && !owner) throw badForm({ ownerId: 'Nobody here goes by that. Choose a person' });
      await addHold(tx, order.id, { kind: input.kind, reason: input.reason.trim(), ownerId: owner?.id ?? null, setBy: act.person.id });
      await sayHeld(tx, order.id);
      if (order.state === 'released') await this.recalls.fromStops(tx, order.id);
      await changeOrder(tx, order.id, { version: NEXT });
      await this.states.refresh(tx, [order.id]);
      await this.activity.record(tx, act, {
        kind: 'order-change',
        glyph: 'held',
        title: `${code} held`,
        detail: [input.reason.trim(), owner ? `for ${owner.name}` : ''].filter(Boolean).join(', '),
        document: code,
        siteId: order.site_id,
      });
      return { code };
    });
  }

  /** Clears one hold by hand. Those that follow from the order go only with what is wrong. */
  clear(act: Act, code: string, version: number, holdId: number, why: string): Promise<{ code: string }> {
    return this.commands.run(act, 'order.hold-clear', { code, version, holdId, why }, async (tx) => {
      const order = await openOrder(tx, act, code, version);
      const hold = await one<{ kind: string; cleared: number }>(
        tx,
        'SELECT kind, cleared_at IS NOT NULL AS cleared FROM order_hold WHERE id = ? AND order_id = ?',
        [holdId, order.id],
      );
      if (!hold || Number(hold.cleared) === 1) throw badState('That is cleared already');
      if (OWN_HOLDS.some((k) => k === hold.kind)) throw badState('This goes by itself once the code is linked or the address is complete');
      await clearHolds(tx, order.id, { id: holdId }, act.person.id, why.trim());
      await sayHeld(tx, order.id);
      await changeOrder(tx, order.id, { version: NEXT });
      return this.goOn(tx, act, order);
    });
  }

  /** The order goes on, where nothing holds it any more. */
  private async goOn(tx: Tx, act: Act, order: Row<'sales_order'>): Promise<{ code: string }> {
    await this.states.refresh(tx, [order.id]);
    const held = (await find(tx, 'sales_order', { id: order.id }))?.hold_reason ?? null;
    await this.activity.record(tx, act, {
      kind: 'order-change',
      glyph: held ? 'held' : 'empty',
      title: held ? `${order.code} still held` : `${order.code} goes on`,
      detail: held ?? order.customer,
      document: order.code,
      siteId: order.site_id,
    });
    await this.allocation.settleOrder(tx, order);
    return { code: order.code };
  }

  /** Ties a channel's unknown code to an item, for this order and every later one. */
  private async link(tx: Tx, order: Row<'sales_order'>, link: LinkLineDto): Promise<void> {
    const item = await find(tx, 'item', { sku: link.sku.toUpperCase() });
    if (!item) throw badForm({ links: `There is no item ${link.sku}. Type the SKU of one that is here` });
    const line = await find(tx, 'sales_order_line', { order_id: order.id, line: link.line });
    if (!line) throw badForm({ links: `${order.code} has no line ${link.line}` });
    if (line.item_id !== null) return;
    const listing = await this.channels.link(tx, order.channel_id, { channelSku: line.channel_sku, itemId: item.id, price: line.price });
    await changeLine(tx, line.id, { item_id: listing.itemId, factor: listing.factor, units: line.quantity * listing.factor });
    await this.writer.openKit(tx, order.id, { line: line.line, itemId: listing.itemId, units: line.quantity * listing.factor });
  }
}
