import { Injectable } from '@nestjs/common';
import { floorOf, type Floor, type PlanPoint, type Segment } from '@vectrum/core/walk';
import { num, prepared, type Tx } from '../platform/index.js';

export interface ShapeRow {
  id: number;
  kind: 'aisle' | 'walkway' | 'wall';
  label: string;
  x: string;
  y: string;
  toX: string;
  toY: string;
}

export const segmentOf = (s: ShapeRow): Segment => ({ id: s.id, x: num(s.x), y: num(s.y), toX: num(s.toX), toY: num(s.toY) });

/** The plan of a site as a floor that can be walked. */
@Injectable()
export class FloorQueries {
  /** The floor of each site as it was drawn last: what is worked out of it holds until the drawing changes. */
  private readonly known = new Map<number, { drawing: string; floor: Floor }>();

  shapes(tx: Pick<Tx, 'query'>, siteId: number): Promise<ShapeRow[]> {
    return prepared<ShapeRow[]>(
      tx,
      'SELECT id, kind, label, x_m AS x, y_m AS y, to_x_m AS toX, to_y_m AS toY FROM plan_shape WHERE site_id = ? ORDER BY id',
      [siteId],
    );
  }

  async floor(tx: Pick<Tx, 'query'>, siteId: number): Promise<Floor> {
    const segments = (await this.shapes(tx, siteId)).filter((s) => s.kind !== 'wall').map(segmentOf);
    const drawing = JSON.stringify(segments);
    const known = this.known.get(siteId);
    if (known?.drawing === drawing) return known.floor;
    const floor = floorOf(segments);
    this.known.set(siteId, { drawing, floor });
    return floor;
  }

  /** Where walks begin: the first packing table that is on the plan, otherwise the first dock, otherwise its corner. */
  async start(tx: Pick<Tx, 'query'>, siteId: number): Promise<PlanPoint> {
    const [place] = await prepared<{ x: string; y: string }[]>(
      tx,
      `SELECT x_m AS x, y_m AS y FROM place WHERE site_id = ? AND kind IN ('packing-table','dock') AND x_m IS NOT NULL ORDER BY kind = 'dock', walk_order, id LIMIT 1`,
      [siteId],
    );
    return { x: num(place?.x), y: num(place?.y) };
  }
}
