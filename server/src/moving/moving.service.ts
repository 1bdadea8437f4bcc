import { Injectable } from '@nestjs/common';
import type { Movement } from '@vectrum/core/ledger';
import { goodsWords } from '@vectrum/core/quantity';
import { checkMove, checkTaken, type ConditionCommand, type IssueCommand, type MoveCommand, PURPOSE_SAYS } from '@vectrum/core/scan';
import { ActivityService, type Entry, UndoService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { type Act, mustBeAt, notFound, refused, rows, type Tx } from '../platform/index.js';
import { keepStanding } from '../sites/index.js';
import { LedgerService, type Posting } from '../stock/index.js';
import { MovingQueries } from './moving.queries.js';

/** Moves goods anywhere, uses them up for a purpose of the house, and finds them in another condition. */
@Injectable()
export class MovingService {
  constructor(
    private readonly queries: MovingQueries,
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly codebook: CodebookQueries,
    private readonly activity: ActivityService,
    undo: UndoService,
  ) {
    undo.register('move', 'store', async (tx, act, payload) => {
      await this.allocation.settle(tx, await this.ledger.reverse(tx, act, payload['movements'] as number[], null));
    });
  }

  async move(tx: Tx, act: Act, command: MoveCommand): Promise<FloorAnswerDto> {
    const { from, siteId } = await this.place(tx, act, command.fromPlaceId, command.toPlaceId);
    const to = await this.codebook.place(tx, siteId, command.toPlaceId);
    const items = await this.codebook.items(tx, siteId, [...new Set(command.goods.map((g) => g.itemId))]);
    const refusal = checkMove(
      siteId,
      { ...from, kind: '', siteId },
      to,
      command.goods.map((g) => ({ item: items[g.itemId], condition: g.condition })),
    );
    if (refusal || !to) throw refused(refusal ?? { band: 'unknown', title: 'No such place', detail: 'Scan the label of a bin' });
    await this.mayGo(tx, from.id, command.goods, items);
    const movements = command.goods.map((g): Movement => ({ ...g, fromPlaceId: from.id, toPlaceId: to.id }));
    const first = command.goods[0];
    const item = first && items[first.itemId];
    return this.post(
      tx,
      act,
      siteId,
      movements,
      { task: 'move', document: null, how: command.how },
      {
        title: command.goods.length === 1 && first && item ? goodsWords(first.units, item) : `${command.goods.length} lots of goods`,
        detail: `from ${from.code} to ${to.code}`,
        how: command.how,
      },
    );
  }

  async issue(tx: Tx, act: Act, command: IssueCommand): Promise<FloorAnswerDto> {
    const { from, siteId } = await this.place(tx, act, command.placeId);
    const { itemId, lotId, condition, units, purpose, note, costCentre } = command;
    const items = await this.codebook.items(tx, siteId, [itemId]);
    await this.mayGo(tx, from.id, [command], items);
    const toPlaceId = await this.ledger.outside(tx, purpose === 'scrap' ? 'scrap' : 'own-use');
    const why = [PURPOSE_SAYS[purpose], note, costCentre ? `for ${costCentre}` : ''].filter(Boolean).join(', ');
    const item = items[itemId];
    return this.post(
      tx,
      act,
      siteId,
      [{ itemId, lotId, condition, units, fromPlaceId: from.id, toPlaceId }],
      { task: 'move', document: null, how: command.how, reason: why.slice(0, 120) },
      {
        title: `${PURPOSE_SAYS[purpose]}: ${item ? goodsWords(units, item) : units}`,
        detail: `from ${from.code}${note ? `, ${note}` : ''}`,
        how: command.how,
      },
    );
  }

  async condition(tx: Tx, act: Act, command: ConditionCommand): Promise<FloorAnswerDto> {
    const { from, siteId } = await this.place(tx, act, command.placeId);
    const { itemId, lotId, condition, units, becomes, note } = command;
    const items = await this.codebook.items(tx, siteId, [itemId]);
    if (condition === becomes) throw refused({ band: 'not-this', title: becomes, detail: 'The goods are in this condition already' });
    if (condition === 'apart' || becomes === 'apart')
      throw refused({ band: 'not-this', title: 'Not ours', detail: 'Goods that stand apart are taken over, or sent back, under Inbound' });
    await this.mayGo(tx, from.id, [command], items);
    const item = items[itemId];
    const said = becomes === 'good' ? 'Good again' : becomes === 'held' ? 'Held' : becomes === 'damaged' ? 'Damaged' : 'To be inspected';
    return this.post(
      tx,
      act,
      siteId,
      [{ itemId, lotId, condition, toCondition: becomes, units, fromPlaceId: from.id, toPlaceId: from.id }],
      { task: 'move', document: null, how: command.how, reason: note.slice(0, 120) || null },
      {
        title: `${said}: ${item ? goodsWords(units, item) : units}`,
        detail: `in ${from.code}${note ? `, ${note}` : ''}`,
        how: command.how,
      },
    );
  }

  private async place(tx: Tx, act: Act, id: number, other = id): Promise<{ from: { id: number; code: string }; siteId: number }> {
    const places = await keepStanding(tx, '?, ?', [id, other]);
    const from = places.find((p) => p.id === id && p.siteId !== null);
    if (!from) throw notFound('This place');
    mustBeAt(act.person, from.siteId ?? 0);
    return { from, siteId: from.siteId ?? 0 };
  }

  /** Refuses what does not lie there, and what a round comes for. The goods' balances are locked. */
  private async mayGo(
    tx: Tx,
    placeId: number,
    goods: readonly { itemId: number; lotId: number; condition: string; units: number }[],
    items: Awaited<ReturnType<CodebookQueries['items']>>,
  ): Promise<void> {
    await rows(tx, 'SELECT units FROM balance WHERE place_id = ? AND item_id IN (?) ORDER BY item_id, lot_id, stock_condition FOR UPDATE', [
      placeId,
      [0, ...goods.map((g) => g.itemId)],
    ]);
    const there = await this.queries.goods(tx, placeId);
    for (const g of goods) {
      const refusal = checkTaken(
        items[g.itemId],
        there.find((t) => t.itemId === g.itemId && t.lotId === g.lotId && t.condition === g.condition),
        g.units,
      );
      if (refusal) throw refused(refusal);
    }
  }

  private async post(
    tx: Tx,
    act: Act,
    siteId: number,
    movements: readonly Movement[],
    posting: Posting,
    tape: Pick<Entry, 'title' | 'detail' | 'how'>,
  ): Promise<FloorAnswerDto> {
    const { ids, changes } = await this.ledger.post(tx, act, movements, posting);
    await this.allocation.settle(tx, changes);
    const activityId = await this.activity.record(tx, act, { kind: 'move', glyph: 'full', siteId, undo: { movements: ids }, ...tape });
    return { activityId };
  }
}
