import { Injectable } from '@nestjs/common';
import type { BinChoice, BinStock } from '@vectrum/core/allocation';
import { ordersIn, type OrderState } from '@vectrum/core/orders';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { type Holder, Reservations } from '../allocation/index.js';
import { OrderStates } from '../orders/index.js';
import {
  type Act,
  badState,
  CommandLog,
  insert,
  inTransaction,
  marks,
  mustBeAt,
  mustMatch,
  nextCode,
  notFound,
  num,
  one,
  promisedSql,
  rows,
  type Tx,
} from '../platform/index.js';
import { picksAt } from './picks-at.js';
import { pickable, takeFrom } from './pickable.js';

/** An order that is to be released, as whoever releases it has seen it. */
export interface ToRelease {
  code: string;
  version: number;
}
/** The orders of one round, and whom it is sent to; null where anybody may take it. */
export interface RoundToSend {
  orders: readonly ToRelease[];
  sentTo: number | null;
  /** Picked for all of its orders together, and sorted at a wall afterwards; absent: no. */
  pooled?: boolean;
}

interface LineToPick extends Holder {
  orderId: number;
  rotation: 'fifo' | 'fefo';
  units: number;
}
interface ReleasedOrder {
  id: number;
  code: string;
  siteId: number;
  state: string;
  customer: string;
  version: number;
}
interface NewRound {
  siteId: number;
  orderIds: readonly number[];
  sentTo: number | null;
  pooled?: boolean;
}

/** The second kind of reservation: turns what orders hold at a site into stops at bins and lots. */
@Injectable()
export class ReleaseService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly reservations: Reservations,
    private readonly states: OrderStates,
    private readonly activity: ActivityService,
  ) {}

  /** Sends an order to picking: a round at each site where goods are promised to it. */
  release(act: Act, code: string, version: number): Promise<{ round: string; rounds: string[] }> {
    return this.commands.run(act, 'order.release', { code, version }, async (tx) => {
      const rounds = await this.send(tx, act, null, [{ orders: [{ code, version }], sentTo: null }]);
      return { round: rounds[0] ?? '', rounds };
    });
  }

  /**
   * Sends many orders to picking, each group of them as one round at a site; what they hold at other sites becomes rounds of their own
   * there. All of it or nothing: an order that cannot go any more is named. `check` may refuse it before anything is done.
   */
  releaseRounds(
    act: Act,
    siteId: number,
    groups: readonly RoundToSend[],
    check: (tx: Tx) => Promise<unknown> = () => Promise.resolve(),
  ): Promise<{ rounds: string[] }> {
    return this.commands.run(act, 'rounds.release', { siteId, groups }, async (tx) => {
      mustBeAt(act.person, siteId);
      await check(tx);
      return { rounds: await this.send(tx, act, siteId, groups) };
    });
  }

  private async send(tx: Tx, act: Act, siteId: number | null, groups: readonly RoundToSend[]): Promise<string[]> {
    const orders = await this.hold(
      tx,
      act,
      groups.flatMap((g) => g.orders),
    );
    const lines = await this.lines(
      tx,
      orders.map((o) => o.id),
    );
    for (const { id, code } of orders) if (!lines.some((l) => l.orderId === id)) throw badState(`Nothing of ${code} is left to pick`);
    const stocks = await this.stocks(tx, lines);
    const rounds: string[] = [];
    for (const { orders: wanted, sentTo, pooled } of groups) {
      const group = orders.filter((o) => wanted.some((w) => w.code.toUpperCase() === o.code));
      const own = lines.filter((l) => group.some((o) => o.id === l.orderId));
      const shared = own.filter((l) => l.siteId === siteId);
      const orderIds = [...new Set(shared.map((l) => l.orderId))];
      const opened = async (round: NewRound, lines: readonly LineToPick[]) => {
        const code = await this.openRound(tx, round, lines, stocks);
        if (code !== null) rounds.push(code);
      };
      if (siteId !== null && shared.length > 0) await opened({ siteId, orderIds, sentTo, pooled }, shared);
      for (const order of group)
        for (const other of sitesOf(own.filter((l) => l.orderId === order.id && l.siteId !== siteId))) {
          const there = own.filter((l) => l.orderId === order.id && l.siteId === other);
          await opened({ siteId: other, orderIds: [order.id], sentTo: null }, there);
        }
    }
    await this.states.refresh(
      tx,
      orders.map((o) => o.id),
    );
    for (const order of orders) {
      const found = await this.roundsOf(tx, order.id);
      await this.tell(tx, act, order, found === '' ? 'sent to packing' : 'sent to picking', found || 'from the shelf');
    }
    return rounds;
  }

  /**
   * Sends after an order at work what was promised to it since, as far as bins open to picking hold it: as stops of a round of
   * its own. Does nothing for an order that nobody has work with.
   */
  follow(act: Act, code: string): Promise<void> {
    return inTransaction(this.source, async (tx) => {
      const order = await one<ReleasedOrder>(
        tx,
        'SELECT id, code, site_id AS siteId, state, customer, version FROM sales_order WHERE code = ? FOR UPDATE',
        [code],
      );
      if (!order || !isAtWork(order)) return;
      const lines = await this.lines(tx, [order.id]);
      const stocks = await this.stocks(tx, lines);
      for (const siteId of sitesOf(lines)) {
        const stops = lines
          .filter((l) => l.siteId === siteId)
          .flatMap((line) =>
            takeFrom(stocks.get(siteId) ?? new Map<number, BinStock[]>(), line).choices.map((choice) => ({ line, choice })),
          );
        if (stops.length === 0) continue;
        const round = (await picksAt(tx, siteId)) ? await this.newRound(tx, { siteId, orderIds: [order.id], sentTo: null }) : null;
        for (const { line, choice } of stops)
          if (round) await this.addStop(tx, round.id, line, choice);
          else await this.reservations.move(tx, line, null, { placeId: choice.placeId, lotId: choice.lotId }, choice.units);
        await this.activity.record(tx, act, {
          kind: 'release',
          glyph: 'go',
          title: `More of ${code} sent to picking`,
          detail: round?.code ?? 'to be packed from the shelf',
          document: code,
          siteId: order.siteId,
        });
      }
      await this.states.refresh(tx, [order.id]);
    });
  }

  /** A stop at a bin and lot, with what is promised of it; for whoever walks the round, or for one who shares its walk. */
  async addStop(tx: Tx, roundId: number, line: Holder, choice: BinChoice, personId: number | null = null): Promise<number> {
    await this.reservations.move(tx, line, null, { placeId: choice.placeId, lotId: choice.lotId }, choice.units);
    return insert(tx, 'round_stop', {
      round_id: roundId,
      order_line_id: line.lineId,
      item_id: line.itemId,
      lot_id: choice.lotId,
      place_id: choice.placeId,
      units: choice.units,
      person_id: personId,
    });
  }

  /** Takes hold of orders, each once and in the order of their numbers; refuses those that cannot go, by their code. */
  private async hold(tx: Tx, act: Act, wanted: readonly ToRelease[]): Promise<ReleasedOrder[]> {
    const versions = new Map(wanted.map((w) => [w.code.toUpperCase(), w.version]));
    if (versions.size < wanted.length) throw badState('An order is on two rounds. Leave it on one of them');
    const codes = [...versions.keys()];
    const orders = await rows<ReleasedOrder>(
      tx,
      `SELECT id, code, site_id AS siteId, state, customer, version FROM sales_order WHERE code IN (${marks(codes)}) ORDER BY id FOR UPDATE`,
      codes,
    );
    const missing = codes.find((code) => !orders.some((o) => o.code === code));
    if (missing) throw notFound(`Order ${missing}`);
    for (const order of orders) {
      mustBeAt(act.person, order.siteId);
      if (order.state !== 'open' && !isAtWork(order))
        throw badState(`${order.code} is ${order.state}. Only an open order can be sent to picking`);
      mustMatch(order.version, versions.get(order.code) ?? 0);
      // What was added to an order that is being picked follows on a round of its own.
      if (!isAtWork(order)) await this.mustBeWhole(tx, order.id, order.code);
    }
    return orders;
  }

  private async newRound(tx: Tx, { siteId, orderIds, sentTo, pooled }: NewRound): Promise<{ id: number; code: string }> {
    const code = await nextCode(tx, 'R');
    const id = await insert(tx, 'round', { code, site_id: siteId, sent_to_id: sentTo, pooled: pooled ? 1 : 0 });
    for (const orderId of orderIds) await insert(tx, 'round_order', { round_id: id, order_id: orderId });
    return { id, code };
  }

  /**
   * Chooses bins for lines and writes the stops. Where nobody walks rounds the goods wait in their bins for the packing table, and there
   * is no round: null. Throws where bins open to picking hold too little.
   */
  private async openRound(
    tx: Tx,
    round: NewRound,
    lines: readonly LineToPick[],
    stocks: ReadonlyMap<number, ReadonlyMap<number, BinStock[]>>,
  ): Promise<string | null> {
    const made = (await picksAt(tx, round.siteId)) ? await this.newRound(tx, round) : null;
    for (const line of lines) {
      const { choices, short } = takeFrom(stocks.get(round.siteId) ?? new Map<number, BinStock[]>(), line);
      if (short > 0) {
        const lacks = await one<{ name: string; code: string }>(
          tx,
          'SELECT i.name, o.code FROM item i JOIN sales_order o ON o.id = ? WHERE i.id = ?',
          [line.orderId, line.itemId],
        );
        throw badState(
          `Bins open to picking lack ${short} of ${lacks?.name ?? 'an item'} for ${lacks?.code ?? 'an order'}. Refill from the reserve, or put away from the dock, first`,
        );
      }
      for (const choice of choices)
        if (made) await this.addStop(tx, made.id, line, choice);
        else await this.reservations.move(tx, line, null, { placeId: choice.placeId, lotId: choice.lotId }, choice.units);
    }
    return made?.code ?? null;
  }

  /** What bins of each site hold that lines are promised at, locked. */
  private async stocks(tx: Tx, lines: readonly LineToPick[]): Promise<Map<number, Map<number, BinStock[]>>> {
    const stocks = new Map<number, Map<number, BinStock[]>>();
    for (const siteId of sitesOf(lines)) {
      const items = lines.filter((l) => l.siteId === siteId).map((l) => l.itemId);
      stocks.set(siteId, await pickable(tx, siteId, items, 'locked'));
    }
    return stocks;
  }

  private async roundsOf(tx: Tx, orderId: number): Promise<string> {
    const found = await rows<{ code: string }>(
      tx,
      `SELECT r.code FROM \`round\` r JOIN round_order x ON x.round_id = r.id WHERE x.order_id = ? AND r.state IN ('waiting','picking') ORDER BY r.id`,
      [orderId],
    );
    return found.map((r) => r.code).join(', ');
  }

  private async tell(tx: Tx, act: Act, order: ReleasedOrder, what: string, rounds: string): Promise<void> {
    await this.activity.record(tx, act, {
      kind: 'release',
      glyph: 'go',
      title: `${order.code} ${what}`,
      detail: `${rounds}, ${order.customer}`,
      document: order.code,
      siteId: order.siteId,
    });
  }

  private async mustBeWhole(tx: Tx, orderId: number, code: string): Promise<void> {
    const short = await one<{ name: string; lacks: number | string }>(
      tx,
      `SELECT i.name, l.units - ${promisedSql('l')} AS lacks FROM sales_order_line l JOIN item i ON i.id = l.item_id WHERE l.order_id = ? AND i.never_holds_up = 0 AND ${promisedSql('l')} < l.units ORDER BY l.line LIMIT 1`,
      [orderId],
    );
    if (short) throw badState(`${code} is short of ${num(short.lacks)} of ${short.name}. It waits for stock`);
  }

  /** What orders hold at their sites and no round goes for yet. */
  private lines(tx: Tx, orderIds: readonly number[]): Promise<LineToPick[]> {
    return rows<LineToPick>(
      tx,
      `SELECT l.id AS lineId, l.order_id AS orderId, l.item_id AS itemId, v.site_id AS siteId, v.units, i.rotation FROM reservation v JOIN sales_order_line l ON l.id = v.order_line_id JOIN item i ON i.id = l.item_id
       WHERE l.order_id IN (${marks(orderIds)}) AND v.place_id IS NULL ORDER BY l.order_id, l.line, v.site_id`,
      [...orderIds],
    );
  }
}

const isAtWork = (order: { state: string }) => ordersIn('at work').includes(order.state as OrderState);
const sitesOf = (lines: readonly { siteId: number }[]) => [...new Set(lines.map((l) => l.siteId))].sort((a, b) => a - b);
