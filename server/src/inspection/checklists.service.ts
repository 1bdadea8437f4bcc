import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  insert,
  insertMany,
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
import type { ChecklistDto, WriteCheckDto, WriteChecklistDto } from './inspection.dto.js';

/** Keeps lists of what to look at. An inspection keeps the list as it was when its goods came. */
@Injectable()
export class Checklists {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  async list(): Promise<ChecklistDto[]> {
    const found = await rows<Omit<ChecklistDto, 'checks' | 'uses'> & { uses: string }>(
      this.source,
      'SELECT c.id, c.name, c.version, (SELECT COUNT(*) FROM inspection_rule r WHERE r.checklist_id = c.id) AS uses FROM checklist c ORDER BY c.name',
    );
    const checks = await rows<WriteCheckDto & { checklistId: number }>(
      this.source,
      'SELECT checklist_id AS checklistId, says, kind, unit, low, high FROM checklist_check ORDER BY checklist_id, no',
    );
    return found.map((c) => ({
      ...c,
      uses: num(c.uses),
      checks: checks.filter((k) => k.checklistId === c.id).map(({ checklistId: _, ...k }) => k),
    }));
  }

  add(act: Act, input: WriteChecklistDto): Promise<{ id: number }> {
    return this.commands.run(act, 'checklist.add', input, async (tx) => {
      await this.mustBeNew(tx, input.name, 0);
      const made = await insert(tx, 'checklist', { name: input.name.trim() });
      await this.write(tx, act, made, input);
      return { id: made };
    });
  }

  change(act: Act, id: number, version: number, input: WriteChecklistDto): Promise<{ id: number }> {
    return this.commands.run(act, 'checklist.change', { id, version, input }, async (tx) => {
      mustMatch(await this.locked(tx, id), version);
      await this.mustBeNew(tx, input.name, id);
      await update(tx, 'checklist', { id }, { name: input.name.trim(), version: NEXT });
      await remove(tx, 'checklist_check', { checklist_id: id });
      await this.write(tx, act, id, input);
      return { id };
    });
  }

  remove(act: Act, id: number): Promise<{ id: number }> {
    return this.commands.run(act, 'checklist.remove', { id }, async (tx) => {
      await this.locked(tx, id);
      const used = await one(tx, 'SELECT id FROM inspection_rule WHERE checklist_id = ? LIMIT 1', [id]);
      if (used) throw badState('A rule goes by this checklist. Change the rule first');
      await remove(tx, 'checklist_check', { checklist_id: id });
      await remove(tx, 'checklist', { id });
      return { id };
    });
  }

  private async locked(tx: Tx, id: number): Promise<number> {
    const found = await one<{ version: number }>(tx, 'SELECT version FROM checklist WHERE id = ? FOR UPDATE', [id]);
    if (!found) throw notFound('That checklist');
    return found.version;
  }

  private async mustBeNew(tx: Tx, name: string, own: number): Promise<void> {
    const other = await one(tx, 'SELECT id FROM checklist WHERE name = ? AND id <> ?', [name.trim(), own]);
    if (other) throw badForm({ name: 'There is a checklist of this name already' });
  }

  private async write(tx: Tx, act: Act, id: number, input: WriteChecklistDto): Promise<void> {
    for (const [i, check] of input.checks.entries()) {
      const { low, high } = check;
      if (check.kind === 'measure' && low && high && Number(low) > Number(high))
        throw badForm({ [`checks.${i}.low`]: `${check.says}: the lower bound is above the upper one` });
    }
    await insertMany(
      tx,
      'checklist_check',
      ['checklist_id', 'no', 'says', 'kind', 'unit', 'low', 'high'],
      input.checks.map((c, i) => {
        const measured = c.kind === 'measure';
        return [id, i + 1, c.says.trim(), c.kind, measured ? c.unit.trim() : '', (measured && c.low) || null, (measured && c.high) || null];
      }),
    );
    await this.activity.record(tx, act, {
      kind: 'checklist',
      glyph: 'full',
      title: `Checklist ${input.name.trim()}`,
      detail: `${input.checks.length} checks`,
    });
  }
}
