import { Injectable, type OnModuleInit } from '@nestjs/common';
import { goodsWords } from '@vectrum/core/quantity';
import { ActivityService, UndoService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import { type Act, badState, CommandLog, mustBeAt, one, type PostedDto } from '../platform/index.js';
import { LedgerService } from '../stock/index.js';
import { notOfCustomers } from './of-customers.js';
import type { TakeInDto } from './returns.dto.js';

/** Takes goods that stand apart into stock, by decision: from then on they are good, and the house's. */
@Injectable()
export class TakingIn implements OnModuleInit {
  constructor(
    private readonly commands: CommandLog,
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly codebook: CodebookQueries,
    private readonly activity: ActivityService,
    private readonly undo: UndoService,
  ) {}

  onModuleInit(): void {
    this.undo.register('take-over', 'take-in', async (tx, act, payload) => {
      await this.allocation.settle(tx, await this.ledger.reverse(tx, act, payload['movements'] as number[], null));
    });
  }

  take(act: Act, input: TakeInDto): Promise<PostedDto> {
    return this.commands.run(act, 'take-over', input, async (tx) => {
      const place = await one<{ siteId: number | null; code: string }>(tx, 'SELECT site_id AS siteId, code FROM place WHERE id = ?', [
        input.placeId,
      ]);
      const siteId = place?.siteId ?? 0;
      mustBeAt(act.person, siteId);
      const item = (await this.codebook.items(tx, siteId, [input.itemId]))[input.itemId];
      if (!item) throw badState('This item is not known any more');
      if (item.tracking !== 'none' && input.lotId === 0)
        throw badState(
          `${item.name} is kept by ${item.tracking === 'serial' ? 'serial number' : 'lot'}, and none is known of these. Send them back, or book them in anew`,
        );
      const { itemId, lotId, condition, placeId, units } = input;
      if (condition === 'apart' && units > (await notOfCustomers(tx, input)))
        throw badState('Some of these are a customer’s, and here to be repaired. Say on their return that they are kept instead');
      const { ids, changes } = await this.ledger.post(
        tx,
        act,
        [{ itemId, lotId, condition, toCondition: 'good', fromPlaceId: placeId, toPlaceId: placeId, units }],
        { task: 'take-over', document: null, reason: input.reason.slice(0, 120) },
      );
      await this.allocation.settle(tx, changes);
      const activityId = await this.activity.record(tx, act, {
        kind: 'take-over',
        glyph: 'full',
        title: `${goodsWords(units, item)} taken into stock`,
        detail: `at ${place?.code ?? ''}, ${input.reason}`,
        siteId,
        undo: { movements: ids },
      });
      return { activityId };
    });
  }
}
