import { Inject, Injectable } from '@nestjs/common';
import type { Logger } from 'pino';
import { DataSource } from 'typeorm';
import { LOGGER, one } from '../platform/index.js';
import { DemoBooks } from './books.js';
import { DemoBuying } from './buying.js';
import { DemoHistory } from './history.js';
import { DemoHouse } from './house.js';
import { DemoInspecting } from './inspecting.js';
import { DemoMorning } from './morning.js';
import { DemoOrders } from './orders.js';
import { DemoDemand } from './demand.js';
import { DemoDesk } from './desk.js';
import { DemoReturns } from './returns.js';
import { DemoCounts } from './counts.js';
import { DemoDispatch } from './dispatch.js';
import { DemoTransfers } from './transfers.js';
import { DemoUnread } from './unread.js';

/** Loads the made-up business into an empty database, through the same services that people use. */
@Injectable()
export class DemoLoader {
  constructor(
    private readonly source: DataSource,
    private readonly house: DemoHouse,
    private readonly history: DemoHistory,
    private readonly morning: DemoMorning,
    private readonly buying: DemoBuying,
    private readonly inspecting: DemoInspecting,
    private readonly orders: DemoOrders,
    private readonly unread: DemoUnread,
    private readonly desk: DemoDesk,
    private readonly dispatch: DemoDispatch,
    private readonly books: DemoBooks,
    private readonly returns: DemoReturns,
    private readonly counts: DemoCounts,
    private readonly transfers: DemoTransfers,
    private readonly demand: DemoDemand,
    @Inject(LOGGER) private readonly log: Logger,
  ) {}

  async loadOnce(): Promise<void> {
    if (await one(this.source, 'SELECT id FROM site LIMIT 1')) return;
    const begun = Date.now();
    await this.house.build();
    await this.buying.agree();
    await this.history.load();
    await this.morning.stockShelves();
    await this.counts.keep();
    await this.transfers.send();
    await this.orders.takeIn();
    await this.buying.hear(await this.morning.purchaseOrders());
    await this.inspecting.look();
    await this.orders.moveAlong();
    await this.desk.key();
    await this.unread.come();
    await this.dispatch.load();
    await this.books.keep();
    await this.returns.sendBack();
    await this.books.abroad();
    await this.demand.remember();
    this.log.info({ ms: Date.now() - begun }, 'demo business loaded');
  }
}
