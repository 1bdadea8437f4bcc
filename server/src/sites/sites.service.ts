import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { type Act, mustBeAt } from '../platform/act.js';
import { ActivityService } from '../activity/activity.service.js';
import { CommandLog } from '../platform/command-log.js';
import { num, one, rows } from '../platform/database/tx.js';
import { mustMatch } from '../platform/version.js';
import { badForm, badState, notFound } from '../platform/problem.js';
import { Place } from './place.entity.js';
import type { EditPlaceDto, NewPlaceDto, PlaceDto, PlaceSheetDto, PlaceStockDto } from './sites.dto.js';

type Row = Omit<PlaceDto, 'pickable' | 'blocked' | 'items'> & {
  pickable: number;
  blocked: number;
  items: string;
};
const dto = (r: Row): PlaceDto => ({
  ...r,
  pickable: r.pickable === 1,
  blocked: r.blocked === 1,
  items: num(r.items),
});
const MOST = 500;
const FIELDS = `p.id, p.site_id AS siteId, s.name AS site, p.code, p.kind, p.pickable, p.blocked, p.version,
  (SELECT COUNT(*) FROM balance b WHERE b.place_id = p.id AND b.units > 0) AS items`;

/** Bins, docks, tables, totes: everything goods can stand in. */
@Injectable()
export class SitesService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  async places(siteIds: readonly number[], filter: { search?: string; kind?: string }): Promise<PlaceDto[]> {
    const like = `${(filter.search ?? '').replace(/[\\%_]/g, '\\$&')}%`;
    const found = await rows<Row>(
      this.source,
      `SELECT ${FIELDS} FROM place p JOIN site s ON s.id = p.site_id WHERE p.site_id IN (?) AND p.code LIKE ? AND (? = '' OR p.kind = ?) AND p.kind NOT IN ('site','zone','parcel') ORDER BY p.site_id, p.walk_order, p.code LIMIT ?`,
      [[0, ...siteIds], like, filter.kind ?? '', filter.kind ?? '', MOST],
    );
    return found.map(dto);
  }

  async sheet(siteIds: readonly number[], code: string): Promise<PlaceSheetDto> {
    const found = await one<Row>(
      this.source,
      `SELECT ${FIELDS} FROM place p JOIN site s ON s.id = p.site_id WHERE p.code = ? AND p.site_id IN (?)`,
      [code, [0, ...siteIds]],
    );
    if (!found) throw notFound(`Place ${code}`);
    const stock = await rows<PlaceStockDto>(
      this.source,
      `SELECT i.sku, i.name, i.picture, l.code AS lot, b.stock_condition AS \`condition\`, b.units FROM balance b JOIN item i ON i.id = b.item_id LEFT JOIN lot l ON l.id = b.lot_id
       WHERE b.place_id = ? AND b.units > 0 ORDER BY i.name`,
      [found.id],
    );
    return { ...dto(found), stock };
  }

  add(act: Act, input: NewPlaceDto): Promise<{ code: string }> {
    mustBeAt(act.person, input.siteId);
    return this.commands.run(act, 'place.add', input, async (tx) => {
      const code = input.code.toUpperCase();
      if (await tx.findOneBy(Place, { code })) throw badForm({ code: `${code} is taken. Choose another code` });
      const last = await one<{ last: number | null }>(tx, 'SELECT MAX(walk_order) AS last FROM place WHERE site_id = ?', [input.siteId]);
      await tx.insert(Place, {
        siteId: input.siteId,
        code,
        kind: input.kind,
        pickable: input.pickable ? 1 : 0,
        walkOrder: (last?.last ?? 0) + 1,
      });
      await this.activity.record(tx, act, {
        kind: 'place',
        glyph: 'full',
        title: `Bin ${code} made`,
        siteId: input.siteId,
        document: code,
      });
      return { code };
    });
  }

  edit(act: Act, code: string, version: number, input: EditPlaceDto): Promise<{ code: string }> {
    if (Object.values(input).every((v) => v === undefined)) throw badForm({ kind: 'Say what to change: kind, pickable or blocked' });
    return this.commands.run(act, 'place.edit', { code, version, input }, async (tx) => {
      const place = await tx.findOne(Place, { where: { code }, lock: { mode: 'pessimistic_write' } });
      if (!place?.siteId) throw notFound(`Place ${code}`);
      mustBeAt(act.person, place.siteId);
      mustMatch(place.version, version);
      if (input.kind && input.kind !== place.kind) {
        const busy = await one(tx, 'SELECT 1 AS x FROM balance WHERE place_id = ? AND units > 0 LIMIT 1', [place.id]);
        if (busy) throw badState(`Goods stand in ${code}. Empty it before it becomes something else`);
      }
      await tx.update(Place, place.id, {
        kind: input.kind ?? place.kind,
        pickable: input.pickable === undefined ? place.pickable : input.pickable ? 1 : 0,
        blocked: input.blocked === undefined ? place.blocked : input.blocked ? 1 : 0,
        version: place.version + 1,
      });
      await this.activity.record(tx, act, {
        kind: 'place',
        glyph: 'full',
        title: `Bin ${code} changed`,
        siteId: place.siteId,
        document: code,
      });
      return { code };
    });
  }
}
