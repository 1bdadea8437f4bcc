import { Injectable } from '@nestjs/common';
import { type Check, type StandsAt, type Unjudged, whereTheyStand } from '@vectrum/core/inspection';
import type { GoodsToInspect } from '@vectrum/core/scan';
import { num, parsed, rows, type Tx } from '../platform/index.js';

/** What was booked in to be looked at and was not judged yet, by delivery and lot. */
const UNJUDGED = `SELECT n.id, n.code AS inspection, n.item_id AS itemId, r.lot_id AS lotId,
   SUM(r.units) - COALESCE((SELECT SUM(v.units) FROM inspection_verdict v WHERE v.inspection_id = n.id AND v.lot_id = r.lot_id AND v.undone_at IS NULL), 0) AS units
 FROM inspection n JOIN receipt r ON r.arrival_id = n.arrival_id AND r.item_id = n.item_id AND r.stock_condition = 'to-inspect' AND r.undone_at IS NULL`;

interface UnjudgedRow extends Unjudged {
  id: number;
  itemId: number;
}
interface HeadRow {
  id: number;
  supplier: string;
  why: string;
  checks: unknown;
}

/** Finds what waits to be looked at, and where it stands. */
@Injectable()
export class StandingToInspect {
  /** Goods of open inspections at a site, the oldest first; of one item only where it is given. */
  async goods(tx: Pick<Tx, 'query'>, siteId: number, itemId: number | null = null): Promise<GoodsToInspect[]> {
    const unjudged = await this.unjudged(tx, siteId, itemId);
    if (unjudged.length === 0) return [];
    const ids = [...new Set(unjudged.map((u) => u.id))];
    const heads = await rows<HeadRow>(
      tx,
      `SELECT n.id, COALESCE(s.name, 'No supplier') AS supplier, n.why, n.checks FROM inspection n JOIN arrival a ON a.id = n.arrival_id LEFT JOIN supplier s ON s.id = a.supplier_id WHERE n.id IN (?)`,
      [ids],
    );
    const answers = await rows<{ id: number; no: number; value: string }>(
      tx,
      'SELECT inspection_id AS id, no, value FROM inspection_answer WHERE inspection_id IN (?) ORDER BY no',
      [ids],
    );
    const standing = await this.standing(tx, siteId, unjudged);
    return standing.map(({ id, ...g }) => {
      const head = heads.find((h) => h.id === id);
      return {
        ...g,
        supplier: head?.supplier ?? '',
        why: head?.why ?? '',
        checks: parsed<Check[]>(head?.checks ?? '[]'),
        answers: Object.fromEntries(answers.filter((a) => a.id === id).map((a) => [a.no, a.value])),
      };
    });
  }

  /** Units of one inspection that were not judged yet, of all lots. */
  async left(tx: Pick<Tx, 'query'>, inspectionId: number): Promise<number> {
    const found = await rows<{ units: string }>(tx, `${UNJUDGED} WHERE n.id = ? GROUP BY n.id, r.lot_id`, [inspectionId]);
    return found.reduce((sum, f) => sum + num(f.units), 0);
  }

  private async unjudged(tx: Pick<Tx, 'query'>, siteId: number, itemId: number | null): Promise<UnjudgedRow[]> {
    const found = await rows<Omit<UnjudgedRow, 'units'> & { units: string }>(
      tx,
      `${UNJUDGED} WHERE n.site_id = ? AND n.closed_at IS NULL AND (? IS NULL OR n.item_id = ?) GROUP BY n.id, r.lot_id HAVING units > 0 ORDER BY n.id, r.lot_id`,
      [siteId, itemId, itemId],
    );
    return found.map((f) => ({ ...f, units: num(f.units) }));
  }

  private async standing(
    tx: Pick<Tx, 'query'>,
    siteId: number,
    unjudged: readonly UnjudgedRow[],
  ): Promise<(UnjudgedRow & Pick<GoodsToInspect, 'lot' | 'placeId' | 'place'>)[]> {
    const found = await rows<StandsAt & { itemId: number; place: string; lot: string | null }>(
      tx,
      `SELECT b.item_id AS itemId, b.place_id AS placeId, p.code AS place, b.lot_id AS lotId, l.code AS lot, b.units FROM balance b JOIN place p ON p.id = b.place_id LEFT JOIN lot l ON l.id = b.lot_id
       WHERE p.site_id = ? AND b.item_id IN (?) AND b.stock_condition = 'to-inspect' AND b.units > 0 ORDER BY p.walk_order, p.id, b.lot_id`,
      [siteId, unjudged.map((u) => u.itemId)],
    );
    const items = [...new Set(unjudged.map((u) => u.itemId))];
    const placed = items.flatMap((itemId) =>
      whereTheyStand(
        unjudged.filter((u) => u.itemId === itemId),
        found.filter((f) => f.itemId === itemId),
      ).map((g) => ({ ...g, itemId })),
    );
    const facts = (g: { itemId: number; placeId: number; lotId: number }) =>
      found.find((f) => f.itemId === g.itemId && f.placeId === g.placeId && f.lotId === g.lotId);
    return placed
      .map((g) => ({
        ...g,
        id: unjudged.find((u) => u.inspection === g.inspection)?.id ?? 0,
        place: facts(g)?.place ?? '',
        lot: facts(g)?.lot ?? null,
      }))
      .sort((a, b) => a.id - b.id);
  }
}
