import { Injectable } from '@nestjs/common';
import { type Check, readAnswer } from '@vectrum/core/inspection';
import { goodsWords } from '@vectrum/core/quantity';
import {
  type CheckCommand,
  checkVerdict,
  type GoodsToInspect,
  type ItemFacts,
  type JudgeCommand,
  type PlaceFacts,
  type Verdict,
} from '@vectrum/core/scan';
import { ActivityService, UndoService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import {
  type Act,
  badForm,
  badState,
  insert,
  mustBeAt,
  notFound,
  NOW,
  num,
  one,
  parsed,
  refused,
  type Tx,
  update,
} from '../platform/index.js';
import { SupplierReturns } from '../returns/index.js';
import { firstPlace } from '../sites/index.js';
import { LedgerService } from '../stock/index.js';
import { StandingToInspect } from './standing.queries.js';

interface InspectionRow {
  id: number;
  code: string;
  siteId: number;
  itemId: number;
  supplier: string | null;
  arrival: string;
  checks: unknown;
}
interface JudgeUndo extends Record<string, unknown> {
  verdictId: number;
  inspectionId: number;
  movements: number[];
  returnId: number | null;
}

const DONE: Readonly<Record<Verdict, { glyph: 'full' | 'held' | 'go'; says: string }>> = {
  pass: { glyph: 'full', says: 'passed' },
  quarantine: { glyph: 'held', says: 'set aside' },
  back: { glyph: 'go', says: 'back to the supplier' },
};

/** Keeps what was found when goods were looked at: answers to checks, and verdicts that make them stock or not. */
@Injectable()
export class InspectionsService {
  constructor(
    private readonly standing: StandingToInspect,
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly codebook: CodebookQueries,
    private readonly returns: SupplierReturns,
    private readonly activity: ActivityService,
    undo: UndoService,
  ) {
    undo.register('judge', 'inspect', (tx, act, payload) => this.takeBack(tx, act, payload as JudgeUndo));
  }

  /** Keeps the answer to one check; a later answer takes its place. */
  async answer(tx: Tx, act: Act, input: CheckCommand): Promise<FloorAnswerDto> {
    const code = input.inspection.toUpperCase();
    const found = await this.locked(tx, act, code);
    const check = parsed<Check[]>(found.checks).find((c) => c.no === input.no);
    if (!check) throw badForm({ no: `${code} has no check ${input.no}` });
    const reading = readAnswer(check, input.value);
    if ('fault' in reading) throw refused({ band: 'not-this', title: check.says, detail: reading.fault });
    await tx.query(
      `INSERT INTO inspection_answer (inspection_id, no, value, fulfilled, person_id) VALUES (?, ?, ?, ?, ?)
         ON DUPLICATE KEY UPDATE value = VALUES(value), fulfilled = VALUES(fulfilled), person_id = VALUES(person_id), at = UTC_TIMESTAMP(3)`,
      [found.id, input.no, input.value.trim(), reading.ok ? 1 : 0, act.person.id],
    );
    const activityId = await this.activity.record(tx, act, {
      kind: 'check',
      glyph: reading.ok ? 'full' : 'blocked',
      title: `${check.says}: ${input.value.trim()}`,
      detail: code,
      document: code,
      siteId: found.siteId,
    });
    return { activityId };
  }

  /** Passes or rejects goods that stand in one place, all of them or some. */
  async judge(tx: Tx, act: Act, input: JudgeCommand): Promise<FloorAnswerDto> {
    const code = input.inspection.toUpperCase();
    const found = await this.locked(tx, act, code);
    const goods = (await this.standing.goods(tx, found.siteId, found.itemId)).find(
      (g) => g.inspection === code && g.lotId === input.lotId && g.placeId === input.placeId,
    );
    const item = await this.codebook.item(tx, found.siteId, found.itemId);
    if (!goods || !item) throw badState(`${code} has nothing there that waits to be judged. Look at the list again`);
    const quarantine = (await firstPlace(tx, found.siteId, 'quarantine')) ?? null;
    const refusal = checkVerdict(item, goods.checks, goods.answers, input, goods.units, quarantine);
    if (refusal) throw refused(refusal);
    const done =
      input.verdict === 'back'
        ? await this.sendBack(tx, act, found, input)
        : await this.settle(tx, act, found, goods, input, input.verdict === 'pass' ? null : quarantine);
    return this.write(tx, act, found, item, input, done);
  }

  private async locked(tx: Tx, act: Act, code: string): Promise<InspectionRow> {
    await tx.query('SELECT id FROM inspection WHERE code = ? FOR UPDATE', [code]);
    const found = await one<InspectionRow>(
      tx,
      `SELECT n.id, n.code, n.site_id AS siteId, n.item_id AS itemId, s.code AS supplier, a.code AS arrival, n.checks FROM inspection n JOIN arrival a ON a.id = n.arrival_id LEFT JOIN supplier s ON s.id = a.supplier_id WHERE n.code = ?`,
      [code],
    );
    if (!found) throw notFound(`Inspection ${code}`);
    mustBeAt(act.person, found.siteId);
    return found;
  }

  /** What passes is stock where it stands; what is set aside goes to quarantine and is held there. */
  private async settle(
    tx: Tx,
    act: Act,
    found: InspectionRow,
    goods: GoodsToInspect,
    input: JudgeCommand,
    aside: PlaceFacts | null,
  ): Promise<{ movements: number[]; returnId: null; returnCode: null }> {
    const { ids, changes } = await this.ledger.post(
      tx,
      act,
      [
        {
          itemId: found.itemId,
          lotId: goods.lotId,
          condition: 'to-inspect',
          toCondition: aside ? 'held' : 'good',
          fromPlaceId: goods.placeId,
          toPlaceId: aside?.id ?? goods.placeId,
          units: input.units,
        },
      ],
      { task: 'inspect', document: found.code, how: input.how, reason: input.reason.slice(0, 120) || null },
    );
    await this.allocation.settle(tx, changes);
    return { movements: ids, returnId: null, returnCode: null };
  }

  private async sendBack(
    tx: Tx,
    act: Act,
    found: InspectionRow,
    input: JudgeCommand,
  ): Promise<{ movements: number[]; returnId: number; returnCode: string }> {
    if (!found.supplier) throw badState(`${found.arrival} came from nobody known. Set the goods aside instead`);
    const { lotId, placeId, units } = input;
    const line = { itemId: found.itemId, lotId, condition: 'to-inspect' as const, placeId, units };
    const sent = await this.returns.post(tx, act, {
      supplier: found.supplier,
      siteId: found.siteId,
      reason: input.reason,
      lines: [line],
    });
    return { movements: [], returnId: sent.id, returnCode: sent.code };
  }

  private async write(
    tx: Tx,
    act: Act,
    found: InspectionRow,
    item: ItemFacts,
    input: JudgeCommand,
    done: { movements: number[]; returnId: number | null; returnCode: string | null },
  ): Promise<FloorAnswerDto> {
    const made = await insert(tx, 'inspection_verdict', {
      inspection_id: found.id,
      lot_id: input.lotId,
      place_id: input.placeId,
      units: input.units,
      verdict: input.verdict,
      reason: input.reason.trim(),
      return_code: done.returnCode,
      person_id: act.person.id,
    });
    await this.close(tx, found.id);
    const { glyph, says } = DONE[input.verdict];
    const activityId = await this.activity.record(tx, act, {
      kind: 'judge',
      glyph,
      title: `${goodsWords(input.units, item)} ${says}`,
      detail: [done.returnCode ?? found.code, input.reason.trim()].filter(Boolean).join(', '),
      document: found.code,
      siteId: found.siteId,
      how: input.how,
      undo: {
        verdictId: made,
        inspectionId: found.id,
        movements: done.movements,
        returnId: done.returnId,
      } satisfies JudgeUndo,
    });
    return { activityId };
  }

  /** An inspection is over once nothing of it waits. It passed where nothing was rejected. */
  private async close(tx: Tx, inspectionId: number): Promise<void> {
    const over = (await this.standing.left(tx, inspectionId)) <= 0;
    await tx.query(
      `UPDATE inspection SET closed_at = IF(?, UTC_TIMESTAMP(3), NULL), passed = IF(?, NOT EXISTS (SELECT 1 FROM inspection_verdict v WHERE v.inspection_id = inspection.id AND v.undone_at IS NULL AND v.verdict <> 'pass'), NULL) WHERE id = ?`,
      [over, over, inspectionId],
    );
  }

  private async takeBack(tx: Tx, act: Act, undo: JudgeUndo): Promise<void> {
    const verdict = await one<{ code: string; undone: number }>(
      tx,
      'SELECT n.code, v.undone_at IS NOT NULL AS undone FROM inspection_verdict v JOIN inspection n ON n.id = v.inspection_id WHERE v.id = ? FOR UPDATE',
      [undo.verdictId],
    );
    if (!verdict || num(verdict.undone) === 1) throw badState('This was undone already');
    if (undo.returnId !== null) await this.returns.takeBack(tx, act, undo.returnId);
    else await this.allocation.settle(tx, await this.ledger.reverse(tx, act, undo.movements, verdict.code));
    await update(tx, 'inspection_verdict', { id: undo.verdictId }, { undone_at: NOW });
    await this.close(tx, undo.inspectionId);
  }
}
