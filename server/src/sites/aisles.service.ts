import { Injectable, type OnModuleInit } from '@nestjs/common';
import { aisleBins, faultOfRule, type AisleRule } from '@vectrum/core/walk';
import { DataSource } from 'typeorm';
import { ActivityService, UndoService } from '../activity/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  insert,
  insertMany,
  isReferenced,
  marks,
  mustBeAt,
  one,
  rows,
  type Tx,
} from '../platform/index.js';
import type { AislesDto, AislesMadeDto } from './sites.dto.js';
import { WalkingOrder } from './walking-order.service.js';

interface Undo extends Record<string, unknown> {
  siteId: number;
  shapes: number[];
}

/** Builds runs of aisles by rule: "A to H, 12 bays, 4 levels". */
@Injectable()
export class AislesService implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly undo: UndoService,
    private readonly order: WalkingOrder,
  ) {}

  onModuleInit(): void {
    this.undo.register('aisles', 'set-up', (tx, _act, payload) => this.takeBack(tx, payload as Undo));
  }

  /** Says what a rule would make, and which of its codes are taken; nothing is written. */
  preview(act: Act, input: AislesDto): Promise<AislesMadeDto> {
    mustBeAt(act.person, input.siteId);
    return this.look(this.source, ruleOf(input));
  }

  build(act: Act, input: AislesDto): Promise<AislesMadeDto> {
    mustBeAt(act.person, input.siteId);
    return this.commands.run(act, 'aisles', input, async (tx) => {
      const rule = ruleOf(input);
      const made = await this.look(tx, rule);
      if (made.taken.length > 0)
        throw badForm({
          from: `${made.taken.slice(0, 3).join(', ')} ${made.taken.length > 1 ? 'are places' : 'is a place'} already. Begin with another aisle`,
        });
      const shapes = await this.write(tx, input, rule);
      await this.order.refresh(tx, input.siteId);
      const activityId = await this.activity.record(tx, act, {
        kind: 'aisles',
        glyph: 'full',
        title: `${made.bins} bins built`,
        detail: `${made.first} to ${made.last}`,
        siteId: input.siteId,
        undo: { siteId: input.siteId, shapes } satisfies Undo,
      });
      return { ...made, activityId };
    });
  }

  private async look(tx: Pick<Tx, 'query'>, rule: AisleRule): Promise<AislesMadeDto> {
    const bins = aisleBins(rule);
    const taken: string[] = [];
    for (let i = 0; i < bins.length; i += 1000) {
      const codes = bins.slice(i, i + 1000).map((b) => b.code);
      for (const t of await rows<{ code: string }>(
        tx,
        `SELECT code FROM place WHERE code IN (${marks(codes)}) ORDER BY code LIMIT 20`,
        codes,
      ))
        taken.push(t.code);
    }
    return {
      aisles: new Set(bins.map((b) => b.aisle)).size,
      bins: bins.length,
      pickFaces: bins.filter((b) => b.pickable).length,
      first: bins[0]?.code ?? '',
      last: bins.at(-1)?.code ?? '',
      taken: taken.slice(0, 20),
      activityId: null,
    };
  }

  private async write(tx: Tx, input: AislesDto, rule: AisleRule): Promise<number[]> {
    const zone = input.zone
      ? await one<{ id: number }>(tx, `SELECT id FROM place WHERE kind = 'zone' AND code = ? AND site_id = ?`, [input.zone, input.siteId])
      : undefined;
    if (input.zone && !zone) throw badForm({ zone: `There is no zone ${input.zone} at this site. Make it first` });
    const bins = aisleBins(rule);
    const length = rule.bays * rule.bayM;
    const shapes = new Map<string, number>();
    for (const aisle of new Set(bins.map((b) => b.aisle))) {
      const x = input.x + shapes.size * input.gapM;
      const made = await insert(tx, 'plan_shape', {
        site_id: input.siteId,
        kind: 'aisle',
        label: aisle,
        x_m: x,
        y_m: input.y,
        to_x_m: x,
        to_y_m: input.y + length,
      });
      shapes.set(aisle, made);
    }
    await insertMany(
      tx,
      'place',
      ['site_id', 'parent_id', 'code', 'kind', 'pickable', 'aisle_id', 'along_m'],
      bins.map((b) => [
        input.siteId,
        zone?.id ?? null,
        b.code,
        b.pickable ? 'pick-face' : 'reserve',
        b.pickable ? 1 : 0,
        shapes.get(b.aisle),
        b.along,
      ]),
    );
    const ids = [...shapes.values()];
    const right = input.x + (ids.length - 1) * input.gapM;
    for (const y of [input.y, input.y + length]) {
      // Both ends of a run are joined by a cross aisle, so that it can be walked at once.
      const walk = await insert(tx, 'plan_shape', {
        site_id: input.siteId,
        kind: 'walkway',
        label: '',
        x_m: Math.max(0, input.x - 2),
        y_m: y,
        to_x_m: right + 2,
        to_y_m: y,
      });
      ids.push(walk);
    }
    await tx.query('UPDATE site SET width_m = GREATEST(width_m, ?), depth_m = GREATEST(depth_m, ?), version = version + 1 WHERE id = ?', [
      right + 4,
      input.y + length + 3,
      input.siteId,
    ]);
    return ids;
  }

  private async takeBack(tx: Tx, undo: Undo): Promise<void> {
    try {
      await tx.query(`DELETE FROM place WHERE aisle_id IN (${marks(undo.shapes)})`, undo.shapes);
    } catch (thrown) {
      if (isReferenced(thrown)) throw badState('Goods have stood in some of these bins, or items have their home there. They must stay');
      throw thrown;
    }
    await tx.query(`DELETE FROM plan_shape WHERE id IN (${marks(undo.shapes)})`, undo.shapes);
    await this.order.refresh(tx, undo.siteId);
  }
}

function ruleOf(input: AislesDto): AisleRule {
  const rule = {
    from: input.from.toUpperCase(),
    to: input.to.toUpperCase(),
    bays: input.bays,
    levels: input.levels,
    pickLevels: input.pickLevels,
    bayM: input.bayM,
  };
  const wrong = faultOfRule(rule);
  if (wrong) throw badForm({ [wrong.field]: wrong.says });
  return rule;
}
