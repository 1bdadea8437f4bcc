import { Injectable } from '@nestjs/common';
import { AboutWords, FloorCommands, FloorTasks, siteKey } from '../floor/index.js';
import { CountSpotCommandDto, ReportSpotCommandDto, SpotBundleDto } from './counting.dto.js';
import { CountingQueries } from './counting.queries.js';
import { SpotCounts } from './spot-counts.service.js';

/** Counting at the floor's doors. */
@Injectable()
export class CountingFloor {
  constructor(commands: FloorCommands, tasks: FloorTasks, queries: CountingQueries, counts: SpotCounts, about: AboutWords) {
    tasks.register({
      kind: 'count',
      right: 'count',
      bundle: SpotBundleDto,
      read: async (tx, person, key) => ({ task: await queries.task(tx, person.id, siteKey(key)), siteId: siteKey(key) }),
    });
    commands.register({
      kind: 'count-spot',
      right: 'count',
      dto: CountSpotCommandDto,
      work: (tx, act, command) => counts.count(tx, act, command),
      about: async (tx, c) => ({
        what: `${await about.goods(tx, c)} counted in ${await about.place(tx, c.placeId)}`,
        siteId: await about.siteOf(tx, { place: c.placeId }),
        document: null,
      }),
    });
    commands.register({
      kind: 'report-spot',
      right: 'store',
      dto: ReportSpotCommandDto,
      work: (tx, act, command) => counts.report(tx, act, command),
      about: async (tx, c) => ({
        what: `Only ${await about.goods(tx, { itemId: c.itemId, units: c.there })} in ${await about.place(tx, c.placeId)}`,
        siteId: await about.siteOf(tx, { place: c.placeId }),
        document: null,
      }),
    });
  }
}
