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
  remove,
  type Row,
  type Tx,
  update,
} from '../platform/index.js';

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
        await insert(tx, 'purchase_order_line', { ...goodsOf(line), order_id: made.id, line: line.line });
      for (const { says, amount, shared_by, position } of await findAll(tx, 'purchase_order_charge', { order_id: order.id }, 'id'))
        await insert(tx, 'purchase_order_charge', { order_id: made.id, says, amount, shared_by, position });
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
      if (into.supplier_id !== from.supplier_id || into.site_id !== from.site_id)
        throw badForm({ other: `${other} is for another supplier or site. Only orders for the same can be brought together` });
      const lines = await this.lines(tx, into.id);
      for (const line of await this.lines(tx, from.id)) {
        const same = lines.find(
          (l) => l.pack_unit_id === line.pack_unit_id && l.price === line.price && l.expected_on === line.expected_on,
        );
        if (same) await update(tx, 'purchase_order_line', { id: same.id }, { packs: (same.packs += line.packs) });
        else lines.push({ ...line, ...(await this.moved(tx, line, into.id, lines.length + 1)) });
      }
      await remove(tx, 'purchase_order_line', { order_id: from.id });
      const has = (await findAll(tx, 'purchase_order_charge', { order_id: into.id }, 'id')).length;
      for (const [i, c] of (await findAll(tx, 'purchase_order_charge', { order_id: from.id }, 'id')).entries())
        await update(tx, 'purchase_order_charge', { id: c.id }, { order_id: into.id, position: has + i + 1 });
      await update(tx, 'purchase_order', { id: from.id }, { state: 'cancelled', note: `Brought into ${code}`, version: from.version + 1 });
      await update(tx, 'purchase_order', { id: into.id }, { version: version + 1 });
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
      const made = await this.draft(tx, act, order, order.expected_on);
      for (const [i, line] of going.entries()) await this.moved(tx, line, made.id, i + 1);
      for (const [i, line] of lines.filter((l) => !going.includes(l)).entries())
        await update(tx, 'purchase_order_line', { id: line.id }, { line: i + 1 });
      await update(tx, 'purchase_order', { id: order.id }, { version: version + 1 });
      await this.record(tx, act, order, `${going.length} of ${lines.length} lines of ${code} taken onto ${made.code}`, made.code);
      return { code: made.code };
    });
  }

  private async moved(tx: Tx, line: Row<'purchase_order_line'>, orderId: number, n: number): Promise<{ order_id: number; line: number }> {
    await update(tx, 'purchase_order_line', { id: line.id }, { order_id: orderId, line: n });
    return { order_id: orderId, line: n };
  }

  private lines(tx: Tx, orderId: number): Promise<Row<'purchase_order_line'>[]> {
    return findAll(tx, 'purchase_order_line', { order_id: orderId }, 'line');
  }

  private async two(tx: Tx, act: Act, code: string, other: string): Promise<[Row<'purchase_order'>, Row<'purchase_order'>]> {
    // Both are locked in the order of their numbers, whichever is brought into which.
    await findAll(tx, 'purchase_order', { code: [code, other] }, 'id', 'lock');
    return [await this.order(tx, act, code, true), await this.order(tx, act, other, true)];
  }

  private async order(tx: Tx, act: Act, code: string, draft = false): Promise<Row<'purchase_order'>> {
    const order = await find(tx, 'purchase_order', { code }, 'lock');
    if (!order) throw notFound(`Purchase order ${code}`);
    mustBeAt(act.person, order.site_id);
    if (draft && order.state !== 'draft') throw badState(`${code} is ${order.state}. Only drafts are brought together or taken apart`);
    return order;
  }

  private async draft(
    tx: Tx,
    act: Act,
    like: Row<'purchase_order'>,
    expectedOn: string | null = null,
  ): Promise<{ id: number; code: string }> {
    const code = await nextCode(tx, 'P');
    const { supplier_id, site_id, currency, note, door_id } = like;
    const made = await insert(tx, 'purchase_order', {
      code,
      supplier_id,
      site_id,
      currency,
      note,
      door_id,
      expected_on: expectedOn,
      created_by: act.person.id,
    });
    return { id: made, code };
  }

  private record(tx: Tx, act: Act, order: Row<'purchase_order'>, title: string, document: string): Promise<number> {
    return this.activity.record(tx, act, { kind: 'purchase-order', glyph: 'empty', title, document, siteId: order.site_id });
  }
}

const goodsOf = ({ item_id, pack_unit_id, packs, factor, price }: Row<'purchase_order_line'>) => ({
  item_id,
  pack_unit_id,
  packs,
  factor,
  price,
});
