import { Injectable } from '@nestjs/common';
import type { Movement } from '@vectrum/core/ledger';
import { decimalText, dividedBy, micro, type Micro, times } from '@vectrum/core/money';
import { isFor } from '@vectrum/core/places';
import { goodsWords } from '@vectrum/core/quantity';
import { ActivityService, UndoService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  find,
  insert,
  marks,
  more,
  mustBeAt,
  mustMatch,
  nextCode,
  NOW,
  num,
  one,
  Problem,
  rows,
  siteDay,
  type Tx,
  update,
} from '../platform/index.js';
import { addPlace, dockOf, keepStanding } from '../sites/index.js';
import { LedgerService, lotFor } from '../stock/index.js';
import { SettingApart } from '../transfers/index.js';
import { buildOf, type BuildRow, STATE_SAYS } from './build-rows.js';
import type { FinishBuildDto, TakeApartDto } from './building.dto.js';

interface PartRow {
  id: number;
  item_id: number;
  gathered_units: number;
}

/** What was gathered becomes what was built, worth its parts and its labour to the penny; or the other way about. */
@Injectable()
export class Finishing {
  constructor(
    private readonly commands: CommandLog,
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly codebook: CodebookQueries,
    private readonly activity: ActivityService,
    private readonly apart: SettingApart,
    undo: UndoService,
  ) {
    undo.register('built', 'store', (tx, act, payload) => this.takeBack(tx, act, payload as unknown as Built));
  }

  /** More or fewer may have been built than planned, and of more or fewer parts; what is left over waits at the dock to be put away. */
  finish(act: Act, code: string, version: number, asked: FinishBuildDto): Promise<{ code: string }> {
    return this.commands.run(act, 'build.finish', { code, version, ...asked }, async (tx) => {
      const build = await buildOf(tx, code);
      mustBeAt(act.person, build.site_id);
      mustMatch(build.version, version);
      if (build.state !== 'gathering') throw badState(STATE_SAYS[build.state] ?? '');
      const to = await find(tx, 'place', { code: asked.place.toUpperCase() });
      if (!to || to.site_id !== build.site_id || !isFor(to.kind, 'receive')) throw badForm({ place: 'A bin or dock of this site' });
      const dock = await dockOf(tx, build.site_id, null);
      if (!dock) throw badState('This site has no dock. Make one in Shelves first');
      await keepStanding(tx, '?, ?, ?', [build.place_id, to.id, dock.id]);
      const parts = await rows<PartRow>(
        tx,
        'SELECT id, item_id, gathered_units FROM build_part WHERE build_id = ? ORDER BY item_id FOR UPDATE',
        [build.id],
      );
      const taken = await this.consume(tx, act, build, parts, asked, dock.id);
      const lots = await this.lotsOf(tx, build, asked);
      const labour = await this.labour(tx, build, asked);
      const worth = taken.value + labour;
      const assembly = await this.ledger.outside(tx, 'assembly');
      // Of several numbers each has an equal part, and the last what is left.
      const each = lots.map((lot, i) => ({ ...lot, value: i < lots.length - 1 ? dividedBy(times(worth, lot.units), asked.units) : 0n }));
      const rest = worth - each.reduce((n, l) => n + l.value, 0n);
      const last = each.at(-1);
      if (last) last.value = rest;
      const made = await this.ledger.post(
        tx,
        act,
        each.map((l): Movement => ({
          itemId: build.item_id,
          lotId: l.lotId,
          units: l.units,
          condition: 'good',
          fromPlaceId: assembly,
          toPlaceId: to.id,
        })),
        { task: 'build', document: code, worths: each.map((l) => ({ value: l.value, parts: [] })) },
      );
      await this.allocation.settle(tx, [...taken.changes, ...made.changes]);
      await this.apart.enough(tx, { code, siteId: build.site_id });
      await update(
        tx,
        'build',
        { id: build.id },
        {
          state: 'built',
          built_units: asked.units,
          labour_minutes: asked.labourMinutes ?? null,
          labour_cost: decimalText(labour),
          parts_cost: decimalText(taken.value),
          built_by_id: act.person.id,
          built_at: NOW,
          version: more(1),
        },
      );
      const item = await this.codebook.item(tx, build.site_id, build.item_id);
      const built: Built = { buildId: build.id, movements: [...taken.ids, ...made.ids] };
      await this.activity.record(tx, act, {
        kind: 'built',
        glyph: 'full',
        title: `Built: ${item ? goodsWords(asked.units, item) : asked.units}`,
        detail: `${code}, to ${to.code}`,
        document: code,
        siteId: build.site_id,
        undo: { ...built },
      });
      return { code };
    });
  }

  /** What stood in a bin is taken apart: its parts wait at the dock, each worth its share. */
  takeApart(act: Act, asked: TakeApartDto): Promise<{ code: string }> {
    return this.commands.run(act, 'build.apart', asked, async (tx) => {
      const from = await find(tx, 'place', { code: asked.place.toUpperCase() });
      if (!from?.site_id) throw badForm({ place: `There is no place ${asked.place}` });
      mustBeAt(act.person, from.site_id);
      const item = await find(tx, 'item', { sku: asked.sku });
      if (!item || item.kind === 'single') throw badForm({ sku: `${asked.sku} is not made of parts` });
      const lot = asked.lot
        ? await one<{ id: number }>(tx, 'SELECT id FROM lot WHERE item_id = ? AND code = ?', [item.id, asked.lot])
        : { id: 0 };
      if (!lot || (item.tracking !== 'none' && !asked.lot)) throw badForm({ lot: 'Say which lot or number it is' });
      const dock = await dockOf(tx, from.site_id, null);
      if (!dock) throw badState('This site has no dock. Make one in Shelves first');
      const parts = await rows<{ id: number; units: number; tracking: string; cost: string }>(
        tx,
        `SELECT q.id, p.units, q.tracking, COALESCE(CAST(k.value / k.units AS DECIMAL(18,6)), q.cost, 0) AS cost FROM item_part p JOIN item q ON q.id = p.part_item_id LEFT JOIN cost_pool k ON k.item_id = q.id AND k.units > 0 WHERE p.item_id = ? ORDER BY q.id`,
        [item.id],
      );
      if (parts.length === 0) throw badForm({ sku: `Nobody has said which parts ${item.name} has` });
      if (parts.some((p) => p.tracking !== 'none'))
        throw badForm({ sku: 'Parts with lots or numbers of their own are taken in by a count of the place where they are put' });
      const code = await nextCode(tx, 'K');
      const placeId = await addPlace(tx, { site_id: from.site_id, code: `FOR-${code}`, kind: 'parcel' });
      await keepStanding(tx, '?, ?', [from.id, dock.id]);
      const there = await one<{ units: number }>(
        tx,
        `SELECT units FROM balance WHERE item_id = ? AND place_id = ? AND lot_id = ? AND stock_condition = 'good' FOR UPDATE`,
        [item.id, from.id, lot.id],
      );
      if (num(there?.units) < asked.units) throw badState(`There are only ${num(there?.units)} of it in ${from.code}`);
      const assembly = await this.ledger.outside(tx, 'assembly');
      const gone = await this.ledger.post(
        tx,
        act,
        [{ itemId: item.id, lotId: lot.id, units: asked.units, condition: 'good', fromPlaceId: from.id, toPlaceId: assembly }],
        { task: 'build', document: code, reason: asked.note.trim() || null },
      );
      const value = await this.valueOf(tx, gone.ids);
      const weights = parts.map((p) => times(micro(p.cost), p.units * asked.units));
      const whole = weights.reduce((a, b) => a + b, 0n);
      // By what the parts cost; in equal parts where nobody knows. The last has what is left, so that not a penny is made or lost.
      const shares = parts.map((_, i) => (whole === 0n ? value / BigInt(parts.length) : (value * (weights[i] ?? 0n)) / whole));
      shares[shares.length - 1] = value - shares.slice(0, -1).reduce((a, b) => a + b, 0n);
      const came = await this.ledger.post(
        tx,
        act,
        parts.map((p): Movement => ({
          itemId: p.id,
          lotId: 0,
          units: p.units * asked.units,
          condition: 'good',
          fromPlaceId: assembly,
          toPlaceId: dock.id,
        })),
        { task: 'build', document: code, worths: shares.map((share) => ({ value: share, parts: [] })) },
      );
      await this.allocation.settle(tx, [...gone.changes, ...came.changes]);
      const id = await insert(tx, 'build', {
        code,
        site_id: from.site_id,
        item_id: item.id,
        units: asked.units,
        built_units: asked.units,
        apart: 1,
        state: 'built',
        place_id: placeId,
        note: asked.note.trim(),
        parts_cost: decimalText(value),
        labour_cost: '0',
        made_by_id: act.person.id,
        built_by_id: act.person.id,
        built_at: NOW,
      });
      for (const p of parts)
        await insert(tx, 'build_part', { build_id: id, item_id: p.id, units: p.units * asked.units, used_units: p.units * asked.units });
      const facts = await this.codebook.item(tx, from.site_id, item.id);
      const built: Built = { buildId: id, movements: [...gone.ids, ...came.ids] };
      await this.activity.record(tx, act, {
        kind: 'built',
        glyph: 'full',
        title: `Taken apart: ${facts ? goodsWords(asked.units, facts) : asked.units}`,
        detail: `${code}, its parts are at ${dock.code}`,
        document: code,
        siteId: from.site_id,
        undo: { ...built },
      });
      return { code };
    });
  }

  /** Parts leave the house into the assembly, spoilt ones as scrap, what is left over to the dock. Returns what was taken for the assembly was worth. */
  private async consume(tx: Tx, act: Act, build: BuildRow, parts: readonly PartRow[], asked: FinishBuildDto, dockId: number) {
    const [assembly, scrap] = [await this.ledger.outside(tx, 'assembly'), await this.ledger.outside(tx, 'scrap')];
    const into: Movement[] = [];
    const beside: Movement[] = [];
    for (const part of parts) {
      const said = asked.parts.find((p) => p.partId === part.id);
      let used = said?.used ?? part.gathered_units;
      let spoilt = said?.scrapped ?? 0;
      if (used + spoilt > part.gathered_units) {
        const item = await this.codebook.item(tx, build.site_id, part.item_id);
        throw badForm({
          [`parts.${part.id}`]: `Only ${part.gathered_units} of ${item?.name ?? 'this part'} were gathered. Gather the rest first`,
        });
      }
      await update(tx, 'build_part', { id: part.id }, { used_units: used, scrapped_units: spoilt });
      const there = await rows<{ lotId: number; units: number }>(
        tx,
        `SELECT lot_id AS lotId, units FROM balance WHERE item_id = ? AND place_id = ? AND stock_condition = 'held' AND units > 0 ORDER BY lot_id FOR UPDATE`,
        [part.item_id, build.place_id],
      );
      for (const { lotId, units } of there) {
        const goods = {
          itemId: part.item_id,
          lotId,
          condition: 'held' as const,
          toCondition: 'good' as const,
          fromPlaceId: build.place_id,
        };
        const some = Math.min(used, units);
        const bad = Math.min(spoilt, units - some);
        const left = units - some - bad;
        used -= some;
        spoilt -= bad;
        if (some > 0) into.push({ ...goods, units: some, toPlaceId: assembly });
        if (bad > 0) beside.push({ ...goods, units: bad, toPlaceId: scrap });
        if (left > 0) beside.push({ ...goods, units: left, toPlaceId: dockId });
      }
    }
    if (into.length === 0) throw badForm({ parts: 'Say which parts were used' });
    const { ids, changes } = await this.ledger.post(tx, act, [...into, ...beside], { task: 'build', document: build.code });
    return { ids, changes, value: await this.valueOf(tx, ids.slice(0, into.length)) };
  }

  /** What movements took out of stock. */
  private async valueOf(tx: Tx, ids: readonly number[]): Promise<Micro> {
    const found = await one<{ value: string | null }>(
      tx,
      `SELECT SUM(amount) AS value FROM value_entry WHERE movement_id IN (${marks(ids)}) AND credit = 'stock'`,
      [...ids],
    );
    return micro(found?.value ?? '0');
  }

  private async lotsOf(tx: Tx, build: BuildRow, asked: FinishBuildDto): Promise<{ lotId: number; units: number }[]> {
    const item = await find(tx, 'item', { id: build.item_id });
    const { today } = await siteDay(tx, build.site_id);
    const tracking = item?.tracking ?? 'none';
    if (tracking === 'none') return [{ lotId: 0, units: asked.units }];
    if (tracking === 'serial') {
      const numbers = [...new Set((asked.numbers ?? []).map((n) => n.trim()).filter(Boolean))];
      if (numbers.length !== asked.units) throw badForm({ numbers: `Say ${asked.units} different numbers, one for each piece` });
      const lots: { lotId: number; units: number }[] = [];
      for (const lot of numbers)
        lots.push({ lotId: await lotFor(tx, tracking, { itemId: build.item_id, lot, expires: null }, today), units: 1 });
      return lots.sort((a, b) => a.lotId - b.lotId);
    }
    if (!asked.lot?.trim()) throw badForm({ lot: 'Say which lot it is' });
    if (tracking === 'lot-expiry' && !asked.expires) throw badForm({ expires: 'Say until when it keeps' });
    return [
      {
        lotId: await lotFor(tx, tracking, { itemId: build.item_id, lot: asked.lot.trim(), expires: asked.expires ?? null }, today),
        units: asked.units,
      },
    ];
  }

  /** Minutes at what an hour costs, otherwise what the item says for one. */
  private async labour(tx: Tx, build: BuildRow, asked: FinishBuildDto): Promise<Micro> {
    if (asked.labourMinutes != null && asked.hourly) return dividedBy(times(micro(asked.hourly), asked.labourMinutes), 60);
    const item = await find(tx, 'item', { id: build.item_id });
    return times(micro(item?.labour ?? '0'), asked.units);
  }

  private async takeBack(tx: Tx, act: Act, built: Built): Promise<void> {
    const build = await find(tx, 'build', { id: built.buildId }, 'lock');
    if (build?.state !== 'built') throw new Problem(409, 'undo', 'This was undone already');
    await this.allocation.settle(tx, await this.ledger.reverse(tx, act, built.movements, build.code));
    await update(tx, 'build_part', { build_id: build.id }, { used_units: 0, scrapped_units: 0 });
    await update(
      tx,
      'build',
      { id: build.id },
      {
        state: build.apart === 1 ? 'cancelled' : 'gathering',
        built_units: 0,
        labour_cost: null,
        parts_cost: null,
        built_at: null,
        built_by_id: null,
        version: more(1),
      },
    );
  }
}

interface Built {
  buildId: number;
  movements: number[];
}
