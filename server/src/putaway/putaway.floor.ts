import { Injectable } from '@nestjs/common';
import { AboutWords, FloorCommands, FloorTasks, siteKey } from '../floor/index.js';
import { RefillBundleDto, StoreBundleDto, StoreCommandDto } from './putaway.dto.js';
import { RefillQueries } from './refill.queries.js';
import { StoringService } from './storing.service.js';

/** Putting away and refilling at the floor's doors. */
@Injectable()
export class PutawayFloor {
  constructor(commands: FloorCommands, tasks: FloorTasks, storing: StoringService, refills: RefillQueries, about: AboutWords) {
    tasks.register({
      kind: 'store',
      right: 'store',
      bundle: StoreBundleDto,
      read: async (tx, _, key) => ({ task: await storing.task(tx, siteKey(key)), siteId: siteKey(key) }),
    });
    tasks.register({
      kind: 'refill',
      right: 'store',
      bundle: RefillBundleDto,
      read: async (tx, _, key) => ({ task: await refills.task(tx, siteKey(key)), siteId: siteKey(key) }),
    });
    commands.register({
      kind: 'store',
      right: 'store',
      dto: StoreCommandDto,
      work: (tx, act, command) => storing.store(tx, act, command),
      about: async (tx, c) => ({
        what: `${await about.goods(tx, c)}, ${await about.place(tx, c.fromPlaceId)} to ${await about.place(tx, c.toPlaceId)}`,
        siteId: await about.siteOf(tx, { place: c.fromPlaceId }),
        document: null,
      }),
    });
  }
}
