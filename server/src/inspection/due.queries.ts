import { Injectable } from '@nestjs/common';
import { type Check, type InspectionRule, type PastDelivery, ruleFor, whyInspect } from '@vectrum/core/inspection';
import { marks, num, rows, type Tx } from '../platform/index.js';

/** Earlier deliveries that a rule looks back on; more would prove nothing else. */
const MOST_PAST = 200;

/** The delivery that goods come with, as far as inspection cares. */
export interface Coming {
  siteId: number;
  supplierId: number | null;
  arrivalId: number | null;
}
/** Why goods of a delivery are looked at, and the rule that says so. */
export interface DueInspection {
  why: string;
  checklistId: number | null;
}

/** Says which goods of a delivery must be looked at before they are stock. */
@Injectable()
export class InspectionDue {
  /**
   * The items that must be looked at. What was begun in one way goes on so: a delivery is looked at whole or not at all.
   * With `lock`, the rules that were asked are held, so that two deliveries at once do not both take the same turn.
   */
  async of(tx: Pick<Tx, 'query'>, coming: Coming, items: readonly number[], lock = false): Promise<Map<number, DueInspection>> {
    const wanted = [...new Set(items)].sort((a, b) => a - b);
    const due = new Map<number, DueInspection>();
    if (wanted.length === 0) return due;
    const begun = await this.begun(tx, coming.arrivalId, wanted);
    const rules = await this.rules(tx, coming.supplierId, wanted, lock);
    for (const itemId of wanted) {
      const before = begun.get(itemId);
      if (before !== undefined) {
        if (before !== null) due.set(itemId, { why: before, checklistId: null });
        continue;
      }
      const rule = ruleFor(rules, { itemId, supplierId: coming.supplierId });
      // What is always looked at needs no looking back.
      const past = rule && rule.kind !== 'always' ? await this.past(tx, coming, itemId, rule) : [];
      const why = rule && whyInspect(rule, past);
      if (rule && why) due.set(itemId, { why, checklistId: rule.checklistId });
    }
    return due;
  }

  /** What a list of checks holds now. */
  async checks(tx: Pick<Tx, 'query'>, checklistId: number | null): Promise<Check[]> {
    return rows<Check>(tx, 'SELECT no, says, kind, unit, low, high FROM checklist_check WHERE checklist_id = ? ORDER BY no', [
      checklistId ?? 0,
    ]);
  }

  /** Items of the arrival of which some came already: why they are looked at, or null where they are not. */
  private async begun(tx: Pick<Tx, 'query'>, arrivalId: number | null, items: readonly number[]): Promise<Map<number, string | null>> {
    const found = await rows<{ itemId: number; why: string | null }>(
      tx,
      `SELECT DISTINCT r.item_id AS itemId, n.why FROM receipt r LEFT JOIN inspection n ON n.arrival_id = r.arrival_id AND n.item_id = r.item_id
       WHERE r.arrival_id = ? AND r.item_id IN (${marks(items)}) AND r.undone_at IS NULL AND r.stock_condition IN ('good','to-inspect')`,
      [arrivalId ?? 0, ...items],
    );
    return new Map(found.map((f) => [f.itemId, f.why]));
  }

  private rules(tx: Pick<Tx, 'query'>, supplierId: number | null, items: readonly number[], lock: boolean): Promise<InspectionRule[]> {
    return rows<InspectionRule>(
      tx,
      `SELECT id, item_id AS itemId, supplier_id AS supplierId, kind, n, checklist_id AS checklistId FROM inspection_rule
       WHERE (item_id IS NULL OR item_id IN (${marks(items)})) AND (supplier_id IS NULL OR supplier_id = ?) ORDER BY id ${lock ? 'FOR UPDATE' : ''}`,
      [...items, supplierId ?? 0],
    );
  }

  /** Earlier deliveries of the item (from the supplier, where the rule names one) at any site, newest first. */
  private async past(tx: Pick<Tx, 'query'>, coming: Coming, itemId: number, rule: InspectionRule): Promise<PastDelivery[]> {
    const found = await rows<{ inspected: string | number; passed: number | null }>(
      tx,
      `SELECT n.id IS NOT NULL AS inspected, n.passed FROM (SELECT DISTINCT r.arrival_id FROM receipt r
         WHERE r.item_id = ? AND r.undone_at IS NULL AND r.stock_condition IN ('good','to-inspect') AND r.taken_as <> 'apart' AND r.arrival_id <> ?) d
         JOIN arrival a ON a.id = d.arrival_id LEFT JOIN inspection n ON n.arrival_id = a.id AND n.item_id = ?
       WHERE (? IS NULL OR a.supplier_id = ?) ORDER BY a.opened_at DESC, a.id DESC LIMIT ?`,
      [itemId, coming.arrivalId ?? 0, itemId, rule.supplierId, rule.supplierId, MOST_PAST],
    );
    return found.map((d) => ({ inspected: num(d.inspected) === 1, passed: d.passed === null ? null : d.passed === 1 }));
  }
}
