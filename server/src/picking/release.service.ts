import { Injectable } from '@nestjs/common';
import { type BinChoice, type BinStock, chooseBins } from '@vectrum/core/allocation';
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
import { keepStanding } from '../sites/index.js';

interface LineToPick extends Holder {
  rotation: 'fifo' | 'fefo';
  units: number;
}

/** The second kind of reservation: turns what an order holds at a site into stops at bins and lots. */
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
      const order = await one<{ id: number; site_id: number; state: string; customer: string; version: number }>(
        tx,
        'SELECT id, site_id, state, customer, version FROM sales_order WHERE code = ? FOR UPDATE',
        [code],
      );
      if (!order) throw notFound(`Order ${code}`);
      mustBeAt(act.person, order.site_id);
      const isAtWork = ordersIn('at work').includes(order.state as OrderState);
      if (order.state !== 'open' && !isAtWork) throw badState(`${code} is ${order.state}. Only an open order can be sent to picking`);
      mustMatch(order.version, version);
      // What was added to an order that is being picked follows on a round of its own.
      if (!isAtWork) await this.mustBeWhole(tx, order.id, code);
      const lines = await this.lines(tx, order.id);
      if (lines.length === 0) throw badState(`Nothing of ${code} is left to pick`);
      const rounds: string[] = [];
      for (const siteId of [...new Set(lines.map((l) => l.siteId))].sort((a, b) => a - b))
        rounds.push(
          await this.openRound(
            tx,
            siteId,
            order.id,
            lines.filter((l) => l.siteId === siteId),
          ),
        );
      await this.states.refresh(tx, [order.id]);
      await this.activity.record(tx, act, {
        kind: 'release',
        glyph: 'go',
        title: `${code} sent to picking`,
        detail: `${rounds.join(', ')}, ${order.customer}`,
        document: code,
        siteId: order.site_id,
      });
      return { round: rounds[0] ?? '', rounds };
    });
  }

  /**
   * Sends after an order at work what was promised to it since, as far as bins open to picking hold it: as stops of a round of
   * its own. Does nothing for an order that nobody has work with.
   */
  follow(act: Act, code: string): Promise<void> {
    return inTransaction(this.source, async (tx) => {
      const order = await one<{ id: number; site_id: number; state: string }>(
        tx,
        'SELECT id, site_id, state FROM sales_order WHERE code = ? FOR UPDATE',
        [code],
      );
      if (!order || !ordersIn('at work').includes(order.state as OrderState)) return;
      const lines = await this.lines(tx, order.id);
      for (const siteId of [...new Set(lines.map((l) => l.siteId))].sort((a, b) => a - b)) {
        const here = lines.filter((l) => l.siteId === siteId);
        const stock = await this.pickable(
          tx,
          siteId,
          here.map((l) => l.itemId),
        );
        const stops = here.flatMap((line) => {
          const bins = stock.get(line.itemId) ?? [];
          const { choices } = chooseBins(bins, line.units, line.rotation);
          for (const c of choices) {
            const bin = bins.find((b) => b.placeId === c.placeId && b.lotId === c.lotId);
            if (bin) bin.units -= c.units;
          }
          return choices.map((choice) => ({ line, choice }));
        });
        if (stops.length === 0) continue;
        const round = await this.newRound(tx, siteId, order.id);
        for (const { line, choice } of stops) await this.addStop(tx, round.id, line, choice);
        await this.activity.record(tx, act, {
          kind: 'release',
          glyph: 'go',
          title: `More of ${code} sent to picking`,
          detail: round.code,
          document: code,
          siteId: order.site_id,
        });
      }
      await this.states.refresh(tx, [order.id]);
    });
  }

  private async newRound(tx: Tx, siteId: number, orderId: number): Promise<{ id: number; code: string }> {
    const code = await nextCode(tx, 'R');
    const id = await insert(tx, 'round', { code, site_id: siteId });
    await insert(tx, 'round_order', { round_id: id, order_id: orderId });
    return { id, code };
  }

  private async openRound(tx: Tx, siteId: number, orderId: number, lines: readonly LineToPick[]): Promise<string> {
    const { id, code } = await this.newRound(tx, siteId, orderId);
    await this.planStops(tx, id, siteId, lines);
    return code;
  }

  /** Chooses bins for lines and writes the stops. Throws where bins open to picking hold too little. */
  private async planStops(tx: Tx, roundId: number, siteId: number, lines: readonly LineToPick[]): Promise<void> {
    const stock = await this.pickable(
      tx,
      siteId,
      lines.map((l) => l.itemId),
    );
    for (const line of lines) {
      const bins = stock.get(line.itemId) ?? [];
      const { choices, short } = chooseBins(bins, line.units, line.rotation);
      if (short > 0) {
        const item = await one<{ name: string }>(tx, 'SELECT name FROM item WHERE id = ?', [line.itemId]);
        throw badState(`Bins open to picking lack ${short} of ${item?.name ?? 'an item'}. Put it away from the dock first`);
      }
      for (const c of choices) {
        await this.addStop(tx, roundId, line, c);
        const bin = bins.find((b) => b.placeId === c.placeId && b.lotId === c.lotId);
        if (bin) bin.units -= c.units;
      }
    }
  }

  /** A stop at a bin and lot, with what is promised of it. */
  async addStop(tx: Tx, roundId: number, line: Holder, choice: BinChoice): Promise<void> {
    await this.reservations.move(tx, line, null, { placeId: choice.placeId, lotId: choice.lotId }, choice.units);
    await insert(tx, 'round_stop', {
      round_id: roundId,
      order_line_id: line.lineId,
      item_id: line.itemId,
      lot_id: choice.lotId,
      place_id: choice.placeId,
      units: choice.units,
    });
  }

  /** What bins open to picking hold that no round goes for yet. The balances stay locked. */
  async pickable(tx: Tx, siteId: number, itemIds: readonly number[]): Promise<Map<number, BinStock[]>> {
    const items = [...new Set(itemIds)].sort((a, b) => a - b);
    await keepStanding(tx, 'SELECT place_id FROM balance WHERE item_id IN (?) AND units > 0 AND bounded = 1', [[0, ...items]]);
    const found = await rows<{ item_id: number; place_id: number; lot_id: number; units: number }>(
      tx,
      `SELECT item_id, place_id, lot_id, units FROM balance WHERE item_id IN (${marks(items)}) AND stock_condition = 'good' AND units > 0 AND bounded = 1 ORDER BY item_id, place_id, lot_id FOR UPDATE`,
      items,
    );
    const places = await rows<{ id: number; walk_order: number }>(
      tx,
      `SELECT id, walk_order FROM place WHERE site_id = ? AND pickable = 1 AND blocked = 0 AND id IN (${marks(found)})`,
      [siteId, ...found.map((f) => f.place_id)],
    );
    const claims = await rows<{ item_id: number; place_id: number; lot_id: number; units: string }>(
      tx,
      `SELECT item_id, place_id, lot_id, SUM(units) AS units FROM reservation WHERE item_id IN (${marks(items)}) AND place_id IS NOT NULL GROUP BY item_id, place_id, lot_id`,
      items,
    );
    const lots = await rows<{ id: number; expires_on: string | null; first_received_on: string | null }>(
      tx,
      `SELECT id, expires_on, first_received_on FROM lot WHERE id IN (${marks(found)})`,
      found.map((f) => f.lot_id),
    );
    const byItem = new Map<number, BinStock[]>();
    for (const row of found) {
      const place = places.find((p) => p.id === row.place_id);
      if (!place) continue;
      const claim = claims.find((c) => c.item_id === row.item_id && c.place_id === row.place_id && c.lot_id === row.lot_id);
      const lot = lots.find((l) => l.id === row.lot_id);
      const bin = {
        placeId: row.place_id,
        lotId: row.lot_id,
        walkOrder: place.walk_order,
        units: row.units - num(claim?.units),
        expires: lot?.expires_on ?? null,
        received: lot?.first_received_on ?? null,
      };
      byItem.set(row.item_id, [...(byItem.get(row.item_id) ?? []), bin]);
    }
    return byItem;
  }

  private async mustBeWhole(tx: Tx, orderId: number, code: string): Promise<void> {
    const short = await one<{ name: string; lacks: number | string }>(
      tx,
      `SELECT i.name, l.units - ${promisedSql('l')} AS lacks FROM sales_order_line l JOIN item i ON i.id = l.item_id WHERE l.order_id = ? AND i.never_holds_up = 0 AND ${promisedSql('l')} < l.units ORDER BY l.line LIMIT 1`,
      [orderId],
    );
    if (short) throw badState(`${code} is short of ${num(short.lacks)} of ${short.name}. It waits for stock`);
  }

  /** What an order holds at its sites and no round goes for yet. */
  private lines(tx: Tx, orderId: number): Promise<LineToPick[]> {
    return rows<LineToPick>(
      tx,
      `SELECT l.id AS lineId, l.item_id AS itemId, v.site_id AS siteId, v.units, i.rotation FROM reservation v JOIN sales_order_line l ON l.id = v.order_line_id JOIN item i ON i.id = l.item_id
       WHERE l.order_id = ? AND v.place_id IS NULL ORDER BY l.line, v.site_id`,
      [orderId],
    );
  }
}
