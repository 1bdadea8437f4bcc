import { Injectable } from '@nestjs/common';
import { ordersIn, type OrderState } from '@vectrum/core/orders';
import { ActivityService } from '../activity/index.js';
import { Reservations } from '../allocation/index.js';
import { changeOrder, OrderStates } from '../orders/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  find,
  mustBeAt,
  mustMatch,
  NEXT,
  notFound,
  num,
  one,
  promisedSql,
  type Tx,
} from '../platform/index.js';

interface Party {
  orderId: number;
  lineId: number;
  itemId: number;
  siteId: number;
  state: OrderState;
  lacks: number;
  version: number;
}

/** Gives one order what is promised to another, as the desk decides: it stays so, since what is held is not taken back by a turn. */
@Injectable()
export class GivingService {
  constructor(
    private readonly commands: CommandLog,
    private readonly reservations: Reservations,
    private readonly states: OrderStates,
    private readonly activity: ActivityService,
  ) {}

  take(
    act: Act,
    code: string,
    line: number,
    version: number,
    from: { order: string; line: number; units: number },
  ): Promise<{ code: string }> {
    const other = from.order.toUpperCase();
    return this.commands.run(act, 'order.take-from', { code, line, version, from }, async (tx) => {
      const ids = [await find(tx, 'sales_order', { code }), await find(tx, 'sales_order', { code: other })].map((o) => o?.id ?? 0);
      await this.states.lock(
        tx,
        ids.filter((id) => id > 0),
      );
      const [to, giver] = [await this.party(tx, code, line), await this.party(tx, other, from.line)];
      mustBeAt(act.person, to.siteId);
      mustMatch(to.version, version);
      for (const party of [to, giver])
        if (!ordersIn('promisable').includes(party.state)) throw badState('Somebody picks it already. Change or cancel that order instead');
      if (to.itemId !== giver.itemId || to.siteId !== giver.siteId) throw badForm({ from: 'Those are other goods, or at another site' });
      if (from.units > to.lacks) throw badForm({ units: `${code} lacks only ${to.lacks} of it` });
      await this.reservations.free(tx, giver, null, from.units);
      await this.reservations.hold(tx, to, from.units);
      for (const party of [to, giver]) await changeOrder(tx, party.orderId, { version: NEXT });
      const item = await find(tx, 'item', { id: to.itemId });
      for (const [document, says] of [
        [code, `${from.units} of ${item?.name ?? ''} given to ${code}`],
        [other, `${from.units} of ${item?.name ?? ''} taken from ${other}`],
      ] as const)
        await this.activity.record(tx, act, {
          kind: 'order-change',
          glyph: 'half',
          title: says,
          detail: `from ${other} to ${code}`,
          document,
          siteId: to.siteId,
        });
      return { code };
    });
  }

  private async party(tx: Tx, code: string, line: number): Promise<Party> {
    const found = await one<Omit<Party, 'lacks'> & { lacks: string }>(
      tx,
      `SELECT o.id AS orderId, l.id AS lineId, l.item_id AS itemId, o.site_id AS siteId, o.state, CAST(l.units AS SIGNED) - ${promisedSql('l')} AS lacks, o.version
       FROM sales_order o JOIN sales_order_line l ON l.order_id = o.id AND l.line = ? AND l.item_id IS NOT NULL WHERE o.code = ?`,
      [line, code],
    );
    if (!found) throw notFound(`Line ${line} of ${code}`);
    return { ...found, lacks: Math.max(0, num(found.lacks)) };
  }
}
