import { Injectable } from '@nestjs/common';
import { In } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { type Act, badForm, badState, CommandLog, mustBeAt, mustMatch, nextCode, notFound, type Tx } from '../platform/index.js';
import { PurchaseOrder, PurchaseOrderCharge, PurchaseOrderLine } from './purchase-order.entity.js';

/** Copies orders, brings two drafts together, and takes one apart. */
@Injectable()
export class DraftsService {
  constructor(
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  /** A new draft with the same goods, prices and charges; no day, since the old one has gone. */
  copy(act: Act, code: string): Promise<{ code: string }> {
    return this.commands.run(act, 'purchase-order.copy', { code }, async (tx) => {
      const order = await this.order(tx, act, code);
      const made = await this.draft(tx, act, order);
      for (const line of await this.lines(tx, order.id))
        await tx.insert(PurchaseOrderLine, { ...goodsOf(line), orderId: made.id, line: line.line });
      for (const { says, amount, sharedBy, position } of await tx.findBy(PurchaseOrderCharge, { orderId: order.id }))
        await tx.insert(PurchaseOrderCharge, { orderId: made.id, says, amount, sharedBy, position });
      await this.record(tx, act, order, `${made.code} drafted like ${code}`, made.code);
      return { code: made.code };
    });
  }

  /** Moves the lines of another draft behind this one's; equal goods at one price become one line. */
  merge(act: Act, code: string, version: number, other: string): Promise<{ code: string }> {
    return this.commands.run(act, 'purchase-order.merge', { code, version, other }, async (tx) => {
      const [into, from] = await this.two(tx, act, code, other);
      mustMatch(into.version, version);
      if (into.id === from.id) throw badForm({ other: 'Choose another order than this one' });
      if (into.supplierId !== from.supplierId || into.siteId !== from.siteId)
        throw badForm({ other: `${other} is for another supplier or site. Only orders for the same can be brought together` });
      const lines = await this.lines(tx, into.id);
      for (const line of await this.lines(tx, from.id)) {
        const same = lines.find((l) => l.packUnitId === line.packUnitId && l.price === line.price && l.expectedOn === line.expectedOn);
        if (same) await tx.update(PurchaseOrderLine, same.id, { packs: (same.packs += line.packs) });
        else lines.push({ ...line, ...(await this.moved(tx, line, into.id, lines.length + 1)) });
      }
      await tx.delete(PurchaseOrderLine, { orderId: from.id });
      const has = await tx.countBy(PurchaseOrderCharge, { orderId: into.id });
      for (const [i, c] of (await tx.findBy(PurchaseOrderCharge, { orderId: from.id })).entries())
        await tx.update(PurchaseOrderCharge, c.id, { orderId: into.id, position: has + i + 1 });
      await tx.update(PurchaseOrder, from.id, { state: 'cancelled', note: `Brought into ${code}`, version: from.version + 1 });
      await tx.update(PurchaseOrder, into.id, { version: version + 1 });
      await this.record(tx, act, into, `${other} brought into ${code}`, code);
      return { code };
    });
  }

  /** Takes some lines of a draft onto a new one. */
  split(act: Act, code: string, version: number, chosen: readonly number[]): Promise<{ code: string }> {
    return this.commands.run(act, 'purchase-order.split', { code, version, chosen }, async (tx) => {
      const order = await this.order(tx, act, code, true);
      mustMatch(order.version, version);
      const lines = await this.lines(tx, order.id);
      const going = lines.filter((l) => chosen.includes(l.line));
      if (going.length !== new Set(chosen).size) throw badForm({ lines: `${code} has not all of these lines. Open it again` });
      if (going.length === lines.length) throw badForm({ lines: 'Leave at least one line. To move all, copy the order' });
      const made = await this.draft(tx, act, order, order.expectedOn);
      for (const [i, line] of going.entries()) await this.moved(tx, line, made.id, i + 1);
      for (const [i, line] of lines.filter((l) => !going.includes(l)).entries())
        await tx.update(PurchaseOrderLine, line.id, { line: i + 1 });
      await tx.update(PurchaseOrder, order.id, { version: version + 1 });
      await this.record(tx, act, order, `${going.length} of ${lines.length} lines of ${code} taken onto ${made.code}`, made.code);
      return { code: made.code };
    });
  }

  private async moved(tx: Tx, line: PurchaseOrderLine, orderId: number, n: number): Promise<{ orderId: number; line: number }> {
    await tx.update(PurchaseOrderLine, line.id, { orderId, line: n });
    return { orderId, line: n };
  }

  private lines(tx: Tx, orderId: number): Promise<PurchaseOrderLine[]> {
    return tx.find(PurchaseOrderLine, { where: { orderId }, order: { line: 'ASC' } });
  }

  private async two(tx: Tx, act: Act, code: string, other: string): Promise<[PurchaseOrder, PurchaseOrder]> {
    // Both are locked in the order of their numbers, whichever is brought into which.
    await tx.find(PurchaseOrder, { where: { code: In([code, other]) }, order: { id: 'ASC' }, lock: { mode: 'pessimistic_write' } });
    return [await this.order(tx, act, code, true), await this.order(tx, act, other, true)];
  }

  private async order(tx: Tx, act: Act, code: string, draft = false): Promise<PurchaseOrder> {
    const order = await tx.findOne(PurchaseOrder, { where: { code }, lock: { mode: 'pessimistic_write' } });
    if (!order) throw notFound(`Purchase order ${code}`);
    mustBeAt(act.person, order.siteId);
    if (draft && order.state !== 'draft') throw badState(`${code} is ${order.state}. Only drafts are brought together or taken apart`);
    return order;
  }

  private async draft(tx: Tx, act: Act, like: PurchaseOrder, expectedOn: string | null = null): Promise<{ id: number; code: string }> {
    const code = await nextCode(tx, 'P');
    const { supplierId, siteId, currency, note, doorId } = like;
    const made = await tx.insert(PurchaseOrder, { code, supplierId, siteId, currency, note, doorId, expectedOn, createdBy: act.person.id });
    return { id: (made.identifiers[0] as { id: number }).id, code };
  }

  private record(tx: Tx, act: Act, order: PurchaseOrder, title: string, document: string): Promise<number> {
    return this.activity.record(tx, act, { kind: 'purchase-order', glyph: 'empty', title, document, siteId: order.siteId });
  }
}

const goodsOf = ({ itemId, packUnitId, packs, factor, price }: PurchaseOrderLine) => ({ itemId, packUnitId, packs, factor, price });
