import { Injectable } from '@nestjs/common';
import { goodsWords } from '@vectrum/core/quantity';
import { checkGather, type GatherCommand } from '@vectrum/core/scan';
import { AllocationService, Earmarks, spareSql } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import { type Act, badState, num, one, refused, rows, type Tx } from '../platform/index.js';
import { keepStanding } from '../sites/index.js';
import { LedgerService } from '../stock/index.js';

/** A document within the house for which goods are set apart, and the place in which they stand until they go. */
export interface ApartFor {
  code: string;
  siteId: number;
  placeId: number;
  task: 'transfer' | 'build';
}
/** A line of it, as it stands. */
export interface ApartLine {
  lineId: number;
  itemId: number;
  units: number;
  gathered: number;
}
/** Goods that were set apart: in words, whence, and the movements that say so. */
export interface SetApart {
  title: string;
  from: string;
  movements: number[];
}

/** Goods of bins are set apart for a document within the house, never such as orders are promised, and put back when it is called off. */
@Injectable()
export class SettingApart {
  constructor(
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly earmarks: Earmarks,
    private readonly codebook: CodebookQueries,
  ) {}

  /** What a new document wants of its site is held for it, as far as it is free. */
  async want(tx: Tx, of: ApartFor, lines: readonly ApartLine[]): Promise<void> {
    await this.earmarks.want(tx, of.code, of.siteId, lines);
    await this.allocation.settle(
      tx,
      lines.map(({ itemId }) => ({ siteId: of.siteId, itemId })),
    );
  }

  async take(tx: Tx, act: Act, of: ApartFor, line: ApartLine, command: GatherCommand): Promise<SetApart> {
    const { itemId, lotId, units, placeId } = command;
    if (line.itemId !== itemId) throw badState('This line is not of it any more');
    const [place] = await keepStanding(tx, '?', [placeId]);
    if (place?.siteId !== of.siteId) throw badState('This bin is at another site');
    const item = await this.codebook.item(tx, of.siteId, itemId);
    const spare = await this.spareIn(tx, command);
    const within = await this.earmarks.within(tx, of.code, line, of.siteId);
    const refusal = checkGather(item, line.units - line.gathered, Math.min(spare, within), units);
    if (refusal) throw refused(refusal);
    await this.earmarks.gathered(tx, of.code, line.lineId, units);
    const { ids, changes } = await this.ledger.post(
      tx,
      act,
      [{ itemId, lotId, units, condition: 'good', toCondition: 'held', fromPlaceId: placeId, toPlaceId: of.placeId }],
      { task: of.task, document: of.code, how: command.how },
    );
    await this.allocation.settle(tx, changes);
    return { title: item ? goodsWords(units, item) : String(units), from: place.code, movements: ids };
  }

  /** What was taken by one act is back in its bin, and held for the document again. */
  async takeBack(tx: Tx, act: Act, of: Pick<ApartFor, 'code' | 'siteId'>, line: Omit<ApartLine, 'gathered'>, movements: readonly number[]) {
    const changes = await this.ledger.reverse(tx, act, movements, of.code);
    await this.earmarks.putBack(tx, of.code, of.siteId, line);
    await this.allocation.settle(tx, changes);
  }

  /** It is called off: all that stands apart goes back, in the books, to the bins that it came from. Returns whether anything did. */
  async allBack(tx: Tx, act: Act, of: ApartFor): Promise<boolean> {
    const marked = await rows<{ itemId: number }>(tx, 'SELECT DISTINCT item_id AS itemId FROM earmark WHERE document = ?', [of.code]);
    const made = await rows<{ id: string }>(
      tx,
      `SELECT m.id FROM movement m WHERE m.document = ? AND m.task = ? AND m.to_place_id = ? AND NOT EXISTS (SELECT 1 FROM movement r WHERE r.reverses_id = m.id) ORDER BY m.id`,
      [of.code, of.task, of.placeId],
    );
    const ids = made.map((m) => num(m.id));
    const changes = ids.length > 0 ? await this.ledger.reverse(tx, act, ids, of.code) : [];
    await this.earmarks.drop(tx, of.code);
    await this.allocation.settle(tx, [...changes, ...marked.map(({ itemId }) => ({ siteId: of.siteId, itemId }))]);
    return ids.length > 0;
  }

  /** It goes as it is: what it wanted besides is wanted no more. */
  async enough(tx: Tx, of: Pick<ApartFor, 'code' | 'siteId'>): Promise<void> {
    const marked = await rows<{ itemId: number }>(tx, 'SELECT DISTINCT item_id AS itemId FROM earmark WHERE document = ?', [of.code]);
    if (marked.length === 0) return;
    await this.earmarks.drop(tx, of.code);
    await this.allocation.settle(
      tx,
      marked.map(({ itemId }) => ({ siteId: of.siteId, itemId })),
    );
  }

  /** What lies in the bin and no round comes for. */
  private async spareIn(tx: Tx, { itemId, placeId, lotId }: GatherCommand): Promise<number> {
    const key = [itemId, placeId, lotId];
    const these = `WHERE b.item_id = ? AND b.place_id = ? AND b.lot_id = ? AND b.stock_condition = 'good'`;
    await one(tx, `SELECT b.units FROM balance b ${these} FOR UPDATE`, key);
    const row = await one<{ units: string }>(tx, `SELECT ${spareSql('b')} AS units FROM balance b ${these}`, key);
    return Math.max(0, num(row?.units));
  }
}
