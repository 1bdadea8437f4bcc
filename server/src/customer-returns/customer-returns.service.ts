import type { ReturnReason, Wish } from '@vectrum/core/customer-returns';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { keyOfCode } from '../catalogue/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  find,
  inTransaction,
  insert,
  isDuplicate,
  mustBeAt,
  mustMatch,
  NEXT,
  nextCode,
  notFound,
  NOW,
  one,
  Outbox,
  type Row,
  type Tx,
  update,
} from '../platform/index.js';
import type { AnnounceReturnDto, OpenReturnDto } from './customer-returns.dto.js';
import { outLines } from './out.queries.js';

interface Announced {
  order: Row<'sales_order'>;
  toldBy: 'desk' | 'channel' | 'dock';
  channelRef: string | null;
  wish: Wish | null;
  note: string;
  lines: { orderLine: number; units: number; reason: ReturnReason; note: string }[];
}
/** What a channel says of goods that its customer sends back; codes are its own. */
export interface ChannelReturn {
  ref: string;
  returnRef: string;
  wish: Wish | null;
  note: string;
  lines: { sku: string; units: number; reason: ReturnReason }[];
}

/** Returns of customers as documents: announced by desk or channel, opened at the dock, called off. */
@Injectable()
export class CustomerReturns {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly outbox: Outbox,
  ) {}

  /** The desk writes down what a customer will send back; they get the paper that goes with it. */
  announce(act: Act, input: AnnounceReturnDto): Promise<{ code: string }> {
    return this.commands.run(act, 'customer-return.announce', input, async (tx) => {
      const order = await this.order(tx, input.order);
      mustBeAt(act.person, order.site_id);
      const lines = input.lines.map((l) => ({ ...l, note: l.note?.trim() ?? '' }));
      return this.write(tx, act, {
        order,
        toldBy: 'desk',
        channelRef: null,
        wish: input.wish ?? null,
        note: input.note?.trim() ?? '',
        lines,
      });
    });
  }

  /** A channel says that its customer sends something back; said again under the same number it is the same return. */
  async announced(channel: { id: number }, said: ChannelReturn): Promise<{ code: string; known: boolean }> {
    const known = () =>
      one<{ code: string }>(
        this.source,
        'SELECT r.code FROM customer_return r JOIN sales_order o ON o.id = r.order_id WHERE o.channel_id = ? AND o.channel_ref = ? AND r.channel_ref = ?',
        [channel.id, said.ref, said.returnRef],
      );
    const before = await known();
    if (before) return { code: before.code, known: true };
    try {
      const { code } = await inTransaction(this.source, async (tx) => {
        const order = await find(tx, 'sales_order', { channel_id: channel.id, channel_ref: said.ref }, 'lock');
        if (!order) throw badState(`It sends back goods of ${said.ref}, which has not come in`);
        const gone = await outLines(tx, order.id);
        const lines = said.lines.map(({ sku, units, reason }) => {
          const line = gone.find((l) => l.channelSku.toUpperCase() === sku.toUpperCase() || l.sku.toUpperCase() === sku.toUpperCase());
          if (!line) throw badState(`${sku} did not leave with ${said.ref}`);
          return { orderLine: line.id, units, reason, note: '' };
        });
        return this.write(tx, null, { order, toldBy: 'channel', channelRef: said.returnRef, wish: said.wish, note: said.note, lines });
      });
      return { code, known: false };
    } catch (thrown) {
      const same = isDuplicate(thrown) ? await known() : undefined;
      if (same) return { code: same.code, known: true };
      throw thrown;
    }
  }

  /** At the dock: the return that is open for an order, or a new one; one that was meant for another site comes here where nothing of it is back. */
  open(act: Act, input: OpenReturnDto): Promise<{ code: string }> {
    mustBeAt(act.person, input.siteId);
    return this.commands.run(act, 'customer-return.open', input, async (tx) => {
      if (input.code) return this.openKnown(tx, act, input.code, input.siteId);
      if (input.sku) return this.openUnknown(tx, act, input.sku, input.siteId);
      const waiting = await this.waitingFor(tx, input.order ?? '');
      if (waiting) return this.openKnown(tx, act, waiting.code, input.siteId);
      const order = await this.order(tx, input.order ?? '');
      if (!act.person.siteIds.includes(order.site_id)) throw notFound(`Order ${order.code}`);
      // Somebody may have opened one while the order was not held yet.
      const meanwhile = await this.waitingFor(tx, order.code);
      if (meanwhile?.siteId === input.siteId) return { code: meanwhile.code };
      if (meanwhile) throw badState(`${meanwhile.code} was opened for ${order.code} at another site just now`);
      return this.write(tx, act, {
        order: { ...order, site_id: input.siteId },
        toldBy: 'dock',
        channelRef: null,
        wish: null,
        note: '',
        lines: [],
      });
    });
  }

  /** Nothing comes after all. */
  callOff(act: Act, code: string, version: number, why: string): Promise<{ code: string }> {
    return this.commands.run(act, 'customer-return.call-off', { code, version, why }, async (tx) => {
      const found = await this.locked(tx, act, code);
      mustMatch(found.version, version);
      if (found.state === 'settled' || found.state === 'called-off') throw badState(`${found.code} is over already`);
      if (await this.anythingBack(tx, found.id)) throw badState('Some of it is back. Say what the customer gets for it');
      await update(
        tx,
        'customer_return',
        { id: found.id },
        { state: 'called-off', settled_why: why.trim(), settled_by: act.person.id, settled_at: NOW, version: NEXT },
      );
      await this.activity.record(tx, act, {
        kind: 'customer-return',
        glyph: 'undo',
        title: `${found.code} called off`,
        detail: why.trim(),
        document: found.code,
        siteId: found.site_id,
      });
      return { code: found.code };
    });
  }

  /** Sends the paper that goes into the parcel, again. */
  sendPaper(act: Act, code: string): Promise<void> {
    return this.commands.run(act, 'customer-return.paper', { code }, async (tx) => {
      const found = await this.locked(tx, act, code);
      if (!found.email) throw badState(`No mail address is known for ${found.customer}. Print the paper, and send it by post`);
      await this.mailPaper(tx, found);
    });
  }

  /** The row of a return, held until the transaction ends. */
  async locked(tx: Tx, act: Act, code: string): Promise<Row<'customer_return'>> {
    const found = await find(tx, 'customer_return', { code: code.toUpperCase() }, 'lock');
    if (!found) throw notFound(`Return ${code.slice(0, 20)}`);
    mustBeAt(act.person, found.site_id);
    return found;
  }

  private async anythingBack(tx: Tx, id: number): Promise<boolean> {
    return (
      (await one(
        tx,
        'SELECT c.id FROM came_back c JOIN customer_return_line l ON l.id = c.line_id WHERE l.return_id = ? AND c.undone_at IS NULL LIMIT 1',
        [id],
      )) !== undefined
    );
  }

  private waitingFor(tx: Tx, order: string): Promise<{ code: string; siteId: number } | undefined> {
    return one(
      tx,
      `SELECT r.code, r.site_id AS siteId FROM customer_return r JOIN sales_order o ON o.id = r.order_id WHERE o.code = ? AND r.state IN ('announced','here') ORDER BY r.state = 'here' DESC, r.id LIMIT 1`,
      [order.toUpperCase()],
    );
  }

  private async order(tx: Tx, code: string): Promise<Row<'sales_order'>> {
    const order = await find(tx, 'sales_order', { code: code.toUpperCase() }, 'lock');
    if (!order) throw notFound(`Order ${code.slice(0, 20)}`);
    return order;
  }

  private async openKnown(tx: Tx, act: Act, code: string, siteId: number): Promise<{ code: string }> {
    // Whoever is at both sites may take in here what was meant for the other.
    const found = await this.locked(tx, act, code);
    if (found.site_id === siteId) return { code: found.code };
    if (found.state !== 'announced') throw badState(`${found.code} is at another site. What comes of it must go there`);
    await update(tx, 'customer_return', { id: found.id }, { site_id: siteId, version: NEXT });
    await this.activity.record(tx, act, {
      kind: 'customer-return',
      glyph: 'half',
      title: `${found.code} came here instead`,
      document: found.code,
      siteId,
    });
    return { code: found.code };
  }

  /** Goods of which nobody knows the order: they are somebody's, and wait for a decision like all others. */
  private async openUnknown(tx: Tx, act: Act, sku: string, siteId: number): Promise<{ code: string }> {
    const item = await one<{ id: number; name: string }>(
      tx,
      'SELECT i.id, i.name FROM item i WHERE i.sku = ? UNION SELECT i.id, i.name FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id JOIN item i ON i.id = u.item_id WHERE b.code = ? LIMIT 1',
      [sku.toUpperCase(), keyOfCode(sku)],
    );
    if (!item) throw badForm({ sku: `There is no item ${sku}` });
    const code = await nextCode(tx, 'G');
    const id = await insert(tx, 'customer_return', {
      code,
      site_id: siteId,
      customer: 'Nobody known',
      state: 'here',
      told_by: 'dock',
      came_at: NOW,
    });
    await insert(tx, 'customer_return_line', { return_id: id, line: 1, order_line_id: null, item_id: item.id, reason: 'unsaid' });
    await this.say(tx, act, { code, siteId, title: `${code}: ${item.name} came back`, detail: 'nobody knows the order' });
    return { code };
  }

  private async write(tx: Tx, act: Act | null, said: Announced): Promise<{ code: string }> {
    const { order } = said;
    const gone = await outLines(tx, order.id);
    if (gone.length === 0) throw badState(`Nothing of ${order.code} has left, so that nothing can come back`);
    if (new Set(said.lines.map((l) => l.orderLine)).size !== said.lines.length)
      throw badForm({ lines: 'A line comes back once in one return' });
    for (const [i, l] of said.lines.entries()) {
      const line = gone.find((g) => g.id === l.orderLine);
      if (!line) throw badForm({ [`lines.${i}.orderLine`]: `It did not leave with ${order.code}` });
      if (l.units > line.gone - line.back)
        throw badForm({ [`lines.${i}.units`]: `Of ${line.name} only ${line.gone - line.back} are with the customer` });
    }
    const code = await nextCode(tx, 'G');
    const id = await insert(tx, 'customer_return', {
      code,
      site_id: order.site_id,
      order_id: order.id,
      customer: order.customer,
      email: order.email,
      state: said.toldBy === 'dock' ? 'here' : 'announced',
      wish: said.wish,
      told_by: said.toldBy,
      channel_ref: said.channelRef,
      note: said.note,
      ...(said.toldBy === 'dock' ? { came_at: NOW } : {}),
    });
    for (const [i, l] of said.lines.entries())
      await insert(tx, 'customer_return_line', {
        return_id: id,
        line: i + 1,
        order_line_id: l.orderLine,
        item_id: gone.find((g) => g.id === l.orderLine)?.itemId ?? 0,
        announced: l.units,
        reason: l.reason,
        note: l.note,
      });
    const by = { desk: 'announced', channel: 'announced by its channel', dock: 'came to the dock' }[said.toldBy];
    await this.say(tx, act, { code, siteId: order.site_id, title: `${code} of ${order.code} ${by}`, detail: order.customer });
    if (said.toldBy !== 'dock' && order.email) await this.mailPaper(tx, { code, email: order.email, site_id: order.site_id });
    return { code };
  }

  private mailPaper(tx: Tx, to: { code: string; email: string; site_id: number }): Promise<void> {
    return this.outbox.send(
      tx,
      `mail:${to.email}`,
      'mail.return-paper',
      { code: to.code, to: to.email },
      { siteId: to.site_id, document: to.code },
    );
  }

  private async say(tx: Tx, act: Act | null, said: { code: string; siteId: number; title: string; detail: string }): Promise<void> {
    await this.activity.record(tx, act, {
      kind: 'customer-return',
      glyph: 'empty',
      title: said.title,
      detail: said.detail,
      document: said.code,
      siteId: said.siteId,
    });
  }
}
