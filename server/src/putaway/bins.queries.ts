import { Injectable } from '@nestjs/common';
import { kindsFor } from '@vectrum/core/places';
import type { PutawayBin } from '@vectrum/core/putaway';
import { num, rows, sqlList, type Tx } from '../platform/index.js';

/** Empty bins looked at, nearest in walking order first; more would not be nearer. */
const MOST_EMPTY = 600;
/** Which bins: all shelves that are not blocked, or those of them that pickers go to. */
const OPEN = {
  any: `p.kind IN ${sqlList(kindsFor('shelf'))} AND p.blocked = 0`,
  picked: `p.kind IN ${sqlList(kindsFor('shelf'))} AND p.blocked = 0 AND p.pickable = 1`,
} as const;

interface BinRow {
  id: number;
  code: string;
  kind: PutawayBin['kind'];
  rule: PutawayBin['rule'];
  x: string | null;
  y: string | null;
  holdsMl: number | null;
  holdsG: number | null;
}

/** Bins that goods might be put into. */
@Injectable()
export class BinsQueries {
  /** The homes of the goods, the bins where some of them lie, and empty ones. */
  async around(
    tx: Tx,
    siteId: number,
    goods: readonly { itemId: number; homeId: number | null }[],
    open: keyof typeof OPEN = 'any',
  ): Promise<PutawayBin[]> {
    const items = [0, ...goods.map((g) => g.itemId)];
    const homes = [0, ...goods.flatMap((g) => (g.homeId === null ? [] : [g.homeId]))];
    const found = await rows<BinRow>(
      tx,
      `SELECT p.id, p.code, p.kind, COALESCE(z.rule, 'none') AS rule, p.x_m AS x, p.y_m AS y, p.holds_ml AS holdsMl, p.holds_g AS holdsG
       FROM place p LEFT JOIN place z ON z.id = p.parent_id AND z.kind = 'zone'
       WHERE p.site_id = ? AND ${OPEN[open]} AND (p.id IN (?) OR p.id IN (SELECT b.place_id FROM balance b WHERE b.item_id IN (?) AND b.units > 0)
         OR p.id IN (SELECT e.id FROM (SELECT p.id FROM place p WHERE p.site_id = ? AND ${OPEN[open]} AND NOT EXISTS (SELECT 1 FROM balance b WHERE b.place_id = p.id AND b.units > 0) ORDER BY p.walk_order LIMIT ${MOST_EMPTY}) e)
         OR (z.rule <> 'none' AND NOT EXISTS (SELECT 1 FROM balance b WHERE b.place_id = p.id AND b.units > 0)))
       ORDER BY p.walk_order, p.id`,
      [siteId, homes, items, siteId],
    );
    const lying = await rows<{ placeId: number; itemId: number; lotId: number; ml: string | null; g: string | null }>(
      tx,
      `SELECT b.place_id AS placeId, b.item_id AS itemId, b.lot_id AS lotId, SUM(b.units * u.length_mm * u.width_mm * u.height_mm / 1000) AS ml, SUM(b.units * u.weight_g) AS g
       FROM balance b JOIN pack_unit u ON u.item_id = b.item_id AND u.factor = 1 WHERE b.place_id IN (?) AND b.units > 0 GROUP BY b.place_id, b.item_id, b.lot_id`,
      [[0, ...found.map((b) => b.id)]],
    );
    const at = byPlace(lying);
    return found.map(({ x, y, ...b }) => {
      const stock = at.get(b.id) ?? [];
      return {
        ...b,
        level: levelOf(b.code),
        at: x === null || y === null ? null : { x: num(x), y: num(y) },
        usedMl: stock.reduce((sum, s) => sum + num(s.ml), 0),
        usedG: stock.reduce((sum, s) => sum + num(s.g), 0),
        stock,
      };
    });
  }
}

function byPlace<T extends { placeId: number }>(list: readonly T[]): Map<number, T[]> {
  const map = new Map<number, T[]>();
  for (const one of list) map.set(one.placeId, [...(map.get(one.placeId) ?? []), one]);
  return map;
}

/** The level of a bin, as its code says it: "C-07-2" is on the second; the floor where it says none. */
export const levelOf = (code: string): number => Number(/-(\d)$/.exec(code)?.[1] ?? 1);
