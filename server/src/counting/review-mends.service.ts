import { Injectable } from '@nestjs/common';
import { causesOf } from '@vectrum/core/counting';
import { spell } from '@vectrum/core/quantity';
import { AllocationService } from '../allocation/index.js';
import { type Act, badForm, badState, CommandLog, find, notFound, NOW, siteDay, update } from '../platform/index.js';
import { keepStanding } from '../sites/index.js';
import { LedgerService, lotFor } from '../stock/index.js';
import { Counts } from './counts.service.js';
import type { SettleCodeDto, SettledLinesDto } from './counts.dto.js';
import { endWhereDecided, settleRight } from './deciding.js';
import { ReviewQueries } from './review.queries.js';
import { TakingOut } from './taking-out.service.js';

/** What puts a line of a count right before it is decided on: a move that nobody had booked, a code that nobody knew. */
@Injectable()
export class ReviewMends {
  constructor(
    private readonly commands: CommandLog,
    private readonly counts: Counts,
    private readonly review: ReviewQueries,
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly taking: TakingOut,
  ) {}

  /** The goods lay in the wrong bin before anybody looked: the move that puts both lines right is booked for then. */
  move(act: Act, code: string, version: number, lineId: number): Promise<SettledLinesDto> {
    return this.commands.run(act, 'count.move', { code, version, lineId }, async (tx) => {
      const count = await this.counts.held(tx, act, code, version, ['review']);
      const judged = await this.review.judged(tx, count);
      const line = judged.find((j) => j.raw.id === lineId && j.raw.state === 'counted' && j.off !== null);
      if (!line) throw badState('This line is decided already');
      const open = judged
        .filter((j) => j.raw.state === 'counted' && j.off !== null && j.off !== 0 && j.raw.damaged === 0)
        .map(ReviewQueries.offLine);
      const cause = causesOf(ReviewQueries.offLine(line), open, await this.review.waiting(tx, count.id)).find((c) => c.move !== null);
      if (!cause?.move) throw badState('No move would put it right any more. Look at the line again');
      const { fromPlaceId, toPlaceId, units } = cause.move;
      const goods = { itemId: line.raw.itemId, lotId: line.raw.lotId };
      const looks = judged.filter((j) => j.raw.itemId === goods.itemId && j.raw.at !== null).map((j) => j.raw.at?.getTime() ?? 0);
      const before = new Date(Math.min(Date.now(), ...looks) - 1);
      const spot = { siteId: count.site_id, placeId: fromPlaceId, ...goods };
      const posting = { task: 'count' as const, document: count.code, reason: 'lay in the wrong bin' };
      const then = { ...act, madeAt: before };
      const gone = await this.taking.leaveOthers(tx, then, spot, units, { toPlaceId, posting });
      if (gone.units < units) {
        await keepStanding(tx, '?, ?', [fromPlaceId, toPlaceId]);
        await this.ledger.post(tx, then, await this.taking.take(tx, spot, units - gone.units, { toPlaceId, toCondition: 'good' }), posting);
      }
      await this.allocation.settle(tx, [{ siteId: count.site_id, itemId: goods.itemId }]);
      const after = await this.review.judged(tx, count, [lineId, ...(cause.otherId ? [cause.otherId] : [])]);
      const right = after.filter((j) => j.off === 0);
      await settleRight(tx, act, right);
      await this.counts.goOn(tx, count, {});
      await this.counts.told(tx, act, count, `Moved in the books: ${spell(units, line.packs)}`, `${line.raw.item}, ${cause.says}`);
      return { done: right.length, left: await endWhereDecided(tx, this.counts, count), failed: [] };
    });
  }

  /** What a code that nobody knew turned out to be: its units are counted with the goods, or it is nothing of the house's. */
  settleCode(act: Act, code: string, version: number, id: number, asked: SettleCodeDto): Promise<{ code: string }> {
    return this.commands.run(act, 'count.code', { code, version, id, ...asked }, async (tx) => {
      const count = await this.counts.held(tx, act, code, version, ['open', 'review']);
      const found = await find(tx, 'count_code', { id, count_id: count.id }, 'lock');
      if (!found || found.settled_at) throw notFound('This code of the count');
      if (asked.sku) {
        const item = await find(tx, 'item', { sku: asked.sku });
        if (!item) throw badForm({ sku: `There is no item ${asked.sku}` });
        if (item.tracking !== 'none' && !asked.lot) throw badForm({ lot: 'Say which lot or number it is' });
        const { today } = await siteDay(tx, count.site_id);
        const lotId = await lotFor(tx, item.tracking, { itemId: item.id, lot: asked.lot ?? null, expires: null }, today);
        await tx.query(
          `INSERT INTO count_line (count_id, place_id, item_id, lot_id, damaged, listed, state, counted_units, looked_at, person_id, how) VALUES (?, ?, ?, ?, 0, 0, 'counted', ?, ?, ?, 'typed')
           ON DUPLICATE KEY UPDATE counted_units = COALESCE(counted_units, 0) + VALUES(counted_units), looked_at = COALESCE(looked_at, VALUES(looked_at)), state = 'counted', version = version + 1`,
          [count.id, found.place_id, item.id, lotId, found.units * asked.factor, found.looked_at, found.person_id],
        );
      }
      await update(tx, 'count_code', { id }, { settled_at: NOW });
      await this.counts.goOn(tx, count, {});
      await endWhereDecided(tx, this.counts, count);
      return { code };
    });
  }
}
