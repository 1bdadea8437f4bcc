import { Injectable } from '@nestjs/common';
import type { GatherCommand } from '@vectrum/core/scan';
import { ActivityService, UndoService } from '../activity/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  find,
  insert,
  more,
  mustBeAt,
  mustMatch,
  nextCode,
  Problem,
  rows,
  type Tx,
  update,
} from '../platform/index.js';
import { addPlace } from '../sites/index.js';
import { type ApartFor, GatheredDocuments, SettingApart } from '../transfers/index.js';
import { buildOf, type BuildRow, siteOfBuild, STATE_SAYS } from './build-rows.js';
import { BuildingQueries } from './building.queries.js';
import type { PlanBuildDto } from './building.dto.js';

const apartFor = (b: Pick<BuildRow, 'code' | 'site_id' | 'place_id'>): ApartFor => ({
  code: b.code,
  siteId: b.site_id,
  placeId: b.place_id,
  task: 'build',
});

/** Assemblies are planned, and their parts gathered like anything that goes together. */
@Injectable()
export class Builds {
  constructor(
    private readonly commands: CommandLog,
    private readonly apart: SettingApart,
    private readonly activity: ActivityService,
    undo: UndoService,
    documents: GatheredDocuments,
    queries: BuildingQueries,
  ) {
    undo.register('build', 'store', (tx, act, payload) => this.takeBack(tx, act, payload as unknown as Gathered));
    documents.register('K', {
      task: (tx, code) => queries.gather(tx, code),
      gather: (tx, act, command) => this.gather(tx, act, command),
      siteOf: (tx, code) => siteOfBuild(tx, code),
    });
  }

  plan(act: Act, asked: PlanBuildDto): Promise<{ code: string }> {
    mustBeAt(act.person, asked.siteId);
    return this.commands.run(act, 'build.plan', asked, async (tx) => {
      const item = await find(tx, 'item', { sku: asked.sku });
      if (!item) throw badForm({ sku: `There is no item ${asked.sku}` });
      if (item.kind !== 'assembly')
        throw badForm({ sku: `${item.name} is no assembly. Say on its form that it is built here, and of which parts` });
      const parts = await rows<{ id: number; units: number }>(
        tx,
        'SELECT part_item_id AS id, units FROM item_part WHERE item_id = ? ORDER BY part_item_id',
        [item.id],
      );
      if (parts.length === 0) throw badForm({ sku: `Nobody has said which parts ${item.name} has` });
      const code = await nextCode(tx, 'K');
      const placeId = await addPlace(tx, { site_id: asked.siteId, code: `FOR-${code}`, kind: 'parcel' });
      const id = await insert(tx, 'build', {
        code,
        site_id: asked.siteId,
        item_id: item.id,
        units: asked.units,
        place_id: placeId,
        note: asked.note.trim(),
        made_by_id: act.person.id,
      });
      const lines = [];
      for (const part of parts) {
        const units = part.units * asked.units;
        lines.push({
          lineId: await insert(tx, 'build_part', { build_id: id, item_id: part.id, units }),
          itemId: part.id,
          units,
          gathered: 0,
        });
      }
      await this.apart.want(tx, apartFor({ code, site_id: asked.siteId, place_id: placeId }), lines);
      await this.activity.record(tx, act, {
        kind: 'build',
        glyph: 'empty',
        title: `To be built: ${asked.units} of ${item.name}`,
        detail: code,
        document: code,
        siteId: asked.siteId,
      });
      return { code };
    });
  }

  private async gather(tx: Tx, act: Act, command: GatherCommand): Promise<FloorAnswerDto> {
    const build = await buildOf(tx, command.document);
    mustBeAt(act.person, build.site_id);
    if (build.state !== 'planned' && build.state !== 'gathering') throw badState(STATE_SAYS[build.state] ?? '');
    const part = await find(tx, 'build_part', { id: command.lineId, build_id: build.id }, 'lock');
    if (!part) throw badState('This part is not of the assembly any more');
    const { units } = command;
    const { title, from, movements } = await this.apart.take(
      tx,
      act,
      apartFor(build),
      { lineId: part.id, itemId: part.item_id, units: part.units, gathered: part.gathered_units },
      command,
    );
    await update(tx, 'build_part', { id: part.id }, { gathered_units: more(units) });
    await update(tx, 'build', { id: build.id }, { state: 'gathering', version: more(1) });
    const gathered: Gathered = { buildId: build.id, partId: part.id, itemId: part.item_id, units, movements };
    const activityId = await this.activity.record(tx, act, {
      kind: 'build',
      glyph: 'half',
      title,
      detail: `from ${from}, for ${build.code}`,
      document: build.code,
      siteId: build.site_id,
      how: command.how,
      undo: { ...gathered },
    });
    return { activityId };
  }

  /** It is not built after all: its parts go back, in the books, to the bins that they came from. */
  cancel(act: Act, code: string, version: number): Promise<{ code: string }> {
    return this.commands.run(act, 'build.cancel', { code, version }, async (tx) => {
      const build = await buildOf(tx, code);
      mustBeAt(act.person, build.site_id);
      mustMatch(build.version, version);
      if (build.state !== 'planned' && build.state !== 'gathering') throw badState(STATE_SAYS[build.state] ?? '');
      const wasGathered = await this.apart.allBack(tx, act, apartFor(build));
      await update(tx, 'build_part', { build_id: build.id }, { gathered_units: 0 });
      await update(tx, 'build', { id: build.id }, { state: 'cancelled', version: more(1) });
      await this.activity.record(tx, act, {
        kind: 'build',
        glyph: 'blocked',
        title: `Called off: ${code}`,
        detail: wasGathered ? 'Put the parts back into their bins' : '',
        document: code,
        siteId: build.site_id,
      });
      return { code };
    });
  }

  private async takeBack(tx: Tx, act: Act, gathered: Gathered): Promise<void> {
    const build = await find(tx, 'build', { id: gathered.buildId }, 'lock');
    if (build?.state !== 'gathering') throw new Problem(409, 'undo', 'It is built by now, or was called off');
    const { partId, itemId, units } = gathered;
    await this.apart.takeBack(tx, act, apartFor(build), { lineId: partId, itemId, units }, gathered.movements);
    await update(tx, 'build_part', { id: partId }, { gathered_units: more(-units) });
    await update(tx, 'build', { id: build.id }, { version: more(1) });
  }
}

interface Gathered {
  buildId: number;
  partId: number;
  itemId: number;
  units: number;
  movements: number[];
}
