import { Injectable } from '@nestjs/common';
import { PURPOSE_SAYS } from '@vectrum/core/scan';
import { AboutWords, FloorCommands, FloorTasks } from '../floor/index.js';
import type { Tx } from '../platform/index.js';
import { ConditionCommandDto, IssueCommandDto, MoveBundleDto, MoveCommandDto } from './moving.dto.js';
import { MovingQueries } from './moving.queries.js';
import { MovingService } from './moving.service.js';

/** Moving at the floor's doors. */
@Injectable()
export class MovingFloor {
  constructor(commands: FloorCommands, tasks: FloorTasks, queries: MovingQueries, moving: MovingService, about: AboutWords) {
    tasks.register({
      kind: 'move',
      right: 'store',
      bundle: MoveBundleDto,
      read: async (tx, _, key) => {
        const task = await queries.task(tx, key.toUpperCase());
        return { task, siteId: task.siteId };
      },
    });
    const at = async (tx: Tx, placeId: number) => ({ siteId: await about.siteOf(tx, { place: placeId }), document: null });
    commands.register({
      kind: 'move',
      right: 'store',
      dto: MoveCommandDto,
      work: (tx, act, command) => moving.move(tx, act, command),
      about: async (tx, c) => ({
        what: `${c.goods.length === 1 && c.goods[0] ? await about.goods(tx, c.goods[0]) : `${c.goods.length} lots of goods`}, ${await about.place(tx, c.fromPlaceId)} to ${await about.place(tx, c.toPlaceId)}`,
        ...(await at(tx, c.fromPlaceId)),
      }),
    });
    commands.register({
      kind: 'issue',
      right: 'store',
      dto: IssueCommandDto,
      work: (tx, act, command) => moving.issue(tx, act, command),
      about: async (tx, c) => ({
        what: `${PURPOSE_SAYS[c.purpose]}: ${await about.goods(tx, c)}, from ${await about.place(tx, c.placeId)}`,
        ...(await at(tx, c.placeId)),
      }),
    });
    commands.register({
      kind: 'condition',
      right: 'inspect',
      dto: ConditionCommandDto,
      work: (tx, act, command) => moving.condition(tx, act, command),
      about: async (tx, c) => ({
        what: `${await about.goods(tx, c)} in ${await about.place(tx, c.placeId)}: ${c.becomes}`,
        ...(await at(tx, c.placeId)),
      }),
    });
  }
}
