import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { type Act, badForm, badState, CommandLog, insertMany, listVersion, one, replaceList } from '../platform/index.js';
import { extraFields } from './extra-fields.js';
import type { EditExtraFieldsDto, ExtraFieldsDto } from './items.dto.js';

const LIST = 'extra-fields';

/** The fields that the company adds to every item. */
@Injectable()
export class ExtraFieldsService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  async list(): Promise<ExtraFieldsDto> {
    const [version, fields] = await Promise.all([listVersion(this.source, LIST), extraFields(this.source)]);
    return { version, fields };
  }

  /** Replaces the list of fields. A field that items have values in must stay, and keep its kind. */
  replace(act: Act, version: number, input: EditExtraFieldsDto): Promise<void> {
    return this.commands.run(act, LIST, { version, input }, async (tx) => {
      await replaceList(tx, LIST, version);
      const names = input.fields.map((f) => f.name.trim().toLowerCase());
      if (new Set(names).size !== names.length) throw badForm({ fields: 'Two fields have the same name. Rename one of them' });
      const bare = input.fields.find((f) => f.kind === 'choice' && f.choices.length === 0);
      if (bare) throw badForm({ fields: `${bare.name} is a choice of nothing. Name what can be chosen` });
      for (const old of await extraFields(tx)) {
        const stays = input.fields.find((f) => f.name === old.name);
        if (stays?.kind === old.kind) continue;
        const used = await one(tx, 'SELECT sku FROM item WHERE JSON_EXISTS(extra, ?) LIMIT 1', [`$."${old.name}"`]);
        if (used) throw badState(`Items have a value for ${old.name}. Empty it there before it goes or becomes something else`);
      }
      await tx.query('DELETE FROM extra_field');
      await insertMany(
        tx,
        'extra_field',
        ['name', 'kind', 'choices', 'position'],
        input.fields.map((f, i) => [f.name.trim(), f.kind, JSON.stringify(f.choices), i]),
      );
      await this.activity.record(tx, act, { kind: 'setup', glyph: 'full', title: 'Own fields of items changed' });
    });
  }
}
