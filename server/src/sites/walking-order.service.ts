import { Injectable } from '@nestjs/common';
import { floorOf, pointOn, walkingOrder, type AisleBin, type Segment } from '@vectrum/core/walk';
import { num, rows, type Tx } from '../platform/index.js';
import { FloorQueries, segmentOf } from './floor.queries.js';

/** Numbers are this far apart, so that a place fixed by hand finds room between two of them. */
const STEP = 10;
const FIRST = 1000;
const BATCH = 500;

interface Row {
  id: number;
  aisle_id: number;
  along_m: string;
  code: string;
}

/** Lets positions and walking order of bins follow the plan. */
@Injectable()
export class WalkingOrder {
  constructor(private readonly floors: FloorQueries) {}

  /** Works out anew where each bin of an aisle stands and which comes after which; places fixed by hand keep their number. */
  async refresh(tx: Tx, siteId: number): Promise<void> {
    const shapes = await this.floors.shapes(tx, siteId);
    const segments = shapes.filter((s) => s.kind !== 'wall').map(segmentOf);
    const aisles = shapes.filter((s) => s.kind === 'aisle').map(segmentOf);
    const found = await rows<Row>(
      tx,
      'SELECT id, aisle_id, along_m, code FROM place WHERE site_id = ? AND aisle_id IS NOT NULL ORDER BY id',
      [siteId],
    );
    const bins = found.map((b): AisleBin => ({ id: b.id, aisleId: b.aisle_id, along: num(b.along_m), code: b.code }));
    const order = walkingOrder(aisles, floorOf(segments), await this.floors.start(tx, siteId), bins);
    await this.write(tx, bins, new Map(aisles.map((a) => [a.id, a])), new Map(order.map((id, i) => [id, FIRST + i * STEP])));
  }

  private async write(
    tx: Tx,
    bins: readonly AisleBin[],
    aisles: ReadonlyMap<number, Segment>,
    order: ReadonlyMap<number, number>,
  ): Promise<void> {
    await tx.query('CREATE TEMPORARY TABLE IF NOT EXISTS stands (id INT UNSIGNED PRIMARY KEY, x DECIMAL(8,2), y DECIMAL(8,2), o INT)');
    await tx.query('DELETE FROM stands');
    const values = bins.flatMap((b) => {
      const aisle = aisles.get(b.aisleId);
      if (!aisle) return [];
      const at = pointOn(aisle, b.along);
      return [[b.id, at.x.toFixed(2), at.y.toFixed(2), order.get(b.id) ?? FIRST]];
    });
    for (let i = 0; i < values.length; i += BATCH)
      await tx.query('INSERT INTO stands (id, x, y, o) VALUES ?', [values.slice(i, i + BATCH)]);
    await tx.query(
      'UPDATE place p JOIN stands s ON s.id = p.id SET p.x_m = s.x, p.y_m = s.y, p.walk_order = IF(p.fixed_order = 1, p.walk_order, s.o)',
    );
    await tx.query('DROP TEMPORARY TABLE stands');
  }
}
