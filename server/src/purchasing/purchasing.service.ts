import { Injectable } from '@nestjs/common';
import { type Act, mustBeAt } from '../platform/act.js';
import { ActivityService } from '../activity/activity.service.js';
import { Item, PackUnitRow, Supplier } from '../catalogue/catalogue.entity.js';
import { CommandLog } from '../platform/command-log.js';
import type { Tx } from '../platform/database/tx.js';
import { nextCode } from '../platform/number-series.js';
import { Outbox } from '../platform/outbox.js';
import { badForm, badState, notFound } from '../platform/problem.js';
import { mustMatch } from '../platform/version.js';
import { PurchaseOrder, PurchaseOrderLine } from './purchase-order.entity.js';
import type { EditPurchaseOrderDto, EditPurchaseOrderLineDto } from './purchasing.dto.js';

/** Writes, places and cancels purchase orders. Only a draft can be rewritten; the dock sees none. */
@Injectable()
export class PurchasingService {
  constructor(
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly outbox: Outbox,
  ) {}

  add(act: Act, input: EditPurchaseOrderDto): Promise<{ code: string }> {
    mustBeAt(act.person, input.siteId);
    return this.commands.run(act, 'purchase-order.add', input, async (tx) => {
      const supplier = await this.supplier(tx, input.supplier);
      const code = await nextCode(tx, 'P');
      const made = await tx.insert(PurchaseOrder, {
        code,
        supplierId: supplier.id,
        siteId: input.siteId,
        currency: supplier.currency,
        expectedOn: input.expectedOn ?? null,
        note: input.note,
        createdBy: act.person.id,
      });
      await this.writeLines(tx, (made.identifiers[0] as { id: number }).id, input.lines);
      await this.activity.record(tx, act, {
        kind: 'purchase-order',
        glyph: 'empty',
        title: `${code} drafted`,
        detail: supplier.name,
        document: code,
        siteId: input.siteId,
      });
      return { code };
    });
  }

  edit(act: Act, code: string, version: number, input: EditPurchaseOrderDto): Promise<{ code: string }> {
    mustBeAt(act.person, input.siteId);
    return this.commands.run(act, 'purchase-order.edit', { code, version, input }, async (tx) => {
      const order = await this.locked(tx, act, code, version);
      if (order.state !== 'draft') throw badState(`${code} is placed already. Cancel it and write a new one, or receive what comes`);
      const supplier = await this.supplier(tx, input.supplier);
      await tx.update(PurchaseOrder, order.id, {
        supplierId: supplier.id,
        siteId: input.siteId,
        currency: supplier.currency,
        expectedOn: input.expectedOn ?? null,
        note: input.note,
        version: version + 1,
      });
      await tx.delete(PurchaseOrderLine, { orderId: order.id });
      await this.writeLines(tx, order.id, input.lines);
      await this.activity.record(tx, act, {
        kind: 'purchase-order',
        glyph: 'empty',
        title: `${code} rewritten`,
        detail: supplier.name,
        document: code,
        siteId: input.siteId,
      });
      return { code };
    });
  }

  /** Sends the order to the supplier and shows it to the dock. */
  place(act: Act, code: string, version: number): Promise<{ code: string }> {
    return this.commands.run(act, 'purchase-order.place', { code, version }, async (tx) => {
      const order = await this.locked(tx, act, code, version);
      if (order.state !== 'draft') throw badState(`${code} is ${order.state} already`);
      const supplier = await tx.findOneByOrFail(Supplier, { id: order.supplierId });
      await tx.update(PurchaseOrder, order.id, {
        state: 'placed',
        placedAt: new Date(),
        placedBy: act.person.id,
        version: version + 1,
      });
      if (supplier.email)
        await this.outbox.send(
          tx,
          `mail:${supplier.email}`,
          'mail.purchase-order',
          { code, to: supplier.email, supplier: supplier.name },
          code,
        );
      await this.activity.record(tx, act, {
        kind: 'purchase-order',
        glyph: 'go',
        title: `${code} placed with ${supplier.name}`,
        document: code,
        siteId: order.siteId,
      });
      return { code };
    });
  }

  cancel(act: Act, code: string, version: number): Promise<{ code: string }> {
    return this.commands.run(act, 'purchase-order.cancel', { code, version }, async (tx) => {
      const order = await this.locked(tx, act, code, version);
      if (order.state !== 'draft' && order.state !== 'placed')
        throw badState(`${code} is ${order.state}. Goods have come on it, so it cannot be cancelled`);
      await tx.update(PurchaseOrder, order.id, { state: 'cancelled', version: version + 1 });
      await this.activity.record(tx, act, {
        kind: 'purchase-order',
        glyph: 'blocked',
        title: `${code} cancelled`,
        document: code,
        siteId: order.siteId,
      });
      return { code };
    });
  }

  private async supplier(tx: Tx, code: string): Promise<Supplier> {
    const supplier = await tx.findOneBy(Supplier, { code: code.toUpperCase() });
    if (!supplier) throw badForm({ supplier: `There is no supplier ${code}. Choose one from the list` });
    return supplier;
  }

  private async locked(tx: Tx, act: Act, code: string, version: number): Promise<PurchaseOrder> {
    const order = await tx.findOne(PurchaseOrder, { where: { code }, lock: { mode: 'pessimistic_write' } });
    if (!order) throw notFound(`Purchase order ${code}`);
    mustBeAt(act.person, order.siteId);
    mustMatch(order.version, version);
    return order;
  }

  private async writeLines(tx: Tx, orderId: number, lines: readonly EditPurchaseOrderLineDto[]): Promise<void> {
    for (const [i, line] of lines.entries()) {
      const item = await tx.findOneBy(Item, { sku: line.sku.toUpperCase() });
      if (!item) throw badForm({ lines: `Line ${i + 1}: there is no item ${line.sku}` });
      const pack = await tx.findOneBy(PackUnitRow, { itemId: item.id, factor: line.factor });
      if (!pack) throw badForm({ lines: `Line ${i + 1}: ${line.sku} has no pack of ${line.factor}` });
      await tx.insert(PurchaseOrderLine, {
        orderId,
        line: i + 1,
        itemId: item.id,
        packUnitId: pack.id,
        packs: line.packs,
        factor: line.factor,
        price: line.price,
      });
    }
  }
}
