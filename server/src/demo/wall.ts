import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { PickingQueries, ReleaseService } from '../picking/index.js';
import { find } from '../platform/index.js';
import { SortingQueries } from '../sorting/index.js';
import { DemoHands } from './hands.js';
import { actAs } from './morning.js';
import { DEMO_WALL } from './places.js';

const TOTE = 'T-27';

/** A round that was picked for several orders together, and is half sorted at the wall. */
@Injectable()
export class DemoWall {
  constructor(
    private readonly source: DataSource,
    private readonly releases: ReleaseService,
    private readonly rounds: PickingQueries,
    private readonly sorting: SortingQueries,
    private readonly hands: DemoHands,
  ) {}

  async sortHalf(orders: readonly { code: string; version: number }[]): Promise<void> {
    const desk = await actAs(this.source, 'Maren');
    const picker = await actAs(this.source, 'Ines');
    const sent = await this.releases
      .releaseRounds({ ...desk, key: randomUUID() }, 1, [{ orders, sentTo: null, pooled: true }])
      .catch(() => null);
    const round = sent?.rounds[0];
    if (!round) return;
    const tote = await find(this.source, 'place', { code: TOTE });
    const wall = await find(this.source, 'place', { code: DEMO_WALL });
    const { stops } = await this.rounds.task(this.source, round);
    for (const { id: stopId, itemId, lotId, placeId: fromPlaceId, units } of stops)
      await this.hands.does(picker, {
        kind: 'pick',
        round,
        stopId,
        itemId,
        lotId,
        fromPlaceId,
        units,
        totePlaceId: tote?.id ?? 0,
        how: 'scanned',
      });
    await this.hands.does(picker, { kind: 'set-down', round, placeId: wall?.id ?? 0 });
    const { goods, slots } = await this.sorting.task(this.source, round);
    const slotOf = new Map<number, number>();
    for (const { orderId, itemId, lotId, units, toteId: fromPlaceId } of goods.slice(0, Math.ceil(goods.length / 2))) {
      const slotPlaceId = slotOf.get(orderId) ?? slots[slotOf.size]?.placeId ?? 0;
      slotOf.set(orderId, slotPlaceId);
      await this.hands.does(picker, { kind: 'sort', round, orderId, itemId, lotId, units, fromPlaceId, slotPlaceId, how: 'scanned' });
    }
  }
}
