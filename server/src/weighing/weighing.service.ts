import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  CommandLog,
  find,
  insert,
  mustBeAt,
  mustMatch,
  NEXT,
  notFound,
  one,
  type Person,
  Problem,
  remove,
  rows,
  update,
} from '../platform/index.js';
import { readScale } from './scale.js';
import type { EditScaleDto, ReadingDto, ScaleDto } from './weighing.dto.js';

/** The scales of the packing tables, on the house's own network. */
@Injectable()
export class WeighingService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  list(siteIds: readonly number[]): Promise<ScaleDto[]> {
    return rows<ScaleDto>(
      this.source,
      'SELECT k.id, k.name, k.site_id AS siteId, s.name AS site, k.address, k.version FROM scale k JOIN site s ON s.id = k.site_id WHERE k.site_id IN (?) ORDER BY s.id, k.name',
      [[0, ...siteIds]],
    );
  }

  /** What lies on a scale now. */
  async read(person: Person, id: number): Promise<ReadingDto> {
    const scale = (await this.list(person.siteIds)).find((s) => s.id === id);
    if (!scale) throw notFound('That scale');
    return readScale(scale.address).catch((thrown: unknown) => {
      const why = thrown instanceof Error ? thrown.message : String(thrown);
      throw new Problem(503, 'scale', `${scale.name}: ${why}. See that it is on, or type the weight`);
    });
  }

  keep(act: Act, id: number | null, version: number, input: EditScaleDto): Promise<{ id: number }> {
    mustBeAt(act.person, input.siteId);
    return this.commands.run(act, 'scale', { id, version, input }, async (tx) => {
      const name = input.name.trim();
      const twin = await one(tx, 'SELECT id FROM scale WHERE site_id = ? AND name = ? AND id <> ?', [input.siteId, name, id ?? 0]);
      if (twin) throw badForm({ name: 'There is a scale of that name at this site' });
      await this.activity.record(tx, act, {
        kind: 'setup',
        glyph: 'full',
        title: `Scale ${name} ${id === null ? 'set up' : 'changed'}`,
        siteId: input.siteId,
      });
      if (id === null) return { id: await insert(tx, 'scale', { name, site_id: input.siteId, address: input.address }) };
      const kept = await find(tx, 'scale', { id }, 'lock');
      if (!kept) throw notFound('That scale');
      mustBeAt(act.person, kept.site_id);
      mustMatch(kept.version, version);
      await update(tx, 'scale', { id }, { name, site_id: input.siteId, address: input.address, version: NEXT });
      return { id };
    });
  }

  drop(act: Act, id: number): Promise<void> {
    return this.commands.run(act, 'scale.drop', { id }, async (tx) => {
      const kept = await find(tx, 'scale', { id }, 'lock');
      if (!kept) throw notFound('That scale');
      mustBeAt(act.person, kept.site_id);
      await remove(tx, 'scale', { id });
      await this.activity.record(tx, act, { kind: 'setup', glyph: 'full', title: `Scale ${kept.name} taken away`, siteId: kept.site_id });
    });
  }
}
