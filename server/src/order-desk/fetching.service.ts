import { Injectable } from '@nestjs/common';
import { WaysQueries } from '../orders/index.js';
import { type Act, badState, CommandLog, dayIn, findAll, marks, num, one, siteDay, type Tx } from '../platform/index.js';
import { Transfers } from '../transfers/index.js';
import { EditingService } from './editing.service.js';
import { openOrder } from './open-order.js';
import type { FetchedDto } from './order-desk.dto.js';

const CHANGED = 'What is free has changed meanwhile. Look at how it can go again';

/** What an order lacks is asked of the sites that have it free, and the order is promised for when all of it can leave together. */
@Injectable()
export class FetchingService {
  constructor(
    private readonly commands: CommandLog,
    private readonly ways: WaysQueries,
    private readonly transfers: Transfers,
    private readonly editing: EditingService,
  ) {}

  /** `at`: when the way that was chosen leaves. Refused where that way is not there any more, since somebody else has the goods by now. */
  fetch(act: Act, code: string, version: number, at: Date): Promise<FetchedDto> {
    return this.commands.run(act, 'order.fetch', { code, version, at: at.toISOString() }, async (tx) => {
      const order = await openOrder(tx, act, code, version);
      const ways = await this.ways.ways(code, act.person.siteIds);
      const way = ways.find((w) => w.kind === 'fetched' && w.wholeAt.getTime() === at.getTime());
      if (!way) throw badState(CHANGED);
      const items = await findAll(tx, 'item', { id: way.fetches.map((f) => f.itemId) }, 'id');
      const { timeZone } = await siteDay(tx, order.site_id);
      const made: string[] = [];
      for (const from of [...new Set(way.fetches.map((f) => f.siteId))]) {
        const lines = way.fetches
          .filter((f) => f.siteId === from)
          .map((f) => ({ sku: items.find((i) => i.id === f.itemId)?.sku ?? '', units: f.pieces }));
        made.push(
          await this.transfers.make(
            tx,
            act,
            { fromSiteId: from, toSiteId: order.site_id, expectedOn: dayIn(timeZone, way.wholeAt), note: `For ${code}`, lines },
            order.id,
          ),
        );
      }
      // What is free by now must be held for it: somebody else may have been quicker.
      const isFree = way.fetches.every((f) => f.at.getTime() <= Date.now());
      if (isFree && (await this.lacks(tx, made))) throw badState(CHANGED);
      if (order.promised_at.getTime() < at.getTime()) await this.editing.promiseFor(tx, act, order, at);
      return { code, transfers: made };
    });
  }

  /** Whether some of what was asked for is not held. */
  private async lacks(tx: Tx, transfers: readonly string[]): Promise<boolean> {
    const found = await one<{ n: string | number }>(
      tx,
      `SELECT COUNT(*) AS n FROM earmark WHERE document IN (${marks(transfers)}) AND units < wanted_units`,
      [...transfers],
    );
    return num(found?.n) > 0;
  }
}
