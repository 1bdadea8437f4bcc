import { Injectable } from '@nestjs/common';
import { ordersIn, type OrderState } from '@vectrum/core/orders';
import { countOf } from '@vectrum/core/quantity';
import { OrdersQueries } from '../orders/index.js';
import { ReleaseService } from '../picking/index.js';
import { type Act, badForm, partOf, Problem } from '../platform/index.js';
import { EditingService } from './editing.service.js';
import { HoldsService } from './holds.service.js';
import type { BulkDto, BulkLineDto } from './order-desk.dto.js';

type Seen = Awaited<ReturnType<OrdersQueries['sheet']>>;

/** Does one thing to many orders: what it will do to each can be seen first, and each goes by itself. */
@Injectable()
export class BulkService {
  constructor(
    private readonly orders: OrdersQueries,
    private readonly releases: ReleaseService,
    private readonly holds: HoldsService,
    private readonly editing: EditingService,
  ) {}

  /** What it would do to each order, or has done where it is not only looked at. Orders that it cannot be done to say why. */
  async run(act: Act, input: BulkDto): Promise<BulkLineDto[]> {
    if (input.what === 'hold' && !input.reason?.trim()) throw badForm({ reason: 'Say what they wait for' });
    if (input.what === 'promise' && !(input.at && input.at.getTime() > Date.now())) throw badForm({ at: 'Choose a time from now on' });
    const lines: BulkLineDto[] = [];
    for (const code of [...new Set(input.orders.map((o) => o.toUpperCase()))]) lines.push(await this.each(act, code, input));
    return lines;
  }

  private async each(act: Act, code: string, input: BulkDto): Promise<BulkLineDto> {
    try {
      const order = await this.orders.sheet(code, act.person.siteIds);
      const why = against(order, input.what);
      if (why !== null) return { code, customer: order.customer, can: false, says: why };
      const says = input.preview ? will(order, input) : await this.carryOut(partOf(act, code), order, input);
      return { code, customer: order.customer, can: true, says };
    } catch (thrown) {
      if (!(thrown instanceof Problem) || thrown.status >= 500) throw thrown;
      return { code, customer: '', can: false, says: thrown.detail };
    }
  }

  private async carryOut(act: Act, order: Seen, input: BulkDto): Promise<string> {
    const { code, version } = order;
    if (input.what === 'release') return `sent to picking: ${(await this.releases.release(act, code, version)).rounds.join(', ')}`;
    if (input.what === 'hold') {
      await this.holds.hold(act, code, version, { kind: 'other', reason: input.reason ?? '' });
      return 'held';
    }
    await this.editing.promise(act, code, version, input.at ?? new Date());
    return 'promised anew';
  }
}

/** Why it cannot be done to an order; null where it can. */
function against(order: Seen, what: BulkDto['what']): string | null {
  const state = order.state as OrderState;
  if (what === 'release') return order.cannotRelease;
  if (what === 'hold') return ordersIn('live').includes(state) ? null : `It is ${state} already`;
  return ordersIn('promisable').includes(state) ? null : `It is ${state} already`;
}

function will(order: Seen, { what, reason }: BulkDto): string {
  const pieces = order.lines.reduce((sum, l) => sum + l.wanted, 0);
  if (what === 'release') return `${countOf(pieces, { name: 'piece', plural: 'pieces' })} to pick at ${order.site}`;
  if (what === 'hold') return order.state === 'released' ? `recalled from picking and held: ${reason ?? ''}` : `held: ${reason ?? ''}`;
  return `promised before for ${order.promisedAt.toISOString().slice(0, 16).replace('T', ' ')} UTC`;
}
