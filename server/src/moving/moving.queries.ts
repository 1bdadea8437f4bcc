import { Injectable } from '@nestjs/common';
import { isFor } from '@vectrum/core/places';
import type { MovableGoods, MoveTask } from '@vectrum/core/scan';
import { spareSql } from '../allocation/index.js';
import { badState, notFound, num, one, rows, type Tx } from '../platform/index.js';

/** What lies in a place, and how much of it may go. */
@Injectable()
export class MovingQueries {
  async task(tx: Tx, code: string): Promise<MoveTask> {
    const from = await one<{ id: number; code: string; kind: string; siteId: number | null }>(
      tx,
      'SELECT id, code, kind, site_id AS siteId FROM place WHERE code = ?',
      [code],
    );
    if (!from || from.siteId === null) throw notFound(`Place ${code.slice(0, 20)}`);
    if (!isFor(from.kind, 'keep') || isFor(from.kind, 'collect'))
      throw badState('What lies in a tote or parcel is for an order. Recall the order, or put its goods away');
    return { siteId: from.siteId, from: { ...from, siteId: from.siteId }, goods: await this.goods(tx, from.id) };
  }

  /** The goods of a place; those named are locked. */
  async goods(tx: Tx, placeId: number): Promise<MovableGoods[]> {
    const found = await rows<Omit<MovableGoods, 'spare'> & { spare: string }>(
      tx,
      `SELECT b.item_id AS itemId, b.lot_id AS lotId, l.code AS lot, b.stock_condition AS \`condition\`, b.units, IF(b.stock_condition = 'good', ${spareSql('b')}, b.units) AS spare
       FROM balance b JOIN item i ON i.id = b.item_id LEFT JOIN lot l ON l.id = b.lot_id WHERE b.place_id = ? AND b.units > 0 ORDER BY i.name, l.code, b.stock_condition`,
      [placeId],
    );
    return found.map((f) => ({ ...f, spare: Math.max(0, num(f.spare)) }));
  }
}
