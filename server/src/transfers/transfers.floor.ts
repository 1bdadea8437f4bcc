import { Injectable } from '@nestjs/common';
import { AboutWords, FloorCommands, FloorTasks } from '../floor/index.js';
import { find, type Tx } from '../platform/index.js';
import { GatheredDocuments } from './gathered-documents.js';
import { TakingIn } from './taking-in.service.js';
import {
  GatherBundleDto,
  GatherCommandDto,
  ParcelHereCommandDto,
  SendOffCommandDto,
  TakeInBundleDto,
  TakeInCloseCommandDto,
  TakeInCommandDto,
} from './transfers.dto.js';
import { TransfersQueries } from './transfers.queries.js';
import { Transfers } from './transfers.service.js';

/** Transfers at the floor's doors. */
@Injectable()
export class TransfersFloor {
  constructor(
    commands: FloorCommands,
    tasks: FloorTasks,
    queries: TransfersQueries,
    transfers: Transfers,
    takingIn: TakingIn,
    about: AboutWords,
    documents: GatheredDocuments,
  ) {
    documents.register('T', {
      task: (tx, code) => queries.gather(tx, code),
      gather: (tx, act, command) => transfers.gather(tx, act, command),
      siteOf: async (tx, code) => (await find(tx, 'transfer', { code }))?.from_site_id ?? null,
    });
    tasks.register({
      kind: 'gather',
      right: 'store',
      bundle: GatherBundleDto,
      read: async (tx, _, key) => {
        const task = await documents.of(key).task(tx, key.toUpperCase());
        return { task, siteId: task.siteId };
      },
    });
    tasks.register({
      kind: 'take-in',
      right: 'receive',
      bundle: TakeInBundleDto,
      read: async (tx, _, key) => {
        const task = await queries.takeIn(tx, key.toUpperCase());
        return { task, siteId: task.siteId };
      },
    });
    const end = async (tx: Tx, code: string, which: 'from_site_id' | 'to_site_id') =>
      (await find(tx, 'transfer', { code }))?.[which] ?? null;
    commands.register({
      kind: 'gather',
      right: 'store',
      dto: GatherCommandDto,
      work: (tx, act, command) => documents.of(command.document).gather(tx, act, command),
      about: async (tx, c) => ({
        what: `${await about.goods(tx, c)}, ${await about.place(tx, c.placeId)} for ${c.document}`,
        siteId: await documents.of(c.document).siteOf(tx, c.document),
        document: c.document,
      }),
    });
    commands.register({
      kind: 'send-off',
      right: 'store',
      dto: SendOffCommandDto,
      work: (tx, act, command) => transfers.send(tx, act, command),
      about: async (tx, c) => ({ what: `${c.document} sent off`, siteId: await end(tx, c.document, 'from_site_id'), document: c.document }),
    });
    commands.register({
      kind: 'take-in',
      right: 'receive',
      dto: TakeInCommandDto,
      work: (tx, act, command) => takingIn.takeIn(tx, act, command),
      about: async (tx, c) => ({
        what: `${await about.goods(tx, c)}, ${c.document} to ${await about.place(tx, c.toPlaceId)}`,
        siteId: await end(tx, c.document, 'to_site_id'),
        document: c.document,
      }),
    });
    commands.register({
      kind: 'parcel-here',
      right: 'receive',
      dto: ParcelHereCommandDto,
      work: (tx, act, command) => takingIn.parcelHere(tx, act, command),
      about: async (tx, c) => ({
        what: `parcel ${c.parcel} is here`,
        siteId: await end(tx, c.document, 'to_site_id'),
        document: c.document,
      }),
    });
    commands.register({
      kind: 'take-in-close',
      right: 'receive',
      dto: TakeInCloseCommandDto,
      work: (tx, act, command) => takingIn.close(tx, act, command),
      about: async (tx, c) => ({ what: `${c.document} closed`, siteId: await end(tx, c.document, 'to_site_id'), document: c.document }),
    });
  }
}
