import { Injectable } from '@nestjs/common';
import { ordersIn, type OrderState } from '@vectrum/core/orders';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { changeOrder, changeLine, keepChanges, OrderStates } from '../orders/index.js';
import { ParcelsService } from '../packing/index.js';
import { freeTotes, holdRounds, RecallService } from '../picking/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  find,
  findAll,
  mustBeAt,
  mustMatch,
  NEXT,
  notFound,
  NOW,
  one,
  Outbox,
  type Row,
  rows,
  type Tx,
} from '../platform/index.js';
import type { CancellingDto, CancelDto } from './order-desk.dto.js';
import { TakingBack, toPutAway } from './taking-back.js';

const CANCELLABLE: readonly OrderState[] = ['quote', ...ordersIn('live')];

/** Cancels orders in every state in which something of them is still here; what has gone to the customer stays gone. */
@Injectable()
export class CancellingService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly taking: TakingBack,
    private readonly recalls: RecallService,
    private readonly parcels: ParcelsService,
    private readonly states: OrderStates,
    private readonly allocation: AllocationService,
    private readonly activity: ActivityService,
    private readonly outbox: Outbox,
  ) {}

  /** What cancelling an order would take back, and who would be told. */
  async preview(code: string, siteIds: readonly number[]): Promise<CancellingDto> {
    const order = await one<{ id: number; state: OrderState; email: string; channel: string; told: number }>(
      this.source,
      'SELECT o.id, o.state, o.email, c.name AS channel, c.base_url IS NOT NULL AS told FROM sales_order o JOIN channel c ON c.id = o.channel_id WHERE o.code = ? AND o.site_id IN (?)',
      [code, [0, ...siteIds]],
    );
    if (!order) throw notFound(`Order ${code}`);
    const held = await this.taking.held(this.source, order.id);
    const units = (at: string) => held.reduce((sum, h) => sum + (h.at === at ? h.units : 0), 0);
    const inside = (kinds: readonly string[]) => {
      const places = new Map<string, number>();
      for (const h of held) if (kinds.includes(h.at)) places.set(h.code, (places.get(h.code) ?? 0) + h.units);
      return [...places].map(([place, pieces]) => ({ place, pieces }));
    };
    const gone = await one<{ units: string | null }>(
      this.source,
      'SELECT SUM(shipped_units) AS units FROM sales_order_line WHERE order_id = ?',
      [order.id],
    );
    const labels = await rows<{ code: string }>(
      this.source,
      `SELECT code FROM parcel WHERE order_id = ? AND state = 'labelled' ORDER BY number`,
      [order.id],
    );
    return {
      can: CANCELLABLE.includes(order.state),
      promised: units('site'),
      toPick: units('bin'),
      totes: inside(['tote']),
      parcels: inside(['open parcel', 'closed parcel']),
      labels: labels.map((l) => l.code),
      gone: Number(gone?.units ?? 0),
      channel: Number(order.told) === 1 ? order.channel : null,
      email: order.email || null,
    };
  }

  /** Cancels an order, or what is left of one of which a part has gone. */
  cancel(act: Act, code: string, version: number, input: CancelDto): Promise<{ code: string }> {
    const why = input.why.trim();
    if (why === '') throw badForm({ why: 'Say why it is cancelled' });
    return this.commands.run(act, 'order.cancel', { code, version, input }, async (tx) => {
      await holdRounds(tx, code);
      const order = await find(tx, 'sales_order', { code }, 'lock');
      if (!order) throw notFound(`Order ${code}`);
      mustBeAt(act.person, order.site_id);
      mustMatch(order.version, version);
      await this.end(tx, act, order, why, { customer: input.tell, channel: true });
      return { code };
    });
  }

  /** Ends an order whose rounds and row are held. `act` is null where its channel has cancelled it, which is not told back. */
  async end(tx: Tx, act: Act | null, order: Row<'sales_order'>, why: string, tell: { customer: boolean; channel: boolean }): Promise<void> {
    const { id, code } = order;
    if (!CANCELLABLE.includes(order.state as OrderState))
      throw badState(`${code} is ${order.state} already. What has gone comes back as a return`);
    const apart = await this.parcels.takeApart(tx, order);
    const lines = await findAll(tx, 'sales_order_line', { order_id: id }, 'line');
    const held = await this.taking.held(tx, id);
    const taken = await this.taking.take(tx, held, Number.MAX_SAFE_INTEGER);
    const gone = lines.some((l) => l.shipped_units > 0);
    // Of what has gone in part, the lines end at what has gone: the order is over, and its papers stay true.
    if (gone) for (const line of lines) await this.cut(tx, act, order, line, why);
    await changeOrder(tx, id, { cancelled_at: gone ? null : NOW, cancelled_why: why.slice(0, 200), version: NEXT });
    await this.recalls.endEmpty(tx, id);
    await freeTotes(tx, id);
    await this.states.refresh(tx, [id]);
    const detail = [why, toPutAway(taken), apart.length > 0 ? `parcel ${apart.map((p) => p.code).join(', ')} to take apart` : '']
      .filter(Boolean)
      .join('. ');
    await this.activity.record(tx, act, {
      kind: 'order-cancel',
      glyph: 'blocked',
      title: gone ? `The rest of ${code} is cancelled` : `${code} is cancelled${act ? '' : ' by its channel'}`,
      detail,
      document: code,
      siteId: order.site_id,
    });
    await this.tell(tx, order, why, tell);
    await this.allocation.settle(tx, [
      ...taken.map(({ siteId, itemId }) => ({ siteId, itemId })),
      ...lines.flatMap((l) => (l.item_id === null ? [] : [{ siteId: order.site_id, itemId: l.item_id }])),
    ]);
  }

  private async cut(tx: Tx, act: Act | null, order: Row<'sales_order'>, line: Row<'sales_order_line'>, why: string): Promise<void> {
    if (line.units === line.shipped_units) return;
    await keepChanges(
      tx,
      order.id,
      act?.person.id ?? null,
      [{ line: line.line, what: 'units', was: line.units, becomes: line.shipped_units }],
      why,
    );
    await changeLine(tx, line.id, { units: line.shipped_units, quantity: line.shipped_units, factor: 1, price: each(line) });
  }

  private async tell(tx: Tx, order: Row<'sales_order'>, why: string, tell: { customer: boolean; channel: boolean }): Promise<void> {
    const from = { siteId: order.site_id, document: order.code };
    const channel = await one<{ code: string; base_url: string | null }>(tx, 'SELECT code, base_url FROM channel WHERE id = ?', [
      order.channel_id,
    ]);
    if (tell.channel && channel?.base_url)
      await this.outbox.send(tx, `channel:${channel.code}`, 'channel.cancel', { channel: channel.code, ref: order.channel_ref, why }, from);
    if (tell.customer && order.email)
      await this.outbox.send(tx, `mail:${order.email}`, 'mail.order-cancelled', { order: order.code, to: order.email, why }, from);
  }
}

/** The price of one unit of a line that is cut to single units. */
const each = (line: Row<'sales_order_line'>): string => (line.factor === 1 ? line.price : (Number(line.price) / line.factor).toFixed(6));
