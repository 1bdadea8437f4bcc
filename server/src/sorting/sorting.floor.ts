import { Injectable } from '@nestjs/common';
import { AboutWords, FloorCommands, FloorTasks } from '../floor/index.js';
import type { Tx } from '../platform/index.js';
import { SortMissingService } from './sort-missing.service.js';
import { SortBundleDto, SortCommandDto, SortMissingCommandDto } from './sorting.dto.js';
import { SortingQueries } from './sorting.queries.js';
import { SortingService } from './sorting.service.js';

/** Sorting at the floor's doors. Whoever may pick may sort. */
@Injectable()
export class SortingFloor {
  constructor(
    commands: FloorCommands,
    tasks: FloorTasks,
    queries: SortingQueries,
    sorting: SortingService,
    missing: SortMissingService,
    private readonly words: AboutWords,
  ) {
    tasks.register({
      kind: 'sort',
      right: 'pick',
      bundle: SortBundleDto,
      read: async (tx, _, key) => {
        const task = await queries.task(tx, key);
        return { task, siteId: task.siteId };
      },
    });
    commands.register({
      kind: 'sort',
      right: 'pick',
      dto: SortCommandDto,
      work: (tx, act, command) => sorting.sort(tx, act, command),
      about: async (tx, c) => this.round(tx, c.round, `${await this.words.goods(tx, c)} into ${await this.words.place(tx, c.slotPlaceId)}`),
    });
    commands.register({
      kind: 'sort-missing',
      right: 'pick',
      dto: SortMissingCommandDto,
      work: (tx, act, command) => missing.missing(tx, act, command),
      about: async (tx, c) =>
        this.round(tx, c.round, `${await this.words.goods(tx, c)} not in tote ${await this.words.place(tx, c.fromPlaceId)}`),
    });
  }

  private async round(tx: Tx, code: string, what: string) {
    return { what, siteId: await this.words.siteOf(tx, { document: code, table: 'round' }), document: code };
  }
}
