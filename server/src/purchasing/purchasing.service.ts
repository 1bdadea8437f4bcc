import { Injectable } from '@nestjs/common';
import { ActivityService } from '../activity/index.js';
import { type Act, badForm, badState, CommandLog, mustBeAt, mustMatch, nextCode, notFound, Outbox, type Tx } from '../platform/index.js';
import { doorId } from '../sites/index.js';
import { Supplier } from '../suppliers/index.js';
import { dropAnnounced } from './announced.js';
import { keepChanges } from './order-changes.js';
import { addLines, changeLines, stateOf, writeCharges } from './order-lines.js';
import { PurchaseOrder, PurchaseOrderLine } from './purchase-order.entity.js';
import type { EditPurchaseOrderDto } from './purchasing.dto.js';

/** Writes, places, changes, closes and cancels purchase orders. The dock sees no draft. */
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
        doorId: await doorId(tx, input.siteId, input.door),
        note: input.note,
        createdBy: act.person.id,
      });
      const { id } = made.identifiers[0] as { id: number };
      await addLines(tx, id, input.lines);
      await writeCharges(tx, id, input.charges);
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

  /** Rewrites a draft; on a placed order it changes what may still change, keeps what it was, and tells the supplier. */
  edit(act: Act, code: string, version: number, input: EditPurchaseOrderDto): Promise<{ code: string }> {
    mustBeAt(act.person, input.siteId);
    return this.commands.run(act, 'purchase-order.edit', { code, version, input }, async (tx) => {
      const order = await this.locked(tx, act, code, version);
      if (order.state === 'draft') return this.rewrite(tx, act, order, input);
      if (order.state !== 'placed' && order.state !== 'part-received') throw badState(`${code} is ${order.state}. Write a new order`);
      return this.change(tx, act, order, input);
    });
  }

  private async rewrite(tx: Tx, act: Act, order: PurchaseOrder, input: EditPurchaseOrderDto): Promise<{ code: string }> {
    const { code } = order;
    const supplier = await this.supplier(tx, input.supplier);
    await tx.update(PurchaseOrder, order.id, {
      supplierId: supplier.id,
      siteId: input.siteId,
      currency: supplier.currency,
      expectedOn: input.expectedOn ?? null,
      doorId: await doorId(tx, input.siteId, input.door),
      note: input.note,
      version: order.version + 1,
    });
    await tx.delete(PurchaseOrderLine, { orderId: order.id });
    await addLines(tx, order.id, input.lines);
    await writeCharges(tx, order.id, input.charges);
    await this.activity.record(tx, act, {
      kind: 'purchase-order',
      glyph: 'empty',
      title: `${code} rewritten`,
      detail: supplier.name,
      document: code,
      siteId: input.siteId,
    });
    return { code };
  }

  private async change(tx: Tx, act: Act, order: PurchaseOrder, input: EditPurchaseOrderDto): Promise<{ code: string }> {
    const { code } = order;
    const supplier = await tx.findOneByOrFail(Supplier, { id: order.supplierId });
    if (supplier.code !== input.supplier.toUpperCase() || order.siteId !== input.siteId)
      throw badForm({ supplier: `${code} is placed with ${supplier.name}. Another supplier or site needs an order of its own` });
    const changes = await keepChanges(tx, act, order.id, [
      { line: null, what: 'day', was: order.expectedOn, becomes: input.expectedOn ?? null },
      { line: null, what: 'note', was: order.note, becomes: input.note },
      ...(await changeLines(tx, order.id, input.lines)),
      ...(await writeCharges(tx, order.id, input.charges)),
    ]);
    // Which door is nothing to the supplier: it changes without a word.
    const door = await doorId(tx, order.siteId, input.door);
    if (changes.length === 0) {
      if (door !== order.doorId) await tx.update(PurchaseOrder, order.id, { doorId: door, version: order.version + 1 });
      return { code };
    }
    await tx.update(PurchaseOrder, order.id, {
      doorId: door,
      expectedOn: input.expectedOn ?? null,
      note: input.note,
      state: await stateOf(tx, order.id),
      version: order.version + 1,
    });
    await this.tell(tx, supplier, code, true);
    await this.activity.record(tx, act, {
      kind: 'purchase-order',
      glyph: 'go',
      title: `${code} changed after placing`,
      detail: changes.map((c) => `${c.line === null ? '' : `line ${c.line} `}${c.what}`).join(', '),
      document: code,
      siteId: order.siteId,
    });
    return { code };
  }

  /** Mails the order as paper and as a document that the supplier's system can read. */
  private async tell(tx: Tx, supplier: Supplier, code: string, changed: boolean): Promise<void> {
    if (supplier.email)
      await this.outbox.send(tx, `mail:${supplier.email}`, 'mail.purchase-order', { code, to: supplier.email, changed }, code);
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
      await this.tell(tx, supplier, code, false);
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
      await dropAnnounced(tx, order.id);
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

  /** Nothing more of it is waited for: what has not come is closed short. */
  close(act: Act, code: string, version: number): Promise<{ code: string }> {
    return this.commands.run(act, 'purchase-order.close', { code, version }, async (tx) => {
      const order = await this.locked(tx, act, code, version);
      if (order.state === 'placed') throw badState(`Nothing of ${code} has come. Cancel it instead`);
      if (order.state !== 'part-received' && order.state !== 'received') throw badState(`${code} is ${order.state} already`);
      const open = await tx.find(PurchaseOrderLine, { where: { orderId: order.id }, order: { line: 'ASC' } });
      const short = open.filter((l) => l.openUnits > 0);
      await keepChanges(
        tx,
        act,
        order.id,
        short.map((l) => ({ line: l.line, what: 'closed short', was: null, becomes: `${l.openUnits} units` })),
      );
      await tx.query('UPDATE purchase_order_line SET closed_units = closed_units + open_units WHERE order_id = ?', [order.id]);
      await tx.update(PurchaseOrder, order.id, { state: 'closed', version: version + 1 });
      await this.activity.record(tx, act, {
        kind: 'purchase-order',
        glyph: short.length === 0 ? 'full' : 'half',
        title: `${code} closed${short.length === 0 ? '' : ' short'}`,
        detail: short.length === 0 ? 'all of it has come' : `${short.length} of ${open.length} lines short`,
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
}
