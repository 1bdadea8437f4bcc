import { Injectable } from '@nestjs/common';
import { goodsWords } from '@vectrum/core/quantity';
import { checkGather, type GatherCommand } from '@vectrum/core/scan';
import { ActivityService, UndoService } from '../activity/index.js';
import { AllocationService, spareSql } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
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
  num,
  one,
  Problem,
  refused,
  rows,
  type Tx,
  update,
} from '../platform/index.js';
import { addPlace, keepStanding } from '../sites/index.js';
import { LedgerService } from '../stock/index.js';
import { GatheredDocuments } from '../transfers/index.js';
import { buildOf, siteOfBuild, STATE_SAYS } from './build-rows.js';
import { BuildingQueries } from './building.queries.js';
import type { PlanBuildDto } from './building.dto.js';

/** Assemblies are planned, and their parts gathered like anything that goes together. */
@Injectable()
export class Builds {
  constructor(
    private readonly commands: CommandLog,
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly codebook: CodebookQueries,
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
      for (const part of parts) await insert(tx, 'build_part', { build_id: id, item_id: part.id, units: part.units * asked.units });
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
    if (!part || part.item_id !== command.itemId) throw badState('This part is not of the assembly any more');
    const [place] = await keepStanding(tx, '?', [command.placeId]);
    if (place?.siteId !== build.site_id) throw badState('This bin is at another site');
    const { itemId, lotId, units, placeId } = command;
    await one(tx, `SELECT units FROM balance WHERE item_id = ? AND place_id = ? AND lot_id = ? AND stock_condition = 'good' FOR UPDATE`, [
      itemId,
      placeId,
      lotId,
    ]);
    const spare = await one<{ units: string }>(
      tx,
      `SELECT ${spareSql('b')} AS units FROM balance b WHERE b.item_id = ? AND b.place_id = ? AND b.lot_id = ? AND b.stock_condition = 'good'`,
      [itemId, placeId, lotId],
    );
    const item = await this.codebook.item(tx, build.site_id, itemId);
    const refusal = checkGather(item, part.units - part.gathered_units, Math.max(0, num(spare?.units)), units);
    if (refusal) throw refused(refusal);
    const { ids, changes } = await this.ledger.post(
      tx,
      act,
      [{ itemId, lotId, units, condition: 'good', toCondition: 'held', fromPlaceId: placeId, toPlaceId: build.place_id }],
      { task: 'build', document: build.code, how: command.how },
    );
    await this.allocation.settle(tx, changes);
    await update(tx, 'build_part', { id: part.id }, { gathered_units: more(units) });
    await update(tx, 'build', { id: build.id }, { state: 'gathering', version: more(1) });
    const gathered: Gathered = { buildId: build.id, partId: part.id, units, movements: ids };
    const activityId = await this.activity.record(tx, act, {
      kind: 'build',
      glyph: 'half',
      title: item ? goodsWords(units, item) : String(units),
      detail: `from ${place.code}, for ${build.code}`,
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
      const made = await rows<{ id: string }>(
        tx,
        `SELECT m.id FROM movement m WHERE m.document = ? AND m.task = 'build' AND m.to_place_id = ? AND NOT EXISTS (SELECT 1 FROM movement r WHERE r.reverses_id = m.id) ORDER BY m.id`,
        [build.code, build.place_id],
      );
      if (made.length > 0)
        await this.allocation.settle(
          tx,
          await this.ledger.reverse(
            tx,
            act,
            made.map((m) => num(m.id)),
            build.code,
          ),
        );
      await update(tx, 'build_part', { build_id: build.id }, { gathered_units: 0 });
      await update(tx, 'build', { id: build.id }, { state: 'cancelled', version: more(1) });
      await this.activity.record(tx, act, {
        kind: 'build',
        glyph: 'blocked',
        title: `Called off: ${code}`,
        detail: made.length > 0 ? 'Put the parts back into their bins' : '',
        document: code,
        siteId: build.site_id,
      });
      return { code };
    });
  }

  private async takeBack(tx: Tx, act: Act, gathered: Gathered): Promise<void> {
    const build = await find(tx, 'build', { id: gathered.buildId }, 'lock');
    if (build?.state !== 'gathering') throw new Problem(409, 'undo', 'It is built by now, or was called off');
    await this.allocation.settle(tx, await this.ledger.reverse(tx, act, gathered.movements, build.code));
    await update(tx, 'build_part', { id: gathered.partId }, { gathered_units: more(-gathered.units) });
    await update(tx, 'build', { id: build.id }, { version: more(1) });
  }
}

interface Gathered {
  buildId: number;
  partId: number;
  units: number;
  movements: number[];
}
