import { Injectable } from '@nestjs/common';
import { FloorCommands, FloorTasks } from '../floor/index.js';
import { HandOverCommandDto, LoadBundleDto, LoadCommandDto, UnloadCommandDto } from './dispatch.dto.js';
import { HandOverService } from './hand-over.service.js';
import { LanesQueries } from './lanes.queries.js';
import { LoadingService } from './loading.service.js';

const parcels = (codes: readonly string[]) => (codes.length === 1 ? `Parcel ${codes[0] ?? ''}` : `${codes.length} parcels`);

/** Loading and handing over at the floor's doors. */
@Injectable()
export class DispatchFloor {
  constructor(commands: FloorCommands, tasks: FloorTasks, lanes: LanesQueries, loading: LoadingService, handOvers: HandOverService) {
    tasks.register({
      kind: 'load',
      right: 'dispatch',
      bundle: LoadBundleDto,
      read: async (tx, _, key) => {
        const task = await lanes.task(tx, key);
        return { task, siteId: task.siteId };
      },
    });
    commands.register({
      kind: 'load',
      right: 'dispatch',
      dto: LoadCommandDto,
      work: (tx, act, command) => loading.load(tx, act, command),
      about: (_, { siteId, parcels: codes }) => Promise.resolve({ what: `${parcels(codes)} onto the van`, siteId, document: null }),
    });
    commands.register({
      kind: 'unload',
      right: 'dispatch',
      dto: UnloadCommandDto,
      work: (tx, act, command) => loading.unload(tx, act, command),
      about: (_, { siteId, parcel }) => Promise.resolve({ what: `Parcel ${parcel} off the van`, siteId, document: null }),
    });
    commands.register({
      kind: 'hand-over',
      right: 'dispatch',
      dto: HandOverCommandDto,
      work: (tx, act, command) => handOvers.signed(tx, act, command),
      about: (_, { siteId, parcels: codes, driver }) =>
        Promise.resolve({ what: `${parcels(codes)} handed to ${driver}`, siteId, document: null }),
    });
  }
}
