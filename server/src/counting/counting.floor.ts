import { Injectable } from '@nestjs/common';
import { AboutWords, FloorCommands, FloorTasks, siteKey } from '../floor/index.js';
import type { Tx } from '../platform/index.js';
import { CountSpotCommandDto, ReportSpotCommandDto, SpotBundleDto } from './counting.dto.js';
import { CountingQueries } from './counting.queries.js';
import { CountsQueries } from './counts.queries.js';
import { SpotCounts } from './spot-counts.service.js';
import { TallyBinCommandDto, TallyBundleDto, TallyCodeCommandDto, TallyCommandDto } from './tally.dto.js';
import { Tallies } from './tally.service.js';

/** Counting at the floor's doors. */
@Injectable()
export class CountingFloor {
  constructor(
    commands: FloorCommands,
    tasks: FloorTasks,
    queries: CountingQueries,
    counts: SpotCounts,
    about: AboutWords,
    inCounts: CountsQueries,
    tallies: Tallies,
  ) {
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
    tasks.register({
      kind: 'tally',
      right: 'count',
      bundle: TallyBundleDto,
      read: async (tx, person, key) => {
        const task = await inCounts.task(tx, person, key.toUpperCase());
        return { task, siteId: task.siteId };
      },
    });
    const where = async (tx: Tx, c: { placeId: number; document: string }) => ({
      siteId: await about.siteOf(tx, { place: c.placeId }),
      document: c.document,
    });
    commands.register({
      kind: 'tally',
      right: 'count',
      dto: TallyCommandDto,
      work: (tx, act, command) => tallies.tally(tx, act, command),
      about: async (tx, c) => ({
        what: `${await about.goods(tx, c)} counted in ${await about.place(tx, c.placeId)}`,
        ...(await where(tx, c)),
      }),
    });
    commands.register({
      kind: 'tally-bin',
      right: 'count',
      dto: TallyBinCommandDto,
      work: (tx, act, command) => tallies.tallyBin(tx, act, command),
      about: async (tx, c) => ({ what: `All of ${await about.place(tx, c.placeId)} counted`, ...(await where(tx, c)) }),
    });
    commands.register({
      kind: 'tally-code',
      right: 'count',
      dto: TallyCodeCommandDto,
      work: (tx, act, command) => tallies.tallyCode(tx, act, command),
      about: async (tx, c) => ({ what: `${c.units} of ${c.code} in ${await about.place(tx, c.placeId)}`, ...(await where(tx, c)) }),
    });
  }
}
