import { kindsFor } from '@vectrum/core/places';
import { Injectable } from '@nestjs/common';
import { segmentLength, type PlanPoint } from '@vectrum/core/walk';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  mustBeAt,
  mustMatch,
  NEXT,
  notFound,
  num,
  one,
  remove,
  rows,
  type Tx,
  update,
} from '../platform/index.js';
import { FloorQueries, segmentOf } from './floor.queries.js';
import type { BayDto, EditPlanDto, PlacedPointDto, PlanDto, PlanShapeDto } from './sites.dto.js';
import { WalkingOrder } from './walking-order.service.js';

const ACTIVE_DAYS = 7;
/** So many movements are counted anew each time. */
const FEW = 10_000;
/** Counts of more may be so many times as old as it took to make them: a hundredth of the time goes into counting. */
const AGES = 100;
const SHORTEST_M = 0.5;
/** Kinds that stand on the plan as a point of their own; bins stand along their aisle. */
const POINTS = kindsFor('point');

/** The plan of a site, to scale: what is drawn, where it stands, how full and how busy its bays are. */
@Injectable()
export class PlanService {
  private counted: { until: number; moves: Promise<ReadonlyMap<number, number>> } | undefined;

  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly floors: FloorQueries,
    private readonly order: WalkingOrder,
  ) {}

  async plan(siteId: number): Promise<PlanDto> {
    const site = await one<{ name: string; width_m: string; depth_m: string; version: number }>(
      this.source,
      'SELECT name, width_m, depth_m, version FROM site WHERE id = ?',
      [siteId],
    );
    if (!site) throw notFound('That site');
    const [shapes, points, bays, walkM] = await Promise.all([
      this.floors.shapes(this.source, siteId),
      rows<PlacedPointDto & { x: string | null; y: string | null }>(
        this.source,
        'SELECT code, kind, x_m AS x, y_m AS y FROM place WHERE site_id = ? AND aisle_id IS NULL AND kind IN (?) ORDER BY walk_order, code LIMIT 500',
        [siteId, POINTS],
      ),
      this.bays(siteId),
      this.walk(siteId),
    ]);
    const placed = points.map((p) => ({ ...p, x: num(p.x), y: num(p.y), on: p.x !== null }));
    const bare = ({ on: _, ...p }: (typeof placed)[number]) => p;
    return {
      siteId,
      site: site.name,
      widthM: num(site.width_m),
      depthM: num(site.depth_m),
      shapes: shapes.map((s) => ({ kind: s.kind, label: s.label, ...segmentOf(s) })),
      points: placed.filter((p) => p.on).map(bare),
      unplaced: placed.filter((p) => !p.on).map(bare),
      bays,
      walkM,
      version: site.version,
    };
  }

  /** Keeps what was drawn; bins follow their aisles, and the walking order follows both. */
  edit(act: Act, siteId: number, version: number, input: EditPlanDto): Promise<{ walkM: number }> {
    mustBeAt(act.person, siteId);
    return this.commands.run(act, 'plan', { siteId, version, input }, async (tx) => {
      const site = await one<{ name: string; version: number }>(tx, 'SELECT name, version FROM site WHERE id = ? FOR UPDATE', [siteId]);
      if (!site) throw notFound('That site');
      mustMatch(site.version, version);
      for (const s of input.shapes) mustFit(s, input);
      await this.writeShapes(tx, siteId, input.shapes);
      for (const p of input.points) {
        await update(tx, 'place', { code: p.code, site_id: siteId, aisle_id: null }, { x_m: p.x, y_m: p.y });
      }
      await update(tx, 'site', { id: siteId }, { width_m: input.widthM, depth_m: input.depthM, version: NEXT });
      await this.order.refresh(tx, siteId);
      await this.activity.record(tx, act, { kind: 'setup', glyph: 'full', title: `Plan of ${site.name} changed`, siteId });
      return { walkM: await this.walk(siteId, tx) };
    });
  }

  private async writeShapes(tx: Tx, siteId: number, shapes: readonly PlanShapeDto[]): Promise<void> {
    const kept = await this.floors.shapes(tx, siteId);
    for (const old of kept) {
      if (shapes.some((s) => s.id === old.id)) continue;
      if (await one(tx, 'SELECT 1 AS x FROM place WHERE aisle_id = ? LIMIT 1', [old.id])) {
        throw badState(`Aisle ${old.label} has bins along it and must stay. Move it instead`);
      }
      await remove(tx, 'plan_shape', { id: old.id });
    }
    for (const s of shapes) {
      const values = [s.kind, s.label.trim(), s.x, s.y, s.toX, s.toY];
      if (s.id === undefined) {
        await tx.query('INSERT INTO plan_shape (kind, label, x_m, y_m, to_x_m, to_y_m, site_id) VALUES (?, ?, ?, ?, ?, ?, ?)', [
          ...values,
          siteId,
        ]);
      } else {
        if (!kept.some((k) => k.id === s.id))
          throw badForm({ shapes: 'One of these shapes is not on this plan any more. Look at it again' });
        await tx.query('UPDATE plan_shape SET kind = ?, label = ?, x_m = ?, y_m = ?, to_x_m = ?, to_y_m = ? WHERE id = ?', [
          ...values,
          s.id,
        ]);
      }
    }
  }

  private async bays(siteId: number): Promise<BayDto[]> {
    const [bins, used, busy] = await Promise.all([
      rows<{ id: number; aisleId: number; along: string; code: string; zone: string | null }>(
        this.source,
        `SELECT p.id, p.aisle_id AS aisleId, p.along_m AS along, p.code, z.name AS zone FROM place p LEFT JOIN place z ON z.id = p.parent_id AND z.kind = 'zone'
         WHERE p.site_id = ? AND p.aisle_id IS NOT NULL ORDER BY p.aisle_id, p.along_m, p.code`,
        [siteId],
      ),
      rows<{ id: number }>(
        this.source,
        'SELECT DISTINCT b.place_id AS id FROM place p JOIN balance b ON b.place_id = p.id AND b.units > 0 WHERE p.site_id = ? AND p.aisle_id IS NOT NULL',
        [siteId],
      ),
      this.busy(),
    ]);
    const full = new Set(used.map((u) => u.id));
    const bays = new Map<string, BayDto>();
    for (const bin of bins) {
      const key = `${bin.aisleId}/${bin.along}`;
      const bay = bays.get(key) ?? { aisleId: bin.aisleId, along: num(bin.along), bins: 0, used: 0, moves: 0, codes: '', zone: bin.zone };
      bay.bins += 1;
      bay.used += full.has(bin.id) ? 1 : 0;
      bay.moves += busy.get(bin.id) ?? 0;
      bay.codes = bay.codes === '' ? bin.code : `${bay.codes} ${bin.code}`;
      bays.set(key, bay);
    }
    return [...bays.values()];
  }

  /** How often each place was gone to in the last days. With years of movements that is counted anew when it has aged a little. */
  private busy(): Promise<ReadonlyMap<number, number>> {
    if (this.counted && Date.now() < this.counted.until) return this.counted.moves;
    const [begun, moves] = [Date.now(), this.count()];
    const counted = { until: Infinity, moves };
    this.counted = counted;
    moves.then(
      (made) => {
        const many = [...made.values()].reduce((n, m) => n + m, 0) > FEW;
        counted.until = many ? Date.now() + AGES * (Date.now() - begun) : 0;
      },
      () => (counted.until = 0),
    );
    return moves;
  }

  private async count(): Promise<ReadonlyMap<number, number>> {
    const moved = (side: 'from' | 'to') =>
      rows<{ id: number; n: string }>(
        this.source,
        `SELECT ${side}_place_id AS id, COUNT(*) AS n FROM movement WHERE server_at > UTC_TIMESTAMP() - INTERVAL ? DAY GROUP BY ${side}_place_id`,
        [ACTIVE_DAYS],
      );
    const moves = new Map<number, number>();
    for (const m of (await Promise.all([moved('from'), moved('to')])).flat()) moves.set(m.id, (moves.get(m.id) ?? 0) + num(m.n));
    return moves;
  }

  private async walk(siteId: number, tx: Pick<Tx, 'query'> = this.source): Promise<number> {
    const faces = await rows<{ x: string; y: string }>(
      tx,
      `SELECT DISTINCT x_m AS x, y_m AS y, MIN(walk_order) AS o FROM place WHERE site_id = ? AND pickable = 1 AND x_m IS NOT NULL GROUP BY x_m, y_m ORDER BY o LIMIT 3000`,
      [siteId],
    );
    const points: PlanPoint[] = faces.map((f) => ({ x: num(f.x), y: num(f.y) }));
    if (points.length === 0) return 0;
    const start = await this.floors.start(tx, siteId);
    return Math.round((await this.floors.floor(tx, siteId)).metresOf([start, ...points, start]));
  }
}

function mustFit(s: PlanShapeDto, plan: EditPlanDto): void {
  const says = s.label ? `${s.kind} ${s.label}` : `A ${s.kind}`;
  if (segmentLength({ id: 0, ...s }) < SHORTEST_M)
    throw badForm({ shapes: `${says} is shorter than half a metre. Draw it longer or take it out` });
  if (Math.max(s.x, s.toX) > plan.widthM || Math.max(s.y, s.toY) > plan.depthM) {
    throw badForm({ shapes: `${says} reaches beyond the floor. Make the floor larger, or move it in` });
  }
}
