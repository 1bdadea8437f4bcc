import { Injectable } from '@nestjs/common';
import { MOST_SLOTS } from '@vectrum/core/places';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  find,
  insert,
  insertMany,
  mustBeAt,
  mustMatch,
  notFound,
  one,
  type Tx,
  update,
} from '../platform/index.js';
import type { EditPlaceDto, EditZoneDto, NewPlaceDto, NewZoneDto } from './sites.dto.js';
import { WalkingOrder } from './walking-order.service.js';

const LONGEST_WALL = 28;

/** Makes and changes bins, docks, tables, totes: everything goods can stand in; and the zones they belong to. */
@Injectable()
export class SitesService {
  constructor(
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly order: WalkingOrder,
  ) {}

  add(act: Act, input: NewPlaceDto): Promise<{ code: string }> {
    mustBeAt(act.person, input.siteId);
    return this.commands.run(act, 'place.add', input, async (tx) => {
      const code = input.code.toUpperCase();
      if (await find(tx, 'place', { code })) throw badForm({ code: `${code} is taken. Choose another code` });
      if (input.kind === 'wall-slot')
        throw badForm({ kind: 'Slots are made with their wall. Choose a sorting wall, and say how many it has' });
      const last = await one<{ last: number | null }>(tx, 'SELECT MAX(walk_order) AS last FROM place WHERE site_id = ?', [input.siteId]);
      const wall = input.kind === 'sorting-wall' ? wallOf(code, input) : null;
      const id = await insert(tx, 'place', {
        site_id: input.siteId,
        code,
        kind: input.kind,
        pickable: input.pickable && wall === null ? 1 : 0,
        walk_order: (last?.last ?? 0) + 1,
        wall_columns: wall?.columns ?? null,
      });
      const taken = wall && (await one<{ code: string }>(tx, 'SELECT code FROM place WHERE code IN (?) LIMIT 1', [wall.slots]));
      if (taken) throw badForm({ code: `${taken.code} is taken. Choose another code for the wall` });
      if (wall)
        await insertMany(
          tx,
          'place',
          ['site_id', 'parent_id', 'code', 'kind', 'walk_order'],
          wall.slots.map((slot, i) => [input.siteId, id, slot, 'wall-slot', (last?.last ?? 0) + 2 + i]),
        );
      await this.record(tx, act, wall ? `Wall ${code} made, with ${wall.slots.length} slots` : `Bin ${code} made`, input.siteId, code);
      return { code };
    });
  }

  edit(act: Act, code: string, version: number, input: EditPlaceDto): Promise<{ code: string }> {
    if (Object.values(input).every((v) => v === undefined))
      throw badForm({ kind: 'Say what to change: kind, picking, blocked, zone, size or order' });
    return this.commands.run(act, 'place.edit', { code, version, input }, async (tx) => {
      const place = await find(tx, 'place', { code }, 'lock');
      if (!place?.site_id) throw notFound(`Place ${code}`);
      mustBeAt(act.person, place.site_id);
      mustMatch(place.version, version);
      if (input.kind && input.kind !== place.kind) {
        if ([input.kind, place.kind].some((kind) => kind === 'sorting-wall' || kind === 'wall-slot'))
          throw badForm({ kind: 'A wall and its slots stay what they are. Block what is not used, and make a new place' });
        const busy = await one(tx, 'SELECT 1 AS x FROM balance WHERE place_id = ? AND units > 0 LIMIT 1', [place.id]);
        if (busy) throw badState(`Goods stand in ${code}. Empty it before it becomes something else`);
      }
      const flag = (given: boolean | undefined, kept: number) => (given === undefined ? kept : given ? 1 : 0);
      await update(
        tx,
        'place',
        { id: place.id },
        {
          kind: input.kind ?? place.kind,
          pickable: flag(input.pickable, place.pickable),
          blocked: flag(input.blocked, place.blocked),
          ...(input.zone === undefined ? {} : { parent_id: await this.zoneId(tx, place.site_id, input.zone) }),
          ...(input.holdsMl === undefined ? {} : { holds_ml: input.holdsMl }),
          ...(input.holdsG === undefined ? {} : { holds_g: input.holdsG }),
          ...(input.walkOrder === undefined
            ? {}
            : input.walkOrder === null
              ? { fixed_order: 0 }
              : { fixed_order: 1, walk_order: input.walkOrder }),
          version: place.version + 1,
        },
      );
      if (input.walkOrder === null) await this.order.refresh(tx, place.site_id);
      await this.record(tx, act, `Bin ${code} changed`, place.site_id, code);
      return { code };
    });
  }

  addZone(act: Act, input: NewZoneDto): Promise<{ code: string }> {
    mustBeAt(act.person, input.siteId);
    return this.commands.run(act, 'zone.add', input, async (tx) => {
      const code = input.code.toUpperCase();
      if (await find(tx, 'place', { code })) throw badForm({ code: `${code} is taken. Choose another code` });
      await insert(tx, 'place', { name: input.name.trim(), rule: input.rule, site_id: input.siteId, code, kind: 'zone' });
      await this.record(tx, act, `Zone ${input.name.trim()} made`, input.siteId, null);
      return { code };
    });
  }

  /** Changes the name and the rule of a zone from the version that was seen. */
  editZone(act: Act, zone: string, version: number, input: EditZoneDto): Promise<{ code: string }> {
    const code = zone.toUpperCase();
    return this.commands.run(act, 'zone.edit', { code, version, input }, async (tx) => {
      const known = await find(tx, 'place', { code }, 'lock');
      if (known?.kind !== 'zone' || known.site_id === null) throw notFound(`A zone called ${code.slice(0, 20)}`);
      mustBeAt(act.person, known.site_id);
      mustMatch(known.version, version);
      await update(tx, 'place', { id: known.id }, { name: input.name.trim(), rule: input.rule, version: version + 1 });
      await this.record(tx, act, `Zone ${input.name.trim()} changed`, known.site_id, null);
      return { code };
    });
  }

  private async zoneId(tx: Tx, siteId: number, code: string): Promise<number | null> {
    if (code.trim() === '') return null;
    const zone = await one<{ id: number }>(tx, `SELECT id FROM place WHERE kind = 'zone' AND code = ? AND site_id = ?`, [
      code.trim().toUpperCase(),
      siteId,
    ]);
    if (!zone) throw badForm({ zone: `There is no zone ${code} at this site. Make it first` });
    return zone.id;
  }

  private record(tx: Tx, act: Act, title: string, siteId: number, document: string | null): Promise<number> {
    return this.activity.record(tx, act, { kind: 'place', glyph: 'full', title, siteId, document });
  }
}

/** The slots of a new wall, in the order in which they hang. */
function wallOf(code: string, { slotRows = 3, slotColumns = 4 }: NewPlaceDto): { columns: number; slots: string[] } {
  const count = slotRows * slotColumns;
  if (count > MOST_SLOTS) throw badForm({ slotRows: `A wall has at most ${MOST_SLOTS} slots. Make two walls of it` });
  if (code.length > LONGEST_WALL) throw badForm({ code: `Its slots get a number behind this: ${LONGEST_WALL} letters at most` });
  return { columns: slotColumns, slots: Array.from({ length: count }, (_, i) => `${code}-${String(i + 1).padStart(2, '0')}`) };
}
