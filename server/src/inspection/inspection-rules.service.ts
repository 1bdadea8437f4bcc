import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { type Act, badForm, CommandLog, insert, mustMatch, NEXT, notFound, one, remove, rows, type Tx, update } from '../platform/index.js';
import type { InspectionRuleDto, WriteRuleDto } from './inspection.dto.js';

const SAYS: Readonly<Record<WriteRuleDto['kind'], (n: number) => string>> = {
  always: () => 'each delivery',
  every: (n) => `one delivery in ${n}`,
  'until-proven': (n) => `until ${n} in a row have passed`,
};

interface Covers {
  itemId: number | null;
  supplierId: number | null;
}

/** Keeps which deliveries are looked at: by item, by supplier, or by both. */
@Injectable()
export class InspectionRules {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  list(): Promise<InspectionRuleDto[]> {
    return rows<InspectionRuleDto>(
      this.source,
      `SELECT r.id, i.sku, i.name AS item, s.code AS supplierCode, s.name AS supplier, r.kind, r.n, r.checklist_id AS checklistId, c.name AS checklist, r.version
       FROM inspection_rule r LEFT JOIN item i ON i.id = r.item_id LEFT JOIN supplier s ON s.id = r.supplier_id LEFT JOIN checklist c ON c.id = r.checklist_id ORDER BY i.name IS NULL, i.name, s.name`,
    );
  }

  add(act: Act, input: WriteRuleDto): Promise<{ id: number }> {
    return this.commands.run(act, 'inspection-rule.add', input, async (tx) => {
      const covers = await this.covers(tx, input, 0);
      const made = await insert(tx, 'inspection_rule', {
        item_id: covers.itemId,
        supplier_id: covers.supplierId,
        kind: input.kind,
        n: input.n,
        checklist_id: await this.checklist(tx, input),
      });
      await this.tell(tx, act, input, 'are looked at');
      return { id: made };
    });
  }

  change(act: Act, id: number, version: number, input: WriteRuleDto): Promise<{ id: number }> {
    return this.commands.run(act, 'inspection-rule.change', { id, version, input }, async (tx) => {
      mustMatch((await this.locked(tx, id)).version, version);
      const covers = await this.covers(tx, input, id);
      await update(
        tx,
        'inspection_rule',
        { id },
        {
          item_id: covers.itemId,
          supplier_id: covers.supplierId,
          kind: input.kind,
          n: input.n,
          checklist_id: await this.checklist(tx, input),
          version: NEXT,
        },
      );
      await this.tell(tx, act, input, 'are now looked at');
      return { id };
    });
  }

  /** From now on nothing is looked at by this rule; what waits goes on waiting. */
  remove(act: Act, id: number): Promise<{ id: number }> {
    return this.commands.run(act, 'inspection-rule.remove', { id }, async (tx) => {
      await this.locked(tx, id);
      await remove(tx, 'inspection_rule', { id });
      await this.activity.record(tx, act, { kind: 'inspection-rule', glyph: 'empty', title: 'A rule of inspection was taken away' });
      return { id };
    });
  }

  private async locked(tx: Tx, id: number): Promise<{ version: number }> {
    const found = await one<{ version: number }>(tx, 'SELECT version FROM inspection_rule WHERE id = ? FOR UPDATE', [id]);
    if (!found) throw notFound('That rule');
    return found;
  }

  /** What the rule is for; each item, supplier and pair of them has one rule at most. */
  private async covers(tx: Tx, input: WriteRuleDto, own: number): Promise<Covers> {
    const item = input.sku ? await one<{ id: number }>(tx, 'SELECT id FROM item WHERE sku = ?', [input.sku.trim().toUpperCase()]) : null;
    const supplier = input.supplier
      ? await one<{ id: number }>(tx, 'SELECT id FROM supplier WHERE code = ?', [input.supplier.trim().toUpperCase()])
      : null;
    if (item === undefined) throw badForm({ sku: `There is no item ${input.sku ?? ''}` });
    if (supplier === undefined) throw badForm({ supplier: `There is no supplier ${input.supplier ?? ''}` });
    if (!item && !supplier) throw badForm({ sku: 'Name an item, a supplier, or both' });
    const covers = { itemId: item?.id ?? null, supplierId: supplier?.id ?? null };
    const other = await one<{ id: number }>(
      tx,
      'SELECT id FROM inspection_rule WHERE item_id <=> ? AND supplier_id <=> ? AND id <> ? FOR UPDATE',
      [covers.itemId, covers.supplierId, own],
    );
    if (other) throw badForm({ sku: 'There is a rule for these already. Change that one' });
    return covers;
  }

  private async checklist(tx: Tx, input: WriteRuleDto): Promise<number | null> {
    if (!input.checklistId) return null;
    const found = await one<{ id: number }>(tx, 'SELECT id FROM checklist WHERE id = ?', [input.checklistId]);
    if (!found) throw badForm({ checklistId: 'This checklist is not there any more. Choose another' });
    return found.id;
  }

  private tell(tx: Tx, act: Act, input: WriteRuleDto, says: string): Promise<number> {
    const goods = [input.sku?.toUpperCase(), input.supplier && `from ${input.supplier.toUpperCase()}`].filter(Boolean).join(' ');
    return this.activity.record(tx, act, {
      kind: 'inspection-rule',
      glyph: 'full',
      title: `Goods ${goods} ${says}: ${SAYS[input.kind](input.n)}`,
    });
  }
}
