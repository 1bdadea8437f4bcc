import { FATES } from '@vectrum/core/customer-returns';
import { Injectable } from '@nestjs/common';
import { AboutWords, FloorCommands, FloorTasks } from '../floor/index.js';
import { find } from '../platform/index.js';
import { ComingBack } from './coming-back.service.js';
import { ComeBackBundleDto, ComeBackCommandDto } from './customer-returns.dto.js';
import { CustomerReturnQueries } from './customer-returns.queries.js';

/** Taking back at the floor's doors. */
@Injectable()
export class CustomerReturnsFloor {
  constructor(commands: FloorCommands, tasks: FloorTasks, queries: CustomerReturnQueries, comingBack: ComingBack, about: AboutWords) {
    tasks.register({
      kind: 'come-back',
      right: 'receive',
      bundle: ComeBackBundleDto,
      read: async (tx, person, key) => {
        const task = await queries.task(tx, person, key);
        return { task, siteId: task.siteId };
      },
    });
    commands.register({
      kind: 'come-back',
      right: 'receive',
      dto: ComeBackCommandDto,
      work: (tx, act, command) => comingBack.take(tx, act, command),
      about: async (tx, { code, itemId, units, fate }) => ({
        what: `${await about.goods(tx, { itemId, units })} back, ${FATES[fate].toLowerCase()}`,
        siteId: (await find(tx, 'customer_return', { code: code.toUpperCase() }))?.site_id ?? null,
        document: code.toUpperCase(),
      }),
    });
  }
}
