import { settlementFor, type Fate, type ReturnReason, type Settlement, type Wish } from '@vectrum/core/customer-returns';
import { Injectable } from '@nestjs/common';
import { ActivityService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { ChannelsService } from '../channels/index.js';
import { type Billable, InvoicePlans, InvoicesService } from '../invoicing/index.js';
import { OrderWriter } from '../orders/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  find,
  insert,
  mustMatch,
  NEXT,
  NOW,
  num,
  one,
  Outbox,
  type Row,
  rows,
  type Tx,
  update,
} from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { LedgerService } from '../stock/index.js';
import { ComingBack } from './coming-back.service.js';
import type { KeepInsteadDto, SettleReturnDto } from './customer-returns.dto.js';
import { CustomerReturns } from './customer-returns.service.js';
import { type BackLine, backLines, refundable } from './back.queries.js';

const DAY_MS = 86_400_000;
const SAYS: Readonly<Record<Settlement, string>> = {
  refund: 'money back',
  exchange: 'the same goods again',
  repair: 'repaired and on its way back',
  nothing: 'nothing is paid back',
};

/** Decides what a customer gets for what came back, and sees that books, stock, channel and customer follow. */
@Injectable()
export class Settling {
  constructor(
    private readonly commands: CommandLog,
    private readonly returns: CustomerReturns,
    private readonly comingBack: ComingBack,
    private readonly invoices: InvoicesService,
    private readonly plans: InvoicePlans,
    private readonly orders: OrderWriter,
    private readonly channels: ChannelsService,
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly settings: SettingsService,
    private readonly activity: ActivityService,
    private readonly outbox: Outbox,
  ) {}

  /** What is proposed, and why; null while nothing is back. */
  async proposal(tx: Pick<Tx, 'query'>, found: Row<'customer_return'>): Promise<{ settlement: Settlement; why: string } | null> {
    const lines = await backLines(tx, found.id);
    const left = await one<{ at: Date | null }>(
      tx,
      'SELECT COALESCE(MAX(p.handed_over_at), o.shipped_at) AS at FROM sales_order o LEFT JOIN parcel p ON p.order_id = o.id WHERE o.id = ? GROUP BY o.id',
      [found.order_id ?? 0],
    );
    return settlementFor({
      wish: found.wish as Wish | null,
      reasons: lines.filter((l) => l.units > 0).map((l) => l.reason as ReturnReason),
      fates: lines.flatMap((l) => l.fates as Fate[]),
      days: left?.at ? Math.floor((found.announced_at.getTime() - left.at.getTime()) / DAY_MS) : null,
      withinDays: await this.settings.get(tx, 'returnDays'),
      canSend: await this.canSend(tx, found.site_id, lines),
    });
  }

  /** What paying it back would come to, with tax; null where nothing would be. */
  async refundOf(tx: Pick<Tx, 'query'>, found: Row<'customer_return'>): Promise<string | null> {
    if (found.order_id === null) return null;
    const { amount } = await this.plans.refundPlan(tx, await refundable(tx, found.id, found.order_id));
    return Number(amount) === 0 ? null : amount;
  }

  settle(act: Act, code: string, version: number, input: SettleReturnDto): Promise<{ code: string }> {
    return this.commands.run(act, 'customer-return.settle', { code, version, input }, async (tx) => {
      const found = await this.returns.locked(tx, act, code);
      mustMatch(found.version, version);
      if (found.state !== 'here')
        throw badState(found.state === 'announced' ? `Nothing of ${found.code} is back yet` : `${found.code} is over already`);
      const lines = (await backLines(tx, found.id)).filter((l) => l.units > 0);
      if (lines.length === 0) throw badState(`Nothing of ${found.code} is back yet`);
      const repairs = lines.some((l) => l.fates.includes('repair'));
      if (repairs && input.settlement !== 'repair')
        throw badForm({ settlement: 'Something is here to be repaired. Say first that it is kept instead, or give it back' });
      if (!repairs && input.settlement === 'repair') throw badForm({ settlement: 'Nothing of it was set apart to be repaired' });
      const did = await this.carryOut(tx, act, found, lines, input);
      await update(
        tx,
        'customer_return',
        { id: found.id },
        {
          state: 'settled',
          settled_as: input.settlement,
          settled_why: input.why.trim(),
          settled_by: act.person.id,
          settled_at: NOW,
          amount: did.amount,
          exchange_order_id: did.exchangeId,
          went_with: input.settlement === 'repair' ? (input.wentWith?.trim() ?? '') : null,
          version: NEXT,
        },
      );
      await this.activity.record(tx, act, {
        kind: 'customer-return',
        glyph: 'full',
        title: `${found.code}: ${SAYS[input.settlement]}`,
        detail: [did.detail, input.why.trim()].filter(Boolean).join(', '),
        document: found.code,
        siteId: found.site_id,
      });
      await this.tell(tx, found, lines, input.settlement, did.amount);
      return { code: found.code };
    });
  }

  /** What was to be repaired is kept instead. */
  keepInstead(act: Act, code: string, version: number, pieceId: number, { fate }: KeepInsteadDto): Promise<{ code: string }> {
    return this.commands.run(act, 'customer-return.keep', { code, version, pieceId, fate }, async (tx) => {
      const found = await this.returns.locked(tx, act, code);
      mustMatch(found.version, version);
      await tx.query('SELECT id FROM sales_order WHERE id = ? FOR UPDATE', [found.order_id ?? 0]);
      const piece = await one<Row<'came_back'>>(
        tx,
        'SELECT c.* FROM came_back c JOIN customer_return_line l ON l.id = c.line_id WHERE c.id = ? AND l.return_id = ? AND c.undone_at IS NULL',
        [pieceId, found.id],
      );
      if (piece?.fate !== 'repair' || found.state !== 'here') throw badState('It does not wait to be repaired any more');
      await this.comingBack.keepInstead(tx, act, found, piece, fate);
      return { code: found.code };
    });
  }

  private carryOut(
    tx: Tx,
    act: Act,
    found: Row<'customer_return'>,
    lines: readonly BackLine[],
    input: SettleReturnDto,
  ): Promise<{ amount: string | null; exchangeId: number | null; detail: string }> {
    switch (input.settlement) {
      case 'refund':
        return this.refund(tx, act, found, input.why.trim());
      case 'exchange':
        return this.exchange(tx, act, found, lines);
      case 'repair':
        return this.giveBack(tx, act, found, input.wentWith?.trim() ?? '');
      case 'nothing':
        return Promise.resolve({ amount: null, exchangeId: null, detail: '' });
    }
  }

  /** What is invoiced is credited; what is not, will not be. */
  private async refund(tx: Tx, act: Act, found: Row<'customer_return'>, why: string) {
    if (found.order_id === null) throw badForm({ settlement: 'Nobody knows the order, so that nobody knows what was paid' });
    await tx.query('SELECT id FROM sales_order WHERE id = ? FOR UPDATE', [found.order_id]);
    const wanted: Billable[] = await refundable(tx, found.id, found.order_id);
    const { credits, unbilled, amount } = await this.invoices.refund(tx, act, wanted, `${found.code}: ${why}`.slice(0, 300));
    for (const { orderLineId, units } of wanted)
      await insert(tx, 'return_refund', {
        return_id: found.id,
        order_line_id: orderLineId,
        units,
        unbilled: unbilled.get(orderLineId) ?? 0,
      });
    for (const { id } of credits) await insert(tx, 'return_credit', { return_id: found.id, invoice_id: id });
    return { amount, exchangeId: null, detail: credits.map((c) => c.code).join(', ') };
  }

  /** The same goods again, free of charge, as an order of the desk's. */
  private async exchange(tx: Tx, act: Act, found: Row<'customer_return'>, lines: readonly BackLine[]) {
    const order = found.order_id === null ? undefined : await find(tx, 'sales_order', { id: found.order_id });
    if (!order) throw badForm({ settlement: 'Nobody knows the order, so that nobody knows where to send them' });
    const code = await this.orders.write(tx, act, {
      channelId: await this.channels.desk(tx, found.site_id),
      ref: found.code,
      siteId: found.site_id,
      customerId: order.customer_id,
      customer: order.customer,
      email: order.email,
      phone: order.phone,
      address: { line: order.address_line, city: order.city, postcode: order.postcode, country: order.country },
      placedAt: new Date(),
      promisedAt: null,
      speed: order.speed,
      notePacker: null,
      // What goes along went along the first time.
      isPart: true,
      lines: lines.map((l) => ({ channelSku: l.sku, itemId: l.itemId, quantity: l.units, factor: 1, price: '0' })),
    });
    const made = await find(tx, 'sales_order', { code });
    return { amount: null, exchangeId: made?.id ?? null, detail: `sent as ${code}` };
  }

  /** Repaired goods go back to whom they belong. They were never in our books. */
  private async giveBack(tx: Tx, act: Act, found: Row<'customer_return'>, wentWith: string) {
    if (wentWith === '') throw badForm({ wentWith: 'Say how it goes back: the carrier and its number, or that it is fetched' });
    const pieces = await rows<{ id: number; itemId: number; lotId: number; units: number; placeId: number }>(
      tx,
      `SELECT c.id, l.item_id AS itemId, c.lot_id AS lotId, c.units, c.place_id AS placeId FROM came_back c JOIN customer_return_line l ON l.id = c.line_id
       WHERE l.return_id = ? AND c.fate = 'repair' AND c.undone_at IS NULL AND c.given_back_id IS NULL ORDER BY c.id`,
      [found.id],
    );
    const to = await this.ledger.outside(tx, 'customer');
    const { ids, changes } = await this.ledger.post(
      tx,
      act,
      pieces.map((p) => ({
        itemId: p.itemId,
        lotId: p.lotId,
        units: p.units,
        condition: 'apart' as const,
        toCondition: 'good' as const,
        fromPlaceId: p.placeId,
        toPlaceId: to,
      })),
      { task: 'give-back', document: found.code, reason: wentWith.slice(0, 120) },
    );
    for (const [i, piece] of pieces.entries()) await update(tx, 'came_back', { id: piece.id }, { given_back_id: String(ids[i] ?? 0) });
    await this.allocation.settle(tx, changes);
    return { amount: null, exchangeId: null, detail: wentWith };
  }

  /** Whether as many of the same goods are free at the site. */
  private async canSend(tx: Pick<Tx, 'query'>, siteId: number, lines: readonly BackLine[]): Promise<boolean> {
    const stock = await rows<{ itemId: number; free: string }>(
      tx,
      'SELECT item_id AS itemId, CAST(on_hand AS SIGNED) - held - reserved AS free FROM site_stock WHERE site_id = ? AND item_id IN (?)',
      [siteId, [0, ...lines.map((l) => l.itemId)]],
    );
    return lines.length > 0 && lines.every((l) => num(stock.find((s) => s.itemId === l.itemId)?.free) >= l.units);
  }

  private async tell(
    tx: Tx,
    found: Row<'customer_return'>,
    lines: readonly BackLine[],
    settlement: Settlement,
    amount: string | null,
  ): Promise<void> {
    const from = { siteId: found.site_id, document: found.code };
    const order = await one<{ ref: string; channel: string; baseUrl: string | null }>(
      tx,
      'SELECT o.channel_ref AS ref, c.code AS channel, c.base_url AS baseUrl FROM sales_order o JOIN channel c ON c.id = o.channel_id WHERE o.id = ?',
      [found.order_id ?? 0],
    );
    if (order?.baseUrl)
      await this.outbox.send(
        tx,
        `channel:${order.channel}`,
        'channel.return',
        {
          channel: order.channel,
          ref: order.ref,
          code: found.code,
          returnRef: found.channel_ref,
          settlement,
          amount,
          lines: lines.map((l) => ({ sku: l.channelSku ?? l.sku, units: l.units })),
        },
        from,
      );
    if (found.email) await this.outbox.send(tx, `mail:${found.email}`, 'mail.return-settled', { code: found.code, to: found.email }, from);
  }
}
