import { Injectable } from '@nestjs/common';
import { chooseBins, type BinStock } from '@vectrum/core/allocation';
import { type Act, mustBeAt } from '../platform/act.js';
import { ActivityService } from '../activity/activity.service.js';
import { CommandLog } from '../platform/command-log.js';
import { marks, num, one, rows, type Tx } from '../platform/database/tx.js';
import { nextCode } from '../platform/number-series.js';
import { badState, notFound } from '../platform/problem.js';

export interface LineToPick {
  id: number;
  item_id: number;
  rotation: 'fifo' | 'fefo';
  units: number;
}

/** The second kind of reservation: turns an order's reserved lines into stops at bins and lots. */
@Injectable()
export class ReleaseService {
  constructor(
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  release(act: Act, code: string, version: number): Promise<{ round: string }> {
    return this.commands.run(act, 'order.release', { code, version }, async (tx) => {
      const order = await one<{
        id: number;
        site_id: number;
        state: string;
        version: number;
        customer: string;
      }>(tx, 'SELECT id, site_id, state, version, customer FROM sales_order WHERE code = ? FOR UPDATE', [code]);
      if (!order) throw notFound(`Order ${code}`);
      mustBeAt(act.person, order.site_id);
      if (order.state !== 'open') throw badState(`${code} is ${order.state}. Only an open order can be sent to picking`);
      const lines = await this.lines(tx, order.id, code);
      const round = await nextCode(tx, 'R');
      const made = await tx.query<{ insertId: number }>('INSERT INTO pick_round (code, site_id, order_id) VALUES (?, ?, ?)', [
        round,
        order.site_id,
        order.id,
      ]);
      await this.planStops(tx, made.insertId, order.site_id, lines);
      await tx.query(`UPDATE sales_order SET state = 'released', version = version + 1 WHERE id = ?`, [order.id]);
      await this.activity.record(tx, act, {
        kind: 'release',
        glyph: 'go',
        title: `${code} sent to picking`,
        detail: `${round}, ${order.customer}`,
        document: code,
        siteId: order.site_id,
      });
      return { round };
    });
  }

  /** Chooses bins for lines and writes the stops. Throws where bins open to picking hold too little. */
  async planStops(tx: Tx, roundId: number, siteId: number, lines: readonly LineToPick[]): Promise<void> {
    const stock = await this.pickable(
      tx,
      siteId,
      lines.map((l) => l.item_id),
    );
    for (const line of lines) {
      const bins = stock.get(line.item_id) ?? [];
      const { choices, short } = chooseBins(bins, line.units, line.rotation);
      if (short > 0) {
        const item = await one<{ name: string }>(tx, 'SELECT name FROM item WHERE id = ?', [line.item_id]);
        throw badState(`Bins open to picking lack ${short} of ${item?.name ?? 'an item'}. Put it away from the dock first`);
      }
      for (const c of choices) {
        await tx.query('INSERT INTO pick_stop (round_id, order_line_id, item_id, lot_id, place_id, units) VALUES (?, ?, ?, ?, ?, ?)', [
          roundId,
          line.id,
          line.item_id,
          c.lotId,
          c.placeId,
          c.units,
        ]);
        const bin = bins.find((b) => b.placeId === c.placeId && b.lotId === c.lotId);
        if (bin) bin.units -= c.units;
      }
    }
  }

  /** Good stock in bins open to picking, less what open stops have already claimed. Locks the balances it reads. */
  async pickable(tx: Tx, siteId: number, itemIds: readonly number[]): Promise<Map<number, BinStock[]>> {
    const items = [...new Set(itemIds)].sort((a, b) => a - b);
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
      `SELECT s.item_id, s.place_id, s.lot_id, SUM(s.units - s.picked_units - s.short_units) AS units FROM pick_stop s JOIN pick_round r ON r.id = s.round_id
       WHERE s.item_id IN (${marks(items)}) AND r.state IN ('waiting','picking') GROUP BY s.item_id, s.place_id, s.lot_id`,
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

  private async lines(tx: Tx, orderId: number, code: string): Promise<LineToPick[]> {
    const found = await rows<{
      id: number;
      item_id: number;
      rotation: 'fifo' | 'fefo';
      units: number;
      reserved: number;
      picked: number;
      waits: number;
      name: string;
    }>(
      tx,
      `SELECT l.id, l.item_id, i.rotation, l.units, l.reserved_units AS reserved, l.picked_units AS picked, i.never_holds_up = 0 AS waits, i.name FROM sales_order_line l JOIN item i ON i.id = l.item_id WHERE l.order_id = ? ORDER BY l.line FOR UPDATE`,
      [orderId],
    );
    const short = found.find((l) => l.reserved < l.units && num(l.waits) === 1);
    if (short) throw badState(`${code} is short of ${short.units - short.reserved} of ${short.name}. It waits for stock`);
    const lines = found
      .filter((l) => l.reserved > l.picked)
      .map((l) => ({ id: l.id, item_id: l.item_id, rotation: l.rotation, units: l.reserved - l.picked }));
    if (lines.length === 0) throw badState(`Nothing of ${code} is left to pick`);
    return lines;
  }
}
