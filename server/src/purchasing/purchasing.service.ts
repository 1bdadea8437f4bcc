import { Injectable } from '@nestjs/common';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  find,
  findAll,
  insert,
  mustBeAt,
  mustMatch,
  nextCode,
  notFound,
  num,
  Outbox,
  remove,
  type Row,
  theRow,
  type Tx,
  update,
} from '../platform/index.js';
import { doorId } from '../sites/index.js';
import { DroppedOrders } from './dropped-orders.js';
import { keepChanges } from './order-changes.js';
import { addLines, changeLines, stateOf, writeCharges } from './order-lines.js';
import type { EditPurchaseOrderDto } from './purchasing.dto.js';

/** Writes, places, changes, closes and cancels purchase orders. The dock sees no draft. */
@Injectable()
export class PurchasingService {
  constructor(
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly outbox: Outbox,
    private readonly dropped: DroppedOrders,
  ) {}

  add(act: Act, input: EditPurchaseOrderDto): Promise<{ code: string }> {
    mustBeAt(act.person, input.siteId);
    return this.commands.run(act, 'purchase-order.add', input, async (tx) => ({ code: await this.draft(tx, act, input) }));
  }

  /** A new draft within an act of somebody; returns its code. */
  async draft(tx: Tx, act: Act, input: EditPurchaseOrderDto): Promise<string> {
    const supplier = await this.supplier(tx, input.supplier);
    const code = await nextCode(tx, 'P');
    const id = await insert(tx, 'purchase_order', {
      code,
      supplier_id: supplier.id,
      site_id: input.siteId,
      currency: supplier.currency,
      expected_on: input.expectedOn ?? null,
      door_id: await doorId(tx, input.siteId, input.door),
      note: input.note,
      created_by: act.person.id,
    });
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
    return code;
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

  private async rewrite(tx: Tx, act: Act, order: Row<'purchase_order'>, input: EditPurchaseOrderDto): Promise<{ code: string }> {
    const { code } = order;
    const supplier = await this.supplier(tx, input.supplier);
    await update(
      tx,
      'purchase_order',
      { id: order.id },
      {
        supplier_id: supplier.id,
        site_id: input.siteId,
        currency: supplier.currency,
        expected_on: input.expectedOn ?? null,
        door_id: await doorId(tx, input.siteId, input.door),
        note: input.note,
        version: order.version + 1,
      },
    );
    await remove(tx, 'purchase_order_line', { order_id: order.id });
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

  private async change(tx: Tx, act: Act, order: Row<'purchase_order'>, input: EditPurchaseOrderDto): Promise<{ code: string }> {
    const { code } = order;
    const supplier = await theRow(tx, 'supplier', { id: order.supplier_id });
    if (supplier.code !== input.supplier.toUpperCase() || order.site_id !== input.siteId)
      throw badForm({ supplier: `${code} is placed with ${supplier.name}. Another supplier or site needs an order of its own` });
    const changes = await keepChanges(tx, act, order.id, [
      { line: null, what: 'day', was: order.expected_on, becomes: input.expectedOn ?? null },
      { line: null, what: 'note', was: order.note, becomes: input.note },
      ...(await changeLines(tx, order.id, input.lines)),
      ...(await writeCharges(tx, order.id, input.charges)),
    ]);
    // Which door is nothing to the supplier: it changes without a word.
    const door = await doorId(tx, order.site_id, input.door);
    if (changes.length === 0) {
      if (door !== order.door_id) await update(tx, 'purchase_order', { id: order.id }, { door_id: door, version: order.version + 1 });
      return { code };
    }
    await update(
      tx,
      'purchase_order',
      { id: order.id },
      {
        door_id: door,
        expected_on: input.expectedOn ?? null,
        note: input.note,
        state: await stateOf(tx, order.id),
        version: order.version + 1,
      },
    );
    await this.tell(tx, supplier, order, true);
    await this.activity.record(tx, act, {
      kind: 'purchase-order',
      glyph: 'go',
      title: `${code} changed after placing`,
      detail: changes.map((c) => `${c.line === null ? '' : `line ${c.line} `}${c.what}`).join(', '),
      document: code,
      siteId: order.site_id,
    });
    return { code };
  }

  /** Mails the order as paper and as a document that the supplier's system can read. */
  private async tell(tx: Tx, supplier: Row<'supplier'>, order: { code: string; site_id: number }, changed: boolean): Promise<void> {
    const { code } = order;
    if (supplier.email)
      await this.outbox.send(
        tx,
        `mail:${supplier.email}`,
        'mail.purchase-order',
        { code, to: supplier.email, changed },
        { siteId: order.site_id, document: code },
      );
  }

  /** Sends the order to the supplier and shows it to the dock. */
  place(act: Act, code: string, version: number): Promise<{ code: string }> {
    return this.commands.run(act, 'purchase-order.place', { code, version }, async (tx) => {
      const order = await this.locked(tx, act, code, version);
      if (order.state !== 'draft') throw badState(`${code} is ${order.state} already`);
      const supplier = await theRow(tx, 'supplier', { id: order.supplier_id });
      await update(
        tx,
        'purchase_order',
        { id: order.id },
        { state: 'placed', placed_at: new Date(), placed_by: act.person.id, version: version + 1 },
      );
      await this.tell(tx, supplier, order, false);
      await this.activity.record(tx, act, {
        kind: 'purchase-order',
        glyph: 'go',
        title: `${code} placed with ${supplier.name}`,
        document: code,
        siteId: order.site_id,
      });
      return { code };
    });
  }

  cancel(act: Act, code: string, version: number): Promise<{ code: string }> {
    return this.commands.run(act, 'purchase-order.cancel', { code, version }, async (tx) => {
      const order = await this.locked(tx, act, code, version);
      if (order.state !== 'draft' && order.state !== 'placed')
        throw badState(`${code} is ${order.state}. Goods have come on it, so it cannot be cancelled`);
      await update(tx, 'purchase_order', { id: order.id }, { state: 'cancelled', version: version + 1 });
      await this.dropped.tell(tx, order.id);
      await this.activity.record(tx, act, {
        kind: 'purchase-order',
        glyph: 'blocked',
        title: `${code} cancelled`,
        document: code,
        siteId: order.site_id,
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
      const open = await findAll(tx, 'purchase_order_line', { order_id: order.id }, 'line');
      const short = open.filter((l) => num(l.open_units) > 0);
      await keepChanges(
        tx,
        act,
        order.id,
        short.map((l) => ({ line: l.line, what: 'closed short', was: null, becomes: `${l.open_units} units` })),
      );
      await tx.query('UPDATE purchase_order_line SET closed_units = closed_units + open_units WHERE order_id = ?', [order.id]);
      await update(tx, 'purchase_order', { id: order.id }, { state: 'closed', version: version + 1 });
      await this.activity.record(tx, act, {
        kind: 'purchase-order',
        glyph: short.length === 0 ? 'full' : 'half',
        title: `${code} closed${short.length === 0 ? '' : ' short'}`,
        detail: short.length === 0 ? 'all of it has come' : `${short.length} of ${open.length} lines short`,
        document: code,
        siteId: order.site_id,
      });
      return { code };
    });
  }

  private async supplier(tx: Tx, code: string): Promise<Row<'supplier'>> {
    const supplier = await find(tx, 'supplier', { code: code.toUpperCase() });
    if (!supplier) throw badForm({ supplier: `There is no supplier ${code}. Choose one from the list` });
    return supplier;
  }

  private async locked(tx: Tx, act: Act, code: string, version: number): Promise<Row<'purchase_order'>> {
    const order = await find(tx, 'purchase_order', { code }, 'lock');
    if (!order) throw notFound(`Purchase order ${code}`);
    mustBeAt(act.person, order.site_id);
    mustMatch(order.version, version);
    return order;
  }
}
